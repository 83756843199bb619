import { z } from 'zod';
import { formatMoney, minor } from '@/core/money/money';
import { needKind } from '@/core/needs/kind';
import { isBought, win } from '@/core/quotes/winning';
import { loadItems } from '@/store/gathering';
import { insertNeeds } from '@/store/needs';
import { loadQuoteSums } from '@/store/quotes';
import { insertMany } from '@/store/rows';
import type { Quote } from '@/store/tables';
import { defineAction, found, grant, once, refuse, sameVersion, type Work } from './action';
import { text } from './fields';
import { counted } from '@/core/words';

export const quoteOf = async (trx: Work['trx'], id: number) =>
  found(await trx('quote').where({ id }).first(), 'This quote');

export function stillOpen(quote: Quote): void {
  if (quote.state === 'won' || quote.state === 'lost')
    refuse('quote.closed', `Quote ${quote.number} is ${quote.state}, so its lines stay as they are.`);
}

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
    wonBy: text(120, 'Say who of the customer said yes.'),
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
