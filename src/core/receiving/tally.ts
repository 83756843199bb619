import type { Tracking } from '../items/kinds';
import { patternFault } from '../stores/numbers';
import {
  addQ,
  atLeastNone,
  least,
  NONE,
  ONE,
  quantity,
  subtractQ,
  type Factor,
  type Quantity,
} from '../quantity/quantity';

/** A line that a scan may go to, as the dock awaits it; quantities in its unit. */
export type AwaitedLine = {
  readonly lineId: number;
  readonly orderId: number;
  readonly order: string;
  readonly version: number;
  readonly supplierId: number;
  readonly supplier: string;
  readonly itemId: number | null;
  readonly description: string;
  readonly number: string;
  readonly unit: string;
  readonly due: Quantity;
  readonly ordered: Quantity;
  readonly tracking: Tracking;
  readonly numberPattern: string;
  /** From its unit to the item's, which numbers are counted in. */
  readonly toItem: Factor;
  readonly jobs: readonly string[];
};

/** What a code said beside the part that it is of. */
export type CodeSaid = {
  readonly count: number;
  readonly lot?: string | undefined;
  readonly serial?: string | undefined;
  readonly expiresOn?: string | undefined;
};

/** So much of a line, as one scan counted it. */
export type Placed = {
  readonly lineId: number;
  readonly quantity: Quantity;
};

/** One code that was scanned, in the order in which they came. */
export type Scan = CodeSaid & {
  readonly key: string;
  readonly code: string;
  /** Where it was counted; nowhere while it waits for an answer, or where nobody awaits it. */
  readonly placed: readonly Placed[];
  /** Why it is set aside; undefined while it is counted, or waits. */
  readonly aside?: string | undefined;
  /** Not looked up yet: the server could not be asked. */
  readonly waits?: true | undefined;
};

/** What is not right of a line, as it is typed: how much of it is rejected and why, and what becomes of the rest. */
export type NotRight = {
  readonly rejected: string;
  /** The id of a choice as text; empty for none. */
  readonly reason: string;
  readonly rest: string;
  readonly restDay: string;
};
export const ALL_RIGHT: NotRight = { rejected: '', reason: '', rest: '', restDay: '' };

export type Tally = {
  readonly scans: readonly Scan[];
  readonly lines: readonly AwaitedLine[];
  readonly notRight?: Readonly<Record<number, NotRight>>;
  /** The number of the delivery note. */
  readonly note?: string;
};

export const EMPTY: Tally = { scans: [], lines: [] };

/** How much of a line is tallied so far. */
export const talliedOf = (tally: Tally, lineId: number): Quantity =>
  addQ(NONE, ...tally.scans.flatMap((s) => s.placed.filter((p) => p.lineId === lineId).map((p) => p.quantity)));

/** What is in hand: one order or one supplier, where one is chosen. */
export type InHand = { readonly orderId?: number | undefined; readonly supplierId?: number | undefined };

/** Whether a line is of the order, or the supplier, that is in hand. */
export const isInHand = (line: AwaitedLine, { orderId, supplierId }: InHand): boolean =>
  (orderId === undefined || line.orderId === orderId) && (supplierId === undefined || line.supplierId === supplierId);

/**
 * Counts a scan on the lines that await it: the oldest first until it is full, then the next.
 *
 * @param candidates - lines of what was scanned, the oldest first, each with what is still due
 * @returns where it is counted; nothing where less is awaited than was scanned
 */
export function placeScan(
  tally: Tally,
  candidates: readonly AwaitedLine[],
  count: number,
  within: InHand = {},
): Placed[] {
  let left = quantity(count * ONE);
  const placed: Placed[] = [];
  for (const line of candidates) {
    if (!isInHand(line, within)) continue;
    const room = atLeastNone(subtractQ(line.due, talliedOf(tally, line.lineId)));
    const part = least(left, room);
    if (part <= 0) continue;
    placed.push({ lineId: line.lineId, quantity: part });
    left = subtractQ(left, part);
  }
  return left > 0 ? [] : placed;
}

/** The tally with the lines that were told of last in the place of what was known of them. */
export const knowing = (tally: Tally, lines: readonly AwaitedLine[]): Tally => ({
  ...tally,
  lines: [...tally.lines.filter((l) => !lines.some((n) => n.lineId === l.lineId)), ...lines],
});

/** A line of the tally as it is shown: how much of it, and by which numbers. */
export type TalliedLine = {
  readonly line: AwaitedLine;
  readonly quantity: Quantity;
  readonly serials: readonly string[];
  readonly lots: readonly { readonly number: string; readonly expiresOn: string | null; readonly quantity: Quantity }[];
};

/** What was tallied, line by line, the last that was scanned first. */
export function talliedLines(tally: Tally): TalliedLine[] {
  const shown = new Map<number, TalliedLine>();
  for (const scan of tally.scans.toReversed())
    for (const { lineId, quantity: q } of scan.placed) {
      const line = tally.lines.find((l) => l.lineId === lineId);
      if (line === undefined) continue;
      const was = shown.get(lineId) ?? { line, quantity: NONE, serials: [], lots: [] };
      shown.set(lineId, {
        line,
        quantity: addQ(was.quantity, q),
        serials: scan.serial === undefined ? was.serials : [scan.serial, ...was.serials],
        lots: scan.lot === undefined ? was.lots : withLot(was.lots, scan.lot, scan.expiresOn ?? null, inItem(q, line)),
      });
    }
  return [...shown.values()];
}

const inItem = (q: Quantity, { toItem: { many, one } }: AwaitedLine): Quantity =>
  quantity(Math.round((q * many) / one));

function withLot(
  lots: TalliedLine['lots'],
  number: string,
  expiresOn: string | null,
  q: Quantity,
): TalliedLine['lots'] {
  const known = lots.find((l) => l.number === number);
  return known === undefined
    ? [{ number, expiresOn, quantity: q }, ...lots]
    : lots.map((l) => (l === known ? { ...l, quantity: addQ(l.quantity, q) } : l));
}

/** What is missing before a tallied line can be taken in: serial numbers, or its lot. */
export function lacks({ line, quantity: q, serials, lots }: TalliedLine): number {
  const pieces = inItem(q, line) / ONE;
  if (line.tracking === 'serial') return Math.max(pieces - serials.length, 0);
  return line.tracking === 'lot' && lots.length === 0 ? 1 : 0;
}

/**
 * The deliveries that a tally makes, an order each, as they are taken in.
 * @param notRight - what is not right of a line, read from what was typed
 */
export function deliveriesOf<R extends object>(tally: Tally, notRight: (lineId: number) => R) {
  const byOrder = new Map<number, TalliedLine[]>();
  for (const t of talliedLines(tally)) byOrder.set(t.line.orderId, [...(byOrder.get(t.line.orderId) ?? []), t]);
  return [...byOrder].map(([orderId, lines]) => ({
    orderId,
    version: lines[0]?.line.version ?? 0,
    arrivals: lines.map(({ line, quantity: q, serials, lots }) => ({
      lineId: line.lineId,
      arrives: q,
      keepOver: false,
      ...notRight(line.lineId),
      numbers:
        line.tracking === 'serial'
          ? serials.map((number) => ({ number, expiresOn: null, quantity: ONE }))
          : line.tracking === 'lot'
            ? [...lots]
            : [],
    })),
  }));
}

/** The line whose last piece waits for its serial number. */
const wantsNumber = (tally: Tally): AwaitedLine | undefined =>
  talliedLines(tally).find((t) => t.line.tracking === 'serial' && lacks(t) > 0)?.line;

const hasNumber = (tally: Tally, number: string): boolean =>
  tally.scans.some((s) => s.serial?.toUpperCase() === number.toUpperCase());

/** A code that waited, counted or set aside, with what is told of it. */
export type Settled = { readonly tally: Tally; readonly words: string; readonly took: boolean };

function settled(tally: Tally, scan: Scan, words: string): Settled {
  const scans = tally.scans.map((s) => (s.key === scan.key ? scan : s));
  return { tally: { ...tally, scans }, words, took: scan.aside === undefined };
}

/** Sets a code aside, and says why. */
export function setAside(tally: Tally, { waits: _, ...scan }: Scan, words: string): Settled {
  return settled(tally, { ...scan, placed: [], aside: words }, words);
}

function asNumber(tally: Tally, { waits: _, ...scan }: Scan, line: AwaitedLine): Settled {
  const { code } = scan;
  if (hasNumber(tally, code)) return setAside(tally, scan, `${code} is already scanned.`);
  const fault = patternFault(code, line.numberPattern);
  if (fault !== undefined) return setAside(tally, scan, fault.message);
  const placed = [{ lineId: line.lineId, quantity: NONE }];
  return settled(tally, { ...scan, count: 0, serial: code, placed }, `${code} belongs to ${line.description}`);
}

/** A code that reads as the serial number a piece waits for is that number; undefined where it must be looked up. */
export function settleNumber(tally: Tally, scan: Scan): Settled | undefined {
  const line = wantsNumber(tally);
  const reads =
    line !== undefined && line.numberPattern !== '' && patternFault(scan.code, line.numberPattern) === undefined;
  return reads ? asNumber(tally, scan, line) : undefined;
}

/** What a code is of: the part of that name, and the lines that await it, the oldest first. */
export type ScanFound = { readonly part: { readonly name: string } | null; readonly lines: readonly AwaitedLine[] };

/**
 * Counts a code that was looked up on the lines that await it, or sets it aside. A code that is no part is the serial
 * number of the piece that was scanned before it.
 *
 * @param said - what the code said, with the number of an order where it names one
 */
export function settleFound(
  tally: Tally,
  scan: Scan,
  { order, ...said }: CodeSaid & { readonly order?: string | undefined },
  found: ScanFound,
  within: InHand,
): Settled {
  const aside = (words: string) => setAside(tally, scan, words);
  if (found.part === null && found.lines.length === 0) {
    const line = wantsNumber(tally);
    return line === undefined ? aside('No item has this code.') : asNumber(tally, scan, line);
  }
  if (said.serial !== undefined && hasNumber(tally, said.serial)) return aside(`${said.serial} is already scanned.`);
  const known = knowing(tally, found.lines);
  const ordered = found.lines.filter((l) => l.order === order);
  const placed = placeScan(known, ordered.length > 0 ? ordered : found.lines, said.count, within);
  const name = found.part?.name ?? found.lines[0]?.description ?? '';
  if (found.lines.length === 0) return aside(`${name} is not due on any order.`);
  if (!found.lines.some((l) => isInHand(l, within))) return aside(`${name} is due on a different order.`);
  if (placed.length === 0) return aside(`More ${name} than is due.`);
  const { waits: _, ...own } = scan;
  return settled(known, { ...own, ...said, placed }, `${name} scanned`);
}
