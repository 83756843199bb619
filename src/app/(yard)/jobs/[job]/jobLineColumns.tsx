import { signOf } from '@/core/money/money';
import { unitOf } from '@/core/quantity/units';
import { named, type EntryColumn } from '@/ui/entry/column';
import { chosen, wordsOfChoice, type PickedText } from '@/ui/entry/reading';
import { PartTold } from '@/ui/entry/PartTold';
import { unitEntry } from '@/ui/entry/unit';
import { Dash } from '@/ui/kit/Sheet';
import { withItem, type JobLineText } from '@/ui/jobs/jobLineText';

type Setting<L> = {
  readonly currency: string;
  readonly money: boolean;
  readonly onMake: ((kind: 'item' | 'supplier', line: L, typed: string) => void) | undefined;
};

const choiceEntry = <L extends JobLineText>(of: 'costCode' | 'supplier', at: 'code' | 'supplier', heads: RegExp) => ({
  kind: 'pick' as const,
  of,
  heads,
  text: (l: L) => wordsOfChoice(l[at]),
  put: (l: L, words: string): L => ({ ...l, [at]: chosen(null, words) }),
  thing: (l: L) => l[at].thing,
  take: (l: L, thing: Parameters<typeof named>[0] | null): L => ({ ...l, [at]: chosen(thing && named(thing)) }),
});

const Code = ({ code }: { code: PickedText }) =>
  code.thing === null ? (
    code.words || <span className="tag tag-stop">choose code</span>
  ) : (
    <span className="block truncate" title={code.thing.name}>
      {code.thing.number} <span className="text-ink-2">{code.thing.name}</span>
    </span>
  );

/** The columns that lines of a quote and of a buy list have in common. */
export function jobLineColumns<L extends JobLineText>({
  currency,
  money,
  onMake,
}: Setting<L>): {
  readonly what: EntryColumn<L>;
  readonly quantity: EntryColumn<L>;
  readonly unit: EntryColumn<L>;
  readonly cost: EntryColumn<L>[];
  readonly code: EntryColumn<L>;
  readonly supplier: EntryColumn<L>;
  readonly needed: EntryColumn<L>;
} {
  const make = (kind: 'item' | 'supplier', words: string) =>
    onMake && { words, onMake: (line: L, typed: string) => onMake(kind, line, typed) };
  return {
    what: {
      key: 'description',
      title: 'Item',
      width: 'minmax(150px, 2.2fr)',
      wide: true,
      entry: {
        kind: 'pick',
        of: 'item',
        free: true,
        heads: /desc|item|part|article|^line$|^what/i,
        text: (l) => l.description,
        put: (l, description) => ({ ...l, description, ...(description === '' ? { itemId: null, number: '' } : {}) }),
        thing: (l) => (l.itemId === null ? null : { id: l.itemId, number: l.number, name: l.description }),
        take: (l, item) => withItem(l, item, currency),
        make: make('item', 'New item'),
      },
      show: (l) => <PartTold part={l} />,
    },
    quantity: {
      key: 'quantity',
      title: 'Quantity',
      width: '74px',
      num: true,
      entry: {
        kind: 'number',
        heads: /^(qty|quantity|quant)\b/i,
        text: (l) => l.quantity,
        put: (l, text) => ({ ...l, quantity: text }),
      },
    },
    unit: {
      key: 'unit',
      title: 'Unit',
      width: '58px',
      entry: unitEntry<L>(
        (l) => ({ unit: l.unit, words: l.unitWords }),
        (l, { unit, words }) => ({ ...l, unit, unitWords: words }),
      ),
      show: (l) => l.unitWords || unitOf(l.unit).short,
    },
    cost: money
      ? [
          {
            key: 'cost',
            title: `Cost ${signOf(currency)}`,
            width: '92px',
            num: true,
            entry: {
              kind: 'number',
              heads: /cost(?!\s*(code|head|centre))|^buy|net price|our price|^each/i,
              text: (l) => l.cost,
              put: (l, cost) => ({ ...l, cost }),
            },
            show: (l) => l.cost || (l.description === '' ? '' : <Dash />),
          },
        ]
      : [],
    code: {
      key: 'code',
      title: 'Cost code',
      width: 'minmax(96px, 1fr)',
      entry: choiceEntry<L>('costCode', 'code', /cost\s*(code|head|centre)|^code$|budget/i),
      show: (l) => (l.description === '' && l.code.thing === null ? '' : <Code code={l.code} />),
    },
    supplier: {
      key: 'supplier',
      title: 'Supplier',
      width: 'minmax(96px, 1fr)',
      entry: {
        ...choiceEntry<L>('supplier', 'supplier', /supplier|from whom/i),
        make: make('supplier', 'New supplier'),
      },
      show: (l) => {
        const words = wordsOfChoice(l.supplier);
        return words === '' ? (
          <Dash />
        ) : (
          <span className="block truncate" title={words}>
            {words}
          </span>
        );
      },
    },
    needed: {
      key: 'neededOn',
      title: 'Needed by',
      width: '92px',
      entry: {
        kind: 'day',
        heads: /need|want|date|due|required/i,
        text: (l) => l.neededOn,
        put: (l, neededOn) => ({ ...l, neededOn }),
      },
    },
  };
}
