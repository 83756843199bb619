import type { Outcome } from '@/actions/action';
import { choosePlanning, unreserve, reserve } from '@/actions/buying/reserving';
import { countStock } from '@/actions/stores/counting';
import { beginCount, countLines, dropCount, endCounting, postCount } from '@/actions/stores/countSheets';
import { issuePicked, issueStock, returnIssue } from '@/actions/stores/issuing';
import { allocateByDate } from '@/actions/stores/allocating';
import { loadPicking } from '@/queries/stores/picking';
import { moveStock, scrapStock, transferStock } from '@/actions/stores/moving';
import type { Day } from '@/core/calendar/workdays';
import { insertOne } from '@/store/rows';
import type { TestCompany } from './company';

/** What is tried in the stores; what stands there twice, twice as often. */
export const STORES_ACTS = [
  'count',
  'count',
  'putBy',
  'letGo',
  'letGo',
  'issue',
  'issue',
  'giveBack',
  'sheet',
  'shareOut',
  'pickAll',
  'ownIssue',
  'ownIssue',
  'transfer',
  'transfer',
  'scrap',
  'move',
  'plan',
] as const;
type Act = (typeof STORES_ACTS)[number];

export const isOfStores = (act: string): act is Act => (STORES_ACTS as readonly string[]).includes(act);

type Step = { readonly act: Act; readonly which: number; readonly share: number };

/** All that lies at the yard is counted by sheet, some of it wrongly, and posted. */
async function countBySheet(yard: TestCompany, which: number, share: number, day: Day) {
  const keeper = await yard.as('manager', day);
  const begun = await beginCount(keeper, { once: yard.once(), placeId: 1, binId: null, blind: which % 2 === 0 });
  if (begun.status !== 'done') return begun;
  const countId = begun.value.id;
  const lines = (await yard.db('stockCountLine').where({ countId }).orderBy('id')).map((l, k) => ({
    ...{ lineId: l.id, was: null },
    counted: (k % 3 === which % 3 ? Math.round((l.begun * 2 * share) / 10_000) * 10_000 : l.begun) as never,
  }));
  if (lines.length === 0) return dropCount(keeper, { countId, version: 1 });
  await countLines(keeper, { countId, lines });
  await endCounting(keeper, { countId, version: 1 });
  const posted = await postCount(keeper, { once: yard.once(), countId, version: 2, reason: 'counted' });
  if (posted.status !== 'done') await dropCount(keeper, { countId, version: 2 });
  return posted;
}

/** All that is put by for a job, and what is its own, is issued to it in one step. */
async function pickAll(yard: TestCompany, jobId: number, day: Day) {
  const keeper = await yard.as('storekeeper', day);
  const { number } = (await yard.db('job').where({ id: jobId }).first('number')) ?? { number: '' };
  const rows = (await loadPicking(yard.db, keeper.actor, number))?.rows ?? [];
  const lines = rows.map(({ needId, itemId, placeId, ownerId, wanted }) => ({
    ...{ needId, itemId, placeId, ownerId, quantity: wanted, numbers: [] },
  }));
  return issuePicked(keeper, { once: yard.once(), jobId, lines });
}

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
  if (act === 'sheet') return countBySheet(yard, which, share, day);
  if (act === 'shareOut') {
    const itemId = yard.ids.items[which % 2 === 0 ? 0 : 1];
    return allocateByDate(await yard.as('storekeeper', day), { once, itemId });
  }
  if (act === 'pickAll') return pickAll(yard, jobId, day);
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
    return unreserve(await yard.as('lead', day), { jobId: whose.jobId, needIds: [whose.id] });
  }
  const [pile] = await db('stockSum').where({ itemId: need.itemId ?? 0, placeId: 1, jobId: 0 });
  return issueStock(await yard.as('storekeeper', day), {
    once,
    ...{ itemId: need.itemId ?? 0, placeId: 1, jobId: null },
    to: which % 4 === 0 ? { jobId, costCodeId: yard.ids.codes[0] } : { needId: need.id },
    quantity: which % 5 === 0 ? ((pile?.quantity ?? 0) as never) : part(Math.min(pile?.quantity ?? 0, need.quantity)),
  });
}
