'use client';

import { useMemo, useState } from 'react';
import { PER, type Per } from '@/core/boms/bom';
import { ungrouped } from '@/core/locale/locale';
import { formatDecimal } from '@/core/money/decimal';
import { add, formatAmount, parsePrice, signOf, ZERO, type UnitPrice } from '@/core/money/money';
import { marginWords, markupOf } from '@/core/quotes/margin';
import { QUOTE_LINE_KIND_NAMES, QUOTE_LINE_KINDS, type QuoteLineKind } from '@/core/quotes/rows';
import type { Kept } from '@/ui/entry/useTyped';
import type { Chosen } from '@/ui/acting/versions';
import { netTyped, parseMarkup, priceTyped, sumsWhileTyped } from '@/core/quotes/typed';
import type { CodeSum, QuoteView } from '@/queries/jobs/job';
import type { Choice } from '@/queries/frame/choices';
import type { EntryColumn } from '@/ui/entry/column';
import { beginReading, unknownWords } from '@/ui/entry/reading';
import { Dash } from '@/ui/kit/Sheet';
import {
  jobLineText,
  lineFaults,
  newJobLine,
  priceText,
  readJobLine,
  toldLine,
  type JobLineText,
} from '@/ui/jobs/jobLineText';
import { useAct, useOnce } from '@/ui/acting/useAct';
import { useYard } from '@/ui/frame/YardContext';
import { acts } from '../../../../actions';
import { JobLineSheet } from '../JobLineSheet';
import type { jobLineColumns } from '../jobLineColumns';
import { useLines } from '../useLines';

type QuoteLineText = JobLineText & {
  readonly kind: QuoteLineKind;
  readonly price: string;
  /** What is put on the cost, in percent; empty where the price is typed. */
  readonly markup: string;
  /** Whether the customer may leave it out. */
  readonly optional: boolean;
  /** Whether it grows with the pieces that the quote is for, or is had once. */
  readonly per: Per;
};

/** Every way a line is got, and each of them left open to the customer. */
const KINDS = [false, true].flatMap((optional) => QUOTE_LINE_KINDS.map((kind) => ({ kind, optional })));
const kindWords = ({ kind, optional }: { kind: QuoteLineKind; optional: boolean }) =>
  `${QUOTE_LINE_KIND_NAMES[kind]}${optional ? ', optional' : ''}`;
const KIND_THINGS = KINDS.map((k, id): Choice => ({ id, number: '', name: kindWords(k), detail: '' }));
const kindsFor = (typed: string) =>
  KIND_THINGS.filter((k) => k.name.toLowerCase().includes(typed.trim().toLowerCase()));
const kindAt = (l: { kind: QuoteLineKind; optional: boolean }) =>
  KINDS.findIndex((k) => k.kind === l.kind && k.optional === l.optional);

const PER_WORDS: Readonly<Record<Per, string>> = { piece: 'each', batch: 'once' };
const PER_THINGS = PER.map((per, id): Choice => ({ id, number: '', name: PER_WORDS[per], detail: '' }));

const fresh = (count: number, above: QuoteLineText | undefined): QuoteLineText => ({
  ...newJobLine(count, above),
  kind: 'bought',
  price: '',
  // A new line is marked up as the one above it.
  markup: above?.markup ?? '',
  optional: false,
  per: 'piece',
});

function readQuote(lines: readonly QuoteLineText[]) {
  const reading = beginReading();
  const read = lines.map((l, k) => {
    const at = (field: string) => `lines.${k}.${field}`;
    const { cost, ...line } = readJobLine(reading, l, at);
    return {
      ...(l.id === undefined ? {} : { id: l.id }),
      ...line,
      kind: l.kind,
      optional: l.optional,
      per: l.per,
      markup: l.markup.trim() === '' ? null : reading.take(at('markup'), parseMarkup(l.markup), 0),
      cost: cost ?? (0 as UnitPrice),
      price: l.price.trim() === '' ? null : reading.take(at('price'), parsePrice(l.price), 0 as UnitPrice),
    };
  });
  return { faults: reading.faults, lines: read };
}

const told = (l: QuoteLineText) =>
  toldLine(l, [kindWords(l).toLowerCase(), l.price === '' ? '' : `price ${l.price}`, l.per === 'batch' ? 'once' : '']);

/** A line that the other person took off is a new one when it is kept. */
const over = (line: QuoteLineText, theirs: QuoteLineText | undefined): QuoteLineText => {
  const { id: _, ...rest } = line;
  return theirs === undefined ? rest : line;
};

/** A quote's lines as they are typed, with what they come to. */
export function useQuoteSheet(quote: QuoteView) {
  const { currency } = useYard();
  const saved = useMemo(
    () => ({
      version: quote.version,
      value: quote.rows.map((l): QuoteLineText => ({
        ...jobLineText(l, l.cost, currency),
        kind: l.kind,
        price: priceText(l.price, currency),
        markup: l.markup === null ? '' : ungrouped(formatDecimal(l.markup, 2, 0)),
        optional: l.optional === 1,
        per: l.per,
      })),
    }),
    [quote, currency],
  );
  const sheet = useLines(`quote ${quote.number} after ${quote.before}`, saved, fresh);
  const read = useMemo(() => readQuote(sheet.lines), [sheet.lines]);
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(acts.changeQuote, {
    said: () => `Quote ${quote.number} saved`,
    onDone: ({ version }) => {
      once.renew();
      setTried(false);
      sheet.typed.savedAs(version);
    },
  });
  const save = async (kept: Kept<readonly QuoteLineText[]> = sheet.typed): Promise<boolean> => {
    const { faults, lines } = readQuote(kept.value);
    setTried(true);
    if (faults.length > 0) return false;
    const after = (quote.rows[0]?.place ?? 1) - 1;
    return act.run({
      once: once.key(),
      quoteId: quote.id,
      version: kept.version,
      after,
      upTo: quote.rows.at(-1)?.place ?? after,
      lines,
    });
  };
  const { rows, settled } = sheet.versions(told);
  const settle = (chosen: Chosen) => {
    const kept = settled(over)(chosen);
    once.renew();
    act.clear();
    sheet.typed.keep(kept);
    void save(kept);
  };
  const putBack = () => {
    act.clear();
    sheet.typed.putBack();
  };
  /** What stands now was saved by somebody else since one began to type: both versions, to choose from. */
  const clash =
    act.clash !== undefined && quote.version > sheet.typed.version
      ? { message: act.clash.message, rows, onSettled: settle, onPutBack: putBack }
      : undefined;
  const codes = useMemo(
    () => codeSums(quote, saved.value, sheet.lines, currency),
    [quote, saved.value, sheet.lines, currency],
  );
  const whole = (column: 'cost' | 'price') => add(ZERO, ...codes.map((c) => c[column]));
  const faults = [...(tried ? read.faults : unknownWords(read.faults)), ...act.refusals];
  const after = (quote.rows[0]?.place ?? 1) - 1;
  /** What the server is asked about other numbers of pieces; undefined while a line cannot be read. */
  const priced =
    quote.pieces === null || read.faults.length > 0
      ? undefined
      : JSON.stringify({
          ...{ quoteId: quote.id, after, upTo: quote.rows.at(-1)?.place ?? after },
          lines: read.lines.filter((l) => !l.optional),
        });
  return { ...sheet, act, clash, save, faults, codes, priced, cost: whole('cost'), price: whole('price') };
}

type Props = {
  readonly sheet: ReturnType<typeof useQuoteSheet>;
  readonly before: number;
  /** Whether the quote says for how many pieces it is. */
  readonly byPiece: boolean;
};

/** A quote that is still open, filled in where it stands. */
export function QuoteSheet({ sheet, before, byPiece }: Props) {
  const faultsOf = (line: QuoteLineText) =>
    lineFaults(sheet.faults, sheet.lines.indexOf(line), { price: 'price', markup: 'markup' });
  return (
    <JobLineSheet
      label="Lines of the quote"
      sheet={sheet}
      before={before}
      columnsOf={byPiece ? columnsByPiece : columnsOf}
      faultsOf={faultsOf}
      onTakeOff={sheet.takeOff}
      onMove={sheet.onMove}
    />
  );
}

const kindColumn: EntryColumn<QuoteLineText> = {
  key: 'kind',
  title: 'Type',
  width: '82px',
  entry: {
    kind: 'pick',
    of: kindsFor,
    heads: /^(kind|type|bought|make|category|got)/i,
    text: kindWords,
    put: (l) => l,
    thing: (l) => KIND_THINGS[kindAt(l)] ?? null,
    take: (l, thing) => ({ ...l, ...KINDS[thing?.id ?? 0] }),
  },
  show: (l) =>
    l.description === '' ? (
      ''
    ) : (
      <span className={l.kind === 'bought' ? 'text-ink-2' : ''}>{QUOTE_LINE_KIND_NAMES[l.kind]}</span>
    ),
  note: (l) => (l.optional ? 'optional' : ''),
};

/** With the price that its mark-up gives, as long as it has one. */
function repriced(line: QuoteLineText, currency: string): QuoteLineText {
  if (line.markup.trim() === '') return line;
  const price = priceTyped(line.cost === '' ? '0' : line.cost, line.markup);
  return price === undefined ? line : { ...line, price: priceText(price, currency) };
}

const markupColumn = (currency: string): EntryColumn<QuoteLineText> => ({
  key: 'markup',
  title: 'Mark-up %',
  width: '72px',
  num: true,
  entry: {
    kind: 'number',
    heads: /mark.?up/i,
    text: (l) => l.markup,
    put: (l, markup) => repriced({ ...l, markup }, currency),
  },
  show: (l) => {
    if (l.markup !== '' || l.description === '') return l.description === '' ? '' : l.markup;
    const [cost, price] = [parsePrice(l.cost), parsePrice(l.price)];
    const has = cost.ok && price.ok ? markupOf(cost.value, price.value) : undefined;
    return has === undefined ? <Dash /> : <span className="text-ink-2">{formatDecimal(has, 2, 0)}</span>;
  },
});

const priceColumn = (currency: string): EntryColumn<QuoteLineText> => ({
  key: 'price',
  title: `Sell price ${signOf(currency)}`,
  width: '84px',
  num: true,
  entry: {
    kind: 'number',
    heads: /sell|sold|customer|charge|^price/i,
    text: (l) => l.price,
    // A price that is typed stands for itself.
    put: (l, price) => ({ ...l, price, markup: '' }),
  },
  show: (l) => l.price || (l.description === '' ? '' : <Dash />),
});

/** What a line costs in all, and below it what stays of what the customer pays. */
const netColumn = (currency: string): EntryColumn<QuoteLineText> => {
  const nets = (l: QuoteLineText) => ({
    cost: netTyped({ quantity: l.quantity, price: l.cost }, currency),
    price: netTyped({ quantity: l.quantity, price: l.price }, currency),
  });
  return {
    key: 'net',
    title: `Total ${signOf(currency)}`,
    width: '96px',
    num: true,
    show: (l) => (l.description === '' ? '' : <b>{formatAmount(nets(l).cost, currency)}</b>),
    note: (l) => {
      const { cost, price } = nets(l);
      return price === 0 ? '' : `${marginWords(cost, price)} margin`;
    },
  };
};

/** The cost of a line moves its price along as long as a mark-up holds. */
const movesPrice = (column: EntryColumn<QuoteLineText>, currency: string): EntryColumn<QuoteLineText> => {
  const { entry } = column;
  if (entry === undefined) return column;
  return { ...column, entry: { ...entry, put: (l, text) => repriced(entry.put(l, text), currency) } as typeof entry };
};

const columnsOf = (
  common: ReturnType<typeof jobLineColumns<QuoteLineText>>,
  currency: string,
): EntryColumn<QuoteLineText>[] => [
  withPrice(common.what, currency),
  kindColumn,
  common.quantity,
  { ...common.unit, width: '52px' },
  ...common.cost.map((c) => ({ ...movesPrice(c, currency), width: '84px' })),
  markupColumn(currency),
  priceColumn(currency),
  common.code,
  common.supplier,
  { ...common.needed, width: '84px' },
  netColumn(currency),
];

const perColumn: EntryColumn<QuoteLineText> = {
  key: 'per',
  title: 'Charged',
  width: '54px',
  entry: {
    kind: 'pick',
    of: (typed) => PER_THINGS.filter((p) => p.name.includes(typed.trim().toLowerCase())),
    heads: /^(taken|per|once|for)$/i,
    text: (l) => PER_WORDS[l.per],
    put: (l) => l,
    thing: (l) => PER_THINGS[PER.indexOf(l.per)] ?? null,
    take: (l, thing) => ({ ...l, per: PER[thing?.id ?? 0] ?? 'piece' }),
  },
  show: (l) =>
    l.description === '' ? '' : <span className={l.per === 'piece' ? 'text-ink-2' : ''}>{PER_WORDS[l.per]}</span>,
};

/** What makes room for one column more. */
const NARROWER: Readonly<Record<string, string>> = {
  kind: '78px',
  cost: '74px',
  markup: '58px',
  price: '74px',
  supplier: '84px',
  needed: '80px',
  net: '90px',
};

/** The same for a quote by the piece: each line says whether it grows with the pieces. */
const columnsByPiece: typeof columnsOf = (common, currency) => {
  const columns = columnsOf(common, currency).map((c) => ({ ...c, width: NARROWER[c.key] ?? c.width }));
  const at = columns.findIndex((c) => c.key === common.unit.key);
  return columns.toSpliced(at + 1, 0, perColumn);
};

/** A part brings its cost along, and so its price. */
const withPrice = (column: EntryColumn<QuoteLineText>, currency: string): EntryColumn<QuoteLineText> => {
  const { entry } = column;
  if (entry?.kind !== 'pick') return column;
  return { ...column, entry: { ...entry, take: (l, thing) => repriced(entry.take(l, thing), currency) } };
};

/** What the quote comes to by cost code while a part of its lines is typed over. */
function codeSums(
  quote: QuoteView,
  saved: readonly QuoteLineText[],
  typed: readonly QuoteLineText[],
  currency: string,
): CodeSum[] {
  const asTyped = (l: QuoteLineText) => ({
    quantity: l.quantity,
    price: l.cost,
    sold: l.price,
    costCodeId: l.code.thing?.id ?? null,
    counts: !l.optional,
  });
  const names = new Map<number, { code: string; name: string }>(quote.whole.codes.map((c) => [c.costCodeId, c]));
  for (const { code } of typed)
    if (code.thing !== null && !names.has(code.thing.id))
      names.set(code.thing.id, { code: code.thing.number, name: code.thing.name });
  return sumsWhileTyped(quote.whole.codes, saved.map(asTyped), typed.map(asTyped), currency)
    .map((c) => ({ ...c, code: names.get(c.costCodeId)?.code ?? '', name: names.get(c.costCodeId)?.name ?? '' }))
    .sort((a, b) => a.code.localeCompare(b.code));
}
