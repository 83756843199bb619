'use client';

import { useState } from 'react';
import type { JobHead } from '@/queries/job';
import { Faults } from '@/ui/kit/Field';
import { ReasonQuestion } from '@/ui/kit/Reason';
import { Question } from '@/ui/kit/Slip';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { closeJob, holdJob, reopenJob } from '../../../acts';

type Props = { readonly job: Pick<JobHead, 'id' | 'number' | 'state' | 'version' | 'onHold'> };

const LINK = 'ml-4 text-[13px] underline-offset-2 hover:underline';

/** Puts a job on hold, closes it, or opens it again. */
export function JobState({ job }: Props) {
  const { may } = useYard();
  const [asking, setAsking] = useState<'hold' | 'close' | 'reopen'>();
  const once = useOnce();
  const done = () => setAsking(undefined);
  const hold = useAct(holdJob, { onDone: done });
  const close = useAct(closeJob, { said: () => `Job ${job.number} is closed`, onDone: done });
  const reopen = useAct(reopenJob, { said: () => `Job ${job.number} is open again`, onDone: done });
  if (!may('close jobs')) return null;
  const ref = { jobId: job.id, version: job.version };
  return (
    <>
      {job.state === 'live' && (
        <>
          <button
            type="button"
            className={LINK}
            onClick={() => (job.onHold === null ? setAsking('hold') : void hold.run({ ...ref, reason: null }))}
          >
            {job.onHold === null ? 'Put on hold' : 'Let it go on'}
          </button>
          <button type="button" className={LINK} onClick={() => setAsking('close')}>
            Close the job
          </button>
        </>
      )}
      {job.state === 'complete' && (
        <button type="button" className={LINK} onClick={() => setAsking('reopen')}>
          Open it again
        </button>
      )}
      {asking === 'hold' && (
        <ReasonQuestion
          title={`Put ${job.number} on hold?`}
          words="What the company’s rules say of buying for a job on hold holds from now on."
          keep="Leave it"
          go="Put on hold"
          act={hold}
          onClose={done}
          onGo={(reason) => void hold.run({ ...ref, reason })}
        />
      )}
      {asking === 'reopen' && (
        <ReasonQuestion
          title={`Open ${job.number} again?`}
          words="It can be bought for and billed again."
          keep="Leave it closed"
          go="Open it again"
          act={reopen}
          onClose={done}
          onGo={(reason) => void reopen.run({ ...ref, reason })}
        />
      )}
      {asking === 'close' && (
        <Question open onClose={done} title={`Close ${job.number}?`}>
          <p className="mb-3 text-ink-2">
            Nothing is bought for it, charged to it or billed on it from then on, and its budget stays as it is.
          </p>
          <Faults messages={close.clash ? [close.clash.message] : close.refusals.map((r) => r.message)} />
          <div className="mt-3 flex justify-end gap-3">
            <button type="button" className="btn btn-plain" onClick={done}>
              Leave it open
            </button>
            <button
              type="button"
              className="btn btn-main"
              disabled={close.busy}
              onClick={() => void close.run({ once: once.key(), ...ref })}
            >
              Close the job
            </button>
          </div>
        </Question>
      )}
    </>
  );
}
