'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { formatQuantity, NONE, ONE, quantity, type Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { typedQuantity } from '@/core/records/typed';
import { keptQuantity } from '@/core/records/stock';
import { NOT_PICKED, pickScanned, type Picked, type Picks } from '@/core/stores/picking';
import { counted } from '@/core/words';
import { readScan } from '@/formats/gs1';
import type { PickingView, PickRow } from '@/queries/stores/picking';
import { sound } from '@/ui/kit/sound';
import { useKey } from '@/ui/frame/keys';
import { CodeField } from '@/ui/kit/CodeField';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { Empty, Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useDraft } from '@/ui/acting/useDraft';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';

const told = (q: Quantity, row: PickRow) => `${formatQuantity(q)} ${unitOf(row.unit).short}`.trim();

/** All of a line at once; of serial numbers only where there is nothing to choose. */
const wholeOf = (row: PickRow): Picked | undefined => {
  if (row.tracking !== 'serial') return { quantity: row.wanted, numbers: [] };
  return row.numbers.length * ONE === row.wanted ? { quantity: row.wanted, numbers: row.numbers } : undefined;
};

const current = (rows: readonly PickRow[], kept: Picks): Picks =>
  Object.fromEntries(rows.flatMap(({ key }) => (kept[key] === undefined ? [] : [[key, kept[key]]])));

/** What is put by for a job is picked, by scan or by hand, and issued to it in one step; made for a phone. */
export function PickPage({ view: { job, rows } }: { view: PickingView }) {
  const { may, today } = useYard();
  const draft = useDraft<Picks>(`pick ${job.number}`, {});
  const [last, setLast] = useState({ words: '', took: true });
  const once = useOnce();
  const act = useAct(acts.issuePicked, {
    said: ({ lines }) => `${counted(lines, 'line')} issued to ${job.number}`,
    onDone: () => {
      once.renew();
      draft.restart();
      setLast({ words: '', took: true });
    },
  });
  const keeps = may('keep stores');
  // What was issued by somebody else meanwhile stands on the list no longer.
  const picks = useMemo(() => current(rows, draft.value), [rows, draft.value]);
  const now = useRef(picks);
  useEffect(() => {
    now.current = picks;
  }, [picks]);
  const put = (next: Picks) => {
    now.current = next;
    draft.set(next);
  };
  const picked = rows.filter((r) => (picks[r.key]?.quantity ?? 0) > 0);
  const scan = (code: string) => {
    const read = readScan(code, today);
    const said = read.ok ? read.value : { words: [code], count: 1 };
    const found = pickScanned(rows, now.current, said);
    if (found.took) put(found.picks);
    setLast(found);
    sound(found.took);
  };
  const all = () =>
    put(
      Object.fromEntries(
        rows.flatMap((r) => {
          const whole = picks[r.key]?.quantity === r.wanted ? picks[r.key] : (wholeOf(r) ?? picks[r.key]);
          return whole === undefined ? [] : [[r.key, whole]];
        }),
      ),
    );
  const issue = () =>
    void act.run({
      once: once.key(),
      jobId: job.id,
      lines: picked.map(({ key, needId, itemId, placeId, ownerId }) => {
        const { quantity: q, numbers } = picks[key] ?? NOT_PICKED;
        return {
          needId,
          itemId,
          placeId,
          ownerId,
          quantity: q,
          numbers: numbers.map((number) => ({ number, quantity: ONE })),
        };
      }),
    });
  const ready = picked.length > 0 && !act.busy;
  useKey('A', 'Pick all', all, keeps && rows.length > 0);
  useKey('Ctrl+Enter', 'Issue picked lines', issue, keeps && ready);
  const fault = act.refusals[0]?.message;
  return (
    <Sheet>
      <div className="mx-auto max-w-[760px]">
        <h1 className="text-[25px] leading-tight">
          Pick for{' '}
          <Link href={`/jobs/${job.number}/buy-list`} className="hover:underline">
            {job.number}
          </Link>
        </h1>
        <p className="mb-3 text-ink-2">{job.name}</p>
        {rows.length === 0 ? (
          <Empty title="Nothing reserved for this job">
            Stock reserved for it, and goods received for it and not issued, appear here.{' '}
            <Link href={`/jobs/${job.number}/plan`} className="step">
              Reserve from its plan
            </Link>
          </Empty>
        ) : (
          keeps && <CodeField onCode={scan} />
        )}
        <p
          role="status"
          className={`min-h-[24px] pt-1 text-[13px] ${last.took ? 'text-ink-2' : 'font-semibold text-brick'}`}
        >
          {last.words}
        </p>
        <ul aria-label="Picking list">
          {rows.map((r) => (
            <PickLine
              key={r.key}
              row={r}
              picked={picks[r.key] ?? NOT_PICKED}
              disabled={!keeps}
              onPick={(next) => put({ ...now.current, [r.key]: next })}
            />
          ))}
        </ul>
      </div>
      <Shelf
        fault={fault}
        facts={
          <Fact strong>
            {rows.length === 0 ? 'Nothing to pick' : `${picked.length} of ${counted(rows.length, 'line')} picked`}
          </Fact>
        }
      >
        {rows.length > 0 && (
          <a href={`/stores/pick/${job.number}/list`} target="_blank" rel="noreferrer" className="btn btn-shelf">
            Print
          </a>
        )}
        {keeps && rows.length > 0 && (
          <ShelfPlain onClick={all} hint="A">
            Pick all
          </ShelfPlain>
        )}
        {keeps && (
          <ShelfMain disabled={!ready} onClick={issue} hint="Ctrl ↵">
            {act.busy ? 'Issuing…' : `Issue ${picked.length === 0 ? '' : counted(picked.length, 'line')}`.trim()}
          </ShelfMain>
        )}
      </Shelf>
    </Sheet>
  );
}

type LineProps = {
  readonly row: PickRow;
  readonly picked: Picked;
  readonly disabled: boolean;
  readonly onPick: (picked: Picked) => void;
};

function PickLine({ row, picked, disabled, onPick }: LineProps) {
  const done = picked.quantity >= row.wanted;
  return (
    <li className={`border-b border-line-2 py-2.5 ${picked.quantity > 0 ? 'bg-copper-wash' : ''}`}>
      <div className="flex flex-wrap items-start gap-x-4 gap-y-1.5">
        <div className="min-w-0 flex-1 basis-[200px]">
          <div className="font-semibold">
            {row.description} {done && <span className="tag tag-good">picked</span>}{' '}
            {row.ownerId !== null && <span className="tag">job stock</span>}
          </div>
          <div className="mono text-ink-2">{row.itemNumber}</div>
          <div className="text-[13px]">
            <span className="text-ink-2">{row.place}</span> {row.from !== '' && <b>{row.from}</b>}
          </div>
        </div>
        {row.tracking === 'serial' ? (
          <span className="whitespace-nowrap">
            <b>{formatQuantity(picked.quantity)}</b> of {told(row.wanted, row)}
          </span>
        ) : (
          <HowMany row={row} picked={picked} disabled={disabled} onPick={onPick} />
        )}
      </div>
      {row.tracking === 'serial' && <Pieces row={row} picked={picked} disabled={disabled} onPick={onPick} />}
    </li>
  );
}

const typedHowMany = typedQuantity(keptQuantity, 'none');

function HowMany({ row, picked, disabled, onPick }: LineProps) {
  const [typed, setTyped] = useState<string>();
  const readOf = (text: string): Quantity | undefined => {
    const read = text.trim() === '' ? NONE : typedHowMany.safeParse(text).data;
    return read !== undefined && read <= row.wanted ? read : undefined;
  };
  const take = (text: string) => {
    setTyped(text);
    const read = readOf(text);
    if (read !== undefined) onPick({ quantity: read, numbers: [] });
  };
  const wrong = typed !== undefined && readOf(typed) === undefined;
  return (
    <span className="flex flex-wrap items-center justify-end gap-2">
      <input
        type="text"
        inputMode="decimal"
        aria-label={`Picked of ${row.description}`}
        aria-invalid={wrong}
        disabled={disabled}
        className="field num !w-[84px] text-right max-phone:min-h-[44px]"
        placeholder="0"
        value={typed ?? (picked.quantity === 0 ? '' : ungrouped(formatQuantity(picked.quantity)))}
        onChange={(e) => take(e.target.value)}
        onBlur={() => !wrong && setTyped(undefined)}
      />
      <span className="whitespace-nowrap">of {told(row.wanted, row)}</span>
      <button
        type="button"
        className="btn btn-plain max-phone:min-h-[44px]"
        disabled={disabled}
        aria-label={`Pick all of ${row.description}`}
        onClick={() => {
          setTyped(undefined);
          onPick({ quantity: picked.quantity >= row.wanted ? NONE : row.wanted, numbers: [] });
        }}
      >
        {picked.quantity >= row.wanted ? 'None' : 'All'}
      </button>
      {wrong && (
        <span role="alert" className="field-fault basis-full text-right">
          No more than {told(row.wanted, row)}.
        </span>
      )}
    </span>
  );
}

function Pieces({ row, picked, disabled, onPick }: LineProps) {
  const full = picked.quantity >= row.wanted;
  const put = (number: string, on: boolean) => {
    const numbers = on ? [...picked.numbers, number] : picked.numbers.filter((n) => n !== number);
    onPick({ quantity: quantity(numbers.length * ONE), numbers });
  };
  if (row.pieces.length === 0) return <p className="mt-1 text-[13px] text-ink-2">No serial numbers in stock there.</p>;
  return (
    <ul className="mt-1.5 grid grid-cols-[repeat(auto-fill,minmax(200px,1fr))] gap-x-4">
      {row.pieces.map(({ number, bin }) => {
        const on = picked.numbers.includes(number);
        return (
          <li key={number}>
            <label className="flex min-h-[34px] items-center gap-2 max-phone:min-h-[44px]">
              <input
                type="checkbox"
                className="box"
                checked={on}
                disabled={disabled || (full && !on)}
                onChange={(e) => put(number, e.target.checked)}
              />
              <span className="mono">{number}</span>
              <span className="text-[13px] text-ink-2">{bin}</span>
            </label>
          </li>
        );
      })}
    </ul>
  );
}
