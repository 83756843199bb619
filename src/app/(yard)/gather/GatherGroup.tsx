'use client';

import { formatAmount, formatPrice, signOf, type Minor } from '@/core/money/money';
import { formatQuantity, quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import type { SupplierTerms } from '@/queries/gather';
import type { NeedLine } from '@/queries/needs';
import { Dash } from '@/ui/kit/Sheet';
import { PickField } from '@/ui/kit/PickField';
import { Tags } from '@/ui/Tags';
import { useYard } from '@/ui/YardContext';
import type { Picks } from './Gather';
import { counted } from '@/core/words';

type Props = {
  readonly rows: readonly NeedLine[];
  readonly terms: SupplierTerms | undefined;
  readonly picks: Picks;
  readonly at: number | undefined;
  readonly wrong: readonly number[];
  readonly onPick: (needs: readonly NeedLine[], on: boolean) => void;
  readonly onQuantity: (id: number, text: string) => void;
  readonly onOpen: (need: NeedLine) => void;
  readonly onSupplier: (need: NeedLine, supplierId: number) => void;
};

function termsInWords(terms: SupplierTerms): string {
  const money = (n: Minor) => `${signOf(terms.currency)}\u202f${formatAmount(n, terms.currency).replace(/\.00$/, '')}`;
  const carriage =
    terms.carriage === 0
      ? 'no carriage'
      : `carriage ${money(terms.carriage)}${terms.carriageFreeFrom === null ? '' : `, free from ${money(terms.carriageFreeFrom)}`}`;
  return `lead ${counted(terms.leadDays, 'working day')} · ${carriage}`;
}

/** The lines of one supplier under its name and terms. */
export function GatherGroup({ rows, terms, picks, onPick, ...rest }: Props) {
  const first = rows[0];
  const picked = rows.filter((r) => picks[r.id] !== undefined).length;
  const name = first?.supplier ?? 'No supplier yet';
  const title = (
    <>
      <span className="font-title text-[15px] font-bold">{name}</span>{' '}
      <span className="ml-1 text-[12.5px] text-ink-2">
        {terms ? termsInWords(terms) : 'choose one before drafting'}
      </span>
    </>
  );
  return (
    <tbody>
      <tr className="group-row">
        <td>
          {first?.supplierId != null && (
            <input
              type="checkbox"
              aria-label={`Pick all of ${name}`}
              className="size-[15px] accent-[var(--copper)]"
              checked={picked === rows.length}
              ref={(box) => {
                if (box) box.indeterminate = picked > 0 && picked < rows.length;
              }}
              onChange={(e) => onPick(rows, e.target.checked)}
            />
          )}
        </td>
        {/* A phone shows fewer columns, and a cell may not span more than there are. */}
        <td colSpan={3} className="phone:hidden">
          {title}
        </td>
        <td colSpan={8} className="max-phone:hidden">
          {title}
        </td>
      </tr>
      {rows.map((n) => (
        <GatherRow key={n.id} need={n} text={picks[n.id]} onPick={onPick} {...rest} />
      ))}
    </tbody>
  );
}

function GatherRow({
  need: n,
  text,
  at,
  wrong,
  onPick,
  onQuantity,
  onOpen,
  onSupplier,
}: Omit<Props, 'rows' | 'terms' | 'picks'> & { need: NeedLine; text: string | undefined }) {
  const { currency, day } = useYard();
  const picked = text !== undefined;
  const unit = unitOf(n.unit).short;
  const coming = quantity(n.quantity - n.open);
  const measured = (q: typeof n.quantity) => `${formatQuantity(q)}${unit === '' ? '' : ` ${unit}`}`;
  return (
    <tr
      id={`need-${n.id}`}
      data-picked={picked}
      data-at={at === n.id}
      className="cursor-pointer"
      onClick={(e) => !(e.target as HTMLElement).closest('input,select,button,a') && onPick([n], !picked)}
    >
      <td>
        {n.supplierId !== null && (
          <input
            type="checkbox"
            aria-label={`Pick ${n.description} for ${n.job}`}
            className="size-[15px] accent-[var(--copper)]"
            checked={picked}
            onChange={(e) => onPick([n], e.target.checked)}
          />
        )}
      </td>
      <td>
        <button type="button" onClick={() => onOpen(n)} className="text-left font-semibold hover:underline">
          {n.description}
        </button>{' '}
        {n.number !== null && <span className="mono whitespace-nowrap text-ink-2">{n.number}</span>}{' '}
        <Tags tags={n.tags.filter((t) => t.words !== 'no supplier')} />
        <span className={`block text-[12.5px] phone:hidden ${n.late ? 'text-brick' : 'text-ink-2'}`}>
          <span className="mono font-bold">{n.job}</span> {n.code} · {day(n.neededOn)}
        </span>
        {n.supplierId === null && (
          <PickField
            kind="supplier"
            label={`Supplier for ${n.description}`}
            hideLabel
            className="mt-1 w-full max-w-[190px]"
            placeholder="choose supplier"
            value={null}
            onPick={(supplier) => supplier !== null && onSupplier(n, supplier.id)}
          />
        )}
      </td>
      <td className="whitespace-nowrap max-phone:hidden">
        <span className="mono font-bold">{n.job}</span>{' '}
        <span className="text-ink-2">
          {n.code} {n.codeName.split(' ')[0]}
        </span>
      </td>
      <td className={`whitespace-nowrap max-phone:hidden ${n.late ? '!font-bold !text-brick' : ''}`}>
        {day(n.neededOn)}
      </td>
      <td className="num max-phone:hidden">{measured(n.quantity)}</td>
      <td className="num max-phone:hidden">{coming === 0 ? <Dash /> : formatQuantity(coming)}</td>
      <td className="num !font-bold">
        {picked ? (
          <input
            aria-label={`Quantity of ${n.description} to buy for ${n.job}`}
            aria-invalid={wrong.includes(n.id)}
            inputMode="decimal"
            value={text}
            onChange={(e) => onQuantity(n.id, e.target.value)}
            className="h-[25px] w-[68px] rounded border border-line bg-glaze px-1.5 text-right font-bold aria-[invalid=true]:border-brick aria-[invalid=true]:text-brick"
          />
        ) : (
          formatQuantity(n.open)
        )}
        {unit === '' ? '' : ` ${unit}`}
      </td>
      <td className="num max-phone:hidden">
        {n.buying === null ? (
          <Dash />
        ) : (
          <>
            {n.buying.currency !== currency && `${signOf(n.buying.currency)}\u202f`}
            {formatPrice(n.buying.price, n.buying.currency)}
            {n.buying.unit !== n.unit && (
              <span className="text-[12px] text-ink-2"> / {unitOf(n.buying.unit).short}</span>
            )}
          </>
        )}
      </td>
      <td className="num">{n.buying === null ? <Dash /> : formatAmount(n.buying.value, currency)}</td>
    </tr>
  );
}
