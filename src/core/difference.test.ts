import fc from 'fast-check';
import { difference } from './difference';

describe('what changed of a record', () => {
  it('keeps only the fields that differ', () =>
    expect(difference({ price: 5, unit: 'm', note: null }, { price: 6, unit: 'm', note: null })).toEqual({
      price: { from: 5, to: 6 },
    }));

  it('knows the rows of a list by their id, so that one taken off moves no other', () =>
    expect(
      difference(
        {
          lines: [
            { id: 7, quantity: 1 },
            { id: 9, quantity: 2 },
          ],
        },
        { lines: [{ id: 9, quantity: 3 }] },
      ),
    ).toEqual({
      'lines.#7': { from: { id: 7, quantity: 1 } },
      'lines.#9.quantity': { from: 2, to: 3 },
    }));

  it('tells what is new and what is gone', () =>
    expect(difference({ a: 1 }, { b: 2 })).toEqual({ a: { from: 1 }, b: { to: 2 } }));

  it('is empty only for equal records', () => {
    const record = fc.dictionary(
      fc.constantFrom('a', 'b', 'c'),
      fc.oneof(fc.integer(), fc.string(), fc.constant(null)),
    );
    fc.assert(
      fc.property(record, record, (a, b) => {
        const same = Object.keys(difference(a, b)).length === 0;
        const equal = JSON.stringify(Object.entries(a).sort()) === JSON.stringify(Object.entries(b).sort());
        expect(same).toBe(equal);
      }),
    );
  });
});
