import { z } from 'zod';
import { LIMITS } from '@/core/limits';
import { formatMoney, minor } from '@/core/money/money';
import { unitPriceSchema } from '@/core/money/schema';
import { needKind } from '@/core/needs/kind';
import { type Quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { isUnit } from '@/core/quantity/units';
import { wholeFault } from '@/core/quantity/whole';
import { QUOTE_LINE_KINDS } from '@/core/quotes/rows';
import { amountsOf, isBought, win } from '@/core/quotes/winning';
import { loadItems } from '@/store/gathering';
import { insertNeeds } from '@/store/needs';
import { loadQuoteSums } from '@/store/quotes';
import { insertMany } from '@/store/rows';
import type { Quote } from '@/store/tables';
import { defineAction, found, grant, once, refuse, sameVersion, type Work } from './action';
import { distinct, lineFields } from '@/core/records/fields';
import { winningFields } from '@/core/records/quote';
import { counted } from '@/core/words';

export const quoteOf = async (trx: Work['trx'], id: number) =>
  found(await trx('quote').where({ id }).first(), 'This quote');

export function stillOpen(quote: Quote): void {
  if (quote.state === 'won' || quote.state === 'lost')
    refuse('quote.closed', `Quote ${quote.number} is ${quote.state}, so its lines stay as they are.`);
}

const quoteFields = {
  ...lineFields,
  kind: z.enum(QUOTE_LINE_KINDS),
  itemId: z.number().int().nullable(),
  quantity: quantitySchema.refine((q) => q > 0, 'A quantity must be above zero.'),
  cost: unitPriceSchema.refine((p) => p >= 0, 'A cost cannot be below zero.'),
  price: unitPriceSchema.refine((p) => p >= 0, 'A price cannot be below zero.').nullable(),
};

const whole = (l: { quantity: Quantity; unit: string; description: string }, ctx: z.RefinementCtx) => {
  const fault = isUnit(l.unit) ? wholeFault(l.quantity, l.unit, l.description) : undefined;
  if (fault !== undefined) ctx.addIssue({ code: 'custom', message: fault.message, path: ['quantity'] });
};

/** A line of a quote, from a file or typed. */
export const quoteLine = z.object(quoteFields).superRefine(whole);

/** Changes an open quote where it is filled in: its lines from one place on, as many as are shown at a time. */
export const changeQuote = defineAction({
  name: 'changeQuote',
  right: 'import quotes',
  input: z.object({
    once,
    quoteId: z.number().int(),
    version: z.number().int(),
    /** The place of the last line before those that were shown, and of the last that was. */
    after: z.number().int().min(0),
    upTo: z.number().int().min(0),
    lines: z
      .array(z.object({ id: z.number().int().optional(), ...quoteFields }).superRefine(whole))
      .max(LIMITS.sheetLines * 2)
      .refine(distinct('id'), 'A line stands there twice.'),
  }),
  run: async ({ trx, company, audit }, { quoteId, version, after, upTo, lines }) => {
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    stillOpen(quote);
    const before = await trx('quoteLine')
      .where({ quoteId })
      .whereBetween('place', [after + 1, upTo]);
    const known = new Set(before.map((l) => l.id));
    const kept = lines.flatMap((l) => l.id ?? []);
    if (kept.some((id) => !known.has(id)))
      refuse('line.missing', 'A line of this quote is not there any more. Look at the quote again.');
    const gone = [...known].filter((id) => !kept.includes(id));
    await trx('quoteLine').whereIn('id', gone).delete();
    const rows = lines.map((l, k) => ({ ...l, ...amountsOf(l, company.currency), place: after + 1 + k }));
    // Lines after those that were shown make room, or close up.
    const shift = lines.length - Math.max(upTo - after, 0);
    await trx('quoteLine')
      .where({ quoteId })
      .where('place', '>', upTo)
      .update({ place: trx.raw('place + ?', [shift]) as unknown as number });
    for (const { id, ...row } of rows) if (id !== undefined) await trx('quoteLine').where({ id }).update(row);
    await insertMany(
      trx,
      'quoteLine',
      rows.flatMap(({ id, ...row }) => (id === undefined ? [{ ...row, quoteId }] : [])),
    );
    await trx('quote')
      .where({ id: quoteId })
      .update({ version: version + 1 });
    await audit({
      words: `Changed quote ${quote.number}, ${counted(lines.length, 'line')} of it filled in`,
      subjects: [
        ['quote', quoteId],
        ['job', quote.jobId],
      ],
      before,
      after: rows,
    });
    return { version: version + 1 };
  },
});

/** Moves an open quote between writing and with the customer, or marks it lost. */
export const moveQuote = defineAction({
  name: 'moveQuote',
  right: 'win quotes',
  input: z.object({
    quoteId: z.number().int(),
    version: z.number().int(),
    to: z.enum(['writing', 'withCustomer', 'lost']),
  }),
  run: async ({ trx, audit }, { quoteId, version, to }) => {
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    stillOpen(quote);
    await trx('quote')
      .where({ id: quoteId })
      .update({ state: to, version: version + 1 });
    const live = await trx('quote').where({ jobId: quote.jobId }).whereNot({ state: 'lost' }).first('id');
    if (!live) await trx('job').where({ id: quote.jobId, state: 'quoted' }).update({ state: 'lost' });
    const words = { writing: 'is being written again', withCustomer: 'is with the customer', lost: 'was lost' }[to];
    await audit({
      words: `Quote ${quote.number} ${words}`,
      subjects: [
        ['quote', quoteId],
        ['job', quote.jobId],
      ],
      before: { state: quote.state },
      after: { state: to },
    });
  },
});

/** Marks a quote won: its cost side opens the budget by cost code, and its bought lines become the buy list. */
export const winQuote = defineAction({
  name: 'winQuote',
  right: 'win quotes',
  input: z.object({
    once,
    quoteId: z.number().int(),
    version: z.number().int(),
    ...winningFields.shape,
  }),
  run: async (work, { quoteId, version, wonBy }) => {
    const { trx, actor, today, now, company, audit, touch } = work;
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    const lines = await trx('quoteLine').where({ quoteId }).orderBy('place');
    const state = grant(win({ state: quote.state, lines: lines.length }, wonBy));
    const [entries] = (await trx('budgetEntry').where({ jobId: quote.jobId }).count({ n: '*' })) as { n: number }[];
    const kind = entries?.n === 0 ? 'opening' : 'change';
    const { budget } = await loadQuoteSums(trx, quoteId);
    const reason = `Quote ${quote.number} won`;
    await insertMany(
      trx,
      'budgetEntry',
      [...budget]
        .filter(([, amount]) => amount !== 0)
        .map(([costCodeId, amount]) => ({
          jobId: quote.jobId,
          costCodeId,
          kind,
          amount,
          reason,
          quoteId,
          personId: actor.id,
          day: today,
          at: now,
        })),
    );
    const bought = lines.filter(isBought);
    const items = await loadItems(
      trx,
      bought.flatMap((l) => l.itemId ?? []),
    );
    const needs = bought.map((l) => ({
      kind: needKind(l.unit, items.get(l.itemId ?? 0)),
      jobId: quote.jobId,
      quoteLineId: l.id,
      itemId: l.itemId,
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      costCodeId: l.costCodeId,
      price: l.cost === 0 ? null : l.cost,
      supplierId: l.supplierId,
      neededOn: l.neededOn,
    }));
    touch('Quote won', 'quote', quoteId, await insertNeeds(trx, needs, today));
    await trx('quote')
      .where({ id: quoteId })
      .update({ state, wonBy, wonOn: today, markedBy: actor.id, version: version + 1 });
    await trx('job').where({ id: quote.jobId, state: 'quoted' }).update({ state: 'live' });
    const total = minor([...budget.values()].reduce<number>((sum, a) => sum + a, 0));
    await audit({
      words: `Quote ${quote.number} won: ${wonBy} said yes. Budget ${formatMoney(total, company.currency)}, ${counted(bought.length, 'line')} to buy`,
      subjects: [
        ['quote', quoteId],
        ['job', quote.jobId],
      ],
      after: { wonBy, budget: [...budget] },
    });
    return { bought: bought.length, budget: total };
  },
});
