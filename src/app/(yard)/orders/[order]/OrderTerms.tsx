'use client';

import Link from '@/ui/Link';
import { plusWorkdays } from '@/core/calendar/workdays';
import type { OrderView } from '@/queries/orders';
import type { Thing } from '@/queries/things';
import { DateField } from '@/ui/kit/DateField';
import { AreaField, TextField } from '@/ui/kit/Field';
import { PickField } from '@/ui/kit/PickField';
import type { OrderText } from '@/ui/orderText';
import { useYard } from '@/ui/YardContext';
import { counted } from '@/core/words';

type Props = {
  readonly view: OrderView;
  readonly places: readonly { readonly id: number; readonly name: string }[];
  readonly text: OrderText;
  readonly set: (change: (text: OrderText) => OrderText) => void;
};

/** To whom, where and when a drafted order goes, changed where it stands. */
export function OrderTerms({ view, places, text, set }: Props) {
  const { order, supplier, companyCurrency } = view;
  const { today, calendar } = useYard();
  const put = (change: Partial<OrderText>) => set((now) => ({ ...now, ...change }));
  const things = places.map((p): Thing => ({ id: p.id, number: '', name: p.name, detail: '' }));
  const known = (typed: string) => things.filter((p) => p.name.toLowerCase().includes(typed.trim().toLowerCase()));
  const terms = [supplier.contact, counted(supplier.paymentDays, 'day'), order.currency].filter(Boolean).join(' · ');
  const rate = order.currency === companyCurrency ? '' : `1 ${order.currency} at ${order.rate} ${companyCurrency}`;
  return (
    <div className="entry-terms mt-3 grid grid-cols-2 gap-x-5 gap-y-2 border-y border-line py-2 sm:grid-cols-[1.5fr_1.5fr_1fr_1fr]">
      <div>
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
        kind={known}
        label="Deliver to"
        value={things.find((p) => String(p.id) === text.placeId) ?? null}
        onPick={(place) => place !== null && put({ placeId: String(place.id) })}
      />
      <DateField
        label="Wanted"
        value={text.wantedOn}
        onDay={(wantedOn) => put({ wantedOn })}
        earliest={plusWorkdays(today, supplier.leadDays, calendar)}
        hint={`lead ${counted(supplier.leadDays, 'working day')}`}
      />
      <TextField label="Carrier" value={text.carrier} onChange={(e) => put({ carrier: e.target.value })} />
      <AreaField
        label="Instructions to the supplier"
        rows={1}
        className="col-span-2 sm:col-span-4"
        value={text.instructions}
        onChange={(e) => put({ instructions: e.target.value })}
      />
    </div>
  );
}
