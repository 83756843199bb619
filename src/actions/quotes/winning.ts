import { LIVE } from '@/core/jobs/states';
import { changeFaults } from '@/core/budgets/change';
import { closedRefusal } from '@/core/jobs/closing';
import { z } from 'zod';
import { formatMoney, minor, type Minor } from '@/core/money/money';
import { SURPLUS, type Surplus } from '@/core/needs/surplus';
import { NONE } from '@/core/quantity/quantity';
import { budgetChange, revisionChanges } from '@/core/quotes/revision';
import { needKind } from '@/core/needs/kind';
import { budgetOf, whyNotBought, win, isWon } from '@/core/quotes/winning';
import { text } from '@/core/records/fields';
import { winningFields } from '@/core/records/quote';
import { counted } from '@/core/words';
import { refusal } from '@/core/result';
import { loadBudgetsBefore } from '@/store/budgets';
import { loadCostCodes, withTaxes } from '@/store/company';
import { loadItems } from '@/store/gathering';
import { insertNeeds } from '@/store/needs';
import { among, insertMany, whereIn, rowsOf, rowOf } from '@/store/rows';
import type { Quote, QuoteLineRow } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, sameVersion, type Work } from '../action';
import { quoteOf, stillOpen, quoteSubjects } from './quotes';
import { applyWanted } from '../buying/changedNeeds';

/** Puts lines of a quote that may be bought on the buy list, those left out that stand on it already. */
async function openNeeds(work: Work, quote: Quote, lines: readonly QuoteLineRow[], event: string): Promise<number> {
  const { trx, today, touch } = work;
  const there = await whereIn(
    trx,
    'need',
    'quoteLineId',
    lines.map((l) => l.id),
  );
  const known = new Set(there.map((n) => n.quoteLineId));
  const bought = await boughtLines(trx, lines);
  const items = await loadItems(
    trx,
    bought.flatMap((l) => l.itemId ?? []),
  );
  const needs = bought
    .filter((l) => !known.has(l.id))
    .map((l) => ({
      kind: needKind(l.unit, items.get(l.itemId ?? 0)),
      ...{ jobId: quote.jobId, quoteLineId: l.id, itemId: l.itemId, description: l.description },
      ...{ quantity: l.quantity, unit: l.unit, costCodeId: l.costCodeId, price: l.cost === 0 ? null : l.cost },
      ...{ supplierId: l.supplierId, neededOn: l.neededOn },
    }));
  touch(event, 'quote', quote.id, await insertNeeds(trx, needs, today));
  return bought.length;
}

/**
 * What lines that the customer agreed to lead to: their cost side opens the job's budget by cost code, and those that may
 * be bought stand on its buy list.
 */
async function openLines(work: Work, quote: Quote, lines: readonly QuoteLineRow[], reason: string) {
  const { trx, company } = work;
  const budget = budgetOf(await withTaxes(trx, lines), company.currency);
  await openBudget(work, quote, budget, reason);
  const bought = await openNeeds(work, quote, lines, 'Quote won');
  return { bought, budget: sumOf(budget) };
}

const sumOf = (budget: ReadonlyMap<number, Minor>): Minor =>
  minor([...budget.values()].reduce<number>((sum, a) => sum + a, 0));

/** Moves a job's budget by cost code; the first that moves it opens it. */
async function openBudget(
  { trx, actor, today, now }: Work,
  quote: Quote,
  budget: ReadonlyMap<number, Minor>,
  reason: string,
): Promise<void> {
  const closed = await trx('job').where({ id: quote.jobId, state: 'complete' }).first('number');
  if (closed !== undefined) throw new Refused([closedRefusal(closed.number)]);
  const [entries] = await rowsOf<{ n: number }>(trx('budgetEntry').where({ jobId: quote.jobId }).count({ n: '*' }));
  const kind = entries?.n === 0 ? 'opening' : 'change';
  await insertMany(
    trx,
    'budgetEntry',
    [...budget]
      .filter(([, amount]) => amount !== 0)
      .map(([costCodeId, amount]) => ({
        ...{ jobId: quote.jobId, costCodeId, kind, amount, reason, quoteId: quote.id },
        ...{ personId: actor.id, day: today, at: now },
      })),
  );
}

/** A revision takes no more off a cost code than stands there: some of it may have been moved to another since. */
async function checkBudget({ trx, today }: Work, quote: Quote, budget: ReadonlyMap<number, Minor>): Promise<void> {
  if (budget.size === 0) return;
  const job = found(await trx('job').where({ id: quote.jobId }).first(), 'This job');
  const codes = new Map((await loadCostCodes(trx)).map((c) => [c.id, `${c.code} ${c.name}`]));
  const lines = [...budget].map(([costCodeId, amount]) => ({ costCodeId, amount }));
  const before = await loadBudgetsBefore(trx, job, today);
  const faults = changeFaults({ lines, day: today }, before, today, (id) => codes.get(id) ?? '');
  if (faults.length > 0)
    throw new Refused(
      faults.map(({ code, message }) =>
        refusal(code, `${message} This revision takes more off it: move budget back to it first.`),
      ),
    );
}

/** The lines of a quote that its buy list takes, as they are compared with those of its revision. */
async function boughtLines(trx: Work['trx'], lines: readonly QuoteLineRow[]): Promise<QuoteLineRow[]> {
  const items = await loadItems(
    trx,
    lines.flatMap((l) => l.itemId ?? []),
  );
  return lines.filter((l) => whyNotBought({ ...l, agreed: 1 }, items.get(l.itemId ?? 0)) === undefined);
}

type Taken = { readonly left: readonly string[]; readonly surplus: Surplus | undefined };

/**
 * What the revision of a won quote leads to: the budget moves by what differs, and the buy list takes on what changed,
 * but for what is left as it is.
 */
async function openRevision(
  work: Work,
  before: Quote,
  quote: Quote,
  lines: readonly QuoteLineRow[],
  { left, surplus }: Taken,
) {
  const { trx, company, touch } = work;
  const won = await trx('quoteLine').where({ quoteId: before.id, agreed: 1 }).orderBy('place');
  const opens = async (of: readonly QuoteLineRow[]) => budgetOf(await withTaxes(trx, of), company.currency);
  const budget = budgetChange(await opens(won), await opens(lines));
  await checkBudget(work, quote, budget);
  await openBudget(work, quote, budget, `Quote ${quote.number} won in place of ${before.number}`);
  const [was, is] = [await boughtLines(trx, won), await boughtLines(trx, lines)];
  const needs = new Map(
    (
      await whereIn(
        trx,
        'need',
        'quoteLineId',
        was.map((l) => l.id),
      )
    ).map((n) => [n.quoteLineId, n]),
  );
  const changes = revisionChanges(was, is).filter((c) => !left.includes(c.key));
  const wanted = changes.flatMap(({ was: old, is: now }) => {
    const need = needs.get(old?.id ?? 0);
    return need === undefined
      ? []
      : [{ need, quantity: now?.quantity ?? NONE, neededOn: now === undefined ? need.neededOn : now.neededOn }];
  });
  await applyWanted(work, wanted, surplus);
  // Lines that stay are those of the revision from now on.
  for (const line of is) {
    const need = needs.get(line.fromLineId ?? 0);
    if (need?.unit === line.unit) await trx('need').where({ id: need.id }).update({ quoteLineId: line.id });
  }
  const fresh = changes.flatMap(({ was: old, is: now }) => (old === undefined && now !== undefined ? now.id : []));
  const bought = await openNeeds(
    work,
    quote,
    lines.filter((l) => fresh.includes(l.id)),
    'Quote revised',
  );
  touch(
    'Quote revised',
    'quote',
    quote.id,
    wanted.map(({ need }) => need.id),
  );
  return { bought, budget: sumOf(budget) };
}

const chosenLines = z.array(z.number().int()).max(50_000);

/**
 * Marks a quote won, the whole of it or the lines that the customer agreed to; what the customer's order says goes along
 * to the job.
 */
export const winQuote = defineAction({
  name: 'winQuote',
  right: 'win quotes',
  input: z.object({
    once,
    quoteId: z.number().int(),
    version: z.number().int(),
    /** The lines agreed to; all that are not optional when it is left out. */
    agreed: chosenLines.optional(),
    /** Of what the revision of a won quote changes on the buy list, what is left as it is, by its keys. */
    left: z.array(z.string().max(40)).max(50_000).default([]),
    surplus: z.enum(SURPLUS).optional(),
    ...winningFields.shape,
  }),
  run: async (work, { once: _, quoteId, version, agreed, left, surplus, wonBy, ...customer }) => {
    const { trx, actor, today, company, audit } = work;
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    const all = await trx('quoteLine').where({ quoteId }).orderBy('place');
    const chosen = new Set(agreed ?? all.filter((l) => l.optional === 0).map((l) => l.id));
    const lines = all.filter((l) => chosen.has(l.id));
    if (lines.length < chosen.size) refuse('line.missing', 'The quote has changed: a line was removed. Refresh it.');
    if (quote.revisedAs !== null) stillOpen(quote);
    const state = grant(win({ state: quote.state, lines: lines.length }, wonBy));
    await markAgreed(trx, quoteId, lines);
    const before = await trx('quote').where({ revisedAs: quoteId, state: 'won' }).first();
    const { bought, budget } =
      before === undefined
        ? await openLines(work, quote, lines, `Quote ${quote.number} won`)
        : await openRevision(work, before, quote, lines, { left, surplus });
    const moved = { movedBy: actor.id, movedOn: today };
    await trx('quote')
      .where({ id: quoteId })
      .update({ state, wonBy, wonOn: today, markedBy: actor.id, ...moved, version: version + 1 });
    await trx('job').where({ id: quote.jobId, state: 'quoted' }).update({ state: LIVE });
    // What a revision does not say anew stays as it was said before.
    const said = Object.entries(customer).filter(
      ([, value]) => before === undefined || (value !== '' && value !== null),
    );
    if (said.length > 0) await trx('job').where({ id: quote.jobId }).update(Object.fromEntries(said));
    const open = all.length - lines.length;
    await audit({
      words: `Quote ${quote.number} won: accepted by ${wonBy}${open === 0 ? '' : `, ${lines.length} of ${counted(all.length, 'line')}`}. Budget ${formatMoney(budget, company.currency)}, ${counted(bought, 'line')} to buy`,
      subjects: quoteSubjects(quote),
      after: { wonBy, budget, agreed: lines.length, ...customer },
    });
    return { bought, budget };
  },
});

async function markAgreed(trx: Work['trx'], quoteId: number, lines: readonly { id: number }[]): Promise<void> {
  await trx('quoteLine').where({ quoteId }).whereNull('agreed').update({ agreed: 0 });
  await trx('quoteLine')
    .whereIn(
      'id',
      among(
        trx,
        lines.map((l) => l.id),
      ),
    )
    .update({ agreed: 1 });
}

/** The customer agrees to further lines of a won quote: they widen the budget and can be bought. */
export const agreeLines = defineAction({
  name: 'agreeLines',
  right: 'win quotes',
  input: z.object({
    once,
    quoteId: z.number().int(),
    version: z.number().int(),
    lineIds: chosenLines.min(1, 'Select the accepted lines.'),
    by: text(120, 'Enter who accepted for the customer.'),
  }),
  run: async (work, { quoteId, version, lineIds, by }) => {
    const { trx, company, audit } = work;
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    if (!isWon(quote)) refuse('quote.open', `Quote ${quote.number} isn’t won yet. Mark it won first.`);
    if (quote.revisedAs !== null)
      refuse('quote.revised', `Quote ${quote.number} is being revised. Enter the acceptance on the revision.`);
    const lines = (await trx('quoteLine').where({ quoteId, agreed: 0 }).orderBy('place')).filter((l) =>
      lineIds.includes(l.id),
    );
    if (lines.length < new Set(lineIds).size)
      refuse('line.agreed', 'A line has been accepted or removed meanwhile. Refresh the quote.');
    await markAgreed(trx, quoteId, lines);
    const { bought, budget } = await openLines(work, quote, lines, `Quote ${quote.number}: further lines accepted`);
    await trx('quote')
      .where({ id: quoteId })
      .update({ version: version + 1 });
    await audit({
      words: `${by} accepted ${counted(lines.length, 'more line')} of quote ${quote.number}. Budget ${formatMoney(budget, company.currency)} more, ${counted(bought, 'line')} to buy`,
      subjects: quoteSubjects(quote),
      after: { by, lineIds },
    });
    return { bought, budget };
  },
});

/**
 * Puts lines on the buy list before the customer said yes, for a reason that is kept with the person's name. They open no
 * budget: what is bought of them stands on the tab beside it until the quote is won.
 */
export const buyEarly = defineAction({
  name: 'buyEarly',
  right: 'win quotes',
  input: z.object({
    once,
    quoteId: z.number().int(),
    version: z.number().int(),
    lineIds: chosenLines.min(1, 'Select the lines to buy.'),
    reason: text(200, 'Give a reason it can’t wait for the customer.'),
  }),
  run: async (work, { quoteId, version, lineIds, reason }) => {
    const { trx, actor, audit } = work;
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    stillOpen(quote);
    if (quote.state === 'writing') refuse('quote.writing', `Mark quote ${quote.number} as sent before buying for it.`);
    if (await trx('quote').where({ revisedAs: quoteId, state: 'won' }).first('id'))
      refuse('quote.revision', 'The won quote still applies until its revision is won. Buy from the won quote.');
    const lines = (await trx('quoteLine').where({ quoteId }).orderBy('place')).filter((l) => lineIds.includes(l.id));
    if (lines.length < new Set(lineIds).size)
      refuse('line.missing', 'The quote has changed: a line was removed. Refresh it.');
    const bought = await openNeeds(work, quote, lines, 'Bought before acceptance');
    if (bought === 0)
      refuse(
        'quote.nothing',
        'None of these lines has type “bought”. Change the type, or choose other lines.',
        'lineIds',
      );
    await trx('job').where({ id: quote.jobId, state: 'quoted' }).update({ state: LIVE });
    await trx('quote')
      .where({ id: quoteId })
      .update({ earlyReason: reason, earlyBy: actor.id, version: version + 1 });
    await audit({
      words: `Bought ${counted(bought, 'line')} of quote ${quote.number} before acceptance: ${reason}`,
      subjects: quoteSubjects(quote),
      after: { lineIds, reason },
    });
    return { bought };
  },
});

/** Nothing is bought for a quote that was lost. */
export async function checkNotLost(trx: Work['trx'], needIds: readonly number[]): Promise<void> {
  const lost = await rowOf<{ description: string; number: string }>(
    trx('need as n')
      .join('quoteLine as l', 'l.id', 'n.quoteLineId')
      .join('quote as q', 'q.id', 'l.quoteId')
      .whereIn('n.id', among(trx, needIds))
      .where('q.state', 'lost')
      .first('n.description', 'q.number'),
  );
  if (lost !== undefined)
    refuse('quote.lost', `${lost.description} belongs to quote ${lost.number}, which was lost, so it can’t be bought.`);
}
