import { z } from 'zod';
import type { Day } from '@/core/calendar/workdays';
import { needKind } from '@/core/needs/kind';
import { SURPLUS, type Surplus } from '@/core/needs/surplus';
import { beside, isChanged } from '@/core/planning/changes';
import { GONE, PLANNED_WORK, PLANNED_WORK_NAMES, branchesInPlan } from '@/core/planning/plan';
import { formatQuantity, NONE, type Quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { wholeFault } from '@/core/quantity/whole';
import { text } from '@/core/records/fields';
import { counted } from '@/core/words';
import { loadEstimates } from '@/store/estimates';
import { loadItems } from '@/store/gathering';
import { insertNeeds, type NewNeed } from '@/store/needs';
import { asPlanned, below, freshPlan, loadPlan, type FreshLine } from '@/workings/buying/plans';
import { whereIn, rowsOf } from '@/store/rows';
import type { Job, PlanLineRow } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, type Work } from '../action';
import { countOn, jobRef, planOf } from './reserving';
import { applyWanted } from './changedNeeds';

type Sync = { readonly codeId: number | null; readonly surplus?: Surplus | undefined };

/**
 * Brings a job's buy list to its plan: every bought branch that is in is wanted as the plan has it, every other not at
 * all. What is drafted or ordered of a branch that gives way needs a word on what becomes of it.
 */
async function followPlan(
  work: Work,
  job: Job,
  { codeId, surplus }: Sync,
): Promise<{ added: number; changed: number }> {
  const { trx, today, touch } = work;
  const lines = await loadPlan(trx, job.id);
  const standing = branchesInPlan(lines);
  const bought = lines.filter((l) => l.gotBy === 'bought');
  const needs = new Map(
    (
      await whereIn(
        trx,
        'need',
        'planLineId',
        bought.map((l) => l.id),
      )
    ).map((n) => [n.planLineId ?? 0, n]),
  );
  const wanted = (l: PlanLineRow): Quantity => (standing.get(l.id)?.isIn === true ? l.quantity : NONE);
  const fresh = bought.filter((l) => !needs.has(l.id) && wanted(l) > 0);
  const ids = await insertNeeds(trx, await newNeeds(trx, job, fresh, codeId, today), today);
  const moved = bought.flatMap((line) => {
    const need = needs.get(line.id);
    const same = need === undefined || (need.quantity === wanted(line) && need.neededOn === line.neededOn);
    return same ? [] : [{ need, quantity: wanted(line), neededOn: line.neededOn }];
  });
  await applyWanted(work, moved, surplus);
  const touched = [...ids, ...moved.map((m) => m.need.id)];
  await countOn(work, job, touched);
  touch('Planned', 'job', job.id, touched);
  return { added: ids.length, changed: moved.length };
}

async function newNeeds(
  trx: Work['trx'],
  job: Job,
  lines: readonly PlanLineRow[],
  codeId: number | null,
  today: Day,
): Promise<NewNeed[]> {
  const itemIds = lines.flatMap((l) => l.itemId ?? []);
  const items = await loadItems(trx, itemIds);
  const estimate = await loadEstimates(trx, itemIds, today);
  const own = new Map(
    (
      await whereIn(
        trx,
        'bomLine',
        'id',
        lines.flatMap((l) => l.bomLineId ?? []),
      )
    ).map((l) => [l.id, l]),
  );
  return lines.map((line) => {
    const { supplierId, costCodeId, price } = estimate(line);
    const said = own.get(line.bomLineId ?? 0);
    const code =
      said?.costCodeId ??
      costCodeId ??
      codeId ??
      refuse('need.code', `${line.description} has no cost code. Choose one for items without one.`, 'codeId');
    const { description, quantity: q, unit, itemId, neededOn } = line;
    const kind = needKind(unit, items.get(itemId ?? 0));
    const cost = said?.price ?? price;
    return {
      ...{ jobId: job.id, planLineId: line.id, itemId, kind, description, quantity: q, unit, neededOn },
      ...{ costCodeId: code, supplierId, price: cost },
    };
  });
}

/** Writes branches of a plan, each with the one above it. @returns their ids by their places */
async function writeLines(
  trx: Work['trx'],
  jobId: number,
  fresh: readonly FreshLine[],
  ids: Map<number, number>,
): Promise<void> {
  for (const line of fresh) {
    const { at, parent, part: _, ...row } = line;
    const [made] = await rowsOf<{ id: number }>(
      trx('planLine')
        .insert({ ...row, jobId, place: at, parentId: parent === undefined ? null : (ids.get(parent) ?? null) })
        .returning('id'),
    );
    ids.set(at, made?.id ?? 0);
  }
}

async function madeItem(trx: Work['trx'], itemId: number, batch: Quantity) {
  const item = found(await trx('item').where({ id: itemId }).first(), 'This item');
  const whole = wholeFault(batch, item.unit, item.name, 'quantity');
  if (whole !== undefined) throw new Refused([whole]);
  return item;
}

const batch = quantitySchema.refine((q) => q > 0, 'Enter a quantity above zero.');
const surplus = z.enum(SURPLUS).optional();

/** A job takes the BOM of what it makes: every bought branch becomes a line of its buy list. */
export const planFromBom = defineAction({
  name: 'planFromBom',
  right: 'change buy lists',
  input: z.object({
    once,
    ...jobRef,
    itemId: z.number().int(),
    quantity: batch,
    /** Where parts are charged that have no cost code of their own. */
    codeId: z.number().int().nullable(),
  }),
  run: async (work, { jobId, version, itemId, quantity: q, codeId }) => {
    const { trx, today, audit } = work;
    const job = await planOf(work, jobId, version);
    const item = await madeItem(trx, itemId, q);
    if (await trx('planLine').where({ jobId, itemId, parentId: null }).first('id'))
      refuse(
        'plan.twice',
        `Job ${job.number} already has the BOM of ${item.number}. Change its quantity instead.`,
        'itemId',
      );
    const lines = grant(await freshPlan(trx, job, { item, quantity: q }, today));
    await writeLines(trx, jobId, await placed(trx, jobId, lines), new Map());
    const done = await followPlan(work, job, { codeId });
    await audit({
      words: `Added BOM of ${item.number} for ${formatQuantity(q)}: ${counted(done.added, 'line')} to buy`,
      subjects: [
        ['job', jobId],
        ['item', itemId],
      ],
      after: { itemId, quantity: q },
    });
    return { lines: done.added };
  },
});

/** The places of fresh lines go on behind those that the job's plan has already. */
async function placed(trx: Work['trx'], jobId: number, lines: readonly FreshLine[]): Promise<FreshLine[]> {
  const [last] = await rowsOf<{ place: number | null }>(trx('planLine').where({ jobId }).max({ place: 'place' }));
  const from = (last?.place ?? -1) + 1;
  return lines.map((l) => ({ ...l, at: l.at + from, parent: l.parent === undefined ? undefined : l.parent + from }));
}

async function branchOf({ trx }: Work, jobId: number, id: number): Promise<PlanLineRow> {
  return found(await trx('planLine').where({ id, jobId }).first(), 'This line of the plan');
}

/** Leaves branches of a plan out, with what is below them, for a reason; or takes them in again. */
export const leaveOut = defineAction({
  name: 'leaveOut',
  right: 'change buy lists',
  input: z.object({
    ...jobRef,
    lineIds: z.array(z.number().int()).min(1).max(1000),
    /** null takes them in again. */
    reason: text(120, 'Give a reason for excluding it.').nullable(),
    surplus,
  }),
  run: async (work, { jobId, version, lineIds, reason, surplus: said }) => {
    const { trx, audit } = work;
    const job = await planOf(work, jobId, version);
    const names: string[] = [];
    for (const id of lineIds) {
      const line = await branchOf(work, jobId, id);
      names.push(line.description);
      await trx('planLine')
        .where({ id })
        .update({ leftOut: reason, version: line.version + 1 });
    }
    await followPlan(work, job, { codeId: null, surplus: said });
    const what = names.length === 1 ? names[0] : counted(names.length, 'part');
    await audit({
      words: reason === null ? `Included ${what} in the plan again` : `Excluded ${what} from the plan: ${reason}`,
      subjects: [['job', jobId]],
      after: { lineIds, reason },
    });
  },
});

/** Says how a part that is made is gone about: with the rest, as work of its own, or apart from this job. */
export const chooseWork = defineAction({
  name: 'chooseWork',
  right: 'change buy lists',
  input: z.object({ ...jobRef, lineId: z.number().int(), work: z.enum(PLANNED_WORK), surplus }),
  run: async (work, { jobId, version, lineId, work: way, surplus: said }) => {
    const { trx, audit } = work;
    const job = await planOf(work, jobId, version);
    const line = await branchOf(work, jobId, lineId);
    if (line.gotBy !== 'made' || line.parentId === null)
      refuse('plan.made', `${line.description} is the top item, so this choice doesn’t apply.`);
    await trx('planLine')
      .where({ id: lineId })
      .update({ work: way, version: line.version + 1 });
    await followPlan(work, job, { codeId: null, surplus: said });
    await audit({
      words: `${line.description}: ${PLANNED_WORK_NAMES[way]}`,
      subjects: [['job', jobId]],
      before: { work: line.work },
      after: { work: way },
    });
  },
});

const renewed = ({ bomId, bomLineId, quantity: q, neededOn, startsOn }: FreshLine, version: number) => ({
  bomId,
  bomLineId,
  quantity: q,
  neededOn,
  startsOn,
  version,
});

/** Takes on changes further up, as far as they are accepted: of the quantity, of BOMs, of the job's dates. */
export const acceptPlanChanges = defineAction({
  name: 'acceptPlanChanges',
  right: 'change buy lists',
  input: z.object({
    once,
    ...jobRef,
    /** What is made, and how many of it now. */
    rootId: z.number().int(),
    quantity: batch,
    accepted: z.array(z.string().max(4000)).min(1).max(50_000),
    codeId: z.number().int().nullable(),
    surplus,
  }),
  run: async (work, { jobId, version, rootId, quantity: q, accepted, codeId, surplus: said }) => {
    const { trx, today, audit } = work;
    const job = await planOf(work, jobId, version);
    const root = await branchOf(work, jobId, rootId);
    const item = await madeItem(trx, root.itemId ?? 0, q);
    const own = below(await loadPlan(trx, jobId), rootId).filter((l) => l.leftOut !== GONE);
    const fresh = grant(await freshPlan(trx, job, { item, quantity: q }, today));
    const pairs = beside(asPlanned(own), fresh);
    const want = new Set(accepted);
    const changes = pairs.filter((c) => want.has(c.key) && isChanged(c));
    if (changes.length < want.size) refuse('plan.moved', 'The plan has changed since. Open Changes again.');
    // Branches that stay keep their ids; those that are new stand under the ones above them.
    const ids = new Map<number, number>();
    for (const { key, was, is } of pairs) {
      const line = was === undefined ? undefined : own[was.at];
      const row = is === undefined ? undefined : fresh[is.at];
      if (row === undefined) {
        if (line !== undefined && want.has(key)) await trx('planLine').where({ id: line.id }).update({ leftOut: GONE });
      } else if (line !== undefined) {
        ids.set(row.at, line.id);
        await trx('planLine')
          .where({ id: line.id })
          .update(want.has(key) ? renewed(row, line.version + 1) : { bomId: row.bomId, bomLineId: row.bomLineId });
      } else if (want.has(key)) {
        if (row.parent !== undefined && !ids.has(row.parent))
          refuse('plan.parent', `${row.description} is under an item you haven’t selected. Select that as well.`);
        await writeLines(trx, jobId, [row], ids);
      }
    }
    const done = await followPlan(work, job, { codeId, surplus: said });
    await audit({
      words: `Applied ${counted(changes.length, 'change')} to the plan of ${item.number}`,
      subjects: [['job', jobId]],
      before: { quantity: root.quantity },
      after: { quantity: q, changes },
    });
    return done;
  },
});
