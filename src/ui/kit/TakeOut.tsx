'use client';

import { useSearchParams } from 'next/navigation';
import type { ListName } from '@/queries/lists/lists';

/** A list as a file, as it is filtered here. */
export function TakeOut({ list, job }: { list: ListName; job?: string }) {
  const params = useSearchParams();
  const href = (as: string) => {
    const asked = new URLSearchParams(params);
    for (const page of ['after', 'before']) asked.delete(page);
    if (job !== undefined) asked.set('job', job);
    asked.set('as', as);
    return `/lists/${list}?${asked}`;
  };
  return (
    <span className="text-[13px] text-ink-2 max-phone:leading-[44px] print:hidden">
      Take out as{' '}
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
