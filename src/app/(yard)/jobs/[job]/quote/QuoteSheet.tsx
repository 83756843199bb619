'use client';

import { useMemo, useState } from 'react';
import { formatAmount, parsePrice, signOf, type UnitPrice } from '@/core/money/money';
import { QUOTE_LINE_KIND_NAMES, QUOTE_LINE_KINDS, type QuoteLineKind } from '@/core/quotes/rows';
import type { Kept } from '@/ui/entry/useTyped';
import type { Chosen } from '@/ui/versions';
import { netTyped, sumWhileTyped } from '@/core/quotes/typed';
import type { QuoteView } from '@/queries/job';
import type { Thing } from '@/queries/things';
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
} from '@/ui/jobLineText';
import { useAct, useOnce } from '@/ui/useAct';
import { useYard } from '@/ui/YardContext';
import { changeQuote } from '../../../../acts';
import { JobLineSheet } from '../JobLineSheet';
import type { jobLineColumns } from '../jobLineColumns';
import { useLines } from '../useLines';

type QuoteLineText = JobLineText & { readonly kind: QuoteLineKind; readonly price: string };

const KINDS = QUOTE_LINE_KINDS.map((kind, id): Thing => ({
  id,
  number: '',
  name: QUOTE_LINE_KIND_NAMES[kind],
  detail: '',
}));
const kindsFor = (typed: string) => KINDS.filter((k) => k.name.toLowerCase().startsWith(typed.trim().toLowerCase()));

const fresh = (count: number, above: QuoteLineText | undefined): QuoteLineText => ({
  ...newJobLine(count, above),
  kind: 'bought',
  price: '',
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
      cost: cost ?? (0 as UnitPrice),
      price: l.price.trim() === '' ? null : reading.take(at('price'), parsePrice(l.price), 0 as UnitPrice),
    };
  });
  return { faults: reading.faults, lines: read };
}

const told = (l: QuoteLineText) =>
  toldLine(l, [QUOTE_LINE_KIND_NAMES[l.kind].toLowerCase(), l.price === '' ? '' : `sold at ${l.price}`]);

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
      })),
    }),
    [quote, currency],
  );
  const sheet = useLines(`quote ${quote.number} after ${quote.before}`, saved, fresh);
  const read = useMemo(() => readQuote(sheet.lines), [sheet.lines]);
  const [tried, setTried] = useState(false);
  const once = useOnce();
  const act = useAct(changeQuote, {
    said: () => `Quote ${quote.number} is saved`,
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
  const sumOf = (column: 'cost' | 'price') => {
    const amounts = (of: readonly QuoteLineText[]) => of.map((l) => ({ quantity: l.quantity, price: l[column] }));
    return sumWhileTyped(quote.whole[column], amounts(saved.value), amounts(sheet.lines), currency);
  };
  const faults = [...(tried ? read.faults : unknownWords(read.faults)), ...act.refusals];
  return { ...sheet, act, clash, save, faults, cost: sumOf('cost'), price: sumOf('price') };
}

/** A quote that is still open, filled in where it stands. */
export function QuoteSheet({ sheet, before }: { sheet: ReturnType<typeof useQuoteSheet>; before: number }) {
  const faultsOf = (line: QuoteLineText) => lineFaults(sheet.faults, sheet.lines.indexOf(line), { price: 'price' });
  return (
    <JobLineSheet
      label="Lines of the quote"
      sheet={sheet}
      before={before}
      columnsOf={columnsOf}
      faultsOf={faultsOf}
      onTakeOff={sheet.takeOff}
      onMove={sheet.onMove}
    />
  );
}

const kindColumn: EntryColumn<QuoteLineText> = {
  key: 'kind',
  title: 'Kind',
  width: '84px',
  entry: {
    kind: 'pick',
    of: kindsFor,
    heads: /^(kind|type|bought|make|category)/i,
    text: (l) => QUOTE_LINE_KIND_NAMES[l.kind],
    put: (l) => l,
    thing: (l) => KINDS[QUOTE_LINE_KINDS.indexOf(l.kind)] ?? null,
    take: (l, thing) => ({ ...l, kind: QUOTE_LINE_KINDS[thing?.id ?? 0] ?? 'bought' }),
  },
  show: (l) =>
    l.description === '' ? (
      ''
    ) : (
      <span className={l.kind === 'bought' ? 'text-ink-2' : ''}>{QUOTE_LINE_KIND_NAMES[l.kind]}</span>
    ),
};

const priceColumn = (currency: string): EntryColumn<QuoteLineText> => ({
  key: 'price',
  title: `Sold at ${signOf(currency)}`,
  width: '92px',
  num: true,
  entry: {
    kind: 'number',
    heads: /sell|sold|customer|charge|^price/i,
    text: (l) => l.price,
    put: (l, price) => ({ ...l, price }),
  },
  show: (l) => l.price || (l.description === '' ? '' : <Dash />),
});

const columnsOf = (
  common: ReturnType<typeof jobLineColumns<QuoteLineText>>,
  currency: string,
): EntryColumn<QuoteLineText>[] => [
  common.what,
  kindColumn,
  common.quantity,
  common.unit,
  ...common.cost,
  priceColumn(currency),
  common.code,
  common.supplier,
  common.needed,
  {
    key: 'net',
    title: `In all ${signOf(currency)}`,
    width: '84px',
    num: true,
    show: (l) =>
      l.description === '' ? (
        ''
      ) : (
        <b>{formatAmount(netTyped({ quantity: l.quantity, price: l.cost }, currency), currency)}</b>
      ),
  },
];
