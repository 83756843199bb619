'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatAmount, formatMoney, minor, type Minor } from '@/core/money/money';
import { HELD, type ChangeLineText } from '@/core/records/budget';
import type { DecideView } from '@/queries/jobs/deciding';
import Link from '@/ui/kit/Link';
import { Faults } from '@/ui/kit/Field';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Slip } from '@/ui/kit/Slip';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import ChangeSlip, { type Stands } from './budget/ChangeSlip';

type Props = {
  readonly job: { readonly id: number; readonly number: string };
  readonly view: DecideView;
  readonly budgets: Stands;
};

/** What can be done about a budget that is passed; each way begins where it is done. */
export function DecideSlip({ job, view, budgets }: Props) {
  const { code, ways, from, contingency, drafts } = view;
  const { currency, may } = useYard();
  const router = useRouter();
  const [begun, setBegun] = useState<readonly ChangeLineText[]>();
  const [asking, setAsking] = useState(false);
  const once = useOnce();
  const back = () => router.replace(`/jobs/${job.number}`, { scroll: false });
  const let1 = useAct(acts.acceptOverspend, {
    said: () => `Overspend on ${code.number} ${code.name} accepted`,
    onDone: back,
  });
  const money = (amount: Minor) => formatMoney(amount, currency);
  const line = (of: ChangeLineText['code'], amount: Minor): ChangeLineText => ({
    code: of,
    amount: formatAmount(amount, currency),
  });
  const writes = may('write budget changes');
  if (begun !== undefined)
    return (
      <ChangeSlip
        jobId={job.id}
        job={job.number}
        change={undefined}
        begin={begun}
        stands={budgets}
        contingency={contingency}
        onClose={back}
      />
    );
  return (
    <Slip
      open
      onClose={back}
      title={`${code.number} ${code.name} is ${money(ways.over)} over budget`}
      detail="Your decision goes in the job’s history with your name."
    >
      <ul className="grid gap-3">
        {writes && (
          <Way
            title="Increase the budget"
            words={`Add ${money(ways.over)}, with the customer’s or estimator’s reason.`}
            onGo={() => setBegun([line(code, ways.over)])}
          />
        )}
        {writes && ways.from !== null && from !== null && (
          <Way
            title={`Transfer from ${from.number} ${from.name}`}
            words={`It has ${money(ways.from.headroom)} of headroom to give.`}
            onGo={() => {
              const part = ways.from?.headroom ?? minor(0);
              setBegun([line(code, part), line(from, minor(-part))]);
            }}
          />
        )}
        {writes && ways.contingency > 0 && (
          <Way
            title="Draw from contingency"
            words={`${money(contingency)} in contingency; ${money(ways.contingency)} would come here.`}
            onGo={() => setBegun([line(code, ways.contingency), line(HELD, minor(-ways.contingency))])}
          />
        )}
        {drafts.map((d) => (
          <li key={d.number} className="rounded-md border border-line px-3 py-2">
            <Link href={`/orders/${d.number}`} className="step">
              Request sign-off or reduce {d.number}
            </Link>
            <p className="text-[12.5px] text-ink-2">
              Draft to {d.supplier}, {money(d.value)} of it here.
            </p>
          </li>
        ))}
        <li className="rounded-md border border-line px-3 py-2">
          <Link href={`/jobs/${job.number}/buy-list`} className="step">
            Buy less, or from another supplier
          </Link>
          <p className="text-[12.5px] text-ink-2">Each buy-list line shows who else sells the item.</p>
        </li>
        {may('agree budget changes') && (
          <Way
            title="Accept the overspend"
            words="With a reason. You’ll be asked again if it grows."
            onGo={() => setAsking(true)}
          />
        )}
      </ul>
      <Faults messages={let1.refusals.filter((r) => r.field === undefined).map((r) => r.message)} />
      {asking && (
        <ReasonQuestion
          title={`Accept ${code.number} ${code.name} going ${money(ways.over)} over budget?`}
          words="The warning stays off unless it goes further over."
          keep="Cancel"
          go="Accept the overspend"
          act={let1}
          onClose={() => setAsking(false)}
          onGo={(reason) =>
            void let1.run({ once: once.key(), jobId: job.id, costCodeId: code.id, over: ways.over, reason })
          }
        />
      )}
    </Slip>
  );
}

const Way = ({ title, words, onGo }: { readonly title: string; readonly words: string; readonly onGo: () => void }) => (
  <li className="rounded-md border border-line px-3 py-2">
    <button type="button" className="step" onClick={onGo}>
      {title}
    </button>
    <p className="text-[12.5px] text-ink-2">{words}</p>
  </li>
);
