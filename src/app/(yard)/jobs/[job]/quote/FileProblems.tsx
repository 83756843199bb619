'use client';

import { groupBy } from '@/core/group';
import type { ImportCheck } from '@/queries/quoteImport';
import { smallChoice } from './FileColumns';

type UnknownProps = {
  readonly title: string;
  readonly names: readonly string[];
  readonly chosen: Readonly<Record<string, number | null>>;
  readonly options: readonly (readonly [id: number, words: string])[];
  readonly none?: string;
  readonly onChoose: (name: string, id: never) => void;
};

/** Names in the file that are not known here; each is settled once, for all its rows. */
export function Unknown({ title, names, chosen, options, none, onChoose }: UnknownProps) {
  if (names.length === 0) return null;
  const value = (name: string) => (Object.hasOwn(chosen, name) ? String(chosen[name] ?? 'none') : '');
  const read = (text: string) => (text === '' ? undefined : text === 'none' ? null : Number(text)) as never;
  return (
    <section aria-label={title} className="mt-5">
      <h3 className="border-b border-line pb-1 text-[16px]">{title}</h3>
      {names.map((name) => (
        <p key={name} className="flex items-center gap-3 border-b border-line-2 py-1.5">
          <span className="w-[260px] truncate font-semibold">“{name}”</span>
          <span className="text-ink-2">stands for</span>
          <select
            aria-label={`What “${name}” stands for`}
            className={smallChoice}
            value={value(name)}
            onChange={(e) => onChoose(name, read(e.target.value))}
          >
            <option value="">choose…</option>
            {none !== undefined && <option value="none">{none}</option>}
            {options.map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
        </p>
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
  const rows = [...groupBy(check.problems, (p) => p.row)];
  return (
    <section aria-label="Rows to look at" className="mt-5">
      <h3 className="border-b border-line pb-1 text-[16px]">
        Rows to look at{' '}
        <span className="font-text text-[13px] font-normal text-ink-2">
          {stops.length === 0 ? 'none of them stops the rest' : 'nothing comes in while one of these has a problem'}
        </span>
      </h3>
      <div className="max-phone:overflow-x-auto">
        <table className="ledger" aria-label="Rows to look at">
          <thead>
            <tr>
              <th className="num w-[52px]">Row</th>
              <th>What is wrong</th>
              <th>As it stands in the file</th>
              <th className="w-[90px]">Leave out</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(([row, problems]) => (
              <tr key={row} className={leftOut.includes(row) ? 'opacity-60' : ''}>
                <td className="num">{row}</td>
                <td className="py-1">
                  {problems.map((p) => (
                    <span key={p.field + p.message} className="block">
                      <span className={`tag mr-1.5 ${p.weight === 'stop' ? 'tag-stop' : 'tag-care'}`}>
                        {p.weight === 'stop' ? 'stops' : 'look'}
                      </span>
                      {p.message}
                    </span>
                  ))}
                </td>
                <td className="max-w-[380px] truncate text-[12.5px] !text-ink-2">
                  {problems[0]?.cells.filter(Boolean).join(' · ')}
                </td>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`Leave out row ${row}`}
                    checked={leftOut.includes(row)}
                    onChange={(e) => onLeave([row], e.target.checked)}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {check.problemCount > check.problems.length && (
        <p className="mt-2 text-ink-2">
          The first {check.problems.length} of {check.problemCount} are shown.
        </p>
      )}
    </section>
  );
}
