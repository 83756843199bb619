'use client';

import { formatAmount, formatMoney, minor, type Minor } from '@/core/money/money';
import { useYard } from '@/ui/frame/YardContext';

/** A budget for buying that a quote opens, by cost code, with its total. */
export function BudgetList({
  rows,
}: {
  rows: readonly { readonly code: string; readonly name: string; readonly amount: Minor }[];
}) {
  const { currency } = useYard();
  return (
    <>
      <ul>
        {rows.map((r) => (
          <li key={r.code} className="flex justify-between gap-4 border-b border-line-2 py-1">
            <span>
              <b>{r.code}</b> {r.name}
            </span>
            <span>{formatAmount(r.amount, currency)}</span>
          </li>
        ))}
      </ul>
      <p className="flex justify-between py-1 font-bold">
        <span>Buying budget</span>
        <span>{formatMoney(minor(rows.reduce((sum, r) => sum + r.amount, 0)), currency)}</span>
      </p>
    </>
  );
}
