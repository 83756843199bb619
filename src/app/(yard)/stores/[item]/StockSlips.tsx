'use client';

import type { ReactNode } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { signOf } from '@/core/money/money';
import { formatQuantity } from '@/core/quantity/quantity';
import { measured, unitOf } from '@/core/quantity/units';
import { countForm, issueForm, issueForNeedForm, levelForm, returnForm } from '@/core/records/stock';
import type { Named } from '@/core/records/typed';
import type { Refusal } from '@/core/result';
import type { ClaimView, PileView, StockView } from '@/queries/stores/stock';
import { Faults, TextField } from '@/ui/kit/Field';
import { NumberField } from '@/ui/kit/NumberField';
import { PickField } from '@/ui/kit/PickField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';
import { NumbersField } from '../../dock/NumbersField';
import { HowMuch } from './HowMuch';

export type Common = { readonly view: StockView; readonly onClose: () => void };

type Item = StockView['item'];

export const labelled = (words: string, item: Item) => `${words} (${unitOf(item.unit).name})`;

/** The numbers of a pile that lie there. */
export const numbersOf = (view: StockView, pile: Pick<PileView, 'placeId' | 'jobId'>): string[] =>
  view.spots.filter((s) => s.placeId === pile.placeId && s.jobId === pile.jobId).flatMap((s) => s.number ?? []);

const ownerOf = ({ jobId, job }: PileView): Named | null =>
  jobId === null ? null : { id: jobId, number: job ?? '', name: '' };

type FrameProps = {
  readonly title: string;
  readonly detail: ReactNode;
  readonly go: string;
  readonly form: {
    readonly busy: boolean;
    readonly refusals: readonly Refusal[];
    readonly clash: { readonly message: string } | undefined;
    readonly save: () => void;
    readonly refusedAt: (path: string) => Refusal | undefined;
  };
  readonly onClose: () => void;
  readonly children: ReactNode;
};

export function StockSlip({ title, detail, go, form, onClose, children }: FrameProps) {
  useKey('Ctrl+Enter', go, form.save, !form.busy);
  const numbers = form.refusedAt('numbers');
  const told = [...(numbers === undefined ? [] : [numbers]), ...form.refusals].map((r) => r.message);
  return (
    <Slip
      open
      onClose={onClose}
      title={title}
      detail={detail}
      foot={
        <div className="grid gap-2">
          <Faults messages={form.clash ? [form.clash.message] : told} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            {go}{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">{children}</div>
    </Slip>
  );
}

/** What lies at a place is put right to what was counted. */
export function CountSlip({ view, pile, onClose }: Common & { pile: PileView }) {
  const { currency, may } = useYard();
  const { item } = view;
  const own = view.spots.filter((s) => s.placeId === pile.placeId && s.jobId === pile.jobId && s.number !== null);
  const form = useActForm({
    read: () => countForm(currency, item.tracking),
    start: {
      ...{ quantity: ungrouped(formatQuantity(pile.quantity)), value: '', reason: '', expiresOn: '' },
      numbers: own
        .map((s) => (item.tracking === 'lot' ? `${s.number}: ${ungrouped(formatQuantity(s.quantity))}` : s.number))
        .join('\n'),
    },
    act: acts.countStock,
    input: (read, once) => ({
      once,
      ...{ itemId: item.id, placeId: pile.placeId, jobId: pile.jobId, seen: pile.quantity },
      ...read,
    }),
    said: () => `${item.number} counted`,
    onDone: onClose,
  });
  return (
    <StockSlip
      title={`Count ${item.name}`}
      detail={`${pile.place}${pile.job === null ? '' : `, job ${pile.job} stock`} · book quantity ${measured(pile.quantity, item.unit)}`}
      go="Save count"
      form={form}
      onClose={onClose}
    >
      {item.tracking === 'none' ? (
        <NumberField label={labelled('Counted quantity', item)} autoFocus required {...form.text('quantity')} />
      ) : (
        <NumbersField
          name={item.name}
          tracking={item.tracking}
          pattern={item.numberPattern}
          numbers={form.text('numbers')}
          expires={form.day('expiresOn')}
        />
      )}
      {may('see money') && (
        <NumberField
          label={`Total value, ${signOf(currency)}`}
          placeholder="leave empty to keep average cost"
          {...form.text('value')}
        />
      )}
      <TextField label="Reason" required {...form.text('reason')} />
    </StockSlip>
  );
}

/** How much is to be kept at a place. */
export function LevelSlip({ view: { item }, pile, onClose }: Common & { pile: PileView }) {
  const form = useActForm({
    read: () => levelForm,
    start: { keep: pile.keep === 0 ? '' : ungrouped(formatQuantity(pile.keep)) },
    act: acts.keepLevel,
    input: (read) => ({ itemId: item.id, placeId: pile.placeId, ...read }),
    said: () => 'Minimum set',
    onDone: onClose,
  });
  return (
    <StockSlip
      title={`Minimum stock of ${item.name}`}
      detail={pile.place}
      go="Set minimum"
      form={form}
      onClose={onClose}
    >
      <NumberField label={labelled('Minimum', item)} placeholder="none" autoFocus {...form.text('keep')} />
    </StockSlip>
  );
}

/** Stock goes to the line that it is reserved for. */
export function IssueForSlip({ view, claim, onClose }: Common & { claim: ClaimView }) {
  const { item } = view;
  const pile = { placeId: claim.placeId ?? 0, jobId: claim.jobId };
  const form = useActForm({
    read: () => issueForNeedForm(item.tracking),
    start: { quantity: ungrouped(formatQuantity(claim.quantity)), ticked: [] as string[] },
    act: acts.issueStock,
    input: (read, once) => ({ once, itemId: item.id, ...pile, to: { needId: claim.needId }, ...read }),
    said: () => `Issued to job ${claim.job}`,
    onDone: onClose,
  });
  return (
    <StockSlip
      title={`Issue ${item.name}`}
      detail={`from ${claim.place} for job ${claim.job}, ${measured(claim.quantity, item.unit)} reserved`}
      go={`Issue to ${claim.job}`}
      form={form}
      onClose={onClose}
    >
      <HowMuch item={item} numbers={numbersOf(view, pile)} form={form} />
    </StockSlip>
  );
}

/** Stock goes to a job that has no line for it. */
export function IssueSlip({ view, pile, onClose }: Common & { pile: PileView }) {
  const { item } = view;
  const form = useActForm({
    read: () => issueForm(item.tracking),
    // What is a job's own goes to it alone.
    start: { quantity: '', ticked: [] as string[], jobId: ownerOf(pile), costCodeId: null },
    act: acts.issueStock,
    input: ({ jobId, costCodeId, ...what }, once) => ({
      once,
      ...{ itemId: item.id, placeId: pile.placeId, jobId: pile.jobId, to: { jobId, costCodeId } },
      ...what,
    }),
    said: () => `Issued ${item.number}`,
    onDone: onClose,
  });
  return (
    <StockSlip
      title={`Issue ${item.name}`}
      detail={`from ${pile.place}, ${measured(pile.quantity, item.unit)} in stock`}
      go="Issue"
      form={form}
      onClose={onClose}
    >
      <PickField kind="job" label="To job" required autoFocus {...form.pick('jobId')} />
      <PickField kind="costCode" label="Cost code" required {...form.pick('costCodeId')} />
      <HowMuch item={item} numbers={numbersOf(view, pile)} form={form} />
    </StockSlip>
  );
}

/** What a job did not use of an issue comes back. */
export function ReturnSlip({ view: { item }, issue, onClose }: Common & { issue: StockView['issues'][number] }) {
  const form = useActForm({
    read: () => returnForm(item.tracking),
    start: { quantity: ungrouped(formatQuantity(issue.quantity)), ticked: [...issue.numbers], reason: '' },
    act: acts.returnIssue,
    input: (read, once) => ({ once, issueId: issue.id, version: issue.version, ...read }),
    said: () => `${item.number} returned to stores`,
    onDone: onClose,
  });
  return (
    <StockSlip
      title={`Return ${item.name} to stores`}
      detail={`${measured(issue.quantity, item.unit)} with job ${issue.job}`}
      go="Return to stores"
      form={form}
      onClose={onClose}
    >
      <HowMuch item={item} numbers={issue.numbers} form={form} />
      <TextField label="Reason" placeholder="e.g. not used" {...form.text('reason')} />
    </StockSlip>
  );
}
