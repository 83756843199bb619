import { add, formatAmount, formatPrice, signOf, ZERO, type Minor } from '@/core/money/money';
import { formatQuantity, quantity } from '@/core/quantity/quantity';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { SupplierTerms } from '@/queries/buying/gather';
import type { NeedLine } from '@/queries/buying/needLine';
import type { GatherGroup } from '@/queries/buying/openNeeds';
import { PickField } from '@/ui/kit/PickField';
import { Dash } from '@/ui/kit/Sheet';
import type { Column, Groups } from '@/ui/ledger/column';
import { Tags } from '@/ui/kit/Tags';
import type { useYard } from '@/ui/frame/YardContext';
import type { Picks } from './picks';

type Options = {
  /** Whether each line says its supplier, where it does not stand under it. */
  readonly named: boolean;
  /** Whether all lines are there, so that they can be sorted. */
  readonly sorts: boolean;
  readonly yard: Pick<ReturnType<typeof useYard>, 'currency' | 'day'>;
  readonly picks: Picks;
  readonly wrong: readonly number[];
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
  return `lead time ${counted(terms.leadDays, 'working day')} · ${carriage}`;
}

/** What lines come to at the prices they would be bought at, in minor units of the company's currency. */
const valueOf = (rows: readonly NeedLine[]): Minor => add(ZERO, ...rows.map((n) => n.buying?.value ?? ZERO));

type Heading = {
  readonly key: (n: NeedLine) => string | number;
  readonly name: (n: NeedLine) => string;
  /** What else the heading says of its lines. */
  readonly told: (rows: readonly NeedLine[]) => string;
};

const jobsOf = (rows: readonly NeedLine[]) => [...new Set(rows.map((n) => n.job))];

/** What lines of one part come to in all, and how that is split among jobs. */
function partTold(rows: readonly NeedLine[]): string {
  const [first] = rows;
  if (first === undefined) return '';
  const whole = quantity(rows.reduce((sum, n) => sum + n.open, 0));
  const parts = jobsOf(rows).map((job) => {
    const own = quantity(rows.filter((n) => n.job === job).reduce((sum, n) => sum + n.open, 0));
    return `${formatQuantity(own)} for ${job}`;
  });
  const all = `${formatQuantity(whole)} ${unitOf(first.unit).short}`.trim();
  return `${first.number ?? ''} · ${all} in total${parts.length > 1 ? `: ${parts.join(', ')}` : ''}`;
}

const headings = (
  terms: readonly SupplierTerms[],
  day: Options['yard']['day'],
): Readonly<Record<GatherGroup, Heading>> => ({
  supplier: {
    key: (n) => n.supplierId ?? 0,
    name: (n) => n.supplier ?? 'No supplier yet',
    told: ([first]) => {
      const own = terms.find((t) => t.id === first?.supplierId);
      return own === undefined ? 'choose one before drafting' : termsInWords(own);
    },
  },
  job: { key: (n) => n.job, name: (n) => n.job, told: (rows) => counted(rows.length, 'line') },
  item: { key: (n) => `${n.itemId ?? n.description}/${n.unit}`, name: (n) => n.description, told: partTold },
  code: {
    key: (n) => n.code,
    name: (n) => `${n.code} ${n.codeName}`,
    told: (rows) => `for ${jobsOf(rows).join(', ')}`,
  },
  order: {
    key: (n) => n.orderBy ?? '',
    name: (n) => (n.orderBy === null ? 'No order-by date' : `Order by ${day(n.orderBy)}`),
    told: (rows) => `for ${jobsOf(rows).join(', ')}`,
  },
  day: {
    key: (n) => n.neededOn ?? '',
    name: (n) => (n.neededOn === null ? 'No date yet' : day(n.neededOn)),
    told: (rows) => `for ${jobsOf(rows).join(', ')}`,
  },
});

/**
 * Lines that stand together under a heading, with what they come to.
 * @param last - the last line that was read, where there are more
 */
export function groupsBy(
  group: GatherGroup,
  terms: readonly SupplierTerms[],
  { currency, day }: Options['yard'],
  last: NeedLine | undefined,
): Groups<NeedLine> {
  const { key, name, told } = headings(terms, day)[group];
  const soFar = (rows: readonly NeedLine[]) => (last !== undefined && rows.includes(last) ? ' · so far' : '');
  const nameOf = ([first]: readonly NeedLine[]) => (first === undefined ? '' : name(first));
  return {
    of: key,
    words: (rows) => `Select all of ${nameOf(rows)}`,
    head: (rows) => (
      <span className="flex flex-wrap items-baseline gap-x-2">
        <span className="font-title text-[15px] font-bold">{nameOf(rows)}</span>
        <span className="text-[12.5px] text-ink-2 max-phone:whitespace-normal">{told(rows) + soFar(rows)}</span>
        <span className="ml-auto font-semibold" title={`${counted(rows.length, 'line')} shown`}>
          {formatAmount(valueOf(rows), currency)}
        </span>
      </span>
    ),
  };
}

const inUnit = (n: NeedLine, q: NeedLine['quantity']) => `${formatQuantity(q)} ${unitOf(n.unit).short}`.trim();

function Price({ need: n, currency }: { need: NeedLine; currency: string }) {
  if (n.buying === null) return <Dash />;
  return (
    <>
      {n.buying.currency !== currency && `${signOf(n.buying.currency)}\u202f`}
      {formatPrice(n.buying.price, n.buying.currency)}
      {n.buying.unit !== n.unit && <span className="text-[12px] text-ink-2"> / {unitOf(n.buying.unit).short}</span>}
    </>
  );
}

/** What is to buy, for what, until when, and how much of it is bought now. */
export function gatherColumns(options: Options): Column<NeedLine>[] {
  const { yard, onOpen } = options;
  const columns: Column<NeedLine>[] = [
    {
      key: 'what',
      head: 'Item',
      by: (n) => n.description,
      cell: (n) => (
        <>
          <button type="button" onClick={() => onOpen(n)} className="text-left font-semibold hover:underline">
            {n.description}
          </button>{' '}
          {n.number !== null && <span className="mono whitespace-nowrap text-ink-2">{n.number}</span>}{' '}
          <Tags tags={n.tags.filter((t) => t.words !== 'no supplier')} />
          <span className={`block text-[12.5px] phone:hidden ${n.late ? 'text-brick' : 'text-ink-2'}`}>
            <span className="mono font-bold">{n.job}</span> {n.code} · {yard.day(n.neededOn)}
          </span>
          {options.named && n.supplier !== null && <span className="block text-[12.5px] text-ink-2">{n.supplier}</span>}
          {n.supplierId === null && (
            <PickField
              kind="supplier"
              label={`Supplier for ${n.description}`}
              hideLabel
              className="mt-1 w-full max-w-[190px]"
              placeholder="choose supplier"
              value={null}
              onPick={(supplier) => supplier !== null && options.onSupplier(n, supplier.id)}
            />
          )}
        </>
      ),
    },
    {
      key: 'for',
      head: 'Job',
      wide: true,
      className: 'whitespace-nowrap',
      by: (n) => `${n.job} ${n.code}`,
      cell: (n) => (
        <>
          <span className="mono font-bold">{n.job}</span>{' '}
          <span className="text-ink-2">
            {n.code} {n.codeName.split(' ')[0]}
          </span>
        </>
      ),
    },
    {
      key: 'needed',
      head: 'Needed by',
      wide: true,
      className: 'whitespace-nowrap',
      by: (n) => n.neededOn ?? '~',
      tone: (n) => (n.late ? '!font-bold !text-brick' : ''),
      cell: (n) => yard.day(n.neededOn),
    },
    { key: 'need', head: 'Quantity', num: true, wide: true, cell: (n) => inUnit(n, n.quantity) },
    {
      key: 'coming',
      head: 'Covered',
      num: true,
      wide: true,
      cell: (n) => (n.quantity === n.open ? <Dash /> : formatQuantity(quantity(n.quantity - n.open))),
    },
    {
      key: 'buy',
      head: 'Buy',
      num: true,
      className: '!font-bold w-[118px] max-phone:w-[70px]',
      cell: (n) => (
        <>
          <Buy need={n} {...options} />
          {n.buying !== null && (
            <span className="block text-[12.5px] font-normal text-ink-2 phone:hidden">
              {formatAmount(n.buying.value, yard.currency)}
            </span>
          )}
        </>
      ),
    },
    { key: 'price', head: 'Price', num: true, wide: true, cell: (n) => <Price need={n} currency={yard.currency} /> },
    {
      key: 'value',
      head: `Value ${signOf(yard.currency)}`,
      num: true,
      wide: true,
      by: (n) => n.buying?.value ?? 0,
      cell: (n) => (n.buying === null ? <Dash /> : formatAmount(n.buying.value, yard.currency)),
    },
  ];
  return options.sorts ? columns : columns.map(({ by: _, ...c }) => c);
}

function Buy({ need: n, picks, wrong, onQuantity }: Options & { need: NeedLine }) {
  const text = picks[n.id];
  if (text === undefined) return <>{inUnit(n, n.open)}</>;
  return (
    <>
      <input
        aria-label={`Quantity of ${n.description} to buy for ${n.job}`}
        aria-invalid={wrong.includes(n.id)}
        inputMode="decimal"
        value={text}
        onChange={(e) => onQuantity(n.id, e.target.value)}
        className="h-[25px] w-[68px] max-phone:h-[44px] rounded border border-line bg-glaze px-1.5 text-right font-bold aria-[invalid=true]:border-brick aria-[invalid=true]:text-brick"
      />{' '}
      {unitOf(n.unit).short}
    </>
  );
}
