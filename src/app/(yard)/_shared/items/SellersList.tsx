'use client';

import { formatAmount, formatPrice, signOf, subtract, type Minor } from '@/core/money/money';
import type { Quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { NeedLine } from '@/queries/buying/needLine';
import type { Seller } from '@/queries/items/sellers';
import type { Switched } from '@/queries/buying/switching';
import { Faults } from '@/ui/kit/Field';
import { useAct } from '@/ui/acting/useAct';
import { useAnswer } from '@/ui/acting/useAnswer';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../actions';

export type PickedLine = { readonly needId: number; readonly buy: Quantity };

type Props = {
  readonly need: NeedLine;
  readonly picks?: readonly PickedLine[] | undefined;
  readonly onDone: () => void;
};

type Told = Seller & Partial<Pick<Switched, 'effect'>>;

/** The suppliers of a line's part side by side: price at what is open, day, past purchases, days kept. */
export function SellersList({ need, picks, onDone }: Props) {
  const { may } = useYard();
  // Among picks, what a switch does to all of them is told with it.
  const sellers = useAnswer<readonly Told[]>(
    picks === undefined ? `/needs/${need.id}/sellers` : '/gather/switch',
    picks === undefined ? undefined : JSON.stringify({ needId: need.id, picks }),
  );
  const act = useAct(acts.changeNeeds, { onDone });
  if (sellers === undefined || sellers.length === 0) return null;
  const now = sellers.find((s) => s.chosen)?.value ?? null;
  const choose = ({ supplierId, price }: Seller) =>
    void act.run({
      needs: [{ needId: need.id, version: need.version }],
      supplierId,
      // A supplier brings its price along; one without a price leaves the estimate as it is.
      ...(price === null ? {} : { todaysPrice: true as const }),
    });
  return (
    <section aria-labelledby="sellers" className="mt-5">
      <h3 id="sellers" className="text-[15px]">
        Suppliers
      </h3>
      <Faults messages={act.clash ? [act.clash.message] : act.refusals.map((r) => r.message)} />
      <ul>
        {sellers.map((s) => (
          <li key={s.supplierId} className="flex items-start justify-between gap-3 border-b border-line-2 py-2">
            <SellerTold seller={s} need={need} now={now} />
            {s.chosen ? (
              <span className="tag tag-good">Chosen</span>
            ) : (
              may('change buy lists') && (
                <button type="button" className="step" disabled={act.busy} onClick={() => choose(s)}>
                  Choose
                </button>
              )
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What the whole of what is picked costs more or less from there, with carriage. */
function Effect({ effect: { inAll, carriage } }: { effect: NonNullable<Switched['effect']> }) {
  const { currency } = useYard();
  const said = (amount: Minor) => `${amount > 0 ? '+' : ''}${formatAmount(amount, currency)}`;
  return (
    <span className={`block text-[12.5px] font-semibold ${inAll > 0 ? 'text-brick' : 'text-enamel'}`}>
      {inAll === 0 ? 'same total cost' : `${signOf(currency)}\u202f${said(inAll)} for all selected lines`}
      {carriage !== 0 && `, incl. ${said(carriage)} carriage`}
    </span>
  );
}

function SellerTold({ seller: s, need, now }: { seller: Told; need: NeedLine; now: Minor | null }) {
  const { currency, day } = useYard();
  const sign = signOf(currency);
  const differs = s.value === null || now === null ? 0 : subtract(s.value, now);
  const { came, kept } = s.kept;
  return (
    <span>
      <b className="font-semibold">{s.name}</b>{' '}
      {s.theirNumber !== '' && <span className="mono text-ink-2">{s.theirNumber}</span>}
      <span className="block">
        {s.price === null || s.value === null ? (
          <span className="text-amber">no price</span>
        ) : (
          <>
            {sign}&#8239;{formatPrice(s.price, currency)} / {unitOf(need.unit).short || unitOf(need.unit).name} · {sign}
            &#8239;{formatAmount(s.value, currency)}
            {differs !== 0 && !s.chosen && (
              <span className={differs > 0 ? 'text-brick' : 'text-enamel'}>
                {' '}
                {differs > 0 ? '+' : ''}
                {formatAmount(differs, currency)}
              </span>
            )}
          </>
        )}
      </span>
      {s.effect != null && !s.chosen && <Effect effect={s.effect} />}
      <span className="block text-[12.5px] text-ink-2">
        {s.late > 0 ? (
          <b className="text-brick">
            ready {day(s.readyOn)}, {counted(s.late, 'day')} late
          </b>
        ) : (
          `can be here ${day(s.readyOn)} if ordered today`
        )}{' '}
        · {s.times === 0 ? 'not bought from them yet' : `bought ${counted(s.times, 'time')}, last ${day(s.lastOn)}`}
        {came > 0 && ` · ${kept} of ${came} on time`}
      </span>
    </span>
  );
}
