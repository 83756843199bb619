'use client';

import { isClosed, isLive } from '@/core/jobs/states';
import { useState } from 'react';
import type { JobHead } from '@/queries/jobs/job';
import { Faults } from '@/ui/kit/Field';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Question } from '@/ui/kit/Slip';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Props = { readonly job: Pick<JobHead, 'id' | 'number' | 'state' | 'version' | 'onHold'> };

const LINK = 'text-[13px] underline-offset-2 hover:underline phone:ml-4';

/** Puts a job on hold, closes it, or opens it again. */
export function JobState({ job }: Props) {
  const { may } = useYard();
  const [asking, setAsking] = useState<'hold' | 'close' | 'reopen'>();
  const once = useOnce();
  const done = () => setAsking(undefined);
  const hold = useAct(acts.holdJob, { onDone: done });
  const close = useAct(acts.closeJob, { said: () => `Job ${job.number} closed`, onDone: done });
  const reopen = useAct(acts.reopenJob, { said: () => `Job ${job.number} reopened`, onDone: done });
  if (!may('close jobs')) return null;
  const ref = { jobId: job.id, version: job.version };
  return (
    <>
      {isLive(job) && (
        <>
          <button
            type="button"
            className={LINK}
            onClick={() => (job.onHold === null ? setAsking('hold') : void hold.run({ ...ref, reason: null }))}
          >
            {job.onHold === null ? 'Put on hold' : 'Resume job'}
          </button>
          <button type="button" className={LINK} onClick={() => setAsking('close')}>
            Close job
          </button>
        </>
      )}
      {isClosed(job) && (
        <button type="button" className={LINK} onClick={() => setAsking('reopen')}>
          Reopen job
        </button>
      )}
      {asking === 'hold' && (
        <ReasonQuestion
          title={`Put ${job.number} on hold?`}
          words="The company’s buying rule for jobs on hold now applies to this job."
          keep="Cancel"
          go="Put on hold"
          act={hold}
          onClose={done}
          onGo={(reason) => void hold.run({ ...ref, reason })}
        />
      )}
      {asking === 'reopen' && (
        <ReasonQuestion
          title={`Reopen ${job.number}?`}
          words="You can buy for it and match invoices again."
          keep="Cancel"
          go="Reopen job"
          act={reopen}
          onClose={done}
          onGo={(reason) => void reopen.run({ ...ref, reason })}
        />
      )}
      {asking === 'close' && (
        <Question open onClose={done} title={`Close ${job.number}?`}>
          <p className="mb-3 text-ink-2">
            No more orders, charges or invoices for this job; its budget is frozen. You can reopen it later.
          </p>
          <Faults messages={close.clash ? [close.clash.message] : close.refusals.map((r) => r.message)} />
          <div className="mt-3 flex justify-end gap-3">
            <button type="button" className="btn btn-plain" onClick={done}>
              Cancel
            </button>
            <button
              type="button"
              className="btn btn-main"
              disabled={close.busy}
              onClick={() => void close.run({ once: once.key(), ...ref })}
            >
              Close job
            </button>
          </div>
        </Question>
      )}
    </>
  );
}
