import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { LineText, OrderText } from './orderText';

export type Difference = {
  readonly key: string;
  readonly label: string;
  readonly mine: string;
  readonly theirs: string;
};

const HEAD = { placeId: 'Deliver to', wantedOn: 'Wanted', carrier: 'Carrier', instructions: 'Instructions' } as const;

const said = (l: LineText) =>
  (l.kind === 'charge'
    ? `${l.description}, ${l.price}`
    : `${l.quantity} ${unitOf(l.unit).short} ${l.description} at ${l.price === '' ? 'no price' : l.price}${l.wantedOn === '' ? '' : `, wanted ${l.wantedOn}`}`
  )
    .replace(/\s+/g, ' ')
    .trim();
const same = (a: LineText, b: LineText) => JSON.stringify({ ...a, key: '' }) === JSON.stringify({ ...b, key: '' });

/** Where two people's versions of one order differ: fields of its head, and lines as a whole. */
export function differences(mine: OrderText, theirs: OrderText): Difference[] {
  const head = (Object.keys(HEAD) as (keyof typeof HEAD)[])
    .filter((k) => mine[k] !== theirs[k])
    .map((k) => ({ key: k, label: HEAD[k], mine: mine[k] || 'nothing', theirs: theirs[k] || 'nothing' }));
  const keys = [...new Set([...theirs.lines, ...mine.lines.filter((l) => l.id !== undefined)].map((l) => l.key))];
  const lines = keys.flatMap((key): Difference[] => {
    const [m, t] = [mine.lines.find((l) => l.key === key), theirs.lines.find((l) => l.key === key)];
    if (m !== undefined && t !== undefined && same(m, t)) return [];
    const charged = m !== undefined && t !== undefined && said(m) === said(t);
    const words = (l: LineText | undefined) =>
      l === undefined ? 'taken off' : charged ? `${said(l)}, charged in ${counted(l.splits.length, 'part')}` : said(l);
    return [{ key, label: 'Line', mine: words(m), theirs: words(t) }];
  });
  return [...head, ...lines];
}

/** One version from two: for each difference the side that was chosen; lines I added stay. */
export function settle(
  mine: OrderText,
  theirs: OrderText,
  chosen: Readonly<Record<string, 'mine' | 'theirs'>>,
): OrderText {
  const of = (key: string) => (chosen[key] === 'theirs' ? theirs : mine);
  const keys = [...new Set([...theirs.lines, ...mine.lines].map((l) => l.key))];
  const lines = keys.flatMap((key) => {
    const added = key.startsWith('new');
    const line = (added ? mine : of(key)).lines.find((l) => l.key === key);
    if (line === undefined) return [];
    // A line that the other person took off is a new one when it is kept.
    return [
      theirs.lines.some((l) => l.key === key) || added
        ? line
        : { ...line, id: undefined, splits: line.splits.map((s) => ({ ...s, id: undefined, needId: null })) },
    ];
  });
  return {
    placeId: of('placeId').placeId,
    wantedOn: of('wantedOn').wantedOn,
    carrier: of('carrier').carrier,
    instructions: of('instructions').instructions,
    lines,
  };
}
