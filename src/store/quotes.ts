import { rowsOf } from './rows';
import type { Day } from '@/core/calendar/workdays';
import type { DecimalMark } from '@/core/locale/locale';
import { add, minor, type Minor } from '@/core/money/money';
import type { Listed, PricedLine } from '@/core/quotes/pieces';
import type { Knowledge, QuoteLineKind } from '@/core/quotes/rows';
import { isBought, opensBudget } from '@/core/quotes/winning';
import { loadCostCodes, lostTax } from './company';
import { loadEstimates } from './estimates';
import type { Db } from './db';

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
    costCodes: (await loadCostCodes(db)).filter((c) => c.gone === 0),
    suppliers: await db('supplier').select('id', 'name'),
    items: await db('item').select('id', 'number', 'name', 'unit', 'costCodeId', 'supplierId'),
    mark: choices.mark ?? '.',
    today,
    chosen: { costCode: choices.costCode, supplier: choices.supplier, unit: choices.unit },
  };
}

/** What parts of a quote's lines are had for from their suppliers, by quantity. */
export async function loadListed(db: Db, lines: readonly Pick<PricedLine, 'itemId'>[], today: Day): Promise<Listed> {
  const estimate = await loadEstimates(
    db,
    lines.flatMap((l) => l.itemId ?? []),
    today,
  );
  return ({ itemId, unit, supplierId }, quantity) => estimate({ itemId, unit, quantity }, supplierId).price;
}

export type QuoteSums = {
  readonly lines: number;
  readonly bought: number;
  /** What lines that are not left open to the customer, or were agreed to, cost and are sold for. */
  readonly cost: Minor;
  readonly price: Minor;
  /** The same by cost code. */
  readonly codes: ReadonlyMap<number, { readonly cost: Minor; readonly price: Minor }>;
  /** What of the budget is tax that cannot be recovered. */
  readonly lost: Minor;
  /** The budget for buying that the quote opens, by cost code. */
  readonly budget: ReadonlyMap<number, Minor>;
};

/** What all lines of a quote come to. */
export async function loadQuoteSums(db: Db, quoteId: number): Promise<QuoteSums> {
  const rows = await rowsOf<{
    kind: QuoteLineKind;
    costCodeId: number;
    inIt: number;
    lines: number;
    net: Minor;
    lost: Minor;
    price: Minor | null;
  }>(
    db('quoteLine as q')
      .leftJoin('supplier as s', 's.id', 'q.supplierId')
      .leftJoin('taxCode as t', 't.id', 's.taxCodeId')
      .where({ quoteId })
      .groupByRaw('q.kind, cost_code_id, in_it')
      .orderBy('costCodeId')
      .select('q.kind', 'costCodeId', db.raw('(coalesce(agreed, 1 - optional) = 1) as in_it'))
      .count({ lines: '*' })
      .sum({ net: 'net', lost: db.raw(lostTax('net', 't')) as never, price: 'priceNet' }),
  );
  const own = rows.filter((r) => r.inIt === 1);
  const total = (of: (row: (typeof rows)[number]) => number, among = own) => among.reduce((sum, r) => sum + of(r), 0);
  const budget = new Map<number, Minor>();
  const codes = new Map<number, { cost: Minor; price: Minor }>();
  for (const { costCodeId, ...r } of own) {
    const was = codes.get(costCodeId) ?? { cost: minor(0), price: minor(0) };
    codes.set(costCodeId, { cost: add(was.cost, r.net), price: add(was.price, r.price ?? minor(0)) });
    if (opensBudget(r)) budget.set(costCodeId, add(budget.get(costCodeId) ?? minor(0), r.net, r.lost));
  }
  return {
    lines: total((r) => r.lines, rows),
    bought: total((r) => (isBought(r) ? r.lines : 0)),
    cost: minor(total((r) => r.net)),
    price: minor(total((r) => r.price ?? 0)),
    codes,
    lost: minor(total((r) => (opensBudget(r) ? r.lost : 0))),
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
