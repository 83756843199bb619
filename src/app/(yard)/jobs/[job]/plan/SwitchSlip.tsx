'use client';

import { measured } from '@/core/quantity/units';
import { formatMoney, minor } from '@/core/money/money';
import { PLANNING_NAMES, type Planning } from '@/core/planning/netting';
import { counted } from '@/core/words';
import type { Ahead } from '@/queries/buying/planAhead';
import { Faults } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useAct } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';

type Props = {
  readonly job: { readonly id: number; readonly number: string };
  readonly version: number;
  readonly to: Planning;
  readonly now: Planning;
  readonly ahead: Ahead;
  readonly onClose: () => void;
};

/** What planning a job the other way, or the same way anew, would change; and the step that does it. */
export function SwitchSlip({ job, version, to, now, ahead, onClose }: Props) {
  const { currency } = useYard();
  const act = useAct(acts.choosePlanning, {
    said: () => `Job ${job.number} buys ${PLANNING_NAMES[to]}`,
    onDone: onClose,
  });
  const lines = ahead.lines.filter((l) => l.then[to] !== l.now);
  const go = () => void act.run({ jobId: job.id, version, planning: to });
  useKey('Ctrl+Enter', 'Switch', go, !act.busy);
  const { planned } = ahead;
  return (
    <Slip
      open
      onClose={onClose}
      title={to === now ? 'Recalculate shortfall' : `Buy ${PLANNING_NAMES[to]}`}
      detail={
        to === 'inFull'
          ? 'Buys everything the job needs, whatever is in stock or on order.'
          : 'Buys only what stock and incoming orders don’t cover in time. Other jobs’ reservations stay.'
      }
      foot={
        <div className="grid gap-2">
          <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={act.busy} onClick={go}>
            Buy {PLANNING_NAMES[to]}{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      {lines.length === 0 ? (
        <p className="text-ink-2">No line changes.</p>
      ) : (
        <table className="ledger w-full" aria-label="What changes">
          <thead>
            <tr>
              <th scope="col">{counted(lines.length, 'line')}</th>
              <th scope="col" className="num">
                To buy now
              </th>
              <th scope="col" className="num">
                To buy after
              </th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <tr key={l.needId}>
                <th scope="row" className="text-left !font-normal">
                  {l.description}
                </th>
                <td className="num">{measured(l.now, l.unit)}</td>
                <td className="num font-semibold">{measured(l.then[to], l.unit)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {planned !== null && (
        <p className="mt-4">
          Planned total <b>{formatMoney(minor(planned[to]), currency)}</b>.
        </p>
      )}
    </Slip>
  );
}
