'use client';

import { useState } from 'react';
import { endedAt } from '@/core/orders/rules';
import { leftOf, progressOf } from '@/core/orders/states';
import { formatQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { OrderView } from '@/queries/order';
import type { Thing } from '@/queries/things';
import { PickField } from '@/ui/kit/PickField';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { useAct, useOnce } from '@/ui/useAct';
import { chargeElsewhere, closeShort, endBills, openAgain } from '../../../acts';
import { Ahead } from './Ahead';

type Line = OrderView['order']['lines'][number];
export type LineEnd = 'closeShort' | 'endBills' | 'openAgain' | 'elsewhere';
type EndProps = { readonly line: Line; readonly view: OrderView; readonly onClose: () => void };

export const factsOf = (l: Line) => ({ ...progressOf(l), description: l.description });

const QUESTIONS = { closeShort: CloseShort, endBills: EndBills, openAgain: OpenAgain, elsewhere: Elsewhere } as const;

/** What is done with one line of an order that was sent: each says first what it does to the budgets. */
export function LineEnding({ how, ...of }: EndProps & { readonly how: LineEnd }) {
  const Ask = QUESTIONS[how];
  return <Ask {...of} />;
}

function CloseShort({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const at = endedAt(factsOf(line));
  const act = useAct(closeShort, {
    said: () => `${line.description} is closed short at ${at}`,
    onDone: onClose,
  });
  const rest = `${formatQuantity(leftOf(progressOf(line)))} ${unitOf(line.unit).short}`.trim();
  const left = {
    goods: `${rest} did not come and are no longer expected.`,
    service: `${rest} were not billed and are no longer expected.`,
    charge: 'What was not billed of it is no longer expected.',
  }[line.kind];
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  return (
    <ReasonQuestion
      title={`Close ${line.description} short at ${at}?`}
      words={`${left} Its money is free again, and what a job still needs is back on its buy list.`}
      keep="Leave it open"
      go="Close short"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), ...ref, reason })}
    >
      <Ahead number={view.order.number} what="closeShort" lineId={line.id} />
    </ReasonQuestion>
  );
}

function EndBills({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const act = useAct(endBills, {
    said: () => `No more bills for ${line.description}`,
    onDone: onClose,
  });
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  const short = `${formatQuantity(line.billed)} of the ${formatQuantity(line.received)} that came`;
  return (
    <ReasonQuestion
      title={`No more bills for ${line.description}?`}
      words={`${short} were billed. What came beside stays here and costs the jobs nothing.`}
      keep="A bill may come"
      go="No more bills"
      act={act}
      onClose={onClose}
      onGo={(reason) => void act.run({ once: once.key(), ...ref, reason })}
    />
  );
}

function OpenAgain({ line, view, onClose }: EndProps) {
  const once = useOnce();
  const act = useAct(openAgain, { said: () => `${line.description} is expected again`, onDone: onClose });
  const ref = { orderId: view.order.id, version: view.order.version, lineId: line.id };
  return (
    <ReasonQuestion
      title={`Open ${line.description} again?`}
      words="What is left of it is expected once more, and its money is on order again."
      keep="Leave it closed"
      go="Open again"
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
  const [job, setJob] = useState<Thing | null>(null);
  const [code, setCode] = useState<Thing | null>(null);
  const act = useAct(chargeElsewhere, {
    said: () => `${line.description} is charged to ${job?.number}`,
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
      title={`Charge ${line.description} elsewhere?`}
      words="What stands on the tab for it moves to the other job, with what came and what was billed."
      keep="Leave it where it is"
      go="Charge it there"
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
          <select
            aria-label="Which part"
            className="field"
            value={split}
            onChange={(e) => setSplit(Number(e.target.value))}
          >
            {line.splits.map((s) => (
              <option key={s.id} value={s.id}>
                {named(s)}
              </option>
            ))}
          </select>
        )}
        <div className="grid grid-cols-2 gap-3">
          <PickField kind="job" label="To job or quote" value={job} onPick={setJob} required />
          <PickField kind="costCode" label="Cost code" value={code} onPick={setCode} required />
        </div>
      </div>
    </ReasonQuestion>
  );
}
