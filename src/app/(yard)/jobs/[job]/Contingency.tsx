'use client';

import { formatMoney, type Minor } from '@/core/money/money';
import Link from '@/ui/kit/Link';
import { useYard } from '@/ui/frame/YardContext';

type Props = { readonly number: string; readonly contingency: Minor; readonly pending: Minor };

/** Money of the job that is in no budget: what is held back, and what waits to be agreed. */
export function Contingency({ number, contingency, pending }: Props) {
  const { currency } = useYard();
  if (contingency === 0 && pending === 0) return null;
  return (
    <p className="mt-2 flex flex-wrap gap-x-5 px-2 text-[13px]">
      {contingency !== 0 && (
        <Link href={`/jobs/${number}/budget`} className="hover:underline">
          <b className="font-semibold">Contingency</b> {formatMoney(contingency, currency)}
        </Link>
      )}
      {pending !== 0 && (
        <Link href={`/jobs/${number}/budget`} className="text-amber hover:underline">
          {pending > 0 ? '+' : ''}
          {formatMoney(pending, currency)} awaiting agreement
        </Link>
      )}
    </p>
  );
}
