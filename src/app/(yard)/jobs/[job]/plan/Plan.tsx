'use client';

import { measured } from '@/core/quantity/units';
import { useEffect, useMemo, useState } from 'react';
import { add, formatWhole, minor, signOf, ZERO } from '@/core/money/money';
import type { Day } from '@/core/calendar/workdays';
import { PLANNED_WORK, PLANNED_WORK_NAMES, type PlannedWork } from '@/core/planning/plan';
import { PLANNING, PLANNING_NAMES, type Planning } from '@/core/planning/netting';
import { counted } from '@/core/words';
import type { Ahead } from '@/queries/buying/planAhead';
import type { PlanRow, PlanView } from '@/queries/buying/plan';
import Link from '@/ui/kit/Link';
import { ask, asJson } from '@/ui/acting/ask';
import { useKey } from '@/ui/frame/keys';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Fact, Shelf, ShelfPlain } from '@/ui/kit/Shelf';
import { Empty, Further } from '@/ui/kit/Sheet';
import type { Key } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { later } from '@/ui/acting/later';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { ChangesSlip } from './ChangesSlip';
import { planColumns } from './planColumns';
import { SwitchSlip } from './SwitchSlip';
import { TodaysPrices } from './TodaysPrices';
import { WhenWork } from './WhenWork';

const NeedSlip = later(() => import('../../../_shared/buying/NeedSlip'));
const MendSlip = later(() => import('../../../_shared/buying/ManyNeedsSlip'));
const TakeBom = later(() => import('./TakeBom'));

type Props = {
  readonly plan: PlanView;
  /** How many rows stand before those that are shown. */
  readonly from: number;
  readonly job: {
    readonly id: number;
    readonly number: string;
    readonly kind: string;
    readonly live: boolean;
    readonly startsOn: Day | null;
  };
};

/** What planning anew would do, asked once the page stands and again after every change. */
function useAhead(job: Props['job'], plan: PlanView): Ahead | undefined {
  const [ahead, setAhead] = useState<Ahead>();
  useEffect(() => {
    const stop = new AbortController();
    const body = JSON.stringify({ jobId: job.id });
    void ask<Ahead>(`/jobs/${job.number}/plan/ahead`, asJson(body, stop.signal)).then(
      (found) => found !== undefined && setAhead(found),
    );
    return () => stop.abort();
  }, [job.id, job.number, plan]);
  return ahead;
}

/** How a job's material is planned: every branch of what it makes, what covers it, and when work can start. */
export function Plan({ plan, from, job }: Props) {
  const yard = useYard();
  const { rows, roots, version, planning } = plan;
  const ahead = useAhead(job, plan);
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const [picked, setPicked] = useState<ReadonlySet<Key>>(new Set());
  const [open, setOpen] = useState<PlanRow>();
  const [slip, setSlip] = useState<'bom' | 'out' | 'mend' | Planning | PlanView['roots'][number]>();
  const once = useOnce();
  const mayChange = yard.may('change buy lists') && job.live;
  const mayReserve = yard.may('reserve stock') && job.live;
  const fold = (key: string) => {
    const next = new Set(closed);
    if (!next.delete(key)) next.add(key);
    setClosed(next);
  };
  const parents = useMemo(() => new Set(rows.flatMap((r) => r.parent ?? [])), [rows]);
  const shown = useMemo(() => {
    const hidden = new Set<string>();
    return rows.filter(({ key, parent }) => {
      const away = parent !== null && (hidden.has(parent) || closed.has(parent));
      if (away) hidden.add(key);
      return !away;
    });
  }, [rows, closed]);
  const columns = planColumns({
    day: yard.day,
    currency: yard.currency,
    closed,
    parents,
    onFold: fold,
    onOpen: setOpen,
  });
  const chosen = rows.filter((r) => picked.has(r.key));
  const done = () => setPicked(new Set());
  const reserving = useAct(acts.reserve, {
    said: ({ lines }) => `Stock reserved for ${counted(lines, 'line')}`,
    onDone: () => {
      once.renew();
      done();
    },
  });
  const letting = useAct(acts.unreserve, { said: () => 'Unreserved: now available to others', onDone: done });
  const leaving = useAct(acts.leaveOut, { onDone: () => (setSlip(undefined), done()) });
  const working = useAct(acts.chooseWork, { onDone: done });
  const running = [reserving, letting, leaving, working];
  const busy = running.some((a) => a.busy);
  const fault = running.flatMap((a) => (a.clash ? [a.clash.message] : a.refusals.map((r) => r.message)))[0];
  const needIds = (of: readonly PlanRow[]) => of.flatMap((r) => (r.need === null ? [] : [r.need.id]));
  const free = ahead?.reservable ?? [];
  const doReserve = (ids: readonly number[]) =>
    void reserving.run({ once: once.key(), jobId: job.id, needIds: [...ids].slice(0, 1000) });
  useKey('R', 'Reserve available stock', () => doReserve(free), mayReserve && free.length > 0 && !busy);
  useKey('B', 'Add from bill of materials', () => setSlip('bom'), mayChange);

  const toBuy = rows.filter((r) => r.isIn && r.need !== null && r.need.open > 0);
  const late = toBuy.filter((r) => r.need?.late === true).length;
  const unpriced = toBuy.filter((r) => r.need?.tags.some((t) => t.of === 'noPrice') === true).length;
  const planned = ahead?.planned?.[planning];
  // What a page of a longer plan comes to says nothing of the whole.
  const whole = rows.length === plan.of;
  const more = whole ? add(ZERO, ...toBuy.map((r) => r.need?.more ?? ZERO)) : ZERO;
  const words = [
    planned === undefined ? '' : `${signOf(yard.currency)}\u202f${formatWhole(planned, yard.currency)} planned`,
    more === 0 || planned === undefined ? '' : `${formatWhole(add(planned, more), yard.currency)} at today’s prices`,
    late > 0 ? `${late} late` : '',
    unpriced > 0 ? `${unpriced} with no price` : '',
  ].filter(Boolean);

  const [toMake] = plan.toMake;
  const proposal = toMake !== undefined && mayChange && (
    <p className="mb-2 text-ink-2">
      The quote sells {measured(toMake.quantity, toMake.unit)} {toMake.item.name} made here.{' '}
      <button type="button" className="step" onClick={() => setSlip('bom')}>
        Add BOM of {toMake.item.number}
      </button>
    </p>
  );
  if (rows.length === 0)
    return (
      <div className="mt-3">
        {proposal}
        <Empty title="Nothing planned yet">
          {job.live ? (
            <>
              Press <span className="kbd">B</span> to add a bill of materials, or add lines to the{' '}
              <Link className="step" href={`/jobs/${job.number}/buy-list`}>
                buy list
              </Link>
              .
            </>
          ) : (
            'Win the quote first; the plan follows.'
          )}
        </Empty>
        <Shelf facts={<Fact strong>No plan yet</Fact>}>
          {mayChange && (
            <ShelfPlain onClick={() => setSlip('bom')} hint="B">
              Add from BOM
            </ShelfPlain>
          )}
        </Shelf>
        {slip === 'bom' && <TakeBom job={job} version={version} proposed={toMake} onClose={() => setSlip(undefined)} />}
      </div>
    );
  return (
    <div className="mt-3">
      {proposal}
      <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <span className="flex items-center gap-3">
          <span className="text-ink-2">Buy</span>
          <span role="group" aria-label="What to buy" className="flex overflow-hidden rounded-lg border border-line">
            {PLANNING.map((way) => (
              <button
                key={way}
                type="button"
                aria-pressed={planning === way}
                disabled={!mayChange || ahead === undefined}
                onClick={() => setSlip(way)}
                className={`px-3 py-1 font-semibold max-phone:py-3 ${planning === way ? 'bg-enamel text-glaze' : 'text-ink-2 hover:text-ink'}`}
              >
                {PLANNING_NAMES[way]}
                {ahead?.planned != null && (
                  <span className="font-normal"> {formatWhole(minor(ahead.planned[way]), yard.currency)}</span>
                )}
              </button>
            ))}
          </span>
        </span>
        <span className="text-ink-2">
          {roots.map((r, k) => (
            <span key={r.lineId}>
              {k === 0 ? 'BOM ' : ', '}
              <button
                type="button"
                className="mono font-bold text-ink hover:underline max-phone:py-3.5"
                onClick={() => setSlip(r)}
              >
                {r.number}
              </button>
              {r.since !== null && ` from ${yard.day(r.since)}`}, {measured(r.quantity, r.unit)} off
            </span>
          ))}
        </span>
        {ahead !== undefined && ahead.changes > 0 && roots[0] !== undefined && (
          <button type="button" className="step ml-auto" onClick={() => setSlip(roots[0])}>
            Changed since planning: {ahead.changes}
          </button>
        )}
      </div>
      <LedgerTable
        label="Plan"
        rows={shown}
        columns={columns}
        keyOf={(r) => r.key}
        onOpen={(r) => (r.need !== null ? setOpen(r) : fold(r.key))}
        toneOf={(r) => (r.isIn ? '' : 'text-ink-2')}
        picks={
          mayReserve
            ? {
                picked,
                onPick: setPicked,
                may: (r) => r.lineId === null || r.parent !== null,
                words: (r) => `Select ${r.description}`,
              }
            : undefined
        }
      />
      <Further
        to={`/jobs/${job.number}/plan`}
        before={from}
        shown={rows.length}
        of={plan.of}
        after={from + rows.length}
      />
      <WhenWork work={plan.work} />
      {whole && yard.may('see money') && <TodaysPrices needs={toBuy.flatMap((r) => r.need ?? [])} />}
      <Shelf
        fault={fault}
        facts={
          picked.size > 0 ? (
            <Fact strong>{counted(chosen.length, 'line')} selected</Fact>
          ) : (
            <>
              <Fact strong>
                {toBuy.length === 0
                  ? 'Nothing left to buy'
                  : `${counted(toBuy.length, 'line')} to buy${whole ? '' : ' of those shown'}`}
              </Fact>
              {words.length > 0 && <Fact warn={late > 0}>{words.join(' · ')}</Fact>}
            </>
          )
        }
      >
        {picked.size > 0 ? (
          <PickedSteps
            rows={chosen}
            mayChange={mayChange}
            busy={busy}
            onReserve={() => doReserve(needIds(chosen))}
            onLetGo={() => void letting.run({ jobId: job.id, needIds: needIds(chosen) })}
            onMend={() => setSlip('mend')}
            onOut={() => setSlip('out')}
            onIn={(lineIds) => void leaving.run({ jobId: job.id, version, lineIds, reason: null })}
            onWork={(lineId, work) => void working.run({ jobId: job.id, version, lineId, work })}
          />
        ) : (
          <>
            {mayReserve && free.length > 0 && (
              <ShelfPlain onClick={() => doReserve(free)} hint="R" disabled={busy}>
                Reserve available stock
              </ShelfPlain>
            )}
            {mayChange && free.length === 0 && (
              <ShelfPlain onClick={() => setSlip('bom')} hint="B">
                Add from BOM
              </ShelfPlain>
            )}
            {toBuy.length > 0 && job.live && yard.may('draft orders') && (
              <Link href={`/gather?job=${job.number}`} className="btn btn-main h-[38px]">
                Gather for {job.number}
              </Link>
            )}
          </>
        )}
      </Shelf>
      {open?.need != null && <NeedSlip key={open.key} need={open.need} onClose={() => setOpen(undefined)} />}
      {slip === 'bom' && <TakeBom job={job} version={version} proposed={toMake} onClose={() => setSlip(undefined)} />}
      {slip === 'mend' && (
        <MendSlip
          needs={chosen.flatMap((r) => (r.isIn ? (r.need ?? []) : []))}
          onClose={() => (setSlip(undefined), done())}
        />
      )}
      {slip === 'out' && (
        <ReasonQuestion
          title={`Exclude ${counted(chosen.length, 'item')}`}
          words="Everything below is excluded too, and nothing is bought for this job. You can include it again later."
          keep="Cancel"
          go="Exclude"
          act={leaving}
          onClose={() => setSlip(undefined)}
          onGo={(reason) =>
            void leaving.run({ jobId: job.id, version, lineIds: chosen.flatMap((r) => r.lineId ?? []), reason })
          }
        />
      )}
      {(slip === 'inFull' || slip === 'shortfall') && ahead !== undefined && (
        <SwitchSlip
          job={job}
          version={version}
          to={slip}
          now={planning}
          ahead={ahead}
          onClose={() => setSlip(undefined)}
        />
      )}
      {typeof slip === 'object' && (
        <ChangesSlip job={job} version={version} root={slip} onClose={() => setSlip(undefined)} />
      )}
    </div>
  );
}

type StepsProps = {
  /** Whether more than reserving is theirs. */
  readonly mayChange: boolean;
  readonly rows: readonly PlanRow[];
  readonly busy: boolean;
  readonly onReserve: () => void;
  readonly onLetGo: () => void;
  readonly onMend: () => void;
  readonly onOut: () => void;
  readonly onIn: (lineIds: number[]) => void;
  readonly onWork: (lineId: number, work: PlannedWork) => void;
};

/** What can be done with the picked branches. */
function PickedSteps({ mayChange, rows, busy, onReserve, onLetGo, onMend, onOut, onIn, onWork }: StepsProps) {
  const out = rows.flatMap((r) => (r.leftOut === null || r.lineId === null ? [] : [r.lineId]));
  const inside = rows.filter((r) => r.lineId !== null && r.leftOut === null);
  const bought = rows.filter((r) => r.need !== null && r.isIn);
  const held = bought.filter((r) => (r.need?.inStores ?? 0) + (r.need?.coming ?? 0) > 0);
  const [one] = rows;
  const made = rows.length === 1 && one?.gotBy === 'made' && one.parent !== null ? one : undefined;
  return (
    <>
      {mayChange && made?.lineId != null && (
        <label className="flex items-center gap-2">
          <span className="text-on-rim-2">{made.description} is</span>
          <select
            className="field field-small !w-auto"
            disabled={busy}
            value={made.work}
            onChange={(e) => onWork(made.lineId ?? 0, e.target.value as PlannedWork)}
          >
            {PLANNED_WORK.map((way) => (
              <option key={way} value={way}>
                {PLANNED_WORK_NAMES[way]}
              </option>
            ))}
          </select>
        </label>
      )}
      {bought.length > 0 && (
        <ShelfPlain onClick={onReserve} disabled={busy}>
          Reserve
        </ShelfPlain>
      )}
      {mayChange && bought.length > 0 && (
        <ShelfPlain onClick={onMend} disabled={busy}>
          Change…
        </ShelfPlain>
      )}
      {held.length > 0 && (
        <ShelfPlain onClick={onLetGo} disabled={busy}>
          Unreserve
        </ShelfPlain>
      )}
      {mayChange && inside.length > 0 && (
        <ShelfPlain onClick={onOut} disabled={busy}>
          Exclude…
        </ShelfPlain>
      )}
      {mayChange && out.length > 0 && (
        <ShelfPlain onClick={() => onIn(out)} disabled={busy}>
          Include again
        </ShelfPlain>
      )}
    </>
  );
}
