import { z } from 'zod';
import { LIMITS } from '@/core/limits';
import { isUnit } from '@/core/quantity/units';
import { headingKey, QUOTE_FIELDS, type Mapping } from '@/core/quotes/fields';
import { type QuoteLine } from '@/core/quotes/rows';
import type { Result } from '@/core/result';
import { counted } from '@/core/words';
import { MOST_ROWS } from '@/formats/csv/read';
import { FILE_WHATS, remember } from '@/store/quotes';
import { insertMany, insertOne, rowsOf } from '@/store/rows';
import type { Person } from '@/store/people';
import { defineAction, found, inputRefusals, notPermitted, once, type Outcome, type Perform } from '../action';
import { quoteLine, quoteOf, stillOpen, stored } from './quotes';

const bytes = z
  .instanceof(Uint8Array)
  .refine((b) => b.length <= LIMITS.file, 'This file is over 8 MB. Split it or reduce it, then upload again.');

/** Keeps a quote file, as it came, until its columns are mapped and its rows are brought in. */
export const keepQuoteFile = defineAction({
  name: 'keepQuoteFile',
  internal: true,
  right: 'import quotes',
  input: z.object({ quoteId: z.number().int(), name: z.string().max(200), bytes }),
  run: async ({ trx, actor, now, audit }, { quoteId, name, bytes }) => {
    const quote = await quoteOf(trx, quoteId);
    stillOpen(quote);
    await trx('quoteFile').where({ quoteId, used: 0 }).delete();
    const id = await insertOne(trx, 'quoteFile', {
      quoteId,
      name,
      bytes: Buffer.from(bytes),
      personId: actor.id,
      at: now,
    });
    await audit({
      words: `Uploaded ${name} for quote ${quote.number}`,
      subjects: [
        ['quote', quoteId],
        ['job', quote.jobId],
      ],
    });
    return { id };
  },
});

/** Brings in as lines of its quote what was read from a kept file: all of it or nothing, and once. */
export const importQuote = defineAction({
  name: 'importQuote',
  internal: true,
  right: 'import quotes',
  input: z.object({
    once,
    fileId: z.number().int(),
    lines: z.array(quoteLine).min(1).max(MOST_ROWS),
    leftOut: z.array(z.number().int()).max(MOST_ROWS),
    /** What words of the file were said to mean, for the next file. */
    meanings: z.record(z.enum(FILE_WHATS), z.record(z.string().max(200), z.string().max(40))),
  }),
  run: async ({ trx, company, audit }, { fileId, lines, leftOut, meanings }) => {
    const file = found(await trx('quoteFile').where({ id: fileId, used: 0 }).first(), 'This file');
    const quote = await quoteOf(trx, file.quoteId);
    stillOpen(quote);
    const [last] = await rowsOf<{
      place: number | null;
    }>(trx('quoteLine').where({ quoteId: quote.id }).max({ place: 'place' }));
    const from = (last?.place ?? 0) + 1;
    await insertMany(
      trx,
      'quoteLine',
      lines.map((l, k) => ({ ...stored(l, company.currency), quoteId: quote.id, place: from + k })),
    );
    await trx('quoteFile').where({ id: fileId }).update({ used: 1 });
    for (const what of FILE_WHATS) await remember(trx, 'quote', what, meanings[what]);
    await trx('quote')
      .where({ id: quote.id })
      .update({ version: quote.version + 1 });
    await audit({
      words: `Imported ${counted(lines.length, 'line')} into quote ${quote.number} from ${file.name}`,
      subjects: [
        ['quote', quote.id],
        ['job', quote.jobId],
      ],
      after: { file: file.name, lines: lines.length, leftOut },
    });
    return { lines: lines.length };
  },
});

export const bringInInput = z.object({
  once,
  fileId: z.number().int(),
  mapping: z.partialRecord(z.enum(QUOTE_FIELDS), z.number().int().min(0).max(500)),
  choices: z.object({
    /** null as long as nobody has said how decimals are written. */
    mark: z.enum(['.', ',']).nullable(),
    costCode: z.record(z.string(), z.number().int()),
    supplier: z.record(z.string(), z.number().int().nullable()),
    unit: z.record(z.string(), z.string().refine(isUnit, 'Choose a unit.')).default({}),
    leftOut: z.array(z.number().int()).max(MOST_ROWS),
  }),
});
export type BringIn = z.output<typeof bringInInput>;

export type QuoteRead = { readonly headings: readonly string[]; readonly lines: readonly QuoteLine[] };

const asText = (meanings: Readonly<Record<string, number | null>>) =>
  Object.fromEntries(Object.entries(meanings).map(([word, id]) => [word, id === null ? '' : String(id)]));

/** What each heading was said to hold; a column without one is not remembered. */
const columnMeanings = (headings: readonly string[], mapping: Mapping) =>
  Object.fromEntries(
    headings.map((heading, column) => [headingKey(heading), QUOTE_FIELDS.find((f) => mapping[f] === column) ?? '']),
  );

/** A file is read apart from where its lines are written down, so that a long one holds nobody up. */
export type Reading = {
  readonly actor: Person;
  readonly perform: Perform;
  readonly read: (input: BringIn) => Promise<Result<QuoteRead>>;
};

/** Reads a kept file with a mapping and choices, and brings in what it gives. */
export async function importQuoteFile(
  { actor, perform, read }: Reading,
  input: z.input<typeof bringInInput>,
): Promise<Outcome<{ lines: number }>> {
  const barred = notPermitted(actor, 'import quotes');
  if (barred !== undefined) return barred;
  const asked = bringInInput.safeParse(input);
  if (!asked.success) return { status: 'refused', refusals: inputRefusals(asked.error) };
  const file = await read(asked.data);
  if (!file.ok) return { status: 'refused', refusals: file.refusals };
  const { once: key, fileId, mapping, choices } = asked.data;
  return perform(importQuote, {
    once: key,
    fileId,
    lines: file.value.lines.map(({ row: _, neededOn, ...l }) => ({ ...l, neededOn: neededOn ?? '' })),
    leftOut: choices.leftOut,
    meanings: {
      column: columnMeanings(file.value.headings, mapping),
      costCode: asText(choices.costCode),
      supplier: asText(choices.supplier),
      unit: choices.unit,
    },
  });
}
