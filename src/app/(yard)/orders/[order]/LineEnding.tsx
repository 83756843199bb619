'use client';

import { useState } from 'react';
import { endedAt } from '@/core/orders/rules';
import { leftOf, progressOf } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { OrderView } from '@/queries/orders/order';
import type { Choice } from '@/queries/frame/choices';
import { PickField } from '@/ui/kit/PickField';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../../actions';
import { Ahead } from './Ahead';

type Line = OrderView['order']['lines'][number];
export type LineEnd = 'closeShort' | 'endInvoices' | 'openAgain' | 'elsewhere';
type EndProps = { readonly line: Line; readonly view: OrderView; readonly onClose: () => void };

export const factsOf = (l: Line) => ({ ...progressOf(l), description: l.description });

const QUESTIONS = {
  closeShort: CloseShort,
  endInvoices: EndInvoices,
  openAgain: OpenAgain,
  elsewhere: Elsewhere,
} as const;

/** What is done with one line of an order that was sent: each says first what it does to the budgets. */
export function LineEnding({ how, ...of }: EndProps & { readonly how: LineEnd }) {
  const Ask = QUESTIONS[how];
  return <Ask {...of} />;
}

function CloseShort({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const at = endedAt(factsOf(line));
  const act = useAct(acts.closeShort, {
    said: () => `${line.description} closed short at ${at}`,
    onDone: onClose,
  });
  const rest = `${formatQuantity(leftOf(progressOf(line)))} ${unitOf(line.unit).short}`.trim();
  const left = {
    goods: `${rest} were not received and are no longer expected.`,
    service: `${rest} were not invoiced and are no longer expected.`,
    charge: 'The part not invoiced is no longer expected.',
  }[line.kind];
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  return (
    <ReasonQuestion
      title={`Close ${line.description} short at ${at}?`}
      words={`${left} The money is freed, and anything still needed goes back on the buy list.`}
      keep="Cancel"
      go="Close short"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), ...ref, reason })}
    >
      <Ahead number={view.order.number} what="closeShort" lineId={line.id} />
    </ReasonQuestion>
  );
}

function EndInvoices({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const act = useAct(acts.endInvoices, {
    said: () => `No more invoices for ${line.description}`,
    onDone: onClose,
  });
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  const short = `${formatQuantity(line.invoiced)} of the ${formatQuantity(line.received)} received`;
  return (
    <ReasonQuestion
      title={`No more invoices for ${line.description}?`}
      words={`${short} were invoiced. The rest stays here at no cost to the jobs.`}
      keep="Keep open"
      go="No more invoices"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), ...ref, reason })}
    />
  );
}

function OpenAgain({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const act = useAct(acts.reopenLines, { said: () => `${line.description} reopened`, onDone: onClose });
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  return (
    <ReasonQuestion
      title={`Reopen ${line.description}?`}
      words="The outstanding quantity is expected again and goes back to On order."
      keep="Cancel"
      go="Reopen line"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), ...ref, reason })}
    >
      <Ahead number={view.order.number} what="openAgain" lineId={line.id} />
    </ReasonQuestion>
  );
}

function Elsewhere({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const [job, setJob] = useState<Choice | null>(null);
  const [code, setCode] = useState<Choice | null>(null);
  const act = useAct(acts.chargeElsewhere, {
    said: () => `Charge for ${line.description} moved to ${job?.number}`,
    onDone: onClose,
  });
  const [split, setSplit] = useState(line.splits[0]?.id ?? 0);
  const ref = { orderId: view.order.id, version: view.order.version };
  const named = (s: Line['splits'][number]) => {
    const charged = s.jobId === null ? 'Stores' : (view.jobs.get(s.jobId)?.number ?? '');
    return `${charged} ${view.codes.find((c) => c.id === s.costCodeId)?.code ?? ''}`.trim();
  };
  return (
    <ReasonQuestion
      title={`Charge ${line.description} to another job?`}
      words="Its cost moves to the other job’s tab, including what is received and invoiced."
      keep="Cancel"
      go="Move charge"
      act={act}
      onClose={onClose}
      onGo={(reason) =>
        void act.run({
          once: once.key(),
          ...ref,
          reason,
          splits: [{ id: split, jobId: job?.id ?? 0, costCodeId: code?.id ?? 0 }],
        })
      }
    >
      <div className="mb-3 grid gap-2">
        {line.splits.length > 1 && (
          <select aria-label="Split" className="field" value={split} onChange={(e) => setSplit(Number(e.target.value))}>
            {line.splits.map((s) => (
              <option key={s.id} value={s.id}>
                {named(s)}
              </option>
            ))}
          </select>
        )}
        <div className="grid grid-cols-2 gap-3">
          <PickField kind="job" label="Job or quote" value={job} onPick={setJob} required />
          <PickField kind="costCode" label="Cost code" value={code} onPick={setCode} required />
        </div>
      </div>
    </ReasonQuestion>
  );
}
