'use client';

import { useState } from 'react';
import { add, formatWhole, signOf, ZERO } from '@/core/money/money';
import type { Planning } from '@/core/planning/netting';
import { measured } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { Ahead } from '@/queries/buying/planAhead';
import type { PlanRow, PlanView } from '@/queries/buying/plan';
import Link from '@/ui/kit/Link';
import { useKey } from '@/ui/frame/keys';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Fact, Shelf, ShelfPlain } from '@/ui/kit/Shelf';
import { Empty, Further } from '@/ui/kit/Sheet';
import type { Key } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { later } from '@/ui/acting/later';
import { useYard } from '@/ui/frame/YardContext';
import { ChangesSlip } from './ChangesSlip';
import { PickedSteps } from './PickedSteps';
import { planColumns } from './planColumns';
import { PlanHead, type PlanRoot } from './PlanHead';
import { SwitchSlip } from './SwitchSlip';
import { TodaysPrices } from './TodaysPrices';
import { useAhead, useFolding, usePlanActs, type PlanJob } from './usePlan';
import { WhenWork } from './WhenWork';

const NeedSlip = later(() => import('../../../_shared/buying/NeedSlip'));
const ManyNeedsSlip = later(() => import('../../../_shared/buying/ManyNeedsSlip'));
const TakeBom = later(() => import('./TakeBom'));

type Props = {
  readonly plan: PlanView;
  /** How many rows stand before those that are shown. */
  readonly from: number;
  readonly job: PlanJob;
};

type Slip = 'bom' | 'out' | 'mend' | Planning | PlanRoot;

const isWhole = (plan: PlanView) => plan.rows.length === plan.of;
const toBuyOf = (plan: PlanView) =>
  plan.rows.flatMap((r) => (r.isIn && r.need !== null && r.need.open > 0 ? [r.need] : []));
const needIds = (rows: readonly PlanRow[]) => rows.flatMap((r) => r.need?.id ?? []);

/** How a job's material is planned: every branch of what it makes, what covers it, and when work can start. */
export function Plan({ plan, from, job }: Props) {
  const yard = useYard();
  const { rows, version } = plan;
  const ahead = useAhead(job, plan);
  const folding = useFolding(rows);
  const [picked, setPicked] = useState<ReadonlySet<Key>>(new Set());
  const [open, setOpen] = useState<PlanRow>();
  const [slip, setSlip] = useState<Slip>();
  const close = () => setSlip(undefined);
  const done = () => (close(), setPicked(new Set()));
  const plans = usePlanActs(job.id, version, done);
  const mayChange = yard.may('change buy lists') && job.live;
  const mayReserve = yard.may('reserve stock') && job.live;
  const chosen = rows.filter((r) => picked.has(r.key));
  const reservable = ahead?.reservable ?? [];
  useKey(
    'R',
    'Reserve available stock',
    () => plans.reserve(reservable),
    mayReserve && reservable.length > 0 && !plans.busy,
  );
  useKey('B', 'Add from bill of materials', () => setSlip('bom'), mayChange);
  const [toMake] = plan.toMake;
  const proposal = toMake !== undefined && mayChange && (
    <p className="mb-2 text-ink-2">
      The quote sells {measured(toMake.quantity, toMake.unit)} {toMake.item.name} made here.{' '}
      <button type="button" className="step" onClick={() => setSlip('bom')}>
        Add BOM of {toMake.item.number}
      </button>
    </p>
  );
  const taking = slip === 'bom' && <TakeBom job={job} version={version} proposed={toMake} onClose={close} />;
  const fromBom = mayChange && (
    <ShelfPlain onClick={() => setSlip('bom')} hint="B">
      Add from BOM
    </ShelfPlain>
  );
  if (rows.length === 0)
    return (
      <div className="mt-3">
        {proposal}
        <NothingPlanned job={job} />
        <Shelf facts={<Fact strong>No plan yet</Fact>}>{fromBom}</Shelf>
        {taking}
      </div>
    );
  const toBuy = toBuyOf(plan);
  const columns = planColumns({
    ...{ day: yard.day, currency: yard.currency, closed: folding.closed, parents: folding.parents },
    onFold: folding.fold,
    onOpen: setOpen,
  });
  return (
    <div className="mt-3">
      {proposal}
      <PlanHead plan={plan} ahead={ahead} mayChange={mayChange} onSwitch={setSlip} onBom={setSlip} />
      <LedgerTable
        label="Plan"
        rows={folding.shown}
        columns={columns}
        keyOf={(r) => r.key}
        onOpen={(r) => (r.need !== null ? setOpen(r) : folding.fold(r.key))}
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
      {isWhole(plan) && yard.may('see money') && <TodaysPrices needs={toBuy} />}
      <Shelf
        fault={plans.fault}
        facts={
          picked.size > 0 ? (
            <Fact strong>{counted(chosen.length, 'line')} selected</Fact>
          ) : (
            <PlanFacts plan={plan} ahead={ahead} />
          )
        }
      >
        {picked.size > 0 ? (
          <PickedSteps
            rows={chosen}
            mayChange={mayChange}
            busy={plans.busy}
            onReserve={() => plans.reserve(needIds(chosen))}
            onLetGo={() => plans.unreserve(needIds(chosen))}
            onMend={() => setSlip('mend')}
            onOut={() => setSlip('out')}
            onIn={(lineIds) => plans.leaveOut(lineIds, null)}
            onWork={plans.work}
          />
        ) : (
          <>
            {mayReserve && reservable.length > 0 && (
              <ShelfPlain onClick={() => plans.reserve(reservable)} hint="R" disabled={plans.busy}>
                Reserve available stock
              </ShelfPlain>
            )}
            {reservable.length === 0 && fromBom}
            {toBuy.length > 0 && job.live && yard.may('draft orders') && (
              <Link href={`/gather?job=${job.number}`} className="btn btn-main h-[38px]">
                Gather for {job.number}
              </Link>
            )}
          </>
        )}
      </Shelf>
      {open?.need != null && <NeedSlip key={open.key} need={open.need} onClose={() => setOpen(undefined)} />}
      {taking}
      {slip === 'mend' && (
        <ManyNeedsSlip needs={chosen.flatMap((r) => (r.isIn ? (r.need ?? []) : []))} onClose={done} />
      )}
      {slip === 'out' && (
        <ReasonQuestion
          title={`Exclude ${counted(chosen.length, 'item')}`}
          words="Everything below is excluded too, and nothing is bought for this job. You can include it again later."
          keep="Cancel"
          go="Exclude"
          act={plans.leaving}
          onClose={close}
          onGo={(reason) =>
            plans.leaveOut(
              chosen.flatMap((r) => r.lineId ?? []),
              reason,
            )
          }
        />
      )}
      {(slip === 'inFull' || slip === 'shortfall') && ahead !== undefined && (
        <SwitchSlip job={job} version={version} to={slip} now={plan.planning} ahead={ahead} onClose={close} />
      )}
      {typeof slip === 'object' && <ChangesSlip job={job} version={version} root={slip} onClose={close} />}
    </div>
  );
}

const NothingPlanned = ({ job }: { job: PlanJob }) => (
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
);

/** What is still to buy of the rows that are shown, and what it comes to. */
function PlanFacts({ plan, ahead }: { plan: PlanView; ahead: Ahead | undefined }) {
  const { currency } = useYard();
  const toBuy = toBuyOf(plan);
  const late = toBuy.filter((n) => n.late).length;
  const unpriced = toBuy.filter((n) => n.tags.some((t) => t.of === 'noPrice')).length;
  const planned = ahead?.planned?.[plan.planning];
  // What a page of a longer plan comes to says nothing of the whole.
  const whole = isWhole(plan);
  const more = whole ? add(ZERO, ...toBuy.map((n) => n.more)) : ZERO;
  const words = [
    planned === undefined ? '' : `${signOf(currency)}\u202f${formatWhole(planned, currency)} planned`,
    more === 0 || planned === undefined ? '' : `${formatWhole(add(planned, more), currency)} at today’s prices`,
    late > 0 ? `${late} late` : '',
    unpriced > 0 ? `${unpriced} with no price` : '',
  ].filter(Boolean);
  return (
    <>
      <Fact strong>
        {toBuy.length === 0
          ? 'Nothing left to buy'
          : `${counted(toBuy.length, 'line')} to buy${whole ? '' : ' of those shown'}`}
      </Fact>
      {words.length > 0 && <Fact warn={late > 0}>{words.join(' · ')}</Fact>}
    </>
  );
}
