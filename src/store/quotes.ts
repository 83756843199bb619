import type { Day } from '@/core/calendar/workdays';
import type { DecimalMark } from '@/core/money/decimal';
import { add, minor, type Minor } from '@/core/money/money';
import type { Knowledge, QuoteLineKind } from '@/core/quotes/rows';
import { isBought, opensBudget } from '@/core/quotes/winning';
import { loadCostCodes } from './company';
import type { Db } from './connection';

/** What a person settled while bringing a file in. */
export type Choices = {
  /** null as long as nobody has said how decimals are written. */
  readonly mark: DecimalMark | null;
  readonly costCode: Readonly<Record<string, number>>;
  readonly supplier: Readonly<Record<string, number | null>>;
  readonly unit: Readonly<Record<string, string>>;
  readonly leftOut: readonly number[];
};

/** What the company knows that a quote file may name. */
export async function loadKnowledge(db: Db, choices: Choices, today: Day): Promise<Knowledge> {
  return {
    costCodes: await loadCostCodes(db),
    suppliers: await db('supplier').select('id', 'name'),
    items: await db('item').select('id', 'number', 'name', 'unit', 'costCodeId', 'supplierId'),
    mark: choices.mark ?? '.',
    today,
    chosen: { costCode: choices.costCode, supplier: choices.supplier, unit: choices.unit },
  };
}

export type QuoteSums = {
  readonly lines: number;
  readonly bought: number;
  readonly cost: Minor;
  readonly price: Minor;
  /** The budget for buying that the quote opens, by cost code. */
  readonly budget: ReadonlyMap<number, Minor>;
};

/** What all lines of a quote come to. */
export async function loadQuoteSums(db: Db, quoteId: number): Promise<QuoteSums> {
  const rows = (await db('quoteLine')
    .where({ quoteId })
    .groupBy('kind', 'costCodeId')
    .orderBy('costCodeId')
    .select('kind', 'costCodeId')
    .count({ lines: '*' })
    .sum({ net: 'net', price: 'priceNet' })) as unknown as {
    kind: QuoteLineKind;
    costCodeId: number;
    lines: number;
    net: Minor;
    price: Minor | null;
  }[];
  const total = (of: (row: (typeof rows)[number]) => number) => rows.reduce((sum, r) => sum + of(r), 0);
  const budget = new Map<number, Minor>();
  for (const r of rows.filter(opensBudget)) budget.set(r.costCodeId, add(budget.get(r.costCodeId) ?? minor(0), r.net));
  return {
    lines: total((r) => r.lines),
    bought: total((r) => (isBought(r) ? r.lines : 0)),
    cost: minor(total((r) => r.net)),
    price: minor(total((r) => r.price ?? 0)),
    budget,
  };
}

/** What was said of the files of a kind before: the words that stand in them, and what they were said to mean. */
export const FILE_WHATS = ['column', 'costCode', 'supplier', 'unit'] as const;
type FileWhat = (typeof FILE_WHATS)[number];

export async function loadFileMemory(db: Db, kind: 'quote'): Promise<Record<FileWhat, Map<string, string>>> {
  const rows = await db('fileMemory').where({ kind });
  const of = (what: FileWhat) => new Map(rows.filter((r) => r.what === what).map((r) => [r.word, r.meaning]));
  return { column: of('column'), costCode: of('costCode'), supplier: of('supplier'), unit: of('unit') };
}

/** Remembers what words of a kind of file mean; what was said last holds. */
export async function remember(
  trx: Db,
  kind: 'quote',
  what: FileWhat,
  meanings: Readonly<Record<string, string>>,
): Promise<void> {
  const rows = Object.entries(meanings).map(([word, meaning]) => ({ kind, what, word, meaning }));
  if (rows.length > 0) await trx('fileMemory').insert(rows).onConflict(['kind', 'what', 'word']).merge();
}
