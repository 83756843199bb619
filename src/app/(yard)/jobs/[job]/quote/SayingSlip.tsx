'use client';

import { sayingForm } from '@/core/records/quote';
import type { QuoteView } from '@/queries/jobs/job';
import { AreaField, Faults, TextField } from '@/ui/kit/Field';
import { DateField } from '@/ui/kit/DateField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../../actions';

/** What a quote says to the customer beside its lines: how long it takes, until when it holds, and a few words. */
export function SayingSlip({ quote, onClose }: { readonly quote: QuoteView; readonly onClose: () => void }) {
  const { takes, validUntil, words, pieces, alsoPieces } = quote;
  const form = useActForm({
    read: () => sayingForm,
    start: {
      takes,
      validUntil: validUntil ?? '',
      words,
      pieces: pieces === null ? '' : String(pieces),
      alsoPieces: alsoPieces.replaceAll(',', ', '),
    },
    act: acts.changeSaying,
    input: (saying) => ({ quoteId: quote.id, version: quote.version, saying }),
    said: () => `Quote ${quote.number} saved`,
    onDone: onClose,
  });
  useKey('Ctrl+Enter', 'Save', form.save, !form.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title={`Terms of ${quote.number}`}
      detail="Printed on the customer’s quote."
      foot={
        <div className="grid gap-2">
          <Faults messages={form.clash ? [form.clash.message] : form.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            Save{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <TextField label="Lead time" placeholder="e.g. 6 weeks from your order" autoFocus {...form.text('takes')} />
        <DateField label="Valid until" {...form.day('validUntil')} />
        <div className="grid grid-cols-2 items-start gap-3">
          <TextField
            label="Lines priced for (pieces)"
            inputMode="numeric"
            placeholder="not per piece"
            {...form.text('pieces')}
          />
          <TextField label="Also price for" placeholder="25, 50, 100" {...form.text('alsoPieces')} />
        </div>
        <AreaField label="Note to customer" rows={6} {...form.text('words')} />
      </div>
    </Slip>
  );
}
