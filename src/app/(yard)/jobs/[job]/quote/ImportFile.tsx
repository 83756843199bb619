'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { formatMoney } from '@/core/money/money';
import type { Mapping } from '@/core/quotes/fields';
import type { ImportCheck } from '@/queries/quotes/importing';
import type { Choices } from '@/store/quotes';
import { ask, asJson } from '@/ui/acting/ask';
import { useKey } from '@/ui/frame/keys';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useHowFar } from '@/ui/acting/useHowFar';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';
import { importQuoteFile } from '../../../../actions';
import type { Choice } from '@/queries/frame/choices';
import { CostSide, FileColumns, smallChoice } from './FileColumns';
import { Problems, Unknown, UnknownUnits } from './FileProblems';
import { counted, grouped } from '@/core/words';

const InPassing = later(() => import('../../../_shared/items/InPassing'));

type Props = {
  readonly first: ImportCheck;
  readonly job: string;
  readonly quote: string;
};

const DELIMITERS: Readonly<Record<string, string>> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };
const LEFT_OPEN: Choice = { id: 0, number: '', name: 'leave empty', detail: '' };

/** A quote file before it comes in: its columns, unknown names and problem rows are settled here. */
export function ImportFile({ first, job, quote }: Props) {
  const router = useRouter();
  const { currency, may } = useYard();
  const [mapping, setMapping] = useState<Mapping>(first.mapping);
  const [choices, setChoices] = useState<Choices>(first.choices);
  const [settled, setSettled] = useState(first.settled);
  const [making, setMaking] = useState<string>();
  /** What a name in the file stands for: a thing, nothing on purpose, or not said. */
  const settle = (kind: 'costCode' | 'supplier', name: string, thing: Choice | null) => {
    const open = thing?.id === LEFT_OPEN.id;
    setSettled((now) => ({ ...now, [kind]: withChoice(now[kind], name, thing ?? undefined) }));
    setChoices((now) => ({ ...now, [kind]: withChoice(now[kind], name, open ? null : thing?.id) }));
  };
  const { check, checking } = useCheck(first, mapping, choices);
  const once = useOnce();
  const { run, busy, refusals } = useAct(importQuoteFile, {
    said: ({ lines }) => `${counted(lines, 'line')} imported into quote ${quote}`,
    onDone: () => router.push(`/jobs/${job}/quote`),
  });
  const far = useHowFar(once, busy);
  const stops = check.stopped.filter((row) => !choices.leftOut.includes(row));
  const ready = check.missing.length === 0 && stops.length === 0 && check.ready > 0 && !checking;
  const submit = () =>
    void run({
      once: once.key(),
      fileId: check.fileId,
      mapping,
      choices: { ...choices, leftOut: [...choices.leftOut] },
    });
  useKey('Ctrl+Enter', 'Import lines', submit, ready && !busy);
  const leave = (rows: readonly number[], out: boolean) =>
    setChoices((now) => ({
      ...now,
      leftOut: out ? [...new Set([...now.leftOut, ...rows])] : now.leftOut.filter((r) => !rows.includes(r)),
    }));
  const fault =
    refusals[0]?.message ?? (check.missing.length > 0 ? `Still to choose: ${check.missing.join(', ')}.` : undefined);
  return (
    <div className="mt-3">
      <h2 className="text-[18px]">{check.name}</h2>
      <p className="text-ink-2">
        {counted(check.rows, 'row')}, {check.encoding}
        {check.delimiter !== '' && <>, columns separated by {DELIMITERS[check.delimiter] ?? check.delimiter}</>}.{' '}
        <label>
          Decimals are written with{' '}
          <select
            className={smallChoice}
            value={choices.mark ?? ''}
            onChange={(e) => setChoices((now) => ({ ...now, mark: e.target.value === ',' ? ',' : '.' }))}
          >
            {choices.mark === null && <option value="">Choose: 1,250 and 1.250 are ambiguous</option>}
            <option value=".">a point, 1,234.50</option>
            <option value=",">a comma, 1.234,50</option>
          </select>
        </label>
      </p>
      <div className="mt-3 flex flex-wrap items-start gap-x-8 gap-y-5">
        <FileColumns check={check} mapping={mapping} onChange={setMapping} />
        <CostSide check={check} />
      </div>
      <Unknown
        title="Unknown cost codes"
        kind="costCode"
        names={check.unknown.costCode}
        chosen={settled.costCode}
        onChoose={(name, thing) => settle('costCode', name, thing)}
      />
      <Unknown
        title="Unknown suppliers"
        kind="supplier"
        names={check.unknown.supplier}
        chosen={settled.supplier}
        also={[LEFT_OPEN]}
        onChoose={(name, thing) => settle('supplier', name, thing)}
        make={may('keep suppliers') ? { words: 'New supplier', onMake: setMaking } : undefined}
      />
      <UnknownUnits
        names={check.unknown.unit}
        chosen={choices.unit}
        onChoose={(name, unit) => setChoices((now) => ({ ...now, unit: { ...now.unit, [name]: unit } }))}
      />
      {making !== undefined && (
        <InPassing
          making={{ kind: 'supplier', typed: making }}
          onClose={() => setMaking(undefined)}
          onSupplier={(supplier) => settle('supplier', making, supplier)}
        />
      )}
      <Problems check={check} leftOut={choices.leftOut} onLeave={leave} stops={stops} />
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>
              {far !== undefined && `${grouped(far.done)} of ${counted(far.of, 'row')} read`}
              {far === undefined && checking && 'Checking…'}
              {far === undefined && !checking && `${grouped(check.ready)} of ${counted(check.rows, 'row')} ready`}
            </Fact>
            {stops.length > 0 && <Fact warn>{stops.length} to check</Fact>}
            {choices.leftOut.length > 0 && <Fact>{choices.leftOut.length} skipped</Fact>}
            <Fact>{formatMoney(check.cost, currency)} cost</Fact>
          </>
        }
      >
        <ShelfPlain onClick={() => router.push(`/jobs/${job}/quote`)}>Cancel import</ShelfPlain>
        {stops.length > 0 && (
          <ShelfPlain onClick={() => leave(stops, true)}>Skip the {stops.length} with errors</ShelfPlain>
        )}
        <ShelfMain disabled={!ready || busy} onClick={submit} hint="Ctrl ↵">
          {busy ? 'Importing…' : `Import ${counted(check.ready, 'line')}`}
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
      const told = await ask<ImportCheck>(`${location.pathname}/check`, asJson(asked, stop.signal));
      if (told === undefined) return;
      setCheck(told);
      setChecked(asked);
    }, 150);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [asked, checked, start]);
  return { check, checking: asked !== (checked ?? start) };
}
