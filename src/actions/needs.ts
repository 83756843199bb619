import { z } from 'zod';
import { unitPriceSchema } from '@/core/money/money';
import { formatQuantity, ONE, quantitySchema } from '@/core/quantity/quantity';
import { isUnit, unitOf } from '@/core/quantity/units';
import { loadNeedStates, post } from '@/store/ledger';
import type { NeedRow } from '@/store/gathering';
import { insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion, type Work } from './action';
import { optionalDay, text } from './jobs';
import { counted } from '@/core/words';

const needFields = {
  description: text(200, 'Say what is needed.'),
  quantity: quantitySchema.refine((q) => q >= 0, 'A quantity cannot be below zero.'),
  unit: z.string().refine(isUnit, 'Choose a unit.'),
  costCodeId: z.number().int().positive('Choose a cost code.'),
  price: unitPriceSchema.refine((p) => p >= 0, 'A price cannot be below zero.').nullable(),
  supplierId: z.number().int().nullable(),
  neededOn: optionalDay,
};

function checkWhole({ description, quantity, unit }: { description: string; quantity: number; unit: string }) {
  if (unitOf(unit).whole === true && quantity % ONE !== 0)
    refuse('need.whole', `${description}: a ${unitOf(unit).name} cannot be divided.`, 'quantity');
}

async function liveJob(trx: Work['trx'], jobId: number) {
  const job = found(
    (await trx('job').where({ id: jobId }).first()) as { id: number; number: string; state: string } | undefined,
    'This job',
  );
  if (job.state !== 'live') refuse('job.state', `Job ${job.number} is not live: buying starts when its quote is won.`);
  return job;
}

/** Puts a line on a live job's buy list by hand. */
export const addNeed = defineAction({
  name: 'addNeed',
  right: 'change buy lists',
  input: z.object({ once, jobId: z.number().int(), itemId: z.number().int().nullable(), ...needFields }),
  run: async ({ trx, audit, happening }, { once: _, ...need }) => {
    const job = await liveJob(trx, need.jobId);
    if (need.quantity <= 0) refuse('need.quantity', 'A quantity must be above zero.', 'quantity');
    checkWhole(need);
    const id = await insertOne(trx, 'need', need);
    await post(trx, happening('Added to the buy list', 'need', id), { needIds: [id] });
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

/** Changes a line of a buy list. It cannot go below what is drafted or ordered already. */
export const changeNeed = defineAction({
  name: 'changeNeed',
  right: 'change buy lists',
  input: z.object({ needId: z.number().int(), version: z.number().int(), ...needFields }),
  run: async ({ trx, audit, happening }, { needId, version, ...change }) => {
    const need = sameVersion(
      found((await trx('need').where({ id: needId }).first()) as NeedRow | undefined, 'This line'),
      version,
      'This line',
    );
    await liveJob(trx, need.jobId);
    checkWhole(change);
    const [state] = await loadNeedStates(trx, [needId]);
    const covered = (state?.coverage.drafted ?? 0) + (state?.coverage.ordered ?? 0);
    if (covered > 0 && (change.unit !== need.unit || change.costCodeId !== need.costCodeId)) {
      refuse(
        'need.bought',
        `Some of ${need.description} is drafted or ordered already, so its unit and cost code stay.`,
        'costCodeId',
      );
    }
    await trx('need')
      .where({ id: needId })
      .update({ ...change, version: version + 1 });
    await post(trx, happening('Need changed', 'need', needId), { needIds: [needId] });
    const { description, quantity, unit, costCodeId, price, supplierId, neededOn } = need;
    const quantities =
      quantity === change.quantity ? '' : ` from ${formatQuantity(quantity)} to ${formatQuantity(change.quantity)}`;
    await audit({
      words: `Changed ${change.description}${quantities} on the buy list`,
      subjects: [
        ['job', need.jobId],
        ['need', needId],
      ],
      before: { description, quantity, unit, costCodeId, price, supplierId, neededOn },
      after: change,
    });
  },
});

/** Chooses one supplier for several lines at once, as Gather does for lines without one. */
export const chooseSupplier = defineAction({
  name: 'chooseSupplier',
  right: 'change buy lists',
  input: z.object({
    needs: z
      .array(z.object({ needId: z.number().int(), version: z.number().int() }))
      .min(1)
      .max(500),
    supplierId: z.number().int(),
  }),
  run: async ({ trx, audit }, { needs: chosen, supplierId }) => {
    const supplier = found(
      (await trx('supplier').where({ id: supplierId }).first('name')) as { name: string } | undefined,
      'This supplier',
    );
    const needs: NeedRow[] = [];
    for (const { needId, version } of chosen)
      needs.push(
        sameVersion(
          found((await trx('need').where({ id: needId }).first()) as NeedRow | undefined, 'This line'),
          version,
          'This line',
        ),
      );
    const needIds = needs.map((n) => n.id);
    await trx('need')
      .whereIn('id', needIds)
      .update({ supplierId, version: trx.raw('version + 1') });
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
