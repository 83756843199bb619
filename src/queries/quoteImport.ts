import type { Day } from '@/core/calendar/workdays';
import type { DecimalMark } from '@/core/money/decimal';
import { lineNet, minor, type Minor } from '@/core/money/money';
import { guessMapping, missingFields, readRows, type Mapping, type Problem, type QuoteLine } from '@/core/quotes/rows';
import { budgetOf } from '@/core/quotes/winning';
import { done, refusal, refused, type Result } from '@/core/result';
import { readCsv } from '@/formats/csv/read';
import { loadCompany, loadCostCodes } from '@/store/company';
import type { Db } from '@/store/connection';
import { loadKnowledge, type Choices } from '@/store/quotes';
import type { Person } from '@/store/people';
import { permit } from './permit';

const PROBLEMS_SHOWN = 300;
const STOPS_TOLD = 200;
const SAMPLED = 200;
const SAMPLE = 4;

export type ImportCheck = {
  readonly fileId: number;
  readonly name: string;
  readonly encoding: string;
  readonly delimiter: string;
  readonly mark: DecimalMark | null;
  readonly headings: readonly string[];
  /** For each column, the first few different things that stand in it. */
  readonly samples: readonly (readonly string[])[];
  readonly mapping: Mapping;
  readonly missing: readonly string[];
  readonly rows: number;
  readonly ready: number;
  readonly cost: Minor;
  readonly budget: readonly { readonly code: string; readonly name: string; readonly amount: Minor }[];
  /** Rows with a stop, the left out ones among them. */
  readonly stopped: readonly number[];
  readonly problems: readonly (Problem & { readonly cells: readonly string[] })[];
  readonly problemCount: number;
  readonly unknown: { readonly costCode: readonly string[]; readonly supplier: readonly string[] };
};

export type Given = { readonly mapping: Mapping; readonly choices: Choices };

/** How far something long has come. */
export type Tell = (done: number, of: number) => void;

/**
 * The lines that a kept file gives, with a mapping and choices, or why it gives none. A file that came in already is
 * read again all the same: whether it may come in is for the action to say.
 */
export async function readQuoteFile(
  db: Db,
  person: Person,
  today: Day,
  fileId: number,
  { mapping, choices }: Given,
  tell: Tell = () => undefined,
): Promise<Result<readonly QuoteLine[]>> {
  permit(person, 'import quotes');
  const file = await db('quoteFile').where({ id: fileId }).first();
  if (file === undefined) return refused(refusal('missing', 'This file is not there any more.'));
  if (choices.mark === null)
    return refused(refusal('mark', 'Say whether decimals are written with a point or a comma.'));
  const missing = missingFields(mapping);
  if (missing.length > 0) return refused(refusal('mapping', `Choose the column for: ${missing.join(', ')}.`));
  const sheet = readCsv(file.bytes);
  if (!sheet.ok) return sheet;
  const leftOut = new Set(choices.leftOut);
  const rows = sheet.value.rows.filter((r) => !leftOut.has(r.row));
  const { lines, problems } = readRows(rows, mapping, await loadKnowledge(db, choices, today), (read) =>
    tell(read, rows.length),
  );
  const stops = problems.filter((p) => p.weight === 'stop').slice(0, STOPS_TOLD);
  if (stops.length > 0)
    return refused(...stops.map((p) => refusal('row', `Row ${p.row}: ${p.message}`, `rows.${p.row}`)));
  if (lines.length === 0)
    return refused(refusal('rows.none', 'Every row is left out, so there is nothing to bring in.'));
  return done(lines);
}

/** Reads a kept quote file with a mapping and choices, or with a first guess, and tells what would come of it. */
export async function checkQuoteFile(
  db: Db,
  person: Person,
  today: Day,
  fileId: number,
  given?: Given,
): Promise<ImportCheck | undefined> {
  permit(person, 'import quotes');
  const file = await db('quoteFile').where({ id: fileId, used: 0 }).first();
  if (file === undefined) return undefined;
  const read = readCsv(file.bytes);
  if (!read.ok) return undefined;
  const sheet = read.value;
  const mapping = given?.mapping ?? guessMapping(sheet.headings);
  const choices: Choices = given?.choices ?? { mark: sheet.mark, costCode: {}, supplier: {}, leftOut: [] };
  const { currency } = await loadCompany(db);
  const unsaid = choices.mark === null ? ['How decimals are written'] : [];
  const missing = [...missingFields(mapping), ...unsaid];
  const knowledge = await loadKnowledge(db, choices, today);
  const leftOut = new Set(choices.leftOut);
  const all = missing.length > 0 ? { lines: [], problems: [] } : readRows(sheet.rows, mapping, knowledge);
  const lines = all.lines.filter((l) => !leftOut.has(l.row));
  const cells = new Map(sheet.rows.map((r) => [r.row, r.cells]));
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c]));
  const named = (field: 'costCode' | 'supplier') => {
    const column = mapping[field];
    const rows = new Set(all.problems.filter((p) => p.field === field && p.weight === 'stop').map((p) => p.row));
    return column === undefined
      ? []
      : [
          ...new Set([...rows].map((r) => (cells.get(r)?.[column] ?? '').trim()).filter(Boolean)),
          ...Object.keys(choices[field]),
        ]
          .filter((n, k, whole) => whole.indexOf(n) === k)
          .slice(0, 40);
  };
  return {
    fileId,
    name: file.name,
    encoding: sheet.encoding,
    delimiter: sheet.delimiter,
    mark: choices.mark,
    headings: sheet.headings,
    samples: sheet.headings.map((_, k) =>
      [...new Set(sheet.rows.slice(0, SAMPLED).flatMap((r) => r.cells[k]?.trim() || []))].slice(0, SAMPLE),
    ),
    mapping,
    missing,
    rows: sheet.rows.length,
    ready: lines.length,
    cost: minor(lines.reduce((sum, l) => sum + lineNet(l.quantity, l.cost, 1, currency), 0)),
    budget: [...budgetOf(lines, currency)]
      .map(([id, amount]) => ({ code: codes.get(id)?.code ?? '', name: codes.get(id)?.name ?? '', amount }))
      .sort((a, b) => a.code.localeCompare(b.code)),
    stopped: [...new Set(all.problems.filter((p) => p.weight === 'stop').map((p) => p.row))],
    problems: all.problems.slice(0, PROBLEMS_SHOWN).map((p) => ({ ...p, cells: cells.get(p.row) ?? [] })),
    problemCount: all.problems.length,
    unknown: { costCode: named('costCode'), supplier: named('supplier') },
  };
}
