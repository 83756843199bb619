import { z } from 'zod';
import { minor, unitPriceSchema } from '@/core/money/money';
import { spreadMoney } from '@/core/money/spread';
import { coveredOf } from '@/core/needs/coverage';
import { needKind } from '@/core/needs/kind';
import { cutFault, moveSurplus, SURPLUS } from '@/core/needs/surplus';
import { EDITABLE } from '@/core/orders/states';
import { formatQuantity, quantity, type Quantity } from '@/core/quantity/quantity';
import { exactFactor, unitOf } from '@/core/quantity/units';
import { wholeFault } from '@/core/quantity/whole';
import { counted } from '@/core/words';
import { openTabLines } from '@/store/ledger';
import { insertNeeds } from '@/store/needs';
import { findOrder, loadMoney, saveLines, setState, tabLinesOf } from '@/store/orders';
import { insertOne } from '@/store/rows';
import { loadNeedStates, type NeedState } from '@/store/tab/needs';
import type { Item, NeedRow } from '@/store/tables';
import { defineAction, distinct, found, grant, once, Refused, refuse, sameVersion, type Work } from './action';
import { lineFields } from './fields';

const needFields = {
  ...lineFields,
  price: unitPriceSchema.refine((p) => p >= 0, 'A price cannot be below zero.').nullable(),
};

type Fields = Pick<NeedRow, 'description' | 'quantity' | 'unit'>;

/** A need's quantity fits its unit, and its unit fits the item. */
function checkUnit({ description, quantity: q, unit }: Fields, item: Item | undefined): void {
  const whole = wholeFault(q, unit, description, 'quantity');
  if (whole !== undefined) throw new Refused([whole]);
  if (item !== undefined && exactFactor(item.unit, unit) === undefined)
    refuse(
      'need.unit',
      `${item.number} is kept in ${unitOf(item.unit).name}s, and ${unitOf(unit).name}s cannot be converted to that.`,
      'unit',
    );
}

async function itemOf(trx: Work['trx'], itemId: number | null): Promise<Item | undefined> {
  return itemId === null ? undefined : found(await trx('item').where({ id: itemId }).first(), 'This item');
}

async function liveJob(trx: Work['trx'], jobId: number) {
  const job = found(await trx('job').where({ id: jobId }).first('id', 'number', 'state'), 'This job');
  if (job.state !== 'live') refuse('job.state', `Job ${job.number} is not live: buying starts when its quote is won.`);
  return job;
}

const needOf = async (trx: Work['trx'], id: number, version: number): Promise<NeedRow> =>
  sameVersion(found(await trx('need').where({ id }).first(), 'This line'), version, 'This line');

/** Puts a line on a live job's buy list by hand. */
export const addNeed = defineAction({
  name: 'addNeed',
  right: 'change buy lists',
  input: z.object({ once, jobId: z.number().int(), itemId: z.number().int().nullable(), ...needFields }),
  run: async ({ trx, today, audit, touch }, { once: _, ...need }) => {
    const job = await liveJob(trx, need.jobId);
    if (need.quantity <= 0) refuse('need.quantity', 'A quantity must be above zero.', 'quantity');
    const item = await itemOf(trx, need.itemId);
    checkUnit(need, item);
    const [id = 0] = await insertNeeds(trx, [{ ...need, kind: needKind(need.unit, item) }], today);
    touch('Added to the buy list', 'need', id, [id]);
    await audit({
      words: `Put ${need.description} on the buy list`,
      subjects: [
        ['job', job.id],
        ['need', id],
      ],
      after: need,
    });
    return { id };
  },
});

/** Changes a line of a buy list. Cut below what is drafted or ordered, it asks what becomes of the rest. */
export const changeNeed = defineAction({
  name: 'changeNeed',
  right: 'change buy lists',
  input: z.object({
    needId: z.number().int(),
    version: z.number().int(),
    ...needFields,
    surplus: z.enum(SURPLUS).optional(),
  }),
  run: async (work, { needId, version, surplus, ...change }) => {
    const { trx, audit, touch } = work;
    const need = await needOf(trx, needId, version);
    await liveJob(trx, need.jobId);
    const item = await itemOf(trx, need.itemId);
    checkUnit(change, item);
    const [state] = await loadNeedStates(trx, [needId]);
    const covered = state === undefined ? (0 as Quantity) : coveredOf(state.coverage);
    if (covered > 0 && (change.unit !== need.unit || change.costCodeId !== need.costCodeId)) {
      refuse(
        'need.bought',
        `Some of ${need.description} is drafted or ordered already, so its unit and cost code stay.`,
        'costCodeId',
      );
    }
    const cut = cutFault({ description: need.description, covered }, change.quantity, surplus, unitOf(need.unit).short);
    if (cut !== undefined) throw new Refused([cut]);
    const over = quantity(covered - change.quantity);
    if (state !== undefined && surplus === 'stores' && over > 0) await toStores(work, state, over);
    const row = { ...change, kind: needKind(change.unit, item) };
    await trx('need')
      .where({ id: needId })
      .update({ ...row, version: version + 1 });
    await trx('tabLine').where({ id: needId }).update({ words: change.description });
    touch('Need changed', 'need', needId, [needId]);
    const quantities =
      need.quantity === change.quantity
        ? ''
        : ` from ${formatQuantity(need.quantity)} to ${formatQuantity(change.quantity)}`;
    const rest = over > 0 && surplus !== undefined ? `, what is over ${surplus === 'job' ? 'stays' : 'to stores'}` : '';
    await audit({
      words: `Changed ${change.description}${quantities} on the buy list${rest}`,
      subjects: [
        ['job', need.jobId],
        ['need', needId],
      ],
      before: need,
      after: { ...need, ...row },
    });
  },
});

/** Gives what is over of a need's splits to stores, each as a split of its own on the same line. */
async function toStores({ trx, touch }: Work, need: NeedState, over: Quantity): Promise<void> {
  const orders = new Set<number>();
  const stores = { jobId: null, costCodeId: null, needId: null };
  for (const { splitId, keep, move } of grant(moveSurplus(need.splits, over))) {
    const split = found(await trx('split').where({ id: splitId }).first(), 'A part of an order');
    const line = found(await trx('orderLine').where({ id: split.lineId }).first(), 'A line of an order');
    orders.add(line.orderId);
    if (keep === 0) await trx('split').where({ id: splitId }).update(stores);
    else {
      await trx('split').where({ id: splitId }).update({ quantity: keep });
      const [id = 0] = await openTabLines(trx, 'split', [line.description]);
      const last = (await trx('split').where({ lineId: line.id }).max({ place: 'place' })) as { place: number }[];
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
    touch('Need changed', 'need', need.id, [...tabLinesOf(order), ...tabLinesOf(after)]);
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

/** Chooses one supplier for several lines at once, as Gather does for lines without one. */
export const chooseSupplier = defineAction({
  name: 'chooseSupplier',
  right: 'change buy lists',
  input: z.object({
    needs: z
      .array(z.object({ needId: z.number().int(), version: z.number().int() }))
      .min(1)
      .max(500)
      .refine(distinct('needId'), 'A line is picked twice.'),
    supplierId: z.number().int(),
  }),
  run: async ({ trx, audit, touch }, { needs: chosen, supplierId }) => {
    const supplier = found(await trx('supplier').where({ id: supplierId }).first('name'), 'This supplier');
    const needs: NeedRow[] = [];
    for (const { needId, version } of chosen) needs.push(await needOf(trx, needId, version));
    const needIds = needs.map((n) => n.id);
    await trx('need')
      .whereIn('id', needIds)
      .update({ supplierId, version: trx.raw('version + 1') as unknown as number });
    touch('Supplier chosen', 'supplier', supplierId, needIds);
    const subjects = needs.flatMap(
      (n) =>
        [
          ['job', n.jobId],
          ['need', n.id],
        ] as const,
    );
    await audit({
      words: `Chose ${supplier.name} for ${counted(needs.length, 'line')}`,
      subjects,
      after: { supplierId, needIds },
    });
  },
});
