import Big from 'big.js';
import type { Db } from '@/store/connection';
import { num, whole, type Row } from './plainSums';

/**
 * Stock as the plain witness sees it: piles, what came of orders and what jobs have, worked out move by move. A move
 * says how much; what that is worth is worked out here, except where a person said it at a count.
 */
export type StockMemory = {
  upTo: number;
  /** By item, place and owner. */
  readonly piles: Map<string, { q: number; v: number }>;
  readonly came: Map<number, { q: number; v: number }>;
  readonly issues: Map<number, { q: number; v: number }>;
};

export const newStock = (): StockMemory => ({ upTo: 0, piles: new Map(), came: new Map(), issues: new Map() });

export type Held = { reserved: number; issued: number; cost: number; inStores: number };

const at = <K>(map: Map<K, { q: number; v: number }>, key: K) => {
  const known = map.get(key) ?? { q: 0, v: 0 };
  map.set(key, known);
  return known;
};
const shareOf = (value: number, part: number, all: number): number =>
  all === 0 ? 0 : whole(new Big(value).times(part).div(all));
const keyOf = (r: Row): string => `${r.itemId}/${r.placeId}/${r.jobId ?? 0}`;

/** Takes the moves in that came since it was last asked. */
async function replay(db: Db, memory: StockMemory, partOf: (id: number) => { value: number; quantity: number }) {
  const moves = (await db('stockMove').where('id', '>', memory.upTo).orderBy('id')) as unknown as Row[];
  for (const m of moves) {
    const pile = at(memory.piles, keyOf(m));
    const q = num(m.quantity);
    let v = num(m.value);
    if (m.kind === 'received') {
      const came = at(memory.came, num(m.splitId));
      const { value, quantity } = partOf(num(m.splitId));
      came.q += q;
      const then =
        came.q <= quantity ? shareOf(value, came.q, quantity) : value + shareOf(value, came.q - quantity, quantity);
      v = then - came.v;
      came.v = then;
    } else if (m.kind === 'revalued' && m.splitId !== null) at(memory.came, num(m.splitId)).v += v;
    else if (m.kind === 'issued') {
      v = -shareOf(pile.v, -q, pile.q);
      memory.issues.set(num(m.issueId), { q: -q, v: -v });
    } else if (m.kind === 'returned') {
      const issue = at(memory.issues, num(m.issueId));
      const rest = shareOf(issue.v, issue.q - q, issue.q);
      v = issue.v - rest;
      issue.q -= q;
      issue.v = rest;
    }
    pile.q += q;
    pile.v += v;
    memory.upTo = num(m.id);
  }
}

/** What stores hold for each need and gave out to it, what each issue cost, and what each pile comes to. */
export async function stockOf(
  db: Db,
  memory: StockMemory,
  partOf: (id: number) => { value: number; quantity: number },
) {
  await replay(db, memory, partOf);
  const held = new Map<number, Held>();
  const of = (needId: number): Held => {
    const known = held.get(needId) ?? { reserved: 0, issued: 0, cost: 0, inStores: 0 };
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
      need.cost += shareOf(pile.v, num(r.quantity), pile.q);
    } else {
      const { value, quantity } = partOf(num(r.splitId));
      need.cost += shareOf(value, num(r.quantity), quantity);
    }
  }
  const issues = new Map<number, { account: string; value: number }>();
  for (const i of (await db('issue')) as unknown as Row[]) {
    if (i.needId !== null) of(num(i.needId)).issued += num(i.share);
    issues.set(num(i.id), { account: `${i.jobId}/${i.costCodeId}`, value: at(memory.issues, num(i.id)).v });
  }
  return { held, issues, claimed };
}
