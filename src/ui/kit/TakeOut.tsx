'use client';

import { useSearchParams } from 'next/navigation';
import type { ListName } from '@/queries/lists/lists';

/** A list as a file, as it is filtered here; `of` says of which job or supplier. */
export function TakeOut({ list, of = {} }: { list: ListName; of?: Readonly<Record<string, string>> }) {
  const params = useSearchParams();
  const href = (as: string) => {
    const asked = new URLSearchParams(params);
    for (const page of ['after', 'before']) asked.delete(page);
    for (const [name, value] of Object.entries(of)) asked.set(name, value);
    asked.set('as', as);
    return `/lists/${list}?${asked}`;
  };
  return (
    <span className="text-[13px] text-ink-2 max-phone:leading-[44px] print:hidden">
      Export{' '}
      <a className="step" href={href('csv')} download>
        CSV
      </a>{' '}
      or{' '}
      <a className="step" href={href('xlsx')} download>
        XLSX
      </a>
    </span>
  );
}
