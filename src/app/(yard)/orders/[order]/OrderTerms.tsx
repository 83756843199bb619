'use client';

import { useRef, useState } from 'react';
import Link from '@/ui/kit/Link';
import { plusWorkdays } from '@/core/calendar/workdays';
import type { Refusal } from '@/core/result';
import type { OrderView } from '@/queries/orders/order';
import { named } from '@/ui/entry/column';
import type { Fault } from '@/ui/entry/reading';
import { DateField } from '@/ui/kit/DateField';
import { AreaField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import { useKey } from '@/ui/frame/keys';
import { later } from '@/ui/acting/later';
import type { OrderText } from '@/ui/orders/orderText';
import { useYard } from '@/ui/frame/YardContext';
import { counted } from '@/core/words';

const NewPlace = later(() => import('./NewPlace'));

type Props = {
  readonly view: OrderView;
  readonly text: OrderText;
  readonly set: (change: (text: OrderText) => OrderText) => void;
  readonly faults: readonly (Fault | Refusal)[];
};

/** To whom, where and when a drafted order goes, changed where it stands. */
export function OrderTerms({ view, text, set, faults }: Props) {
  const { order, supplier, companyCurrency } = view;
  const { today, calendar, may, day } = useYard();
  const [making, setMaking] = useState<string>();
  const put = (change: Partial<OrderText>) => set((now) => ({ ...now, ...change }));
  const faultAt = (field: string) => faults.find((f) => f.field === field)?.message;
  const terms = [supplier.contact, counted(supplier.paymentDays, 'day'), order.currency].filter(Boolean).join(' · ');
  const rate =
    order.currency === companyCurrency
      ? ''
      : `1 ${order.currency} at ${order.rate} ${companyCurrency}${order.rateOn === null ? '' : `, ${day(order.rateOn)}`}`;
  const said =
    text.latestOn !== '' || text.carrierService !== '' || text.siteContact !== '' || text.number !== order.number;
  const [asked, setOpen] = useState<boolean>();
  const box = useRef<HTMLDivElement>(null);
  useKey('T', 'Go to order terms', () => {
    const first = box.current?.querySelector('input');
    first?.focus();
    first?.select();
  });
  const open = asked ?? (said || faultAt('number') !== undefined);
  return (
    <div ref={box} className="entry-terms mt-3 border-y border-line py-2">
      <div className="grid grid-cols-2 gap-x-5 gap-y-2 sm:grid-cols-[1.5fr_1.5fr_1fr_1fr]">
        <div className="max-sm:col-span-2">
          <div className="field-label">Supplier</div>
          <div className="font-semibold">
            <Link href={`/suppliers/${supplier.id}`} className="hover:underline">
              {supplier.name}
            </Link>
          </div>
          <div className="text-[12.5px] text-ink-2">
            {terms}
            {rate !== '' && ` · ${rate}`}
          </div>
        </div>
        <PickField
          kind="place"
          label="Deliver to"
          className="max-sm:col-span-2"
          required
          value={text.place}
          fault={faultAt('placeId')}
          onPick={(place) => put({ place: place && named(place) })}
          make={may('draft orders') ? { words: 'New delivery address', onMake: setMaking } : undefined}
        />
        <DateField
          label="Required by"
          value={text.wantedOn}
          onDay={(wantedOn) => put({ wantedOn })}
          earliest={plusWorkdays(today, supplier.leadDays, calendar)}
          hint={`lead time ${counted(supplier.leadDays, 'working day')}`}
        />
        <TextField label="Carrier" value={text.carrier} onChange={(e) => put({ carrier: e.target.value })} />
        <AreaField
          label="Instructions to the supplier"
          rows={1}
          placeholder="none"
          className="col-span-2 sm:col-span-3"
          value={text.instructions}
          onChange={(e) => put({ instructions: e.target.value })}
        />
        <button
          type="button"
          className="step justify-self-start pb-1.5 sm:self-end"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {open ? 'Fewer details' : 'More details'}
        </button>
      </div>
      {open && (
        <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-2 sm:grid-cols-[1fr_1fr_1.3fr_1.7fr]">
          <TextField
            label="Number"
            inputClass="mono"
            maxLength={30}
            value={text.number}
            disabled={order.sentOn !== null}
            fault={faultAt('number')}
            onChange={(e) => put({ number: e.target.value.trim() })}
          />
          <DateField
            label="No later than"
            value={text.latestOn}
            onDay={(latestOn) => put({ latestOn })}
            fault={faultAt('latestOn')}
          />
          <TextField
            label="Carrier service"
            value={text.carrierService}
            placeholder="e.g. next day, tail lift"
            onChange={(e) => put({ carrierService: e.target.value })}
          />
          <TextField
            label="Site contact"
            value={text.siteContact}
            placeholder="e.g. name and telephone"
            onChange={(e) => put({ siteContact: e.target.value })}
          />
        </div>
      )}
      {making !== undefined && (
        <NewPlace
          typed={making}
          view={view}
          onClose={() => setMaking(undefined)}
          onPlace={(place) => {
            setMaking(undefined);
            put({ place });
          }}
        />
      )}
    </div>
  );
}
