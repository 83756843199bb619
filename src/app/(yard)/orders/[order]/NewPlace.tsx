'use client';

import { z } from 'zod';
import { CUSTOMER_PLACES, placeFields, type CustomerPlace, type PlaceKept } from '@/core/records/place';
import type { OrderView } from '@/queries/orders/order';
import type { Named } from '@/ui/entry/column';
import { AreaField, ChoiceField, TextField } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { SlipFoot } from '@/ui/kit/SlipFoot';
import { useActForm } from '@/ui/acting/useActForm';
import { acts } from '../../../actions';

type Props = {
  readonly typed: string;
  readonly view: OrderView;
  readonly onClose: () => void;
  readonly onPlace: (place: Named) => void;
};

/** What a place can be kept as, from the jobs that an order is for; the key says which. */
function waysToKeep({ jobs }: OrderView): { readonly key: string; readonly words: string; readonly kept: PlaceKept }[] {
  const all = [...jobs.entries()];
  const customers = [...new Map(all.map(([, j]) => [j.customerId, j.customer]))];
  return [
    { key: 'once', words: 'this order only', kept: { as: 'once' } },
    ...all.map(([jobId, j]) => ({
      key: `site ${jobId}`,
      words: `a site of ${j.number} ${j.name}`,
      kept: { as: 'site', jobId } as const,
    })),
    ...customers.flatMap(([customerId, name]) =>
      (Object.keys(CUSTOMER_PLACES) as CustomerPlace[]).map((which) => ({
        key: `customer ${customerId} ${which}`,
        words: `the ${CUSTOMER_PLACES[which].toLowerCase()} of ${name}`,
        kept: { as: 'customer', customerId, which } as const,
      })),
    ),
    { key: 'own', words: 'one of our locations', kept: { as: 'own' } },
  ];
}

const keptAs = (ways: ReturnType<typeof waysToKeep>, key: string): PlaceKept =>
  ways.find((w) => w.key === key)?.kept ?? { as: 'once' };

/** A place of delivery that is not there yet, made where it is wanted. */
export default function NewPlace({ typed, view, onClose, onPlace }: Props) {
  const ways = waysToKeep(view);
  const form = useActForm({
    read: () => placeFields.extend({ way: z.string() }),
    start: { name: typed, address: '', instructions: '', way: 'once' },
    act: acts.addPlace,
    input: ({ way, ...read }, once) => ({ once, ...read, kept: keptAs(ways, way) }),
    said: (_, made) => `${made.name} added`,
    onDone: ({ id }) => onPlace({ id, number: '', name: form.typed.name.trim() }),
  });
  return (
    <Slip
      open
      onClose={onClose}
      title="New delivery address"
      foot={<SlipFoot words="Add address" act={form} onGo={form.save} />}
    >
      <div className="grid gap-3">
        <TextField label="Name" autoFocus={typed === ''} {...form.text('name')} />
        <AreaField label="Address" rows={4} autoFocus={typed !== ''} {...form.text('address')} />
        <TextField label="Instructions for the driver" placeholder="e.g. gate, hours" {...form.text('instructions')} />
        <ChoiceField label="Save as" {...form.text('way')}>
          {ways.map((w) => (
            <option key={w.key} value={w.key}>
              {w.words}
            </option>
          ))}
        </ChoiceField>
      </div>
    </Slip>
  );
}
