import { z } from 'zod';
import { LIMITS } from '@/core/limits';
import { formatMoney, minor } from '@/core/money/money';
import { needKind } from '@/core/needs/kind';
import { missingFields, QUOTE_FIELDS, readRows, type Mapping } from '@/core/quotes/rows';
import { amountsOf, isBought, win } from '@/core/quotes/winning';
import type { Day } from '@/core/calendar/workdays';
import { readCsv } from '@/formats/csv/read';
import { loadItems } from '@/store/gathering';
import { insertNeeds } from '@/store/needs';
import { loadKnowledge, loadQuoteSums, type Choices } from '@/store/quotes';
import { insertMany, insertOne } from '@/store/rows';
import type { Quote } from '@/store/tables';
import { defineAction, found, grant, once, Refused, refuse, sameVersion, type Work } from './action';
import { text } from './fields';
import { counted } from '@/core/words';

const quoteOf = async (trx: Work['trx'], id: number) => found(await trx('quote').where({ id }).first(), 'This quote');

function stillOpen(quote: Quote): void {
  if (quote.state === 'won' || quote.state === 'lost')
    refuse('quote.closed', `Quote ${quote.number} is ${quote.state}, so its lines stay as they are.`);
}

/** Keeps an uploaded quote file until its columns are mapped and its rows are brought in. */
export const keepQuoteFile = defineAction({
  name: 'keepQuoteFile',
  right: 'import quotes',
  input: z.object({
    quoteId: z.number().int(),
    name: z.string().max(200),
    bytes: z
      .instanceof(Uint8Array)
      .refine(
        (b) => b.length <= LIMITS.file,
        'The file is larger than 8 MB. Split it and bring the parts in one after the other.',
      ),
  }),
  run: async ({ trx, actor, now, audit }, { quoteId, name, bytes }) => {
    const quote = await quoteOf(trx, quoteId);
    stillOpen(quote);
    const sheet = grant(readCsv(bytes));
    await trx('quoteFile').where({ quoteId, used: 0 }).delete();
    const id = await insertOne(trx, 'quoteFile', {
      quoteId,
      name,
      bytes: Buffer.from(bytes),
      personId: actor.id,
      at: now,
    });
    await audit({
      words: `Kept ${name} to bring into quote ${quote.number}`,
      subjects: [
        ['quote', quoteId],
        ['job', quote.jobId],
      ],
    });
    return { id, rows: sheet.rows.length };
  },
});

export const mappingSchema = z.partialRecord(z.enum(QUOTE_FIELDS), z.number().int().min(0).max(500));
export const choicesSchema = z.object({
  /** null as long as nobody has said how decimals are written. */
  mark: z.enum(['.', ',']).nullable(),
  costCode: z.record(z.string(), z.number().int()),
  supplier: z.record(z.string(), z.number().int().nullable()),
  leftOut: z.array(z.number().int()),
});

/** Brings the rows of a kept file in as lines of its quote: all that are not left out, or none. */
export const importQuote = defineAction({
  name: 'importQuote',
  right: 'import quotes',
  input: z.object({ once, fileId: z.number().int(), mapping: mappingSchema, choices: choicesSchema }),
  run: async (work, { fileId, mapping, choices }) => {
    const { trx, today, company, audit } = work;
    const file = found(await trx('quoteFile').where({ id: fileId, used: 0 }).first(), 'This file');
    const quote = await quoteOf(trx, file.quoteId);
    stillOpen(quote);
    const lines = await readLines(work, file.bytes, mapping as Mapping, choices, today);
    const [last] = (await trx('quoteLine').where({ quoteId: quote.id }).max({ place: 'place' })) as {
      place: number | null;
    }[];
    const from = (last?.place ?? 0) + 1;
    await insertMany(
      trx,
      'quoteLine',
      lines.map(({ row: _, ...line }, k) => ({
        ...line,
        ...amountsOf(line, company.currency),
        quoteId: quote.id,
        place: from + k,
      })),
    );
    await trx('quoteFile').where({ id: fileId }).update({ used: 1 });
    await trx('quote')
      .where({ id: quote.id })
      .update({ version: quote.version + 1 });
    await audit({
      words: `Brought ${counted(lines.length, 'line')} into quote ${quote.number} from ${file.name}`,
      subjects: [
        ['quote', quote.id],
        ['job', quote.jobId],
      ],
      after: { file: file.name, lines: lines.length, leftOut: choices.leftOut },
    });
    return { lines: lines.length };
  },
});

async function readLines({ trx }: Work, bytes: Buffer, mapping: Mapping, choices: Choices, today: Day) {
  if (choices.mark === null) refuse('mark', 'Say whether decimals are written with a point or a comma.');
  const missing = missingFields(mapping);
  if (missing.length > 0) refuse('mapping', `Choose the column for: ${missing.join(', ')}.`);
  const sheet = grant(readCsv(bytes));
  const leftOut = new Set(choices.leftOut);
  const rows = sheet.rows.filter((r) => !leftOut.has(r.row));
  const { lines, problems } = readRows(rows, mapping, await loadKnowledge(trx, choices, today));
  const stops = problems.filter((p) => p.weight === 'stop');
  if (stops.length > 0)
    throw new Refused(
      stops.slice(0, 200).map((p) => ({ code: 'row', message: `Row ${p.row}: ${p.message}`, field: `rows.${p.row}` })),
    );
  if (lines.length === 0) refuse('rows.none', 'Every row is left out, so there is nothing to bring in.');
  return lines;
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
