import type { Outcome } from '@/actions/action';
import { choosePlanning, letGo, reserve } from '@/actions/reserving';
import { countStock } from '@/actions/counting';
import { issueStock, returnIssue } from '@/actions/issuing';
import { moveStock, scrapStock, transferStock } from '@/actions/moving';
import type { Day } from '@/core/calendar/workdays';
import { insertOne } from '@/store/rows';
import type { TestCompany } from './company';

const ACTS = ['count', 'putBy', 'letGo', 'issue', 'giveBack', 'plan', 'ownIssue', 'transfer', 'scrap', 'move'] as const;
type Act = (typeof ACTS)[number];

export const isOfStores = (act: string): act is Act => (ACTS as readonly string[]).includes(act);

type Step = { readonly act: Act; readonly which: number; readonly share: number };

/** A second place of ours. */
const shed = async (db: TestCompany['db']): Promise<number> =>
  (await db('deliveryPlace').where({ name: 'Shed' }).first('id'))?.id ??
  insertOne(db, 'deliveryPlace', { name: 'Shed', address: 'Shed' });

/** Tries one step in the stores on a day: counts, puts by and lets go, issues and takes back, plans a job anew. */
export async function tryStores(
  yard: TestCompany,
  { act, which, share }: Step,
  day: Day,
): Promise<Outcome<unknown> | undefined> {
  const { db } = yard;
  const once = yard.once();
  const pick = <T>(all: readonly T[]): T | undefined => all[which % Math.max(all.length, 1)];
  const jobId = yard.ids.jobs[which % 2 === 0 ? 0 : 1];
  const part = (of: number) => Math.max(1, Math.round(of * share)) as never;
  if (act === 'plan') {
    const job = await db('job').where({ id: jobId }).first('version');
    const planning = which % 3 === 0 ? ('inFull' as const) : ('shortfall' as const);
    return choosePlanning(await yard.as('lead', day), { jobId, version: job?.version ?? 0, planning });
  }
  if (act === 'count') {
    const itemId = yard.ids.items[which % 2 === 0 ? 0 : 1];
    const [pile] = await db('stockSum').where({ itemId, placeId: 1, jobId: 0 });
    return countStock(await yard.as('manager', day), {
      once,
      ...{ itemId, placeId: 1, jobId: null, seen: pile?.quantity ?? 0 },
      quantity: which % 11 === 0 ? 0 : part(600_000),
      value: which % 3 === 0 ? null : (Math.round(share * 25_000) as never),
      reason: 'counted',
    });
  }
  if (act === 'ownIssue' || act === 'transfer' || act === 'scrap' || act === 'move') {
    const piles = await db('stockSum').where('quantity', '>', 0).orderBy(['itemId', 'jobId', 'placeId']);
    const own = piles.filter((p) => (act === 'scrap' || act === 'move' ? true : p.jobId > 0));
    const pile = pick(own);
    if (pile === undefined) return undefined;
    const { itemId, placeId } = pile;
    const owner = pile.jobId === 0 ? null : pile.jobId;
    const what = {
      once,
      itemId,
      placeId,
      jobId: owner,
      quantity: which % 3 === 0 ? pile.quantity : part(pile.quantity),
    };
    const keeper = await yard.as('storekeeper', day);
    const needs = await db('need').where({ itemId }).orderBy('id');
    const mine = pick(needs.filter((n) => n.jobId === owner));
    const others = pick(needs.filter((n) => n.jobId !== owner));
    const code = yard.ids.codes[which % 2 === 0 ? 0 : 1];
    if (act === 'scrap') return scrapStock(keeper, { ...what, reason: 'broken' });
    if (act === 'move')
      return moveStock(keeper, { ...what, toPlaceId: placeId === 1 ? await shed(db) : 1, toBinId: null });
    if (act === 'ownIssue') {
      const to = mine === undefined || which % 4 === 0 ? { jobId: owner ?? 0, costCodeId: code } : { needId: mine.id };
      return issueStock(keeper, { ...what, to });
    }
    const stores = { stores: true } as const;
    const to = which % 2 === 0 ? stores : others === undefined ? stores : { needId: others.id };
    return transferStock(keeper, { ...what, to, reason: 'wanted elsewhere' });
  }
  if (act === 'giveBack') {
    const issue = pick(await db('issue').where('quantity', '>', 0).orderBy('id'));
    if (issue === undefined) return undefined;
    const ref = { once, issueId: issue.id, version: issue.version };
    const quantity = which % 3 === 0 ? issue.quantity : part(issue.quantity);
    return returnIssue(await yard.as('storekeeper', day), { ...ref, quantity, reason: '' });
  }
  const needs = await db('need').where({ jobId }).whereNotNull('itemId').orderBy('id');
  const need = pick(needs);
  if (need === undefined) return undefined;
  if (act === 'putBy') return reserve(await yard.as('lead', day), { once, jobId, needIds: needs.map((n) => n.id) });
  if (act === 'letGo') {
    const held = pick(await db('reservation').orderBy('id'));
    const whose =
      (await db('need')
        .where({ id: held?.needId ?? need.id })
        .first()) ?? need;
    return letGo(await yard.as('lead', day), { jobId: whose.jobId, needIds: [whose.id] });
  }
  const [pile] = await db('stockSum').where({ itemId: need.itemId ?? 0, placeId: 1, jobId: 0 });
  return issueStock(await yard.as('storekeeper', day), {
    once,
    ...{ itemId: need.itemId ?? 0, placeId: 1, jobId: null },
    to: which % 4 === 0 ? { jobId, costCodeId: yard.ids.codes[0] } : { needId: need.id },
    quantity: which % 5 === 0 ? ((pile?.quantity ?? 0) as never) : part(Math.min(pile?.quantity ?? 0, need.quantity)),
  });
}
