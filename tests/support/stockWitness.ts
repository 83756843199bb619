import Big from 'big.js';
import type { Db } from '@/store/db';
import { num, whole, type Row } from './plainSums';

type Sum = { q: number; v: number };

/**
 * Stock as the plain witness sees it: piles, what came of orders and what jobs have, worked out move by move. A move
 * says how much; what that is worth is worked out here, except where a person said it at a count.
 */
export type StockMemory = {
  upTo: number;
  /** By item, place and owner. */
  readonly piles: Map<string, Sum>;
  /** What came of parts of orders, with what of its cost no pile was left to bear. */
  readonly came: Map<number, Sum>;
  readonly issues: Map<number, Sum>;
  readonly changes: Map<number, Sum>;
};

export const newStock = (): StockMemory => ({
  upTo: 0,
  piles: new Map(),
  came: new Map(),
  issues: new Map(),
  changes: new Map(),
});

/** A part of an order as the documents have it: what it cost in all, and what the goods of it that came are worth. */
export type PartStock = {
  readonly job: unknown;
  readonly value: number;
  readonly quantity: number;
  readonly came: number;
  readonly inHand: number;
};

export type Held = { reserved: number; issued: number; own: number; moved: number; cost: number; inStores: number };
export const noneHeld = (): Held => ({ reserved: 0, issued: 0, own: 0, moved: 0, cost: 0, inStores: 0 });

const at = <K>(map: Map<K, Sum>, key: K): Sum => {
  const known = map.get(key) ?? { q: 0, v: 0 };
  map.set(key, known);
  return known;
};
const shareOf = (value: number, part: number, all: number): number =>
  all === 0 ? 0 : whole(new Big(value).times(part).div(all));
const keyOf = (r: Row): string => `${r.itemId}/${r.placeId}/${r.jobId ?? 0}`;

/** What a pile bears of a change of value of goods that came with a part of an order. */
function borne(pile: Sum, q: number, due: number, came: number): number {
  if (q > 0) return due;
  if (q < 0) return pile.q + q === 0 ? -pile.v : Math.max(due, -pile.v);
  return pile.q <= 0 || came <= 0 ? 0 : Math.max(shareOf(due, Math.min(pile.q, came), came), -pile.v);
}

/** Takes the moves in that came since it was last asked. */
async function replay(db: Db, memory: StockMemory, partOf: (id: number) => PartStock) {
  const moves = (await db('stockMove').where('id', '>', memory.upTo).orderBy('id')) as unknown as Row[];
  for (const m of moves) {
    const pile = at(memory.piles, keyOf(m));
    const q = num(m.quantity);
    let v = num(m.value);
    if (m.splitId !== null && m.kind !== 'transferred') {
      const came = at(memory.came, num(m.splitId));
      const { inHand } = partOf(num(m.splitId));
      came.q += q;
      const due = (came.q === 0 ? 0 : inHand) - came.v;
      v = borne(pile, q, due, came.q);
      came.v += due;
    } else if (m.kind === 'issued') {
      v = -shareOf(pile.v, -q, pile.q);
      memory.issues.set(num(m.issueId), { q: -q, v: -v });
    } else if (m.kind === 'returned') {
      const issue = at(memory.issues, num(m.issueId));
      const rest = shareOf(issue.v, issue.q - q, issue.q);
      v = issue.v - rest;
      issue.q -= q;
      issue.v = rest;
    } else if (m.kind === 'scrapped' || (m.kind === 'transferred' && q < 0 && m.changeId !== null)) {
      v = -shareOf(pile.v, -q, pile.q);
    } else if (m.kind === 'moved' && q < 0) v = -shareOf(pile.v, -q, pile.q);
    if (m.changeId !== null) {
      const change = at(memory.changes, num(m.changeId));
      // A transfer is worth what left the first owner; what it brings the other is the same.
      if (m.kind === 'transferred' && q > 0) v = -change.v;
      else change.v += v;
    }
    pile.q += q;
    pile.v += v;
    memory.upTo = num(m.id);
  }
}

/** An invoice that came for goods which are not there any more moves no pile, and is a difference all the same. */
async function settleRest(
  db: Db,
  memory: StockMemory,
  partOf: (id: number) => PartStock,
): Promise<Map<number, number>> {
  const beside = new Map<number, number>();
  const moved = (await db('stockMove').whereNotNull('splitId').distinct('splitId')).flatMap((m) => m.splitId ?? []);
  for (const id of moved) {
    const came = at(memory.came, id);
    came.v = came.q === 0 ? 0 : partOf(id).inHand;
    const [sum] = await db('stockMove').where({ splitId: id }).sum({ v: 'value' });
    beside.set(id, came.v - num((sum as { v: number }).v));
  }
  return beside;
}

type Standing = { readonly account: string; readonly value: number };

/** What stores hold for each need and gave out to it, where issues and changes stand, and what each pile comes to. */
export async function stockOf(db: Db, memory: StockMemory, partOf: (id: number) => PartStock) {
  await replay(db, memory, partOf);
  const beside = await settleRest(db, memory, partOf);
  const held = new Map<number, Held>();
  const of = (needId: number): Held => {
    const known = held.get(needId) ?? noneHeld();
    held.set(needId, known);
    return known;
  };
  const claimed = new Map<string, number>();
  for (const r of (await db('reservation')) as unknown as Row[]) {
    const need = of(num(r.needId));
    const key = r.splitId === null ? keyOf(r) : `split ${r.splitId}`;
    claimed.set(key, (claimed.get(key) ?? 0) + num(r.quantity));
    need.reserved += num(r.share);
    if (r.splitId === null) {
      const pile = at(memory.piles, keyOf(r));
      need.inStores += num(r.share);
      need.cost += r.jobId === null ? shareOf(pile.v, num(r.quantity), pile.q) : 0;
    } else {
      const { value, quantity } = partOf(num(r.splitId));
      need.cost += shareOf(value, num(r.quantity), quantity);
    }
  }
  const lines = new Map<number, Standing[]>();
  for (const i of (await db('issue')) as unknown as Row[]) {
    const value = at(memory.issues, num(i.id)).v;
    if (i.needId !== null && i.ownerId === null) of(num(i.needId)).issued += num(i.share);
    if (i.needId !== null && i.ownerId !== null) of(num(i.needId)).own += num(i.share);
    const account = `${i.jobId}/${i.costCodeId}`;
    lines.set(
      num(i.id),
      i.ownerId === null
        ? [
            { account, value },
            { account: '-/-', value: -value },
          ]
        : [],
    );
  }
  const told = new Map<number, number>();
  for (const c of (await db('stockChange')) as unknown as Row[]) {
    if (c.needId !== null) of(num(c.needId)).moved -= num(c.share);
    if (c.toNeedId !== null) of(num(c.toNeedId)).moved += num(c.toShare);
    const value = c.kind === 'difference' ? num(c.value) : at(memory.changes, num(c.id)).v;
    if (c.kind === 'difference') told.set(num(c.splitId), (told.get(num(c.splitId)) ?? 0) - value);
    const to = c.toJobId === null ? '-/-' : `${c.toJobId}/${c.toCodeId}`;
    if (c.kind === 'transferred')
      lines.set(num(c.id), [
        { account: `${c.jobId}/${c.costCodeId}`, value },
        { account: to, value: -value },
      ]);
    else lines.set(num(c.id), c.jobId === null ? [{ account: '-/-', value }] : []);
  }
  // What no pile bears of a part's cost is told, to the minor unit.
  for (const [id, value] of beside)
    if (value !== (told.get(id) ?? 0))
      throw new Error(`Part ${id}: a difference of ${told.get(id) ?? 0}, not ${value}.`);
  return { held, lines, claimed };
}
