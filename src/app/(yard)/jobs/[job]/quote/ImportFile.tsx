'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { formatAmount, formatMoney } from '@/core/money/money';
import { groupBy } from '@/core/group';
import { QUOTE_FIELD_NAMES, QUOTE_FIELDS, type Mapping, type QuoteField } from '@/core/quotes/rows';
import type { ImportCheck } from '@/queries/quoteImport';
import type { Choices } from '@/store/quotes';
import { useKey } from '@/ui/keys';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { importQuote } from '../../../../acts';
import type { NeedChoices } from '../../../NeedSlip';

type Props = {
  readonly first: ImportCheck;
  readonly job: string;
  readonly quote: string;
  readonly choices: NeedChoices;
};

const DELIMITERS: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
const look = 'h-[28px] rounded-md border border-line bg-glaze px-1.5 text-[13px]';

/** A quote file before it comes in: its columns, unknown names and problem rows are settled here. */
export function ImportFile({ first, job, quote, choices: offered }: Props) {
  const router = useRouter();
  const { currency } = useYard();
  const [mapping, setMapping] = useState<Mapping>(first.mapping);
  const [choices, setChoices] = useState<Choices>({ mark: first.mark, costCode: {}, supplier: {}, leftOut: [] });
  const { check, checking } = useCheck(first, mapping, choices);
  const once = useOnce();
  const { run, busy, refusals } = useAct(importQuote, {
    said: ({ lines }) => `${lines} lines are in quote ${quote}`,
    onDone: () => router.push(`/jobs/${job}/quote`),
  });
  const stops = check.stopped.filter((row) => !choices.leftOut.includes(row));
  const ready = check.missing.length === 0 && stops.length === 0 && check.ready > 0 && !checking;
  const submit = () =>
    void run({
      once: once.key(),
      fileId: check.fileId,
      mapping,
      choices: { ...choices, leftOut: [...choices.leftOut] },
    });
  useKey('Ctrl+Enter', 'Bring the lines in', submit, ready && !busy);
  const setColumn = (column: number, field: QuoteField | '') =>
    setMapping((now) => ({
      ...Object.fromEntries(Object.entries(now).filter(([f, c]) => c !== column && f !== field)),
      ...(field === '' ? {} : { [field]: column }),
    }));
  const fieldOf = (column: number) => QUOTE_FIELDS.find((f) => mapping[f] === column) ?? '';
  const leave = (rows: readonly number[], out: boolean) =>
    setChoices((now) => ({
      ...now,
      leftOut: out ? [...new Set([...now.leftOut, ...rows])] : now.leftOut.filter((r) => !rows.includes(r)),
    }));
  const fault =
    refusals[0]?.message ??
    (check.missing.length > 0 ? `Choose the column for: ${check.missing.join(', ')}.` : undefined);
  return (
    <div className="mt-3">
      <h2 className="text-[18px]">{check.name}</h2>
      <p className="text-ink-2">
        {check.rows.toLocaleString('en-GB')} rows, {check.encoding}, columns parted by{' '}
        {DELIMITERS[check.delimiter] ?? check.delimiter}.{' '}
        <label>
          Decimals are written with{' '}
          <select
            className={look}
            value={choices.mark}
            onChange={(e) => setChoices((now) => ({ ...now, mark: e.target.value === ',' ? ',' : '.' }))}
          >
            <option value=".">a point, 1,234.50</option>
            <option value=",">a comma, 1.234,50</option>
          </select>
        </label>
      </p>
      <div className="mt-3 overflow-x-auto pb-1">
        <table className="ledger" aria-label="Columns of the file">
          <thead>
            <tr>
              {check.headings.map((h, k) => (
                <th key={k} className="!h-auto py-1.5 align-top">
                  <span className="block text-ink">{h}</span>
                  <select
                    aria-label={`What the column ${h} holds`}
                    className={`${look} mt-1 w-[112px] ${fieldOf(k) === '' ? 'text-ink-2' : 'font-semibold'}`}
                    value={fieldOf(k)}
                    onChange={(e) => setColumn(k, e.target.value as QuoteField | '')}
                  >
                    <option value="">not used</option>
                    {QUOTE_FIELDS.map((f) => (
                      <option key={f} value={f}>
                        {QUOTE_FIELD_NAMES[f]}
                      </option>
                    ))}
                  </select>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {check.sample.map((row, k) => (
              <tr key={k}>
                {check.headings.map((_, c) => (
                  <td key={c} className={`max-w-[150px] truncate ${fieldOf(c) === '' ? '!text-ink-2' : ''}`}>
                    {row[c]}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Unknown
        title="Cost codes that are not known here"
        names={check.unknown.costCode}
        chosen={choices.costCode}
        options={offered.codes.map((c) => [c.id, `${c.code} ${c.name}`])}
        onChoose={(name, id) => setChoices((now) => ({ ...now, costCode: withChoice(now.costCode, name, id) }))}
      />
      <Unknown
        title="Suppliers that are not known here"
        names={check.unknown.supplier}
        chosen={choices.supplier}
        options={offered.suppliers.map((s) => [s.id, s.name])}
        none="leave it open"
        onChoose={(name, id) => setChoices((now) => ({ ...now, supplier: withChoice(now.supplier, name, id) }))}
      />
      <Problems check={check} leftOut={choices.leftOut} onLeave={leave} stops={stops} />
      {check.budget.length > 0 && (
        <section aria-label="What comes in" className="mt-5 max-w-[420px]">
          <h3 className="border-b border-line pb-1 text-[16px]">Cost side by cost code</h3>
          {check.budget.map((b) => (
            <p key={b.code} className="flex justify-between border-b border-line-2 py-1">
              <span>
                <b>{b.code}</b> {b.name}
              </span>
              <span>{formatAmount(b.amount, currency)}</span>
            </p>
          ))}
        </section>
      )}
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>
              {checking
                ? 'Checking…'
                : `${check.ready.toLocaleString('en-GB')} of ${check.rows.toLocaleString('en-GB')} rows ready`}
            </Fact>
            {stops.length > 0 && <Fact warn>{stops.length} with a problem</Fact>}
            {choices.leftOut.length > 0 && <Fact>{choices.leftOut.length} left out</Fact>}
            <Fact>{formatMoney(check.cost, currency)} cost</Fact>
          </>
        }
      >
        <ShelfPlain onClick={() => router.push(`/jobs/${job}/quote`)}>Put back</ShelfPlain>
        {stops.length > 0 && (
          <ShelfPlain onClick={() => leave(stops, true)}>Leave out the {stops.length} with a problem</ShelfPlain>
        )}
        <ShelfMain disabled={!ready || busy} onClick={submit} hint="^↵">
          {busy ? 'Bringing in…' : `Bring in ${check.ready.toLocaleString('en-GB')} lines`}
        </ShelfMain>
      </Shelf>
    </div>
  );
}

function withChoice<T>(now: Readonly<Record<string, T>>, name: string, id: T | undefined): Readonly<Record<string, T>> {
  const rest = Object.fromEntries(Object.entries(now).filter(([n]) => n !== name));
  return id === undefined ? rest : { ...rest, [name]: id };
}

/** The file checked anew whenever a column or a choice changes. */
function useCheck(first: ImportCheck, mapping: Mapping, choices: Choices) {
  const [check, setCheck] = useState(first);
  const [checked, setChecked] = useState<string>();
  const asked = JSON.stringify({ fileId: first.fileId, mapping, choices });
  const [start] = useState(asked);
  useEffect(() => {
    if (asked === (checked ?? start)) return;
    const stop = new AbortController();
    const wait = setTimeout(async () => {
      const answer = await fetch(`${location.pathname}/check`, {
        method: 'POST',
        body: asked,
        headers: { 'content-type': 'application/json' },
        signal: stop.signal,
      }).catch(() => undefined);
      if (!answer?.ok) return;
      setCheck((await answer.json()) as ImportCheck);
      setChecked(asked);
    }, 150);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [asked, checked, start]);
  return { check, checking: asked !== (checked ?? start) };
}

type UnknownProps = {
  readonly title: string;
  readonly names: readonly string[];
  readonly chosen: Readonly<Record<string, number | null>>;
  readonly options: readonly (readonly [id: number, words: string])[];
  readonly none?: string;
  readonly onChoose: (name: string, id: never) => void;
};

function Unknown({ title, names, chosen, options, none, onChoose }: UnknownProps) {
  if (names.length === 0) return null;
  const value = (name: string) =>
    chosen[name] === undefined ? '' : chosen[name] === null ? 'none' : String(chosen[name]);
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
            className={look}
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

function Problems({
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
