'use client';

import { useState } from 'react';
import { placeFields } from '@/core/records/place';
import type { PlaceRow } from '@/queries/company/settings';
import { AreaField, Faults, TextField } from '@/ui/kit/Field';
import { useActForm } from '@/ui/acting/useActForm';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { acts } from '../../actions';
import { SettingSlip } from '../_shared/company/SettingSlip';
import { SettingsTable } from '../_shared/company/SettingsTable';

/** Our own places; one opens to be changed, or to be offered no more. */
export const PlacesTable = ({ places }: { readonly places: readonly PlaceRow[] }) => (
  <SettingsTable
    label="Locations"
    className="max-w-[940px]"
    rows={places}
    name="Location"
    columns={[
      { key: 'address', head: 'Address', cell: (p) => p.address.split('\n').join(', ') },
      { key: 'instructions', head: 'Instructions', wide: true, cell: (p) => p.instructions },
      { key: 'bins', head: 'Bins', num: true, wide: true, cell: (p) => p.bins.length || '–' },
      { key: 'items', head: 'Items stored', num: true, by: (p) => p.items, cell: (p) => p.items || '–' },
    ]}
    makes={{ words: 'New location', fact: 'Orders are delivered to the first location unless you choose another' }}
    slip={(place, onClose) => <PlaceSlip place={place} onClose={onClose} />}
  />
);

function PlaceSlip({ place, onClose }: { readonly place: PlaceRow | undefined; readonly onClose: () => void }) {
  const { name, address, instructions } = place ?? { name: '', address: '', instructions: '' };
  const form = useActForm({
    read: () => placeFields,
    start: { name, address, instructions },
    act: (input: Parameters<typeof acts.addOwnPlace>[0]) =>
      place === undefined
        ? acts.addOwnPlace(input)
        : acts.changeOwnPlace({ ...input, id: place.id, version: place.version }),
    input: (read, once) => ({ once, ...read }),
    said: (_, typed) => `${typed.name} saved`,
    onDone: onClose,
  });
  return (
    <SettingSlip
      title={place?.name ?? 'New location'}
      form={form}
      row={place}
      retire={acts.retireOwnPlace}
      onClose={onClose}
    >
      <TextField label="Name" {...form.text('name')} />
      <AreaField label="Address" rows={3} hint="Orders already sent keep the old address." {...form.text('address')} />
      <TextField label="Delivery instructions" {...form.text('instructions')} />
      {place !== undefined && <Bins place={place} />}
    </SettingSlip>
  );
}

/** The bins of a place: a new one is added, an empty one closed. */
function Bins({ place }: { readonly place: PlaceRow }) {
  const [name, setName] = useState('');
  const once = useOnce();
  const adding = useAct(acts.addBin, {
    onDone: () => {
      once.renew();
      setName('');
    },
  });
  const closing = useAct(acts.closeBin);
  const add = () => void adding.run({ once: once.key(), placeId: place.id, name });
  return (
    <div>
      <h3 className="field-label">Bins</h3>
      {place.bins.length === 0 && <p className="text-ink-2">No bins: stock is held at the location as a whole.</p>}
      <ul className="flex flex-wrap gap-2">
        {place.bins.map((b) => (
          <li key={b.id} className="flex items-center gap-1 rounded-lg border border-line pl-2">
            <span className="mono">{b.name}</span>
            <button
              type="button"
              aria-label={`Retire bin ${b.name}`}
              className="px-2 py-1 text-ink-2 hover:text-brick"
              disabled={closing.busy}
              onClick={() => void closing.run({ binId: b.id, version: b.version })}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-end gap-2">
        <TextField
          label="New bin"
          className="w-[140px]"
          inputClass="mono"
          maxLength={30}
          value={name}
          fault={adding.refusals[0]?.message}
          onChange={(e) => setName(e.target.value)}
        />
        <button type="button" className="btn btn-plain" disabled={adding.busy || name.trim() === ''} onClick={add}>
          Add bin
        </button>
      </div>
      <Faults messages={closing.refusals.map((r) => r.message)} />
    </div>
  );
}
