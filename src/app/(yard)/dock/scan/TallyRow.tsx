'use client';

import { useState, type ChangeEvent } from 'react';
import { formatQuantity } from '@/core/quantity/quantity';
import { measured } from '@/core/quantity/units';
import { REST } from '@/core/receiving/reasons';
import { ALL_RIGHT, lacks, type AwaitedLine, type NotRight as Said, type TalliedLine } from '@/core/receiving/tally';
import { notRightForm } from '@/core/records/delivery';
import { counted } from '@/core/words';
import type { ReasonChoice } from '@/queries/dock/order';
import Link from '@/ui/kit/Link';
import { NotRight } from '../NotRight';

/** What may become of the rest of a line that was scanned; where it was sent is said from its order. */
const REST_SCANNED = REST.filter((r) => r !== 'elsewhere');

type RowProps = {
  readonly tallied: TalliedLine;
  readonly reasons: readonly ReasonChoice[];
  readonly said: Said;
  readonly onSay: (said: Said) => void;
};

/** A line of the tally: how much of it, of how much, for whom, and what is not right of it. */
export function TallyRow({ tallied, reasons, said, onSay }: RowProps) {
  const { line, quantity: q, serials, lots } = tallied;
  const missing = lacks(tallied);
  const [open, setOpen] = useState(false);
  const wrong = said.rejected !== '' || said.rest !== '';
  return (
    <li className="flex gap-3 border-b border-line-2 py-2.5">
      <span className="w-[44px] shrink-0 text-right font-[family-name:var(--font-title)] text-[22px] leading-tight font-bold">
        {formatQuantity(q)}
      </span>
      <div className="min-w-0 flex-1">
        <div className="font-semibold">
          {line.description} {q >= line.due && <span className="tag tag-good">Received</span>}{' '}
          {missing > 0 && (
            <span className="tag tag-care">
              {line.tracking === 'lot' ? 'Lot no.?' : `${counted(missing, 'number')} to scan`}
            </span>
          )}
        </div>
        <div className="mono text-ink-2">{line.number}</div>
        <div className="text-[13px] text-ink-2">
          {formatQuantity(q)} of {measured(line.due, line.unit)} · <span className="mono">{line.order}</span> · for{' '}
          <b>{line.jobs.length === 0 ? 'stores' : line.jobs.join(', ')}</b>
        </div>
        {(serials.length > 0 || lots.length > 0) && (
          <div className="mono mt-1 text-[12.5px] break-all">
            {[...serials, ...lots.map((l) => l.number)].join(' · ')}
          </div>
        )}
        <button
          type="button"
          className="min-h-[28px] text-[12.5px] text-ink-2 underline-offset-2 hover:underline max-phone:-mb-2 max-phone:min-h-[44px]"
          aria-expanded={open || wrong}
          onClick={() => (open || wrong ? (setOpen(false), onSay(ALL_RIGHT)) : setOpen(true))}
        >
          {open || wrong ? 'No problem' : 'Report a problem'}
        </button>
        {(open || wrong) && <TallyNotRight {...{ line, reasons, said, onSay }} />}
      </div>
    </li>
  );
}

function TallyNotRight({ line, reasons, said, onSay }: Omit<RowProps, 'tallied'> & { readonly line: AwaitedLine }) {
  const read = notRightForm.safeParse(said);
  const fault = read.success ? undefined : read.error.issues[0]?.message;
  const say = (more: Partial<Said>) => onSay({ ...said, ...more });
  const rejected = {
    ...{ value: said.rejected, fault },
    onChange: (e: ChangeEvent<HTMLInputElement>) => say({ rejected: e.target.value }),
  };
  return (
    <NotRight
      unit={line.unit}
      reasons={reasons}
      kinds={REST_SCANNED}
      rejected={line.tracking === 'none' ? rejected : undefined}
      reason={{ value: said.reason, onReason: (reason) => say({ reason }) }}
      rest={{ value: said.rest, onReason: (rest) => say({ rest }) }}
      restDay={{ value: said.restDay, towards: 'ahead', onDay: (restDay) => say({ restDay }) }}
    >
      {line.tracking !== 'none' && (
        <p className="text-[12.5px] text-ink-2">
          Reject numbered pieces on{' '}
          <Link href={`/dock/${line.order}`} className="step">
            {line.order}
          </Link>
          , one by one.
        </p>
      )}
    </NotRight>
  );
}
