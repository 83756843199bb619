import { minor } from '../money/money';
import { NONE, quantity, type Quantity } from '../quantity/quantity';
import { ownToPick, pickingList, pickScanned, type PickTarget, type ToPick } from './picking';
import { countScanned, differenceOf, worthOfDifferences, type SheetTarget } from './sheet';
import type { KnownSpot } from './spots';

const q = (n: number): Quantity => quantity(n * 10_000);

const spot = (bin: string, n: number, more: Partial<KnownSpot> = {}): KnownSpot => ({
  ...{
    binId: bin === '' ? null : bin.codePointAt(1)! + bin.length * 100,
    bin,
    lotId: null,
    expiresOn: null,
    quantity: q(n),
  },
  ...more,
});

const line = (key: string, wanted: number, more: Partial<ToPick> = {}): ToPick => ({
  ...{
    key,
    description: key,
    itemNumber: key,
    codes: [key],
    tracking: 'none',
    place: 'Bay 3',
    pile: 'p',
    wanted: q(wanted),
  },
  ...more,
});

describe('a job’s own stock', () => {
  const pile = (itemId: number, n: number) => ({ itemId, left: q(n) });
  const wants = (needId: number, itemId: number, n: number) => ({ needId, itemId, wants: q(n) });
  const told = (...of: Parameters<typeof ownToPick>) =>
    ownToPick(...of).map((o) => [o.pile.itemId, o.needId, o.quantity / 10_000]);

  it('goes to its lines in the order in which they are needed, from each pile in turn, and no more than they want', () => {
    const lines = [wants(11, 1, 4), wants(12, 2, 5), wants(13, 1, 9)];
    expect(told([pile(1, 6), pile(1, 3), pile(2, 9)], lines)).toEqual([
      [1, 11, 4],
      [1, 13, 2],
      [1, 13, 3],
      [2, 12, 5],
    ]);
    expect(told([pile(1, -2)], lines)).toEqual([]);
  });
});

describe('what differences come to', () => {
  it('is together what is posted for the pile', () => {
    const pile = { quantity: q(3), value: minor(1000) };
    const by = [q(-1), q(-1), q(-1)].map((n) => ({ by: n as Quantity, piece: null }));
    expect(worthOfDifferences(by, pile)).toEqual([-334, -333, -333]);
  });

  it('is of a piece that is missed what that piece is worth', () => {
    const pile = { quantity: q(2), value: minor(1000) };
    expect(worthOfDifferences([{ by: q(-1), piece: minor(700) }], pile)).toEqual([-700]);
  });
});

describe('a picking list', () => {
  it('walks place by place and bin by bin, A2 before A10', () => {
    const lines = [
      line('c', 1, { pile: 'c', place: 'Slip' }),
      line('b', 1, { pile: 'b' }),
      line('a', 1, { pile: 'a' }),
    ];
    const spots = new Map([
      ['a', [spot('A10', 1)]],
      ['b', [spot('A2', 1)]],
      ['c', [spot('A1', 1)]],
    ]);
    expect(pickingList(lines, spots).map((l) => [l.key, l.from[0]?.bin])).toEqual([
      ['b', 'A2'],
      ['a', 'A10'],
      ['c', 'A1'],
    ]);
  });

  it('does not give two lines the same goods, and what passes its date first goes first', () => {
    const spots = new Map([
      [
        'p',
        [spot('A1', 4, { lotId: 1, expiresOn: '2027-01-01' }), spot('A2', 5, { lotId: 2, expiresOn: '2026-06-01' })],
      ],
    ]);
    const picked = pickingList([line('a', 6, { tracking: 'lot' }), line('b', 3, { tracking: 'lot' })], spots);
    const [first, second] = ['a', 'b'].map((key) => picked.find((l) => l.key === key));
    expect([...(first?.from ?? []), ...(second?.from ?? [])].map((f) => [f.lotId, f.quantity])).toEqual([
      [2, q(5)],
      [1, q(1)],
      [1, q(3)],
    ]);
  });

  it('lets pieces with serial numbers be chosen', () => {
    const spots = new Map([['p', [spot('A1', 1, { lotId: 7 }), spot('A2', 1, { lotId: 8 })]]]);
    const [own] = pickingList([line('a', 1, { tracking: 'serial' })], spots);
    expect([own?.from, own?.pieces]).toEqual([
      [],
      [
        { lotId: 7, bin: 'A1' },
        { lotId: 8, bin: 'A2' },
      ],
    ]);
  });

  it('tells of less where less is there', () =>
    expect(pickingList([line('a', 6)], new Map([['p', [spot('A1', 4)]]]))[0]?.from).toEqual([
      { bin: 'A1', lotId: null, quantity: q(4) },
    ]));
});

const target = (key: string, wanted: number, numbers: readonly string[] = []): PickTarget => ({
  ...{ key, description: key, codes: [key, `gtin ${key}`], wanted: q(wanted), numbers },
  tracking: numbers.length > 0 ? 'serial' : 'none',
});

describe('picking by scan', () => {
  const lines = [target('TU-1', 2), target('TU-1', 1), target('PU-1', 1, ['SN-1', 'SN-2'])].map((l, k) => ({
    ...l,
    key: `${k}`,
  }));
  const scan = (words: string, picks = {}, count = 1) => pickScanned(lines, picks, { words: [words], count });

  it('fills the first line of a part, then the next, and no more than is wanted', () => {
    const one = scan('tu-1');
    const three = scan('GTIN TU-1', one.picks, 5);
    expect(three.picks).toEqual({ 0: { quantity: q(2), numbers: [] } });
    const full = scan('TU-1', three.picks);
    expect(full.picks['1']).toEqual({ quantity: q(1), numbers: [] });
    expect(scan('TU-1', full.picks)).toMatchObject({ took: false, picks: full.picks, words: 'All of TU-1 is picked.' });
  });

  it('picks a piece by its number, once, and by nothing else', () => {
    expect(scan('PU-1')).toMatchObject({
      took: false,
      words: 'PU-1 is tracked by serial or lot number: scan one in stock there.',
    });
    const one = scan('sn-2');
    expect(one.picks['2']).toEqual({ quantity: q(1), numbers: ['SN-2'] });
    expect(scan('SN-2', one.picks)).toMatchObject({ took: false, words: 'SN-2 already picked.' });
    expect(scan('SN-1', one.picks)).toMatchObject({ took: false, picks: one.picks });
  });

  it('says of a strange code that nothing goes by it', () =>
    expect(scan('XX')).toEqual({ took: false, picks: {}, words: 'No line on this list has this code.' }));
});

describe('a counting sheet', () => {
  it('differs by what was counted against the book of that moment', () => {
    expect(differenceOf({ counted: q(10), book: q(12) })).toBe(-q(2));
    expect(differenceOf({ counted: NONE, book: q(12) })).toBe(-q(12));
    expect(differenceOf({ counted: null, book: q(12) })).toBeNull();
  });

  const row = (id: number, number: string | null, counted: number | null, code = 'TU-1'): SheetTarget => ({
    ...{ id, number, codes: [code], description: code, tracking: number === null ? 'none' : 'serial' },
    counted: counted === null ? null : q(counted),
  });

  it('counts one more of a part, a piece by its number once, and nothing by a strange code', () => {
    const lines = [row(1, null, 3), row(2, 'SN-1', null, 'PU-1'), row(3, 'SN-2', 1, 'PU-1')];
    const scan = (words: string, count = 1) => countScanned(lines, { words: [words], count });
    expect(scan('tu-1', 2)).toMatchObject({ line: { id: 1 }, counted: q(5) });
    expect(scan('SN-1')).toMatchObject({ line: { id: 2 }, counted: q(1) });
    expect(scan('SN-2')).toEqual({ words: 'SN-2 is already counted.' });
    expect(scan('PU-1')).toEqual({ words: 'PU-1 is tracked by serial or lot number: scan one of them.' });
    expect(scan('XX')).toEqual({ words: 'No line on this sheet has this code.' });
  });
});
