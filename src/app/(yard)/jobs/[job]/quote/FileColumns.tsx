'use client';

import { formatMoney } from '@/core/money/money';
import { QUOTE_FIELD_NAMES, QUOTE_FIELDS, type Mapping, type QuoteField } from '@/core/quotes/fields';
import type { ImportCheck } from '@/queries/quotes/importing';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useYard } from '@/ui/frame/YardContext';
import { BudgetList } from './BudgetList';

export const smallChoice = 'h-[28px] rounded-md border border-line bg-glaze px-1.5 text-[13px]';

type Props = {
  readonly check: ImportCheck;
  readonly mapping: Mapping;
  readonly onChange: (mapping: Mapping) => void;
};

/** What each column of the file holds, beside the first that stands in it. */
export function FileColumns({ check, mapping, onChange }: Props) {
  const fieldOf = (column: number) => QUOTE_FIELDS.find((f) => mapping[f] === column) ?? '';
  const setColumn = (column: number, field: QuoteField | '') =>
    onChange({
      ...Object.fromEntries(Object.entries(mapping).filter(([f, c]) => c !== column && f !== field)),
      ...(field === '' ? {} : { [field]: column }),
    });
  const rows = check.headings.map((heading, at) => ({ heading, at }));
  const columns: Column<(typeof rows)[number]>[] = [
    { key: 'heading', head: 'Column', leads: true, className: 'sm:w-[170px] !font-semibold', cell: (r) => r.heading },
    {
      key: 'holds',
      head: 'Contains',
      className: 'w-[186px]',
      cell: ({ heading, at }) => (
        <select
          aria-label={`Contents of column ${heading}`}
          className={`${smallChoice} w-[170px] ${fieldOf(at) === '' ? 'text-ink-2' : 'font-semibold'}`}
          value={fieldOf(at)}
          onChange={(e) => setColumn(at, e.target.value as QuoteField | '')}
        >
          <option value="">ignore</option>
          {QUOTE_FIELDS.map((f) => (
            <option key={f} value={f}>
              {QUOTE_FIELD_NAMES[f]}
            </option>
          ))}
        </select>
      ),
    },
    {
      key: 'first',
      head: 'First row',
      wide: true,
      className: 'max-w-0 truncate !text-ink-2',
      cell: ({ at }) => check.samples[at]?.join(' · ') || 'empty',
    },
  ];
  return (
    <div className="min-w-0 flex-1 basis-[480px] max-phone:basis-full">
      <LedgerTable label="Columns of the file" rows={rows} columns={columns} keyOf={(r) => r.at} />
    </div>
  );
}

/** What the rows that are ready come to: the budget by cost code, and what is not bought. */
export function CostSide({ check }: { check: ImportCheck }) {
  const { currency } = useYard();
  if (check.budget.length === 0) return null;
  return (
    <section aria-label="What will be imported" className="w-[300px] max-w-full">
      <h3 className="border-b border-ink pb-[5px] text-[15px]">Budget when won</h3>
      <BudgetList rows={check.budget} />
      {check.beside !== 0 && (
        <p className="text-[12.5px] text-ink-2">
          Plus {formatMoney(check.beside, currency)} of made and labour lines, not bought.
        </p>
      )}
    </section>
  );
}
