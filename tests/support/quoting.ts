import { changeQuote } from '@/actions/quotes/quotes';
import { winQuote } from '@/actions/quotes/winning';
import type { TestCompany } from './company';

export type TypedQuoteLine = Parameters<typeof changeQuote>[1]['lines'][number];

/** What tests of quotes do over and over with the company’s first quote, and what comes of it. */
export function quoting(yard: () => TestCompany) {
  const line = (description: string, change: Partial<TypedQuoteLine> = {}): TypedQuoteLine => ({
    kind: 'bought',
    itemId: null,
    description,
    quantity: 20_000,
    unit: 'MTR',
    cost: 100_000,
    price: null,
    costCodeId: yard().ids.codes[0],
    supplierId: null,
    neededOn: null,
    ...change,
  });

  const quoteOf = async (id = 1) => (await yard().db('quote').where({ id }).first())!;
  const fill = async (...lines: TypedQuoteLine[]) => {
    const { version } = await quoteOf();
    const ref = { once: yard().once(), quoteId: 1, version, after: 0, upTo: 0 };
    return changeQuote(await yard().as('lead'), { ...ref, lines });
  };
  const win = async (change: Partial<Parameters<typeof winQuote>[1]> = {}) =>
    winQuote(await yard().as('lead'), {
      once: yard().once(),
      ...{ quoteId: 1, version: (await quoteOf()).version, wonBy: 'Hester Lowe' },
      ...change,
    });
  const idOf = async (description: string) => (await yard().db('quoteLine').where({ description }).first('id'))!.id;
  const budget = async () =>
    (await yard().db('budgetEntry').orderBy('id').select('kind', 'amount')).map((b) => [b.kind, b.amount]);
  const needs = async () => (await yard().db('need').orderBy('id').select('description')).map((n) => n.description);
  return { line, quoteOf, fill, win, idOf, budget, needs };
}
