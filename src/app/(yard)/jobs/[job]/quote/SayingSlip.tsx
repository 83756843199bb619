'use client';

import { sayingForm } from '@/core/records/quote';
import type { QuoteView } from '@/queries/job';
import { AreaField, Faults, TextField } from '@/ui/kit/Field';
import { DateField } from '@/ui/kit/DateField';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/keys';
import { useActForm } from '@/ui/useActForm';
import { changeSaying } from '../../../../acts';

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
    act: changeSaying,
    input: (saying) => ({ quoteId: quote.id, version: quote.version, saying }),
    said: () => `Quote ${quote.number} is saved`,
    onDone: onClose,
  });
  useKey('Ctrl+Enter', 'Save what it says', form.save, !form.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title={`What ${quote.number} says`}
      detail="It stands on the quote that goes to the customer."
      foot={
        <div className="grid gap-2">
          <Faults messages={form.clash ? [form.clash.message] : form.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            Save what it says <span className="kbd">^↵</span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        <TextField label="How long it takes" placeholder="6 weeks from your order" autoFocus {...form.text('takes')} />
        <DateField label="It holds until" {...form.day('validUntil')} />
        <div className="grid grid-cols-2 items-start gap-3">
          <TextField
            label="Its lines are for, pieces"
            inputMode="numeric"
            placeholder="not by the piece"
            {...form.text('pieces')}
          />
          <TextField label="Priced beside that for" placeholder="25, 50, 100" {...form.text('alsoPieces')} />
        </div>
        <AreaField label="Words to the customer" rows={6} {...form.text('words')} />
      </div>
    </Slip>
  );
}
