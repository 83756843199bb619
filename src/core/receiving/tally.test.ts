import fc from 'fast-check';
import { quantity } from '../quantity/quantity';
import {
  deliveriesOf,
  EMPTY,
  knowing,
  lacks,
  placeScan,
  settleFound,
  settleNumber,
  talliedLines,
  talliedOf,
  type AwaitedLine,
  type Scan,
  type Tally,
} from './tally';

const q = (n: number) => quantity(n * 10_000);
const line = (lineId: number, due: number, more: Partial<AwaitedLine> = {}): AwaitedLine => ({
  lineId,
  orderId: lineId,
  order: `K26-000${lineId}`,
  version: 1,
  supplierId: 1,
  supplier: 'Pellam Bearings',
  itemId: 7,
  description: 'Bearing',
  number: 'BE-1',
  unit: 'C62',
  due: q(due),
  ordered: q(due),
  tracking: 'none',
  numberPattern: '',
  toItem: { many: 1, one: 1 },
  jobs: ['412'],
  ...more,
});
/** Scans one code after the other on lines, as the dock does. */
const scanning = (lines: readonly AwaitedLine[], counts: readonly number[], within = {}): Tally =>
  counts.reduce<Tally>((tally, count, k) => {
    const known = knowing(tally, lines);
    const placed = placeScan(known, lines, count, within);
    const scan: Scan = { key: `${k}`, code: 'BE-1', count, placed };
    return { ...known, scans: [...known.scans, placed.length === 0 ? { ...scan, aside: 'more' } : scan] };
  }, EMPTY);
const counted = (tally: Tally) => tally.lines.map((l) => talliedOf(tally, l.lineId) / 10_000);

describe('what is scanned', () => {
  it('goes to the line that awaits it longest until that is full, then to the next', () => {
    expect(counted(scanning([line(1, 2), line(2, 3)], [1, 1, 1]))).toEqual([2, 1]);
    expect(counted(scanning([line(1, 2), line(2, 3)], [4]))).toEqual([2, 2]);
  });

  it('goes to the order or the supplier in hand alone', () => {
    const lines = [line(1, 2), line(2, 3, { supplierId: 2 })];
    expect(counted(scanning(lines, [1, 1], { supplierId: 2 }))).toEqual([0, 2]);
    expect(counted(scanning(lines, [1, 1, 1], { orderId: 1 }))).toEqual([2, 0]);
  });

  it('is set aside when more comes than is awaited, and nothing of it is counted', () => {
    const tally = scanning([line(1, 2)], [1, 2]);
    expect(counted(tally)).toEqual([1]);
    expect(tally.scans.map((s) => s.aside)).toEqual([undefined, 'more']);
  });

  it('never counts more than is due, and all that is not set aside', () => {
    const dues = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(dues, fc.array(fc.integer({ min: 1, max: 4 }), { maxLength: 30 }), (due, counts) => {
        const tally = scanning(
          due.map((d, k) => line(k + 1, d)),
          counts,
        );
        counted(tally).forEach((c, k) => expect(c).toBeLessThanOrEqual(due[k] ?? 0));
        const kept = tally.scans.filter((s) => s.aside === undefined).reduce((sum, s) => sum + s.count, 0);
        expect(counted(tally).reduce((a, b) => a + b, 0)).toBe(kept);
      }),
    );
  });

  it('asks for as many serial numbers as pieces, and makes a delivery of each order', () => {
    const pump = line(3, 2, { tracking: 'serial', orderId: 9 });
    const placed = [{ lineId: 3, quantity: q(1) }];
    const none = [{ lineId: 3, quantity: quantity(0) }];
    const scans: Scan[] = [
      { key: 'a', code: 'PU-1', count: 1, placed },
      { key: 'b', code: 'SN-1', count: 0, serial: 'SN-1', placed: none },
      { key: 'c', code: 'PU-1', count: 1, placed },
    ];
    const tally: Tally = { lines: [pump], scans };
    expect(talliedLines(tally).map((t) => [t.quantity / 10_000, t.serials, lacks(t)])).toEqual([[2, ['SN-1'], 1]]);
    const all = { ...tally, scans: [...scans, { ...scans[1], key: 'd', code: 'SN-2', serial: 'SN-2' } as Scan] };
    expect(deliveriesOf(all, (id) => ({ rest: id }))).toMatchObject([
      {
        orderId: 9,
        arrivals: [{ lineId: 3, arrives: q(2), rest: 3, numbers: [{ number: 'SN-1' }, { number: 'SN-2' }] }],
      },
    ]);
  });

  it('adds up what comes of each lot', () => {
    const paint = line(4, 9, { tracking: 'lot' });
    const of = (key: string, lot: string, n: number): Scan => ({
      ...{ key, code: lot, count: n, lot, expiresOn: '2027-01-31' },
      placed: [{ lineId: 4, quantity: q(n) }],
    });
    const tally: Tally = { lines: [paint], scans: [of('a', 'L-1', 2), of('b', 'L-2', 1), of('c', 'L-1', 3)] };
    expect(talliedLines(tally)[0]?.lots.map((l) => [l.number, l.quantity / 10_000])).toEqual([
      ['L-2', 1],
      ['L-1', 5],
    ]);
  });
});

describe('a code', () => {
  const waiting = (code: string): Scan => ({ key: code, code, count: 1, placed: [], waits: true });
  const pump = line(3, 2, { tracking: 'serial', description: 'Pump' });
  const begin = (tally: Tally, code: string): Tally => ({ ...tally, scans: [...tally.scans, waiting(code)] });
  const look = (tally: Tally, code: string, lines: readonly AwaitedLine[], said = {}, within = {}) => {
    const part = lines.length > 0 ? { name: lines[0]?.description ?? '' } : null;
    return settleFound(begin(tally, code), waiting(code), { count: 1, ...said }, { part, lines }, within);
  };

  it('counts on the order that it names, else on the line that awaits it longest', () => {
    const lines = [line(1, 5), line(2, 5)];
    expect(look(EMPTY, 'a', lines, { order: 'K26-0002' }).tally.scans[0]?.placed).toEqual([
      { lineId: 2, quantity: q(1) },
    ]);
    expect(look(EMPTY, 'a', lines, { order: 'K26-9' }).tally.scans[0]?.placed[0]?.lineId).toBe(1);
  });

  it.each([
    ['no part of ours', [], {}, {}, 'No item has this code.'],
    ['more than is due', [line(1, 2)], { count: 3 }, {}, 'More Bearing than is due.'],
    ['of another order than is in hand', [line(1, 2)], {}, { orderId: 2 }, 'Bearing is due on a different order.'],
  ])('is set aside when it is %s, and says so', (_, lines, said, within, words) => {
    const settled = look(EMPTY, 'a', lines, said, within);
    expect(settled).toMatchObject({ words, took: false });
    expect(settled.tally.scans).toEqual([{ key: 'a', code: 'a', count: 1, placed: [], aside: words }]);
  });

  it('is set aside when the part is not due at all', () => {
    const found = { part: { name: 'Pump' }, lines: [] };
    expect(settleFound(begin(EMPTY, 'a'), waiting('a'), { count: 1 }, found, {}).words).toBe(
      'Pump is not due on any order.',
    );
  });

  it('that is no part is the serial number of the piece before it, once', () => {
    const one = look(EMPTY, 'P', [pump]).tally;
    const numbered = look(one, 'SN-1', []);
    expect(numbered).toMatchObject({ took: true, words: 'SN-1 belongs to Pump' });
    const two = look(numbered.tally, 'P', [pump]).tally;
    expect(look(two, 'sn-1', [])).toMatchObject({ took: false, words: 'sn-1 is already scanned.' });
    expect(look(two, 'X', [pump], { serial: 'SN-1' }).words).toBe('SN-1 is already scanned.');
    // Nothing waits for a number any more: it is no part of ours.
    expect(look(look(two, 'SN-2', []).tally, 'SN-3', []).words).toBe('No item has this code.');
  });

  it('that reads as a number does is not looked up where a piece waits for it', () => {
    const known = look(EMPTY, 'P', [{ ...pump, numberPattern: 'SN-9999' }]).tally;
    expect(settleNumber(begin(known, 'SN-0001'), waiting('SN-0001'))?.took).toBe(true);
    expect(settleNumber(begin(known, 'BE-1'), waiting('BE-1'))).toBeUndefined();
    expect(settleNumber(begin(EMPTY, 'SN-0001'), waiting('SN-0001'))).toBeUndefined();
  });
});
