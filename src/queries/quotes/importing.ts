import type { Day } from '@/core/calendar/workdays';
import type { DecimalMark } from '@/core/locale/locale';
import { add, lineNet, ZERO, type Minor } from '@/core/money/money';
import { guessMapping, missingFields, type KnownHeadings, type Mapping, type QuoteField } from '@/core/quotes/fields';
import { readRows, type Problem, type QuoteLine } from '@/core/quotes/rows';
import { budgetOf, opensBudget } from '@/core/quotes/winning';
import { done, refusal, refused, type Result } from '@/core/result';
import { readSheet } from '@/formats/sheet/read';
import { loadCompany, loadCostCodes, withTaxes } from '@/store/company';
import type { Db } from '@/store/db';
import { loadFileMemory, loadKnowledge, type Choices } from '@/store/quotes';
import type { Person } from '@/store/people';
import { permit } from '../permit';
import { loadChoice, type Choice } from '../frame/choices';

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
  /** What of it is not bought, and opens no budget. */
  readonly beside: Minor;
  readonly budget: readonly { readonly code: string; readonly name: string; readonly amount: Minor }[];
  /** Rows with a stop, the left out ones among them. */
  readonly stopped: readonly number[];
  readonly problems: readonly (Problem & { readonly cells: readonly string[] })[];
  readonly problemCount: number;
  readonly unknown: Readonly<Record<'costCode' | 'supplier' | 'unit', readonly string[]>>;
  readonly choices: Choices;
  /** The cost codes and suppliers among the choices, as they are shown. */
  readonly settled: { readonly costCode: Settled; readonly supplier: Settled };
};

/** Things by the words that stand for them; null was left open on purpose. */
export type Settled = Readonly<Record<string, Choice | null>>;

async function settledThings(
  db: Db,
  person: Person,
  kind: 'costCode' | 'supplier',
  meanings: Readonly<Record<string, number | null>>,
  today: Day,
): Promise<Settled> {
  const all = Object.entries(meanings).map(
    async ([word, id]) => [word, await loadChoice(db, person, kind, id, today)] as const,
  );
  return Object.fromEntries(await Promise.all(all));
}

/** What was said of earlier files, as far as the things are still there. */
async function asBefore(db: Db, memory: Awaited<ReturnType<typeof loadFileMemory>>) {
  const codes = new Set((await loadCostCodes(db)).filter((c) => c.gone === 0).map((c) => String(c.id)));
  const suppliers = new Set((await db('supplier').select('id')).map((s) => String(s.id)));
  return {
    costCode: Object.fromEntries(
      [...memory.costCode].filter(([, id]) => codes.has(id)).map(([w, id]) => [w, Number(id)]),
    ),
    supplier: Object.fromEntries(
      [...memory.supplier]
        .filter(([, id]) => id === '' || suppliers.has(id))
        .map(([w, id]) => [w, id === '' ? null : Number(id)]),
    ),
    unit: Object.fromEntries(memory.unit),
  };
}

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
): Promise<Result<{ headings: readonly string[]; lines: readonly QuoteLine[] }>> {
  permit(person, 'import quotes');
  const file = await db('quoteFile').where({ id: fileId }).first();
  if (file === undefined)
    return refused(
      refusal('missing', 'That file has already been imported or replaced. Choose it again if you still need it.'),
    );
  if (choices.mark === null)
    return refused(refusal('mark', 'Choose whether decimals are written with a point or a comma.'));
  const missing = missingFields(mapping);
  if (missing.length > 0) return refused(refusal('mapping', `Choose the column for: ${missing.join(', ')}.`));
  const sheet = await readSheet(file.bytes);
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
    return refused(
      refusal('rows.none', 'All rows are skipped: nothing to import. Include some rows, or choose another file.'),
    );
  return done({ headings: sheet.value.headings, lines });
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
  const read = await readSheet(file.bytes);
  if (!read.ok) return undefined;
  const sheet = read.value;
  const memory = await loadFileMemory(db, 'quote');
  const known: KnownHeadings = new Map(
    [...memory.column].map(([heading, field]) => [heading, field === '' ? null : (field as QuoteField)]),
  );
  const mapping = given?.mapping ?? guessMapping(sheet.headings, known);
  const choices = given?.choices ?? { mark: sheet.mark, ...(await asBefore(db, memory)), leftOut: [] };
  const { currency } = await loadCompany(db);
  const unsaid = choices.mark === null ? ['How decimals are written'] : [];
  const missing = [...missingFields(mapping), ...unsaid];
  const knowledge = await loadKnowledge(db, choices, today);
  const leftOut = new Set(choices.leftOut);
  const all = missing.length > 0 ? { lines: [], problems: [] } : readRows(sheet.rows, mapping, knowledge);
  const lines = all.lines.filter((l) => !leftOut.has(l.row));
  const sum = (of: typeof lines) => add(ZERO, ...of.map((l) => lineNet(l.quantity, l.cost, 1, currency)));
  const cells = new Map(sheet.rows.map((r) => [r.row, r.cells]));
  const codes = new Map((await loadCostCodes(db)).map((c) => [c.id, c]));
  const named = (field: 'costCode' | 'supplier' | 'unit') => {
    const column = mapping[field];
    if (column === undefined) return [];
    const word = (row: { readonly cells: readonly string[] }) => (row.cells[column] ?? '').trim();
    const rows = new Set(all.problems.filter((p) => p.field === field && p.weight === 'stop').map((p) => p.row));
    const settled = (w: string) => Object.hasOwn(choices[field], w);
    const open = sheet.rows.filter((r) => rows.has(r.row) || settled(word(r))).map(word);
    return [...new Set(open.filter(Boolean))].slice(0, 40);
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
    cost: sum(lines),
    beside: sum(lines.filter((l) => !opensBudget(l))),
    budget: [...budgetOf(await withTaxes(db, lines), currency)]
      .map(([id, amount]) => ({ code: codes.get(id)?.code ?? '', name: codes.get(id)?.name ?? '', amount }))
      .sort((a, b) => a.code.localeCompare(b.code)),
    stopped: [...new Set(all.problems.filter((p) => p.weight === 'stop').map((p) => p.row))],
    problems: all.problems.slice(0, PROBLEMS_SHOWN).map((p) => ({ ...p, cells: cells.get(p.row) ?? [] })),
    problemCount: all.problems.length,
    unknown: { costCode: named('costCode'), supplier: named('supplier'), unit: named('unit') },
    choices,
    settled: {
      costCode: await settledThings(db, person, 'costCode', choices.costCode, today),
      supplier: await settledThings(db, person, 'supplier', choices.supplier, today),
    },
  };
}
