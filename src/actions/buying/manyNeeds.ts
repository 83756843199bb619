import { z } from 'zod';
import { coveredOf } from '@/core/needs/coverage';
import { unitPriceSchema } from '@/core/money/schema';
import { distinct, optionalDay } from '@/core/records/fields';
import { counted } from '@/core/words';
import { loadEstimates } from '@/store/estimates';
import { whereIn } from '@/store/rows';
import { loadNeedStates } from '@/store/tab/needs';
import type { NeedRow } from '@/store/tables';
import { defineAction, found, Refused, refuse, sameVersion, type Work } from '../action';
import { refusal } from '@/core/result';

/** What is mended; what is left out stays as it is. */
const mends = {
  supplierId: z.number().int().optional(),
  neededOn: optionalDay.optional(),
  costCodeId: z.number().int().optional(),
  /** Takes over what their supplier asks today for what is open, as their estimate. */
  todaysPrice: z.literal(true).optional(),
  /** Their estimate for one of their unit, in the company's currency, where that is typed. */
  price: unitPriceSchema.refine((p) => p >= 0, 'Enter 0 or more.').optional(),
};

/** Mends several lines to buy at once: their supplier, day, cost code, or price. */
export const changeNeeds = defineAction({
  name: 'changeNeeds',
  right: 'change buy lists',
  input: z.object({
    needs: z
      .array(z.object({ needId: z.number().int(), version: z.number().int() }))
      .min(1)
      .max(1000)
      .refine(distinct('needId'), 'The same line was selected twice. Refresh the page and select again.'),
    ...mends,
  }),
  run: async (work, { needs: picked, todaysPrice, price: typed, ...change }) => {
    const { trx, audit, touch } = work;
    const needs = await needsOf(work, picked);
    const supplier =
      change.supplierId === undefined
        ? undefined
        : found(await trx('supplier').where({ id: change.supplierId }).first('name'), 'This supplier');
    if (change.costCodeId !== undefined) await checkCode(work, needs, change.costCodeId);
    const prices =
      todaysPrice === undefined || typed !== undefined ? undefined : await todaysPrices(work, needs, change.supplierId);
    for (const need of needs) {
      const price = typed ?? prices?.get(need.id);
      const row = { ...change, ...(price === undefined ? {} : { price, priceQuantity: 1 }) };
      await trx('need')
        .where({ id: need.id })
        .update({ ...row, version: need.version + 1 });
    }
    const ids = needs.map((n) => n.id);
    touch('Buy-list line changed', 'need', ids[0] ?? 0, ids);
    await audit({
      words: `${told({ ...change, supplier: supplier?.name, price: typed, todaysPrice })} on ${counted(needs.length, 'line')}`,
      subjects: needs.flatMap(
        (n) =>
          [
            ['job', n.jobId],
            ['need', n.id],
          ] as const,
      ),
      before: needs.map(({ id, supplierId, neededOn, costCodeId, price }) => ({
        ...{ id, supplierId, neededOn, costCodeId, price },
      })),
      after: { ...change, price: typed, prices: prices && [...prices] },
    });
    return { lines: needs.length };
  },
});

type Told = {
  readonly supplier: string | undefined;
  readonly neededOn?: unknown;
  readonly costCodeId?: unknown;
  readonly price: unknown;
  readonly todaysPrice: true | undefined;
};

function told({ supplier, neededOn, costCodeId, price, todaysPrice }: Told): string {
  const parts = [
    supplier === undefined ? '' : `Set supplier ${supplier}`,
    neededOn === undefined ? '' : 'Changed needed-by date',
    costCodeId === undefined ? '' : 'Changed cost code',
    price !== undefined ? 'Set price' : todaysPrice === undefined ? '' : 'Took today’s price',
  ].filter(Boolean);
  return parts.length === 0 ? refuse('mend.nothing', 'Enter at least one change.') : parts.join(', ');
}

async function needsOf({ trx }: Work, picked: readonly { needId: number; version: number }[]): Promise<NeedRow[]> {
  const rows = new Map(
    (
      await whereIn(
        trx,
        'need',
        'id',
        picked.map((p) => p.needId),
      )
    ).map((n) => [n.id, n]),
  );
  return picked.map(({ needId, version }) => sameVersion(found(rows.get(needId), 'This line'), version, 'This line'));
}

/** What is drafted or ordered keeps its cost code: its order says where it is charged. */
async function checkCode({ trx }: Work, needs: readonly NeedRow[], costCodeId: number): Promise<void> {
  found(await trx('costCode').where({ id: costCodeId }).first('id'), 'This cost code');
  const states = await loadNeedStates(
    trx,
    needs.filter((n) => n.costCodeId !== costCodeId).map((n) => n.id),
  );
  const bought = states.find((s) => coveredOf(s.coverage) > s.coverage.reserved);
  if (bought !== undefined)
    refuse(
      'need.bought',
      `${bought.description} is already drafted or ordered, so its cost code can’t change here. Move the charge on the order instead.`,
    );
}

/** What their supplier, or the one chosen for them, asks today for what is open of each. */
async function todaysPrices({ trx, today }: Work, needs: readonly NeedRow[], supplierId: number | undefined) {
  const estimate = await loadEstimates(
    trx,
    needs.flatMap((n) => n.itemId ?? []),
    today,
  );
  const priced = needs.map((need) => ({
    need,
    price: estimate({ ...need, quantity: need.open === 0 ? need.quantity : need.open }, supplierId ?? need.supplierId)
      .price,
  }));
  const without = priced.filter((p) => p.price === null);
  if (without.length > 0)
    throw new Refused(
      without.map(({ need }) =>
        refusal('need.unpriced', `${need.description} has no supplier price today. Leave it out, or type a price.`),
      ),
    );
  return new Map(priced.flatMap(({ need, price }) => (price === null ? [] : [[need.id, price] as const])));
}
