import { minor, ZERO } from '../money/money';
import { NONE, quantity, type Quantity } from '../quantity/quantity';
import type { SplitState } from '../tab/stages';
import { coverage, NOTHING_FROM_STOCK, type FromStock } from './coverage';
import { materialInWords, type Material } from './material';
import { fulfilmentOf } from './fulfilment';

const q = (n: number): Quantity => quantity(n * 10_000);

type Part = Partial<SplitState> & { readonly uncertified?: boolean };

const split = ({ uncertified = false, ...more }: Part) => ({
  ...{ commitment: 'sent' as const, ordered: q(10), value: minor(1000), received: NONE, givenUp: NONE },
  ...{ invoiced: NONE, claimed: NONE, invoicedAmount: ZERO, uncertified },
  ...more,
});

type Given = {
  parts?: readonly Part[];
  held?: Partial<FromStock>;
  atDoor?: number;
  needed?: number;
  kind?: 'goods' | 'service';
};

const stands = ({ parts = [], held: some = {}, atDoor = 0, needed = 10, kind = 'goods' }: Given) => {
  const splits = parts.map(split);
  const fromStock = { ...NOTHING_FROM_STOCK, ...some };
  const facts = { kind, quantity: q(needed), coverage: coverage(q(needed), splits, fromStock), fromStock, splits };
  return fulfilmentOf({ ...facts, atDoor: q(atDoor) });
};

describe('how far a line has come', () => {
  it.each<[string, Given, string]>([
    ['none is needed any more', { needed: 0 }, 'notNeeded'],
    ['nothing happened', {}, 'nothing'],
    ['a draft has it', { parts: [{ commitment: 'drafted' }] }, 'drafted'],
    ['it is sent', { parts: [{}] }, 'ordered'],
    [
      'part of it is sent, the rest is drafted',
      { parts: [{ ordered: q(4) }, { commitment: 'drafted', ordered: q(6) }] },
      'ordered',
    ],
    ['it comes to stores for it', { held: { coming: q(10) } }, 'ordered'],
    ['an order of it was cancelled', { parts: [{ commitment: 'cancelled' }] }, 'nothing'],
    ['some of it came', { parts: [{ received: q(4) }] }, 'partIn'],
    ['some lies in stores for it', { held: { inStores: q(4) } }, 'partIn'],
    ['some waits at the door, and more is to come', { parts: [{}], atDoor: 4 }, 'partIn'],
    ['all of it waits at the door', { parts: [{}], atDoor: 10 }, 'held'],
    ['the last of it waits at the door', { parts: [{ received: q(7) }], atDoor: 3 }, 'held'],
    ['all came, and its certificate did not', { parts: [{ received: q(10), uncertified: true }] }, 'uncertified'],
    ['all lies in stores for it', { held: { inStores: q(10) } }, 'reserved'],
    ['all came', { parts: [{ received: q(10) }] }, 'in'],
    ['some came, and stores have the rest for it', { parts: [{ received: q(6) }], held: { inStores: q(4) } }, 'in'],
    ['another job’s was transferred to it', { held: { transferred: q(10) } }, 'in'],
    ['what came was taken by another job', { parts: [{ received: q(10) }], held: { transferred: q(-10) } }, 'ordered'],
    ['stores gave it out', { held: { issued: q(10) } }, 'issued'],
    ['its own goods were given out', { parts: [{ received: q(10) }], held: { ownIssued: q(10) } }, 'issued'],
    ['part of its own goods were given out', { parts: [{ received: q(10) }], held: { ownIssued: q(3) } }, 'in'],
    ['a service is ordered', { kind: 'service', parts: [{}] }, 'ordered'],
    ['a service is invoiced in part', { kind: 'service', parts: [{ invoiced: q(4) }] }, 'ordered'],
    ['a service is invoiced', { kind: 'service', parts: [{ invoiced: q(10) }] }, 'invoiced'],
  ])('when %s', (_, given, word) => expect(stands(given)).toBe(word));
});

describe('what is said of a job’s material', () => {
  const material = (more: Partial<Material>): Material => ({
    ...{ lines: 14, missing: 0, toOrder: 0, undated: 0, promisedOn: null, readyOn: null },
    ...more,
  });
  const told = (m: Partial<Material>) => materialInWords(material(m), (d) => `day ${d}`);

  it.each<[Partial<Material>, string]>([
    [{ readyOn: '2026-05-04' as never }, 'complete since day 2026-05-04'],
    [{ missing: 2, promisedOn: '2026-05-20' as never }, '2 of 14 lines outstanding: all expected by day 2026-05-20'],
    [
      { missing: 2, toOrder: 1, promisedOn: '2026-05-20' as never },
      '2 of 14 lines outstanding: 1 to order, rest expected by day 2026-05-20',
    ],
    [{ missing: 3, toOrder: 1, undated: 2 }, '3 of 14 lines outstanding: 1 to order, 2 with no date'],
    [{ missing: 14, toOrder: 14 }, 'all 14 lines outstanding: 14 to order'],
    [{ lines: 1, missing: 1, toOrder: 1 }, '1 line outstanding: 1 to order'],
  ])('%j', (m, words) => expect(told(m)).toBe(words));
});
