'use client';

import { useState } from 'react';
import { add, formatAmount, signOf, ZERO } from '@/core/money/money';
import { COUNT_STATE_NAMES, countScanned } from '@/core/stores/sheet';
import { counted } from '@/core/words';
import { readScan } from '@/formats/gs1';
import type { CountView } from '@/queries/stores/counts';
import { useKey } from '@/ui/frame/keys';
import { CodeField } from '@/ui/kit/CodeField';
import { Fact, Shelf, ShelfMain, ShelfPlain } from '@/ui/kit/Shelf';
import { Empty, Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { sound } from '@/ui/kit/sound';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { CountLine } from './CountLine';
import { FoundSlip } from './FoundSlip';
import { PostSlip } from './PostSlip';
import { useCounts } from './useCounts';

/** A counting sheet: each line is kept as it is counted, compared once all is counted, and posted; made for a phone. */
export function CountPage({ view }: { view: CountView }) {
  const { head, bins } = view;
  const counting = useCounts(head.id, view.rows);
  const { rows, put } = counting;
  const { currency, day, may, today } = useYard();
  const [last, setLast] = useState({ words: '', took: true });
  const [slip, setSlip] = useState<'found' | 'post'>();
  const end = useAct(acts.endCounting);
  const drop = useAct(acts.dropCount, { said: () => `Count ${head.number} cancelled` });
  const ref = { countId: head.id, version: head.version };
  const keeps = may('keep stores');
  const counts = keeps && head.state === 'open';
  const looks = keeps && head.state === 'counted';
  const done = rows.filter((r) => r.counted !== null);
  const differing = done.filter((r) => (r.difference ?? 0) !== 0);
  const worth = add(ZERO, ...differing.map((r) => r.worth ?? ZERO));
  const scan = (code: string) => {
    const read = readScan(code, today);
    const now = rows.map((r) => ({ ...r, counted: counting.countedNow(r) }));
    const found = countScanned(now, read.ok ? read.value : { words: [code], count: 1 });
    if (found.line !== undefined && found.counted !== undefined) put(found.line, found.counted);
    setLast({ words: found.words, took: found.line !== undefined });
    sound(found.line !== undefined);
  };
  const busy = end.busy || drop.busy;
  const finish = async () => {
    if (await counting.settled()) await end.run(ref);
  };
  useKey('N', 'Add found item', () => setSlip('found'), counts);
  useKey('Ctrl+Enter', 'Counted', () => void finish(), counts && done.length > 0 && !busy);
  useKey('Ctrl+Enter', 'Post differences', () => setSlip('post'), looks && slip === undefined);
  const refused = [end, drop].flatMap((a) => (a.clash ? [a.clash.message] : a.refusals.map((r) => r.message)))[0];
  const fault = counting.fault ?? refused;
  return (
    <Sheet>
      <div className="mx-auto max-w-[860px]">
        <h1 className="text-[25px] leading-tight">
          Count of {head.bin ?? head.place} <span className="tag align-[4px]">{COUNT_STATE_NAMES[head.state]}</span>
        </h1>
        <p className="mb-3 text-ink-2">
          <span className="mono">{head.number}</span>
          {head.bin !== null && ` · ${head.place}`} · started {day(head.begunOn)} by {head.begunBy}
          {head.blind === 1 && ' · blind'}
          {head.endedOn !== null && ` · closed ${day(head.endedOn)}`}
        </p>
        {counts && rows.length > 0 && <CodeField onCode={scan} />}
        <p
          role="status"
          className={`min-h-[24px] pt-1 text-[13px] ${last.took ? 'text-ink-2' : 'font-semibold text-brick'}`}
        >
          {last.words}
        </p>
        {counting.offline && (
          <p role="alert" className="mb-2 rounded-lg border border-line bg-glaze-2 px-3 py-2">
            No connection: {counted(counting.waiting, 'count')} {counting.waiting === 1 ? 'is' : 'are'} kept here and
            saved when you’re back online.
          </p>
        )}
        {rows.length === 0 && <Empty title="No book stock here">Add anything you find.</Empty>}
        <ul aria-label="Count sheet">
          {(head.state === 'counted' ? [...differing, ...rows.filter((r) => !differing.includes(r))] : rows).map(
            (r) => (
              <CountLine
                key={r.id}
                row={r}
                shows={head.blind === 0 || head.state !== 'open'}
                disabled={!counts}
                onCount={(now, before) => put(r, now, before)}
              />
            ),
          )}
        </ul>
        <div className="steps mt-3">
          {counts && (
            <button type="button" className="step" onClick={() => setSlip('found')}>
              Add found item
            </button>
          )}
          {(counts || looks) && (
            <button type="button" className="step" disabled={busy} onClick={() => void drop.run(ref)}>
              Cancel count
            </button>
          )}
          <Link href="/stores/count" className="step">
            All counts
          </Link>
        </div>
      </div>
      <Shelf
        fault={fault}
        facts={
          <>
            <Fact strong>
              {done.length} of {counted(rows.length, 'line')} counted
            </Fact>
            {head.state !== 'open' && (
              <Fact>{differing.length === 1 ? '1 difference' : `${differing.length} differences`}</Fact>
            )}
            {head.state !== 'open' && may('see money') && differing.length > 0 && (
              <Fact>
                {signOf(currency)}&#8239;{worth > 0 ? '+' : ''}
                {formatAmount(worth, currency)}
              </Fact>
            )}
          </>
        }
      >
        {head.state === 'open' && rows.length > 0 && (
          <a href={`/stores/count/${head.id}/sheet`} target="_blank" rel="noreferrer" className="btn btn-shelf">
            Print
          </a>
        )}
        {looks && (
          <ShelfPlain disabled={busy} onClick={() => void end.run({ ...ref, again: true })}>
            Continue counting
          </ShelfPlain>
        )}
        {counts && (
          <ShelfMain disabled={busy || done.length === 0} onClick={() => void finish()} hint="Ctrl ↵">
            Compare with book
          </ShelfMain>
        )}
        {looks && (
          <ShelfMain disabled={busy} onClick={() => setSlip('post')} hint="Ctrl ↵">
            {differing.length === 0 ? 'Close count' : `Post ${counted(differing.length, 'difference')}`}
          </ShelfMain>
        )}
      </Shelf>
      {slip === 'found' && <FoundSlip head={head} bins={bins} onClose={() => setSlip(undefined)} />}
      {slip === 'post' && <PostSlip head={head} rows={differing} onClose={() => setSlip(undefined)} />}
    </Sheet>
  );
}
