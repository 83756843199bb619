'use client';

import { useState } from 'react';
import { placeFields } from '@/core/records/place';
import type { PlaceRow } from '@/queries/settings';
import { useKey } from '@/ui/keys';
import { AreaField, TextField } from '@/ui/kit/Field';
import { Fact, Shelf, ShelfMain } from '@/ui/kit/Shelf';
import type { Column } from '@/ui/ledger/column';
import { LedgerTable } from '@/ui/ledger/LedgerTable';
import { useActForm } from '@/ui/useActForm';
import { addOwnPlace, changeOwnPlace, retireOwnPlace } from '../../acts';
import { nameColumn, SettingSlip } from '../SettingSlip';

/** Our own places; one opens to be changed, or to be offered no more. */
export function PlacesTable({ places }: { readonly places: readonly PlaceRow[] }) {
  const [open, setOpen] = useState<PlaceRow | 'new'>();
  useKey('N', 'A new place', () => setOpen('new'), open === undefined);
  const columns: Column<PlaceRow>[] = [
    nameColumn<PlaceRow>('Place', setOpen),
    { key: 'address', head: 'Address', cell: (p) => p.address.split('\n').join(', ') },
    { key: 'instructions', head: 'Instructions', wide: true, cell: (p) => p.instructions },
    { key: 'items', head: 'Parts there', num: true, by: (p) => p.items, cell: (p) => p.items || '–' },
  ];
  return (
    <>
      <LedgerTable
        label="Our places"
        className="max-w-[940px]"
        rows={places}
        columns={columns}
        keyOf={(p) => p.id}
        onOpen={setOpen}
      />
      <Shelf facts={<Fact>Orders are delivered to the first of them unless another place is chosen</Fact>}>
        <ShelfMain onClick={() => setOpen('new')} hint="N">
          Add a place
        </ShelfMain>
      </Shelf>
      {open !== undefined && <PlaceSlip place={open === 'new' ? undefined : open} onClose={() => setOpen(undefined)} />}
    </>
  );
}

function PlaceSlip({ place, onClose }: { readonly place: PlaceRow | undefined; readonly onClose: () => void }) {
  const { name, address, instructions } = place ?? { name: '', address: '', instructions: '' };
  const form = useActForm({
    read: () => placeFields,
    start: { name, address, instructions },
    act: (input: Parameters<typeof addOwnPlace>[0]) =>
      place === undefined ? addOwnPlace(input) : changeOwnPlace({ ...input, id: place.id, version: place.version }),
    input: (read, once) => ({ once, ...read }),
    said: (_, typed) => `${typed.name} is saved`,
    onDone: onClose,
  });
  return (
    <SettingSlip
      title={place?.name ?? 'A new place of ours'}
      form={form}
      row={place}
      retire={retireOwnPlace}
      onClose={onClose}
    >
      <TextField label="Name" {...form.text('name')} />
      <AreaField
        label="Address"
        rows={3}
        hint="Orders that were sent keep the address on their papers."
        {...form.text('address')}
      />
      <TextField label="Instructions for whoever delivers" {...form.text('instructions')} />
    </SettingSlip>
  );
}
