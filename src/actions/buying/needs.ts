import { isLive } from '@/core/jobs/states';
import { z } from 'zod';
import { LIMITS } from '@/core/limits';
import { minor } from '@/core/money/money';
import { spreadMoney } from '@/core/money/spread';
import { coveredOf } from '@/core/needs/coverage';
import { needKind } from '@/core/needs/kind';
import { cutFault, moveSurplus, SURPLUS } from '@/core/needs/surplus';
import { EDITABLE } from '@/core/orders/states';
import { formatQuantity, quantity, type Quantity } from '@/core/quantity/quantity';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { wholeFault } from '@/core/quantity/whole';
import { counted } from '@/core/words';
import { openTabLines } from '@/store/tabLines';
import { insertNeeds } from '@/store/needs';
import { findOrder, loadMoney, saveLines, setState, tabLinesOf } from '@/store/orders';
import { insertOne, rowsOf } from '@/store/rows';
import { loadNeedStates, type NeedState } from '@/store/tab/needs';
import type { Item, NeedRow } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, sameVersion, type Work } from '../action';
import { distinct } from '@/core/records/fields';
import { needFields } from '@/core/records/need';

type Fields = Pick<NeedRow, 'description' | 'quantity' | 'unit'>;

/** A need's quantity fits its unit, and its unit fits the item. */
function checkUnit({ description, quantity: q, unit }: Fields, item: Item | undefined, at: string): void {
  const whole = wholeFault(q, unit, description, `${at}quantity`);
  if (whole !== undefined) throw new Refused([whole]);
  if (item !== undefined && exactFactor(item.unit, unit) === undefined)
    refuse(
      'need.unit',
      `${item.number} is held in ${unitOf(item.unit).name}s; ${unitOf(unit).name}s can’t be converted. Enter it in ${unitOf(item.unit).name}s.`,
      `${at}unit`,
    );
}

async function itemOf(trx: Work['trx'], itemId: number | null): Promise<Item | undefined> {
  return itemId === null ? undefined : found(await trx('item').where({ id: itemId }).first(), 'This item');
}

async function liveJob(trx: Work['trx'], jobId: number) {
  const job = found(await trx('job').where({ id: jobId }).first('id', 'number', 'state'), 'This job');
  if (!isLive(job)) refuse('job.state', `Job ${job.number} isn’t live. Mark its quote won to start buying.`);
  return job;
}

const needOf = async (trx: Work['trx'], id: number, version: number): Promise<NeedRow> =>
  sameVersion(found(await trx('need').where({ id }).first(), 'This line'), version, 'This line');

type NewLine = z.output<typeof needFields> & { readonly itemId: number | null };

/** Puts lines on a live job's buy list by hand. @returns their ids in order */
async function putLines(
  { trx, today, audit, touch }: Work,
  jobId: number,
  lines: readonly NewLine[],
  at: (k: number) => string = () => '',
): Promise<number[]> {
  if (lines.length === 0) return [];
  const needs = [];
  for (const [k, line] of lines.entries()) {
    if (line.quantity <= 0) refuse('need.quantity', 'Enter a quantity above zero.', `${at(k)}quantity`);
    const item = await itemOf(trx, line.itemId);
    checkUnit(line, item, at(k));
    needs.push({ ...line, jobId, kind: needKind(line.unit, item) });
  }
  const ids = await insertNeeds(trx, needs, today);
  for (const id of ids) touch('Added to the buy list', 'need', id, [id]);
  const [first] = lines;
  await audit({
    words: `Added ${lines.length === 1 ? first?.description : counted(lines.length, 'line')} to the buy list`,
    subjects: [['job', jobId], ...ids.map((id) => ['need', id] as const)],
    after: lines,
  });
  return ids;
}

/** Puts a line on a live job's buy list by hand. */
export const addNeed = defineAction({
  name: 'addNeed',
  right: 'change buy lists',
  input: z.object({ once, jobId: z.number().int(), itemId: z.number().int().nullable(), ...needFields.shape }),
  run: async (work, { once: _, jobId, ...line }) => {
    await liveJob(work.trx, jobId);
    const [id = 0] = await putLines(work, jobId, [line]);
    return { id };
  },
});

type Change = z.output<typeof needFields> & {
  readonly itemId?: number | null | undefined;
  readonly surplus?: (typeof SURPLUS)[number] | undefined;
};

/** Changes a need. Cut below what is drafted or ordered, it asks what becomes of the rest. */
export async function alterNeed(work: Work, need: NeedRow, { surplus, ...given }: Change, at = ''): Promise<void> {
  const { trx, audit, touch } = work;
  const change = { ...given, itemId: given.itemId === undefined ? need.itemId : given.itemId };
  const item = await itemOf(trx, change.itemId);
  checkUnit(change, item, at);
  const [state] = await loadNeedStates(trx, [need.id]);
  const covered = state === undefined ? (0 as Quantity) : coveredOf(state.coverage);
  const fixed = (['unit', 'costCodeId', 'itemId'] as const).find((f) => change[f] !== need[f]);
  if (covered > 0 && fixed !== undefined)
    refuse(
      'need.bought',
      `${need.description} is already drafted or ordered, so its item, unit and cost code can’t change.`,
      `${at}${fixed}`,
    );
  const cut = cutFault({ description: need.description, covered }, change.quantity, surplus, unitOf(need.unit).short);
  if (cut !== undefined) throw new Refused([{ ...cut, field: `${at}${cut.field}` }]);
  const over = quantity(covered - change.quantity);
  if (state !== undefined && surplus === 'stores' && over > 0) await toStores(work, state, over);
  const row = { ...change, kind: needKind(change.unit, item) };
  await trx('need')
    .where({ id: need.id })
    .update({ ...row, version: need.version + 1 });
  await trx('tabLine').where({ id: need.id }).update({ words: change.description });
  touch('Buy-list line changed', 'need', need.id, [need.id]);
  const quantities =
    need.quantity === change.quantity
      ? ''
      : ` from ${formatQuantity(need.quantity)} to ${formatQuantity(change.quantity)}`;
  const rest =
    over > 0 && surplus !== undefined ? `; surplus ${surplus === 'job' ? 'kept on the job' : 'to stores'}` : '';
  await audit({
    words: `Changed ${change.description}${quantities} on the buy list${rest}`,
    subjects: [
      ['job', need.jobId],
      ['need', need.id],
    ],
    before: need,
    after: { ...need, ...row },
  });
}

/** Changes a line of a buy list. */
export const changeNeed = defineAction({
  name: 'changeNeed',
  right: 'change buy lists',
  input: z.object({
    needId: z.number().int(),
    version: z.number().int(),
    ...needFields.shape,
    surplus: z.enum(SURPLUS).optional(),
  }),
  run: async (work, { needId, version, ...change }) => {
    const need = await needOf(work.trx, needId, version);
    await liveJob(work.trx, need.jobId);
    await alterNeed(work, need, change);
  },
});

/** Changes lines of a live job's buy list, and puts new ones on it: all of it or nothing. */
export const changeBuyList = defineAction({
  name: 'changeBuyList',
  right: 'change buy lists',
  input: z.object({
    once,
    jobId: z.number().int(),
    lines: z
      .array(
        z.object({
          /** Of a line that is there already, with its version; a new one has neither. */
          needId: z.number().int().optional(),
          version: z.number().int().optional(),
          itemId: z.number().int().nullable(),
          ...needFields.shape,
        }),
      )
      .min(1)
      .max(LIMITS.sheetLines)
      .refine(distinct('needId'), 'A line appears twice.'),
  }),
  run: async (work, { jobId, lines }) => {
    await liveJob(work.trx, jobId);
    const placed = lines.map(({ needId, version = 0, ...line }, k) => ({ needId, version, line, at: `lines.${k}.` }));
    const fresh = placed.filter((l) => l.needId === undefined);
    for (const { needId, version, line, at } of placed) {
      if (needId === undefined) continue;
      const need = await needOf(work.trx, needId, version);
      if (need.jobId !== jobId) refuse('need.job', `${need.description} is on another job’s buy list.`);
      await alterNeed(work, need, line, at);
    }
    await putLines(
      work,
      jobId,
      fresh.map((l) => l.line),
      (k) => fresh[k]?.at ?? '',
    );
    return { changed: lines.length - fresh.length, added: fresh.length };
  },
});

/** Gives what is over of a need's splits to stores, each as a split of its own on the same line. */
async function toStores({ trx, touch }: Work, need: NeedState, over: Quantity): Promise<void> {
  const orders = new Set<number>();
  const stores = { jobId: null, costCodeId: null, needId: null };
  for (const { splitId, keep, move } of grant(moveSurplus(need.splits, over))) {
    const split = found(await trx('split').where({ id: splitId }).first(), 'A split of an order');
    const line = found(await trx('orderLine').where({ id: split.lineId }).first(), 'A line of an order');
    orders.add(line.orderId);
    if (keep === 0) await trx('split').where({ id: splitId }).update(stores);
    else {
      await trx('split').where({ id: splitId }).update({ quantity: keep });
      const [id = 0] = await openTabLines(trx, 'split', [line.description]);
      const last = await rowsOf<{ place: number }>(trx('split').where({ lineId: line.id }).max({ place: 'place' }));
      const place = (last[0]?.place ?? 0) + 1;
      await insertOne(trx, 'split', { id, lineId: line.id, place, ...stores, quantity: move, value: 0 });
    }
    await shareAnew(trx, line.id);
  }
  for (const id of orders) {
    const order = found(await findOrder(trx, id), 'An order');
    // While it is drafted its charges follow what each job buys; once it is sent they stay as they were ordered.
    if (EDITABLE.includes(order.state)) await saveLines(trx, order, order.lines, await loadMoney(trx));
    await setState(trx, order, {});
    const after = found(await findOrder(trx, id), 'An order');
    touch('Buy-list line changed', 'need', need.id, [...tabLinesOf(order), ...tabLinesOf(after)]);
  }
}

/** Shares a line's value among its splits anew. */
async function shareAnew(trx: Work['trx'], lineId: number): Promise<void> {
  const splits = await trx('split').where({ lineId }).orderBy('place');
  const whole = minor(splits.reduce((sum, s) => sum + s.value, 0));
  const values = spreadMoney(
    whole,
    splits.map((s) => s.quantity),
  );
  for (const [k, { id }] of splits.entries()) await trx('split').where({ id }).update({ value: values[k] });
}
