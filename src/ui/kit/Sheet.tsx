import Link from '@/ui/kit/Link';
import type { ReactNode } from 'react';
import { grouped } from '@/core/words';

/** The work: a sheet, and at its right (or left) the column that says what the work leads to. */
export function Sheet({
  children,
  aside,
  left,
  joined = false,
}: {
  children: ReactNode;
  aside?: ReactNode;
  left?: ReactNode;
  joined?: boolean;
}) {
  return (
    <div
      className={`flex min-h-full border border-line bg-glaze max-lg:flex-col ${joined ? 'rounded-b-md rounded-tr-md' : 'rounded-md'}`}
    >
      {left !== undefined && (
        <aside className="w-[197px] shrink-0 border-r border-line bg-glaze-2 px-[18px] py-[17px] max-lg:hidden">
          {left}
        </aside>
      )}
      <div className="min-w-0 flex-1 px-[18px] pt-[16px] pb-6 sm:px-5">{children}</div>
      {aside !== undefined && (
        <aside className="w-[284px] shrink-0 border-l border-line bg-glaze-2 px-4 py-[15px] max-lg:w-auto max-lg:border-t max-lg:border-l-0">
          {aside}
        </aside>
      )}
    </div>
  );
}

/** The title of a place with what filters it and what it counts. */
export function PlaceTitle({ title, children, count }: { title: ReactNode; children?: ReactNode; count?: ReactNode }) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2 max-phone:justify-between">
      <h1 className="text-[25px] leading-tight">{title}</h1>
      <div className="flex flex-1 flex-wrap items-center gap-2 max-phone:order-3 max-phone:basis-full max-phone:gap-y-3">
        {children}
      </div>
      {count !== undefined && <div className="text-ink-2">{count}</div>}
    </div>
  );
}

/** What belongs in an empty place, and the first step. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto max-w-[460px] py-14 text-center">
      <h2 className="mb-1 text-[18px]">{title}</h2>
      <div className="text-ink-2">{children}</div>
    </div>
  );
}

/** Leads on from a list of which a part is shown; the filters in the address stay. */
export const GoOn = ({ to, query, children }: { to: string; query: Record<string, unknown>; children: ReactNode }) => (
  <div className="mt-3 max-phone:my-8">
    <Link className="step" href={{ pathname: to, query: query as Record<string, string> }}>
      {children}
    </Link>
  </div>
);

type FurtherProps = {
  readonly to: string;
  /** How many lines stand before those shown, how many are shown, and how many there are. */
  readonly before: number;
  readonly shown: number;
  readonly of: number;
  /** Where the next page begins. */
  readonly after: number | undefined;
};

/** Below a list that does not show all its lines: which these are, and the way to the others. */
export function Further({ to, before, shown, of, after }: FurtherProps) {
  if (shown >= of) return null;
  const last = before + shown;
  return (
    <p className="mt-3 flex gap-4">
      <span className="text-ink-2">
        Lines {grouped(before + 1)}–{grouped(last)} of {grouped(of)}
      </span>
      {before > 0 && (
        <Link className="step" href={to}>
          Back to start
        </Link>
      )}
      {last < of && (
        <Link className="step" href={{ pathname: to, query: { after } }}>
          More lines
        </Link>
      )}
    </p>
  );
}

/** Holds a table that is wider than a phone: it scrolls by itself, with the keyboard too. */
export const Wide = ({ label, children }: { label: string; children: ReactNode }) => (
  <div tabIndex={0} role="region" aria-label={label} className="relative max-phone:overflow-x-auto">
    {children}
  </div>
);

export const Dash = () => <span className="text-ink-2">–</span>;

/** What a list shows that finds nothing: that its filters find nothing, or, without any, what belongs there. */
export function NothingFound({
  to,
  filtered,
  title,
  children,
}: {
  to: string;
  /** Whether something narrows the list. */
  filtered: boolean;
  title: string;
  children: ReactNode;
}) {
  if (!filtered) return <Empty title={title}>{children}</Empty>;
  return (
    <Empty title="No matches">
      Nothing matches these filters.{' '}
      <Link href={to} className="step">
        Clear filters
      </Link>
    </Empty>
  );
}
