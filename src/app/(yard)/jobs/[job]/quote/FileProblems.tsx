'use client';

import { groupBy } from '@/core/group';
import type { ImportCheck } from '@/queries/quotes/importing';
import type { Choice } from '@/queries/frame/choices';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { UnitField } from '@/ui/kit/UnitField';
import { PickField } from '@/ui/kit/PickField';

type UnknownProps = {
  readonly title: string;
  readonly kind: 'costCode' | 'supplier';
  readonly names: readonly string[];
  /** What was settled; null leaves it open. */
  readonly chosen: Readonly<Record<string, Choice | null>>;
  readonly also?: readonly Choice[];
  readonly onChoose: (name: string, thing: Choice | null) => void;
  readonly make?: { readonly words: string; readonly onMake: (name: string) => void } | undefined;
};

/** Names in the file that are not known here; each is settled once, for all its rows. */
export function Unknown({ title, kind, names, chosen, also, onChoose, make }: UnknownProps) {
  if (names.length === 0) return null;
  return (
    <section aria-label={title} className="mt-5">
      <h3 className="border-b border-line pb-1 text-[16px]">{title}</h3>
      {names.map((name) => (
        <div key={name} className="flex flex-wrap items-center gap-3 border-b border-line-2 py-1.5">
          <span className="w-[260px] truncate font-semibold">“{name}”</span>
          <span className="text-ink-2">means</span>
          <PickField
            kind={kind}
            label={`What “${name}” means`}
            hideLabel
            small
            className="w-[220px]"
            placeholder="choose"
            value={chosen[name] ?? null}
            also={also}
            onPick={(thing) => onChoose(name, thing)}
            make={make && { words: make.words, onMake: () => make.onMake(name) }}
          />
        </div>
      ))}
    </section>
  );
}

/** Words for units that are not known here. */
export function UnknownUnits({
  names,
  chosen,
  onChoose,
}: {
  names: readonly string[];
  chosen: Readonly<Record<string, string>>;
  onChoose: (name: string, unit: string) => void;
}) {
  if (names.length === 0) return null;
  return (
    <section aria-label="Unknown units" className="mt-5">
      <h3 className="border-b border-line pb-1 text-[16px]">Unknown units</h3>
      {names.map((name) => (
        <div key={name} className="flex flex-wrap items-center gap-3 border-b border-line-2 py-1.5">
          <span className="w-[260px] truncate font-semibold">“{name}”</span>
          <span className="text-ink-2">means</span>
          <UnitField
            label={`What “${name}” means`}
            hideLabel
            small
            className="w-[220px]"
            value={chosen[name]}
            onUnit={(unit) => onChoose(name, unit)}
          />
        </div>
      ))}
    </section>
  );
}

/** What is wrong, row by row, each of which can be left out. */
export function Problems({
  check,
  leftOut,
  stops,
  onLeave,
}: {
  check: ImportCheck;
  leftOut: readonly number[];
  stops: readonly number[];
  onLeave: (rows: readonly number[], out: boolean) => void;
}) {
  if (check.problems.length === 0) return null;
  const rows = [...groupBy(check.problems, (p) => p.row)].map(([row, problems]) => ({ row, problems }));
  const columns: Column<(typeof rows)[number]>[] = [
    { key: 'row', head: 'Row', num: true, className: 'w-[52px]', cell: (r) => r.row },
    {
      key: 'wrong',
      head: 'Problem',
      className: 'py-1',
      cell: ({ problems }) =>
        problems.map((p) => (
          <span key={p.field + p.message} className="block">
            <span className={`tag mr-1.5 ${p.weight === 'stop' ? 'tag-stop' : 'tag-care'}`}>
              {p.weight === 'stop' ? 'Error' : 'Warning'}
            </span>
            {p.message}
          </span>
        )),
    },
    {
      key: 'cells',
      head: 'In the file',
      className: 'max-w-[380px] truncate text-[12.5px] !text-ink-2',
      cell: ({ problems }) => problems[0]?.cells.filter(Boolean).join(' · '),
    },
    {
      key: 'out',
      head: 'Skip',
      className: 'w-[90px]',
      cell: ({ row }) => (
        <input
          type="checkbox"
          aria-label={`Skip row ${row}`}
          checked={leftOut.includes(row)}
          onChange={(e) => onLeave([row], e.target.checked)}
        />
      ),
    },
  ];
  return (
    <section aria-label="Rows to check" className="mt-5">
      <h3 className="border-b border-line pb-1 text-[16px]">
        Rows to check{' '}
        <span className="font-text text-[13px] font-normal text-ink-2">
          {stops.length === 0 ? 'You can import the rest' : 'Fix or skip these before importing'}
        </span>
      </h3>
      <LedgerTable
        label="Rows to check"
        rows={rows}
        columns={columns}
        keyOf={(r) => r.row}
        toneOf={(r) => (leftOut.includes(r.row) ? 'opacity-60' : '')}
      />
      {check.problemCount > check.problems.length && (
        <p className="mt-2 text-ink-2">
          The first {check.problems.length} of {check.problemCount} are shown.
        </p>
      )}
    </section>
  );
}
