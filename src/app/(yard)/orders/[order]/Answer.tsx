'use client';

import { isCharge } from '@/core/orders/kinds';
import { useState } from 'react';
import { ungrouped } from '@/core/locale/locale';
import { answerDifferences } from '@/core/orders/confirming';
import { leftOf, progressOf } from '@/core/orders/states';
import { asDay } from '@/core/calendar/workdays';
import { formatPrice, parsePrice, signOf } from '@/core/money/money';
import { formatQuantity, parseQuantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { OrderView } from '@/queries/orders/order';
import { DateField } from '@/ui/kit/DateField';
import { AreaField, TextField } from '@/ui/kit/Field';
import { Slip } from '@/ui/kit/Slip';
import { SlipFoot } from '@/ui/kit/SlipFoot';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

type Line = OrderView['order']['lines'][number];
type Said = { readonly quantity: string; readonly price: string; readonly promisedOn: string };

/** What a supplier answered to an order, line by line; it starts with what was ordered. */
export default function Answer({ view, onClose }: { view: OrderView; onClose: () => void }) {
  const { order } = view;
  const { today, calendar } = useYard();
  const { currency } = order;
  const lines = order.lines.filter((l) => !isCharge(l) && leftOf(progressOf(l)) > 0);
  const [theirs, setTheirs] = useState(order.theirNumber);
  const [note, setNote] = useState('');
  const [said, setSaid] = useState<Readonly<Record<number, Said>>>(
    Object.fromEntries(lines.map((l) => [l.id, startOf(l, currency)])),
  );
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(acts.confirmOrder, {
    said: ({ state }) => (state === 'confirmed' ? `Order ${order.number} confirmed` : 'Confirmation saved'),
    onDone: onClose,
  });
  const read = lines.map((l) => readSaid(l, said[l.id] ?? startOf(l, currency)));
  const wrong = read.some((r) => !r.quantity.ok || !r.price.ok);
  const save = () => {
    setTried(true);
    if (wrong) return;
    void act.run({
      once: once.key(),
      orderId: order.id,
      version: order.version,
      theirNumber: theirs,
      note,
      lines: read.flatMap(({ line, quantity, price, promisedOn }) =>
        quantity.ok && price.ok ? [{ lineId: line.id, quantity: quantity.value, price: price.value, promisedOn }] : [],
      ),
    });
  };
  return (
    <Slip
      open
      onClose={onClose}
      title={`Confirmation of ${order.number}`}
      foot={<SlipFoot words="Save confirmation" act={act} onGo={save} />}
    >
      <div className="grid gap-3">
        <TextField
          label="Supplier’s ref."
          inputClass="mono"
          value={theirs}
          onChange={(e) => setTheirs(e.target.value)}
        />
        {lines.map((l, k) => {
          const own = said[l.id] ?? startOf(l, currency);
          const put = (change: Partial<Said>) => setSaid((now) => ({ ...now, [l.id]: { ...own, ...change } }));
          const { quantity, price, promisedOn } = read[k] as ReturnType<typeof readSaid>;
          const differs =
            quantity.ok && price.ok
              ? answerDifferences(
                  {
                    ...progressOf(l),
                    description: l.description,
                    unit: l.unit,
                    price: l.price,
                    priceQuantity: l.priceQuantity,
                    wantedOn: l.wantedOn,
                    neededOn: view.neededOn.get(l.id) ?? null,
                    confirmed: quantity.value,
                    confirmedPrice: price.value,
                    promisedOn,
                  },
                  currency,
                  today,
                  calendar,
                )
              : [];
          return (
            <fieldset key={l.id} className="border-t border-line-2 pt-2">
              <legend className="sr-only">{l.description}</legend>
              <div className="mb-1 font-semibold">
                {l.description} <span className="mono font-normal text-ink-2">{l.theirNumber || l.ourNumber}</span>
              </div>
              <div className="grid grid-cols-[1fr_1fr_1.4fr] gap-x-3">
                <TextField
                  label={`Quantity ${unitOf(l.unit).short}`.trim()}
                  inputMode="decimal"
                  inputClass="text-right"
                  value={own.quantity}
                  onChange={(e) => put({ quantity: e.target.value })}
                  fault={tried && !quantity.ok ? quantity.refusals[0]?.message : undefined}
                />
                <TextField
                  label={`Price ${signOf(currency)}${l.priceQuantity > 1 ? ` per ${l.priceQuantity}` : ''}`}
                  inputMode="decimal"
                  inputClass="text-right"
                  value={own.price}
                  onChange={(e) => put({ price: e.target.value })}
                  fault={tried && !price.ok ? price.refusals[0]?.message : undefined}
                />
                <DateField label="Promised" value={own.promisedOn} onDay={(day) => put({ promisedOn: day })} />
              </div>
              {differs.map((d) => (
                <p key={d.kind} className="mt-1 text-[12.5px] font-semibold text-amber">
                  {d.words}
                </p>
              ))}
            </fieldset>
          );
        })}
        <AreaField label="Remarks" rows={2} value={note} onChange={(e) => setNote(e.target.value)} />
      </div>
    </Slip>
  );
}

const startOf = (l: Line, currency: string): Said => {
  const price = l.confirmedPrice ?? l.price;
  return {
    quantity: ungrouped(formatQuantity(l.confirmed ?? l.quantity)),
    price: price === null ? '' : ungrouped(formatPrice(price, currency)),
    promisedOn: l.promisedOn ?? l.wantedOn ?? '',
  };
};

const readSaid = (line: Line, { quantity, price, promisedOn }: Said) => ({
  line,
  quantity: parseQuantity(quantity),
  price: parsePrice(price),
  promisedOn: asDay(promisedOn) ?? null,
});
