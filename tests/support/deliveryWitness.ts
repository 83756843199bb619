import Big from 'big.js';
import { num, whole, type Row } from './plainSums';

export type Stages = { planned: number; drafted: number; onOrder: number; received: number; actual: number };
export const none = (): Stages => ({ planned: 0, drafted: 0, onOrder: 0, received: 0, actual: 0 });
export const UNSENT = ['drafting', 'heldOpen', 'withSignOff', 'readyToSend', 'sending'];

export type Part = {
  id: number;
  job: unknown;
  code: unknown;
  need: unknown;
  quantity: number;
  value: number;
  place: number;
  /** Goods of an item for stores. */
  stored: boolean;
};
export type Line = {
  id: number;
  order: unknown;
  kind: string;
  quantity: number;
  many: number;
  one: number;
  parts: Part[];
  state: string;
  closed: boolean;
  ended: boolean;
};

export type Came = { received: number; invoiced: number; amount: number; claimed: number; givenUp: number };
export const nothingCame = (): Came => ({ received: 0, invoiced: 0, amount: 0, claimed: 0, givenUp: 0 });

export const inShares = (line: Line, q: number): number => whole(new Big(q).times(line.many).div(line.one));

/** Replays what came to the dock and what went from it, one receipt after the other. */
export function deliveries(
  lines: ReadonlyMap<number, Line>,
  at: (part: number) => Came,
  receiptLines: readonly Row[],
  wanted: (p: Part) => string,
) {
  const lineCame = new Map<number, { received: number; invoiced: number; givenUp: number }>();
  const wentBack = new Map<number, [part: number, q: number, up: number][]>();
  const ofLine = (id: number) => {
    const known = lineCame.get(id) ?? { received: 0, invoiced: 0, givenUp: 0 };
    lineCame.set(id, known);
    return known;
  };
  const brought = new Map<number, [split: number, q: number][]>();
  const receive = (subjectId: number) => {
    for (const r of receiptLines.filter((x) => x.receiptId === subjectId)) {
      const line = lines.get(num(r.lineId)) as Line;
      const before = ofLine(line.id).received;
      let left = inShares(line, before + num(r.accepted)) - inShares(line, before);
      const order = [...line.parts].sort((a, b) => wanted(a).localeCompare(wanted(b)) || a.place - b.place);
      order.forEach((p, k) => {
        const room = Math.max(0, p.quantity - at(p.id).givenUp - at(p.id).received);
        const part = k === order.length - 1 ? left : Math.min(left, room);
        at(p.id).received += part;
        left -= part;
        brought.set(subjectId, [...(brought.get(subjectId) ?? []), [p.id, part]]);
      });
      ofLine(line.id).received += num(r.accepted);
    }
  };
  const sendBack = (subjectId: number) => {
    for (const r of receiptLines.filter((x) => x.receiptId === subjectId)) {
      const line = lines.get(num(r.lineId)) as Line;
      const known = ofLine(line.id);
      const before = known.received;
      known.received += num(r.accepted);
      // Who needs it last gives it up first.
      const order = [...line.parts].sort((a, b) => wanted(a).localeCompare(wanted(b)) || a.place - b.place).reverse();
      let goes = inShares(line, before) - inShares(line, known.received);
      let credit = inShares(line, known.givenUp + num(r.givenUp)) - inShares(line, known.givenUp);
      const gave: [number, number, number][] = [];
      order.forEach((p, k) => {
        const c = at(p.id);
        const q = Math.min(goes, c.received);
        const room =
          num(r.accepted) < 0 ? q : k === order.length - 1 ? credit : Math.max(0, p.quantity - c.givenUp - c.received);
        const up = num(r.givenUp) === 0 ? 0 : Math.min(num(r.accepted) < 0 ? q : credit, room);
        c.received -= q;
        c.givenUp += up;
        goes -= q;
        credit -= up;
        gave.push([p.id, q, up]);
      });
      known.givenUp += num(r.givenUp);
      wentBack.set(subjectId, [...(wentBack.get(subjectId) ?? []), ...gave]);
    }
  };
  const comeAgain = (subjectId: number) => {
    for (const [id, q, up] of wentBack.get(subjectId) ?? []) {
      at(id).received += q;
      at(id).givenUp -= up;
    }
    for (const r of receiptLines.filter((x) => x.receiptId === subjectId)) {
      const known = ofLine(num(r.lineId));
      known.received -= num(r.accepted);
      known.givenUp -= num(r.givenUp);
    }
  };
  const takeBack = (subjectId: number) => {
    if (wentBack.has(subjectId)) return comeAgain(subjectId);
    for (const r of receiptLines.filter((x) => x.receiptId === subjectId)) {
      const line = lines.get(num(r.lineId)) as Line;
      const known = ofLine(line.id);
      known.received -= num(r.accepted);
      // What the parts hold together follows what the line holds: each gives back what it had, the rest the first that can.
      let left = line.parts.reduce((a, p) => a + at(p.id).received, 0) - inShares(line, known.received);
      const had = new Map(brought.get(subjectId) ?? []);
      for (const most of [(id: number) => had.get(id) ?? 0, (id: number) => at(id).received])
        for (const p of line.parts) {
          const part = Math.min(left, most(p.id), at(p.id).received);
          at(p.id).received -= part;
          left -= part;
        }
    }
    return undefined;
  };
  // Older files call the last two by other names.
  return { receive, inspect: receive, returnGoods: sendBack, sendBack, reverseReceipt: takeBack, takeBack, ofLine };
}

/** What goods that came are worth: what is owed for them, and their share of what was invoiced. */
export const inHand = ({ received, actual }: Stages, c: Came): number =>
  c.received >= c.invoiced ? received + actual : whole(new Big(actual).times(c.received).div(c.invoiced));

/** Stores hold what lies there: what is invoiced beyond that is still on its way. */
export function storing(part: Part, stages: Stages, c: Came): Stages {
  if (!part.stored) return stages;
  const there = inHand(stages, c) - stages.received;
  return { ...stages, actual: there, onOrder: stages.onOrder + stages.actual - there };
}

export function stagesOf(line: Line, part: Part, c: Came): Stages {
  const stages = none();
  if (line.state === 'cancelled') return stages;
  if (UNSENT.includes(line.state)) return { ...stages, drafted: part.value };
  const worth = (q: number): number => {
    const exact = (x: number) => whole(new Big(part.value).times(x).div(part.quantity));
    return q <= part.quantity ? exact(q) : part.value + exact(q - part.quantity);
  };
  stages.actual = c.amount;
  if (line.ended) return stages;
  if (c.received > c.invoiced) stages.received = worth(c.received) - worth(c.invoiced);
  const reached = Math.min(Math.max(c.received, c.invoiced), part.quantity);
  const expected = line.closed
    ? Math.min(Math.max(c.received, c.invoiced + c.claimed), part.quantity)
    : part.quantity - c.givenUp;
  stages.onOrder = worth(Math.max(expected, reached)) - worth(reached);
  return stages;
}
