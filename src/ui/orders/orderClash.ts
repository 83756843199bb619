import { isCharge } from '@/core/orders/kinds';
import { unitOf } from '@/core/quantity/units';
import { counted } from '@/core/words';
import type { LineText } from './orderLineText';
import type { OrderText } from './orderText';
import { lineDifferences, settleLines, sideOf, type Chosen, type Difference } from '../acting/versions';

const HEAD = {
  number: 'Number',
  place: 'Deliver to',
  wantedOn: 'Required by',
  latestOn: 'No later than',
  carrier: 'Carrier',
  carrierService: 'Service',
  siteContact: 'Site contact',
  instructions: 'Instructions',
} as const;

const HEAD_KEYS = Object.keys(HEAD) as (keyof typeof HEAD)[];

const said = (l: LineText) =>
  (isCharge(l)
    ? `${l.description}, ${l.price}`
    : `${l.quantity} ${unitOf(l.unit).short} ${l.description} at ${l.price === '' ? 'no price' : l.price}${l.wantedOn === '' ? '' : `, required by ${l.wantedOn}`}`
  )
    .replace(/\s+/g, ' ')
    .trim();
const same = (a: LineText, b: LineText) => JSON.stringify({ ...a, key: '' }) === JSON.stringify({ ...b, key: '' });

/** Where two people's versions of one order differ: fields of its head, and lines as a whole. */
export function differences(mine: OrderText, theirs: OrderText): Difference[] {
  const written = (of: OrderText, key: keyof typeof HEAD) => (key === 'place' ? (of.place?.name ?? '') : of[key]);
  const head = HEAD_KEYS.filter((k) => written(mine, k) !== written(theirs, k)).map((key): Difference => ({
    key,
    label: HEAD[key],
    mine: written(mine, key) || 'nothing',
    theirs: written(theirs, key) || 'nothing',
    safe: 'mine',
  }));
  const beside = (l: LineText) => `${counted(l.splits.length, 'split')}`;
  return [...head, ...lineDifferences(mine.lines, theirs.lines, { told: said, same, beside })];
}

/** A line that the other person took off is a new one when it is kept. */
const over = (line: LineText, theirs: LineText | undefined): LineText =>
  theirs === undefined
    ? { ...line, id: undefined, splits: line.splits.map((s) => ({ ...s, id: undefined, needId: null })) }
    : line;

/** One order from two: for each difference the side that was chosen; lines I added stay. */
export function settle(mine: OrderText, theirs: OrderText, chosen: Chosen): OrderText {
  const side = (key: string) => sideOf(differences(mine, theirs), chosen, key);
  const head = Object.fromEntries(HEAD_KEYS.map((k) => [k, (side(k) === 'theirs' ? theirs : mine)[k]]));
  return { ...mine, ...head, lines: settleLines(mine.lines, theirs.lines, side, over) };
}
