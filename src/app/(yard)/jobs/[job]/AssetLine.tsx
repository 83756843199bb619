'use client';

import { useState } from 'react';
import { assetFields, assetWords } from '@/core/records/asset';
import type { JobAsset } from '@/queries/jobs/assets';
import type { Asset } from '@/store/tables';
import { AreaField, ChoiceField, Faults, TextField } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { useKey } from '@/ui/frame/keys';
import { useActForm } from '@/ui/acting/useActForm';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Props = { readonly jobId: number; readonly asset: JobAsset; readonly asks: boolean };

/** What of the customer's a job works on. */
export function AssetLine({ jobId, asset, asks }: Props) {
  const { may } = useYard();
  const [open, setOpen] = useState(false);
  const { own } = asset;
  if (own === null && !(asks && may('open jobs'))) return null;
  return (
    <p className="text-ink-2">
      {own !== null && (
        <>
          Equipment: <b className="font-semibold text-ink">{assetWords(own)}</b>{' '}
        </>
      )}
      {may('open jobs') && (
        <button type="button" className="step" onClick={() => setOpen(true)}>
          {own === null ? '+ Equipment' : 'Change'}
        </button>
      )}
      {own !== null && own.notes !== '' && <span className="block text-[13px] whitespace-pre-line">{own.notes}</span>}
      {open && <AssetSlip jobId={jobId} asset={asset} onClose={() => setOpen(false)} />}
    </p>
  );
}

const NEW = { name: '', description: '', serial: '', notes: '' };
const textOf = ({ name, description, serial, notes }: Asset) => ({ name, description, serial, notes });

function AssetSlip({ jobId, asset: { own, known, version }, onClose }: Omit<Props, 'asks'> & { onClose: () => void }) {
  const [chosen, setChosen] = useState(own);
  const form = useActForm({
    read: () => assetFields,
    start: own === null ? NEW : textOf(own),
    act: acts.setAsset,
    input: (read, once) => ({
      ...{ once, jobId, version },
      asset: { ...read, id: chosen?.id ?? null, version: chosen?.version ?? 0 },
    }),
    said: (_, typed) => `Equipment ${typed.name} saved`,
    onDone: onClose,
  });
  const choose = (id: string) => {
    const next = known.find((a) => String(a.id) === id) ?? null;
    setChosen(next);
    form.restart(next === null ? NEW : textOf(next));
  };
  useKey('Ctrl+Enter', 'Save equipment', form.save, !form.busy);
  return (
    <Slip
      open
      onClose={onClose}
      title="Equipment"
      detail="Shown wherever you look up items for this job. Describe it by size, type and rating."
      foot={
        <div className="grid gap-2">
          <Faults messages={form.clash ? [form.clash.message] : form.refusals.map((r) => r.message)} />
          <button type="button" className="btn btn-main justify-self-end" disabled={form.busy} onClick={form.save}>
            Save equipment{' '}
            <span className="kbd" aria-hidden>
              Ctrl ↵
            </span>
          </button>
        </div>
      }
    >
      <div className="grid gap-3">
        {known.length > 0 && (
          <ChoiceField
            label="This customer’s equipment"
            value={chosen === null ? '' : String(chosen.id)}
            onChange={(e) => choose(e.target.value)}
          >
            <option value="">New equipment</option>
            {known.map((a) => (
              <option key={a.id} value={a.id}>
                {assetWords(a)}
              </option>
            ))}
          </ChoiceField>
        )}
        <TextField label="Description" placeholder="e.g. gearbox, engine, lift" autoFocus {...form.text('name')} />
        <TextField label="Size, type, rating" placeholder="e.g. two-speed, 2.5 : 1" {...form.text('description')} />
        <TextField label="Serial number" inputClass="mono" {...form.text('serial')} />
        <AreaField label="Notes" rows={4} {...form.text('notes')} />
      </div>
    </Slip>
  );
}
