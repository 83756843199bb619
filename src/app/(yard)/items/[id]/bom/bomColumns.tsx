import { GOT_BY, GOT_BY_NAMES, PER, type Per } from '@/core/boms/bom';
import { offsetWords, parseOffset } from '@/core/boms/typed';
import { signOf } from '@/core/money/money';
import { unitOf } from '@/core/quantity/units';
import type { ItemChoice, Choice } from '@/queries/frame/choices';
import type { BomLineText } from '@/ui/items/bomText';
import { named, type EntryColumn, type PickEntry } from '@/ui/entry/column';
import { PartTold } from '@/ui/entry/PartTold';
import { chosen, wordsOfChoice } from '@/ui/entry/reading';
import { unitEntry } from '@/ui/entry/unit';
import { Dash } from '@/ui/kit/Sheet';

export const PER_NAMES: Readonly<Record<Per, string>> = { piece: 'each', batch: 'batch' };

/** A choice among a few words of ours. */
function wordEntry<K extends string>(
  all: readonly K[],
  names: Readonly<Record<K, string>>,
  heads: RegExp,
  get: (l: BomLineText) => K,
  put: (l: BomLineText, key: K) => BomLineText,
): PickEntry<BomLineText> {
  const things = all.map((key, id): Choice => ({ id, number: '', name: names[key], detail: '' }));
  const called = (text: string) =>
    all.find((key) => [key, names[key]].some((w) => w.toLowerCase() === text.trim().toLowerCase()));
  return {
    kind: 'pick',
    heads,
    of: (typed) => things.filter((t) => t.name.toLowerCase().includes(typed.trim().toLowerCase())),
    text: (l) => names[get(l)],
    thing: (l) => things[all.indexOf(get(l))] ?? null,
    take: (l, thing) => put(l, all[thing?.id ?? 0] ?? get(l)),
    put: (l, text) => put(l, called(text) ?? get(l)),
  };
}

type Setting = {
  readonly currency: string;
  readonly money: boolean;
  readonly onMake: ((line: BomLineText, typed: string) => void) | undefined;
};

const withPart = (line: BomLineText, thing: ItemChoice | Choice | null): BomLineText => {
  if (thing === null) return { ...line, itemId: null, number: '', description: '' };
  const next = { ...line, itemId: thing.id, number: thing.number, description: thing.name };
  if (!('unit' in thing)) return next;
  return { ...next, unit: thing.unit, unitWords: '', gotBy: thing.made ? 'made' : 'bought' };
};

/** The columns of a BOM as it is filled in. */
export const bomColumns = ({ currency, money, onMake }: Setting): EntryColumn<BomLineText>[] => [
  {
    key: 'description',
    title: 'Item or labour',
    width: 'minmax(170px, 2.4fr)',
    wide: true,
    entry: {
      kind: 'pick',
      of: 'item',
      free: true,
      heads: /desc|item|part|component|article|^what/i,
      text: (l) => l.description,
      put: (l, description) => ({ ...l, description, ...(description === '' ? { itemId: null, number: '' } : {}) }),
      thing: (l) => (l.itemId === null ? null : { id: l.itemId, number: l.number, name: l.description }),
      take: withPart,
      make: onMake && { words: 'New item', onMake },
    },
    show: (l) => <PartTold part={l} />,
  },
  {
    key: 'gotBy',
    title: 'Type',
    width: '92px',
    entry: wordEntry(
      GOT_BY,
      GOT_BY_NAMES,
      /^(got|kind|type|make|made|source)/i,
      (l) => l.gotBy,
      (l, gotBy) => ({ ...l, gotBy }),
    ),
  },
  {
    key: 'quantity',
    title: 'Quantity',
    width: '78px',
    num: true,
    entry: {
      kind: 'number',
      heads: /^(qty|quantity|quant)\b/i,
      text: (l) => l.quantity,
      put: (l, quantity) => ({ ...l, quantity }),
    },
  },
  {
    key: 'unit',
    title: 'Unit',
    width: '60px',
    entry: unitEntry<BomLineText>(
      (l) => ({ unit: l.unit, words: l.unitWords }),
      (l, { unit, words }) => ({ ...l, unit, unitWords: words }),
    ),
    show: (l) => l.unitWords || unitOf(l.unit).short,
  },
  {
    key: 'per',
    title: 'Per',
    width: '84px',
    entry: wordEntry(
      PER,
      PER_NAMES,
      /^(for|per|fixed)/i,
      (l) => l.per,
      (l, per) => ({ ...l, per }),
    ),
  },
  {
    key: 'scrap',
    title: 'Scrap %',
    width: '64px',
    num: true,
    entry: { kind: 'number', heads: /scrap|lost|waste/i, text: (l) => l.scrap, put: (l, scrap) => ({ ...l, scrap }) },
    show: (l) => l.scrap || (l.description === '' ? '' : <Dash />),
  },
  {
    key: 'offset',
    title: 'Needed at',
    width: '104px',
    entry: { kind: 'text', heads: /need|offset|days/i, text: (l) => l.offset, put: (l, offset) => ({ ...l, offset }) },
    show: (l) => {
      const read = parseOffset(l.offset);
      return l.description === '' ? (
        ''
      ) : read.ok ? (
        <span className="whitespace-nowrap">{offsetWords(read.value)}</span>
      ) : (
        l.offset
      );
    },
  },
  ...(money
    ? [
        {
          key: 'price',
          title: `Set price ${signOf(currency)}`,
          width: '96px',
          num: true,
          entry: {
            kind: 'number' as const,
            heads: /cost(?!\s*(code|head|centre))|price/i,
            text: (l: BomLineText) => l.cost,
            put: (l: BomLineText, cost: string) => ({ ...l, cost }),
          },
          show: (l: BomLineText) => l.cost || (l.description === '' ? '' : <Dash />),
        },
      ]
    : []),
  {
    key: 'code',
    title: 'Cost code',
    width: 'minmax(100px, 1fr)',
    entry: {
      kind: 'pick',
      of: 'costCode',
      heads: /cost\s*(code|head|centre)|^code$|budget/i,
      text: (l) => wordsOfChoice(l.code),
      put: (l, words) => ({ ...l, code: chosen(null, words) }),
      thing: (l) => l.code.thing,
      take: (l, thing) => ({ ...l, code: chosen(thing && named(thing)) }),
    },
    show: (l) =>
      l.description === '' ? (
        ''
      ) : l.code.thing === null ? (
        <span className="text-ink-2">{l.code.words || 'item’s own'}</span>
      ) : (
        <>
          {l.code.thing.number} <span className="text-ink-2">{l.code.thing.name}</span>
        </>
      ),
  },
];
