import fc from 'fast-check';
import type { z } from 'zod';
import { ROLES } from '@/core/people/rights';
import { loadDesk } from '@/queries/frame/desk';
import { loadTab } from '@/queries/jobs/job';
import { loadBuyList } from '@/queries/buying/buyList';
import { listOpenNeeds } from '@/queries/buying/openNeeds';
import { loadOrder } from '@/queries/orders/order';
import { listOrders } from '@/queries/orders/orders';
import { listInvoices, loadInvoice } from '@/queries/invoices/invoices';
import { findUnproven } from '@/store/ledger';
import { findPerson } from '@/store/people';
import { ACTIONS } from '../../tests/support/actions';
import { TestCompany, TODAY } from '../../tests/support/company';
import { layOutTrouble, tryStep } from '../../tests/support/history';
import { times } from '../../tests/support/proof';
import type { Action } from './action';

/** Whatever a person can send: the shapes of the forms, filled with what fits and what does not. */

type Def = {
  readonly type: string;
  readonly shape?: Record<string, z.ZodType>;
  readonly element?: z.ZodType;
  readonly innerType?: z.ZodType;
  readonly in?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly entries?: Record<string, string>;
  readonly values?: readonly unknown[];
  readonly valueType?: z.ZodType;
};

const LARGE = [
  0,
  -1,
  1,
  0.5,
  10_000,
  10_001,
  25_000,
  1e9,
  1e11,
  1e12,
  1e12 + 1,
  -1e12,
  2 ** 53,
  -(2 ** 53),
  1e300,
  NaN,
];
const WORDS = [
  '',
  ' ',
  'Hose',
  '“Tube” <b>316L</b>',
  "Robert'); drop table job;--",
  '\u202eesrever',
  'x'.repeat(10_000),
  '0226-01-01',
  '2026-05-12',
  '2100-12-31',
  '9999-12-31',
  'MTR',
  'XRL',
  'KGM',
  'EUR',
  'GBP',
  '0.8624',
  '1e9',
  '999999999.999999999999',
  'someone@yard.example',
];
/** What fits a field of this name, so that many forms get through to the rules behind. */
const FITS: Readonly<Record<string, readonly string[]>> = {
  unit: ['C62', 'MTR', 'XRL', 'KGM', 'HUR'],
  day: ['2026-05-12', '2026-05-01', '2026-01-02'],
  neededOn: ['', '2026-06-01', '2026-05-16'],
  wantedOn: ['', '2026-06-01'],
  startsOn: ['', '2026-06-01'],
  dueOn: ['', '2026-07-01'],
  currency: ['EUR', 'JPY', 'KWD', 'GBP'],
  rate: ['0.8', '0.0051', '999999999', '0.000000000001'],
  country: ['GB', 'GB-ENG', 'DE', 'XX'],
  email: ['', 'a@b.example'],
  password: ['long enough to be kept'],
  number: ['A1', 'B-2', 'C3', 'D4', 'E5'],
};

const number = fc.oneof({ weight: 5, arbitrary: fc.integer({ min: 1, max: 14 }) }, fc.constantFrom(...LARGE));
const word = fc.constantFrom(...WORDS);
const anything = fc.oneof(number, word, fc.constant(null), fc.constant(undefined), fc.constant([]), fc.constant({}));

/** Values for a schema: most fit it, some do not. */
function valuesOf(schema: z.ZodType, key = ''): fc.Arbitrary<unknown> {
  const def = schema.def as unknown as Def;
  const inner = (s: z.ZodType | undefined) => (s === undefined ? anything : valuesOf(s, key));
  const fitting: Record<string, () => fc.Arbitrary<unknown>> = {
    object: () => fc.record(Object.fromEntries(Object.entries(def.shape ?? {}).map(([k, s]) => [k, valuesOf(s, k)]))),
    array: () => fc.array(inner(def.element), { maxLength: 3 }),
    string: () => {
      const fits = FITS[key];
      if (fits !== undefined) return fc.oneof({ weight: 8, arbitrary: fc.constantFrom(...fits) }, word);
      return key === 'once' ? fc.uuid() : fc.oneof({ weight: 4, arbitrary: fc.constantFrom('Hose', 'Clamp') }, word);
    },
    number: () => (key === 'version' ? fc.integer({ min: 1, max: 3 }) : number),
    boolean: () => fc.boolean(),
    nullable: () => fc.option(inner(def.innerType)),
    optional: () => fc.option(inner(def.innerType), { nil: undefined }),
    default: () => inner(def.innerType),
    pipe: () => inner(def.in),
    union: () => fc.oneof(...(def.options ?? []).map((o) => inner(o))),
    enum: () => fc.constantFrom(...Object.values(def.entries ?? {})),
    literal: () => fc.constantFrom(...(def.values ?? [])),
    record: () => fc.dictionary(word, inner(def.valueType), { maxKeys: 2 }),
  };
  const fits = fitting[def.type]?.() ?? anything;
  return def.type === 'object' ? fits : fc.oneof({ weight: 30, arbitrary: fits }, { weight: 1, arbitrary: anything });
}

let yard: TestCompany;
beforeAll(async () => {
  yard = await TestCompany.open();
  await layOutTrouble(yard, 'EUR', '0.8624');
  for (const [k, act] of [
    'draft',
    'draft',
    'send',
    'receive',
    'invoice',
    'match',
    'invoice',
    'draft',
    'join',
  ].entries())
    await tryStep(yard, { act: act as 'draft', which: k, share: 0.6 }, TODAY);
});
afterAll(() => yard.close());

/** Somebody with every role, so that rights do not stand in the way. */
async function everybody(): Promise<Parameters<Action<z.ZodType, unknown>>[0]> {
  const setting = await yard.as('manager');
  const person = await findPerson(yard.db, setting.actor.id);
  if (person === undefined) throw new Error('Nobody is there.');
  return { ...setting, actor: { ...person, roles: ROLES } };
}

const outcomes = { done: 0, refused: 0, clash: 0 };

describe('whatever is sent', () => {
  it.each(ACTIONS.map((a) => [a.name, a] as const))(
    'to %s is done, refused or a clash, and never breaks',
    async (_, action) => {
      const setting = await everybody();
      await fc.assert(
        fc.asyncProperty(valuesOf(action.input), async (input) => {
          const { status } = await action(setting, input as never);
          outcomes[status] += 1;
          expect(['done', 'refused', 'clash']).toContain(status);
        }),
        { numRuns: times(25, 120) },
      );
    },
  );

  it('leaves a ledger that is right, and every page can be shown', async () => {
    expect(outcomes.done).toBeGreaterThan(times(30, 100));
    const { db } = yard;
    const { actor } = await everybody();
    expect(await findUnproven(db)).toEqual([]);
    for (const { id } of await db('job').select('id')) {
      await loadTab(db, actor, id);
      await loadBuyList(db, actor, id, TODAY);
    }
    for (const { number } of await db('purchaseOrder').select('number')) await loadOrder(db, actor, number, TODAY);
    for (const { id } of await db('invoice').select('id')) await loadInvoice(db, actor, id);
    await loadDesk(db, actor, TODAY);
    await listOpenNeeds(db, actor, TODAY, {});
    expect((await listOrders(db, actor, { show: 'all' }, TODAY)).rows.length).toBeGreaterThan(2);
    expect((await listInvoices(db, actor, { show: 'all' })).rows.length).toBeGreaterThan(0);
  });
});
