import { LIVE } from '@/core/jobs/states';
import { z } from 'zod';
import { PER } from '@/core/boms/bom';
import { LIMITS } from '@/core/limits';
import { unitPriceSchema } from '@/core/money/schema';
import { coveredOf } from '@/core/needs/coverage';
import { type Quantity } from '@/core/quantity/quantity';
import { quantitySchema } from '@/core/quantity/schema';
import { isUnit } from '@/core/quantity/units';
import { wholeFault } from '@/core/quantity/whole';
import { QUOTE_LINE_KINDS } from '@/core/quotes/rows';
import { MARKUP, priceWith } from '@/core/quotes/margin';
import { lineFor, MOST_PIECES, MOST_PRICED, piecesKept } from '@/core/quotes/pieces';
import { amountsOf, isOpenQuote, isWon } from '@/core/quotes/winning';
import { loadListed } from '@/store/quotes';
import { insertMany, insertOne, whereIn } from '@/store/rows';
import { loadNeedStates } from '@/store/tab/needs';
import type { Quote } from '@/store/tables';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';
import { distinct, lineFields } from '@/core/records/fields';
import { sayingFields } from '@/core/records/quote';
import { counted } from '@/core/words';

export const quoteOf = async (trx: Work['trx'], id: number) =>
  found(await trx('quote').where({ id }).first(), 'This quote');

export function stillOpen(quote: Quote): void {
  if (!isOpenQuote(quote))
    refuse('quote.closed', `Quote ${quote.number} is ${quote.state}, so its lines can’t change. Revise it instead.`);
  if (quote.revisedAs !== null)
    refuse('quote.revised', `Quote ${quote.number} has been revised. Open the latest revision.`);
}

const quoteFields = {
  ...lineFields,
  kind: z.enum(QUOTE_LINE_KINDS),
  itemId: z.number().int().nullable(),
  quantity: quantitySchema.refine((q) => q > 0, 'Enter a quantity above zero.'),
  cost: unitPriceSchema.refine((p) => p >= 0, 'Enter 0 or more.'),
  price: unitPriceSchema.refine((p) => p >= 0, 'Enter 0 or more.').nullable(),
  /** What is put on the cost, in hundredths of a percent; the price follows it. */
  markup: z
    .number()
    .int()
    .min(MARKUP.least, 'Enter 0 or more.')
    .max(MARKUP.most, 'No more than 10,000 %.')
    .nullable()
    .default(null),
  optional: z.boolean().default(false),
  /** Whether it grows with the pieces that the quote is for, or is had once. */
  per: z.enum(PER).default('piece'),
};

const whole = (l: { quantity: Quantity; unit: string; description: string }, ctx: z.RefinementCtx) => {
  const fault = isUnit(l.unit) ? wholeFault(l.quantity, l.unit, l.description) : undefined;
  if (fault !== undefined) ctx.addIssue({ code: 'custom', message: fault.message, path: ['quantity'] });
};

type Line = z.output<z.ZodObject<typeof quoteFields>>;

/** A line as it is kept: its price follows its mark-up, where it has one. */
export function stored<L extends Line>({ optional, ...line }: L, currency: string) {
  const price = line.markup === null ? line.price : priceWith(line.cost, line.markup);
  return { ...line, price, optional: Number(optional), ...amountsOf({ ...line, price }, currency) };
}

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
      .refine(distinct('id'), 'A line appears twice.'),
  }),
  run: async ({ trx, company, audit }, { quoteId, version, after, upTo, lines }) => {
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    stillOpen(quote);
    const before = await trx('quoteLine')
      .where({ quoteId })
      .whereBetween('place', [after + 1, upTo]);
    const was = new Map(before.map((l) => [l.id, l]));
    const kept = lines.flatMap((l) => l.id ?? []);
    if (kept.some((id) => !was.has(id)))
      refuse('line.missing', 'The quote has changed: a line was removed. Refresh it.');
    const gone = [...was.keys()].filter((id) => !kept.includes(id));
    await trx('quoteLine').whereIn('id', gone).delete();
    const rows = lines.map((l, k) => {
      const old = was.get(l.id ?? 0);
      // How much a person writes is for the pieces that the quote is for now.
      const same = old?.quantity === l.quantity && old.unit === l.unit;
      const { basisQuantity, basisPieces } = same ? old : { basisQuantity: null, basisPieces: null };
      return { ...stored(l, company.currency), basisQuantity, basisPieces, place: after + 1 + k };
    });
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
      words: `Changed quote ${quote.number}, ${counted(lines.length, 'line')} filled in`,
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

/** Changes what an open quote says to the customer. */
export const changeSaying = defineAction({
  name: 'changeSaying',
  right: 'import quotes',
  input: z.object({ quoteId: z.number().int(), version: z.number().int(), saying: sayingFields }),
  run: async ({ trx, audit }, { quoteId, version, saying: { alsoPieces, ...said } }) => {
    const saying = { ...said, alsoPieces: alsoPieces.join() };
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    stillOpen(quote);
    await trx('quote')
      .where({ id: quoteId })
      .update({ ...saying, version: version + 1 });
    // Said to be for another number as they stand, lines are written for that.
    if (saying.pieces !== quote.pieces)
      await trx('quoteLine').where({ quoteId }).update({ basisQuantity: null, basisPieces: null });
    const { takes, validUntil, words, pieces } = quote;
    await audit({
      words: `Changed terms and wording of quote ${quote.number}`,
      subjects: quoteSubjects(quote),
      before: { takes, validUntil, words, pieces, alsoPieces: quote.alsoPieces },
      after: saying,
    });
    return { version: version + 1 };
  },
});

/** Writes a quote for another number of pieces: what grows with them does, and costs follow the suppliers' breaks. */
export const writeForPieces = defineAction({
  name: 'writeForPieces',
  right: 'import quotes',
  input: z.object({
    once,
    quoteId: z.number().int(),
    version: z.number().int(),
    pieces: z.number().int().min(1).max(MOST_PIECES),
  }),
  run: async ({ trx, company, today, audit }, { quoteId, version, pieces }) => {
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    stillOpen(quote);
    const written =
      quote.pieces ??
      refuse('quote.pieces', `Quote ${quote.number} has no quantity. Enter it under Terms and wording first.`);
    const lines = await trx('quoteLine').where({ quoteId }).orderBy('place');
    const listed = await loadListed(trx, lines, today);
    for (const line of lines) {
      const { quantity, cost, price, basisQuantity, basisPieces } = lineFor(line, written, pieces, listed);
      const anew = { quantity, cost, price };
      await trx('quoteLine')
        .where({ id: line.id })
        .update({ ...anew, basisQuantity, basisPieces, ...amountsOf(anew, company.currency) });
    }
    const others = new Set([...piecesKept(quote.alsoPieces), written]);
    others.delete(pieces);
    const alsoPieces = [...others]
      .sort((a, b) => a - b)
      .slice(0, MOST_PRICED)
      .join();
    await trx('quote')
      .where({ id: quoteId })
      .update({ pieces, alsoPieces, version: version + 1 });
    await audit({
      words: `Rewrote quote ${quote.number} for ${counted(pieces, 'piece')} (was ${written})`,
      subjects: quoteSubjects(quote),
      before: { pieces: written },
      after: { pieces },
    });
    return { version: version + 1 };
  },
});

export const quoteSubjects = (quote: Pick<Quote, 'id' | 'jobId'>) =>
  [
    ['quote', quote.id],
    ['job', quote.jobId],
  ] as const;

/**
 * What was put on the buy list before the customer's yes, and is not bought yet, is not wanted any more; a job for which
 * nothing is bought goes with its quote.
 */
async function giveUpEarly({ trx, touch }: Work, quote: Quote): Promise<void> {
  const lines = await trx('quoteLine').where({ quoteId: quote.id }).select('id');
  const needs = await loadNeedStates(
    trx,
    (
      await whereIn(
        trx,
        'need',
        'quoteLineId',
        lines.map((l) => l.id),
      )
    ).map((n) => n.id),
  );
  if (needs.length === 0) return;
  for (const { id, coverage, version } of needs)
    await trx('need')
      .where({ id })
      .update({ quantity: coveredOf(coverage), version: version + 1 });
  touch(
    'Quote lost',
    'quote',
    quote.id,
    needs.map((n) => n.id),
  );
  if ((await trx('split').where({ jobId: quote.jobId }).first('id')) === undefined)
    await trx('job').where({ id: quote.jobId, state: LIVE }).update({ state: 'quoted' });
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
  run: async (work, { quoteId, version, to }) => {
    const { trx, actor, today, audit } = work;
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    stillOpen(quote);
    await trx('quote')
      .where({ id: quoteId })
      .update({ state: to, movedBy: actor.id, movedOn: today, version: version + 1 });
    if (to === 'lost') await giveUpEarly(work, quote);
    // What was won before holds again.
    if (to === 'lost') await trx('quote').where({ revisedAs: quoteId, state: 'won' }).update({ revisedAs: null });
    const live = await trx('quote')
      .where({ jobId: quote.jobId })
      .whereNot({ state: 'lost' })
      .whereNull('revisedAs')
      .first('id');
    if (!live) await trx('job').where({ id: quote.jobId, state: 'quoted' }).update({ state: 'lost' });
    const words = { writing: 'back in preparation', withCustomer: 'sent to customer', lost: 'lost' }[to];
    await audit({
      words: `Quote ${quote.number} ${words}`,
      subjects: quoteSubjects(quote),
      before: { state: quote.state },
      after: { state: to },
    });
  },
});

/**
 * Begins a quote anew from one that is with the customer, was won or was lost; the one before stays as it was. What was
 * won holds until its revision is won.
 */
export const reviseQuote = defineAction({
  name: 'reviseQuote',
  right: 'import quotes',
  input: z.object({ once, quoteId: z.number().int(), version: z.number().int() }),
  run: async ({ trx, actor, today, audit }, { quoteId, version }) => {
    const quote = sameVersion(await quoteOf(trx, quoteId), version, 'This quote');
    if (quote.revisedAs !== null)
      refuse('quote.revised', `Quote ${quote.number} is already revised. Open the latest revision.`);
    const [base = quote.number, nth = '1'] = quote.number.split('/');
    const number = `${base}/${Number(nth) + 1}`;
    const { takes, validUntil, words, pieces, alsoPieces, jobId } = quote;
    const moved = { movedBy: actor.id, movedOn: today };
    const id = await insertOne(trx, 'quote', {
      ...{ jobId, number, state: 'writing', takes, validUntil, words, pieces, alsoPieces },
      ...moved,
    });
    const lines = await trx('quoteLine').where({ quoteId }).orderBy('place');
    await insertMany(
      trx,
      'quoteLine',
      lines.map(({ id: fromLineId, agreed, ...line }) => ({
        ...{ ...line, quoteId: id, fromLineId },
        // What the customer agreed to is part of it now, and what they did not is still on offer.
        optional: isWon(quote) ? Number(agreed !== 1) : line.optional,
      })),
    );
    // What is bought already before the customer's yes belongs to the copied lines; what was won is bought as it was won.
    if (!isWon(quote))
      await trx.raw(
        `update need set quote_line_id = (select y.id from quote_line x join quote_line y on y.place = x.place
         where x.id = need.quote_line_id and y.quote_id = ?)
       where quote_line_id in (select id from quote_line where quote_id = ?)`,
        [id, quoteId],
      );
    await trx('quote')
      .where({ id: quoteId })
      .update({ revisedAs: id, version: version + 1 });
    await trx('job').where({ id: jobId, state: 'lost' }).update({ state: 'quoted' });
    await audit({
      words: `Revised quote ${quote.number} as ${number}, ${counted(lines.length, 'line')}`,
      subjects: [...quoteSubjects(quote), ['quote', id]],
      after: { number, revises: quote.number },
    });
    return { id, number };
  },
});
