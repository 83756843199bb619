import fc from 'fast-check';
import { plusDays, type Day } from '@/core/calendar/workdays';
import { loadLevels, loadLevelsOn } from '@/store/levels';
import { TestCompany, TODAY } from '../../tests/support/company';
import { ACTS, layOutTrouble, tryStep, type Step } from '../../tests/support/history';
import { dueDaysOf } from '../../tests/support/dueWitness';
import { newMemory, toldOn, type Told } from '../../tests/support/dayWitness';
import type { Stages } from '../../tests/support/deliveryWitness';
import { witness } from '../../tests/support/witness';
import { isProof, times } from '../../tests/support/proof';
import { findUnproven } from './ledger';

const step: fc.Arbitrary<Step> = fc.record({
  act: fc.constantFrom(...ACTS),
  which: fc.nat(47),
  share: fc.double({ min: 0.05, max: 1, noNaN: true }),
});
const history = fc.record({
  currency: fc.constantFrom(['EUR', '0.8624'] as const, ['JPY', '0.00512'] as const, ['KWD', '2.6123'] as const),
  days: fc.array(fc.array(step, { minLength: 4, maxLength: 8 }), { minLength: 4, maxLength: 7 }),
});

/** So that there is something to receive, to invoice and to issue from the first day on. */
const BEGIN: readonly Step[] = [
  { act: 'draft', which: 0, share: 0.7 },
  { act: 'draft', which: 3, share: 1 },
  { act: 'send', which: 1, share: 1 },
  { act: 'count', which: 1, share: 0.5 },
  { act: 'putBy', which: 0, share: 1 },
  { act: 'count', which: 2, share: 0.8 },
  { act: 'putBy', which: 1, share: 1 },
];

/** What chance seldom comes to: taken over as confirmed, revised below what waits at the door, its invoices ended. */
const SELDOM = {
  currency: ['EUR', '0.8624'] as const,
  days: Array.from({ length: 5 }, (_, day) =>
    Array.from({ length: 4 }, (_, k) => (day * 4 + k) * 7 + 3).flatMap((which): Step[] => [
      { act: 'confirm', which: which % 48, share: 1 },
      { act: 'takeOver', which: which % 48, share: 1 },
      { act: 'receive', which: which % 48, share: 0.3 },
      { act: 'reorderHeld', which: which % 48, share: 1 },
      { act: 'inspect', which: which % 48, share: 1 },
      { act: 'receive', which: which % 48, share: 1 },
      { act: 'endInvoices', which: which % 48, share: 1 },
    ]),
  ),
};

/** What is written days after it happened, with orders revised, charged elsewhere, invoiced and ended in between. */
const LATE = {
  currency: ['EUR', '0.8624'] as const,
  days: Array.from({ length: 6 }, (_, day) =>
    [0, 1, 2].flatMap((k): Step[] => {
      const which = (day * 3 + k) * 3;
      return [
        { act: 'send', which: which + 1, share: 1 },
        { act: 'receive', which: which + 3, share: 0.2 },
        { act: 'elsewhere', which: which + 1, share: 1 },
        { act: 'invoice', which: which + 1, share: 0.4 },
        { act: 'match', which, share: 1 },
        { act: 'receive', which: which + 9, share: 0.4 },
        { act: 'reorder', which: which + 1, share: 0.7 },
        { act: 'sendBack', which: which + 6, share: 0.2 },
        { act: 'correct', which: which + 3, share: 0.3 },
        { act: k === 1 ? 'closeShort' : 'openAgain', which: which + 1, share: 1 },
        { act: 'inspect', which: which + 3, share: 0.5 },
        { act: 'draft', which: which + 2, share: 0.6 },
      ];
    }),
  ),
};

const STAGES = ['planned', 'drafted', 'onOrder', 'received', 'actual'] as const;
const none = { planned: 0, drafted: 0, onOrder: 0, received: 0, actual: 0 };

type Row = { tabLineId: number; jobId: number | null; costCodeId: number | null; stage: keyof Stages; amount: number };

/** What the application says of every line of the tab on each account: the sums of its postings. */
async function linesOf(yard: TestCompany): Promise<Map<string, Stages>> {
  const rows = (await yard
    .db('posting')
    .groupBy('tabLineId', 'jobId', 'costCodeId', 'stage')
    .select('tabLineId', 'jobId', 'costCodeId', 'stage')
    .sum({ amount: 'amount' })) as Row[];
  const found = new Map<string, Stages>();
  for (const r of rows) {
    const key = `${r.tabLineId} on ${r.jobId ?? '-'}/${r.costCodeId ?? '-'}`;
    found.set(key, { ...(found.get(key) ?? none), [r.stage]: r.amount });
  }
  return found;
}

let figures = 0;
let datedBack = 0;
/** How often each act was done, and not refused. */
const acted = new Map<string, number>();
const disagreed: string[] = [];
function compare(what: string, ours: Stages | undefined, theirs: Stages): void {
  for (const stage of STAGES) {
    figures += 1;
    if ((ours ?? none)[stage] !== theirs[stage])
      disagreed.push(`${what} ${stage}: ${(ours ?? none)[stage]}, the witness says ${theirs[stage]}`);
  }
}

async function compareNow(yard: TestCompany, told: Told, when: string): Promise<void> {
  const lines = await linesOf(yard);
  for (const [id, standings] of told.lines)
    for (const { account, stages } of standings) {
      const key = `${id} on ${account}`;
      compare(`${when}, line ${key}`, lines.get(key), stages);
      lines.delete(key);
    }
  // What the witness does not know of stands nowhere, but for costs that invoices brought beside their lines.
  const beside = new Set((await yard.db('invoiceCost').select('id')).map((c) => c.id));
  for (const [key, stages] of lines) if (!beside.has(parseInt(key, 10))) compare(`${when}, line ${key}`, stages, none);
  for (const need of await yard.db('need').select('id', 'open', 'missing')) {
    figures += 2;
    if (told.open.get(need.id) !== need.open)
      disagreed.push(`${when}, need ${need.id} open: ${need.open}, not ${told.open.get(need.id)}`);
    if (told.missing.get(need.id) !== need.missing)
      disagreed.push(`${when}, need ${need.id} missing: ${need.missing}, not ${told.missing.get(need.id)}`);
  }
  for (const { itemId, placeId, jobId, quantity, value } of await yard.db('stockSum')) {
    figures += 2;
    const key = `${itemId}/${placeId}/${jobId}`;
    const pile = told.piles.get(key);
    if (pile?.q !== quantity || pile.v !== value)
      disagreed.push(`${when}, stock ${key}: ${quantity} worth ${value}, not ${pile?.q} worth ${pile?.v}`);
    if ((told.claimed.get(key) ?? 0) > quantity)
      disagreed.push(`${when}, stock ${key}: ${told.claimed.get(key)} put by of ${quantity}`);
  }
  const due = await dueDaysOf(yard.db);
  for (const order of await yard
    .db('purchaseOrder')
    .select('id', 'net', 'gross', 'dueHereOn', 'dueAwayOn', 'missedOn')) {
    figures += 5;
    const kept = { here: order.dueHereOn, away: order.dueAwayOn, missed: order.missedOn };
    const days = due.get(order.id);
    if (JSON.stringify(kept) !== JSON.stringify(days))
      disagreed.push(`${when}, order ${order.id} is due ${JSON.stringify(kept)}, not ${JSON.stringify(days)}`);
    const of = told.orders.get(order.id);
    if (of?.net !== order.net || of.gross !== order.gross)
      disagreed.push(`${when}, order ${order.id}: ${order.net}/${order.gross}, not ${of?.net}/${of?.gross}`);
  }
  const levels = await loadLevels(yard.db, yard.ids.jobs);
  for (const level of levels) {
    figures += 1;
    const account = `${level.jobId}/${level.costCodeId}`;
    if ((told.budgets.get(account) ?? 0) !== level.budget)
      disagreed.push(`${when}, budget of ${account}: ${level.budget}, not ${told.budgets.get(account)}`);
  }
  for (const [id, places] of told.places)
    if (places.some((p, k) => p !== k + 1)) disagreed.push(`${when}, quote ${id} has its lines at ${places.join()}`);
  for (const [account, stages] of told.accounts)
    if (account !== '-/-')
      compare(
        `${when}, account ${account}`,
        levels.find((l) => `${l.jobId}/${l.costCodeId}` === account)?.amounts,
        stages,
      );
}

async function play({
  currency,
  days,
}: {
  currency: readonly [string, string];
  days: readonly (readonly Step[])[];
}): Promise<void> {
  const yard = await TestCompany.open();
  try {
    await layOutTrouble(yard, ...currency);
    const memory = newMemory();
    const kept = new Map<Day, Told>();
    for (const [n, steps] of days.entries()) {
      const day = plusDays(TODAY, n);
      const begun = n === 0 ? [...BEGIN, ...steps] : steps;
      for (const [k, s] of begun.entries()) {
        const outcome = await tryStep(yard, s, day);
        if (outcome?.status === 'done') acted.set(s.act, (acted.get(s.act) ?? 0) + 1);
        const told = await witness(yard.db, memory);
        await compareNow(yard, told, `day ${n}, after step ${k} (${s.act})`);
        kept.set(day, told);
      }
    }
    for (const [day, { scene }] of kept)
      for (const jobId of yard.ids.jobs) {
        const then = await loadLevelsOn(yard.db, jobId, day);
        for (const [account, stages] of scene === undefined ? [] : toldOn(day, scene, memory))
          if (account.startsWith(`${jobId}/`))
            compare(
              `as of ${day}, ${account}`,
              then.find((l) => `${l.jobId}/${l.costCodeId}` === account)?.amounts,
              stages,
            );
      }
    datedBack += (await yard.db('receipt').whereRaw('day < substr(at, 1, 10)').select('id')).length;
    expect({ disagreed: disagreed.slice(0, 5), unproven: await findUnproven(yard.db) }).toEqual({
      disagreed: [],
      unproven: [],
    });
  } finally {
    disagreed.length = 0;
    await yard.close();
  }
}

describe('a plain witness, who works every figure out from the documents alone', () => {
  it('agrees with every line, order and tab, after every step and as of every day', async () => {
    await fc.assert(fc.asyncProperty(history, play), {
      numRuns: times(12, 60),
      examples: isProof ? [[LATE], [SELDOM]] : [[LATE]],
      // The same histories each time, so that all acts are among them; others when they are asked for.
      seed: Number(process.env.KETTLE_SEED ?? 20_261_128),
      // A history takes a second: one that fails is told as it is.
      endOnFailure: true,
    });
    expect(figures).toBeGreaterThan(times(9000, 50_000));
    expect(datedBack).toBeGreaterThan(times(40, 80));

    // The short form does not come to every act; the long one does, but for what is there to be refused.
    const never = [...new Set(ACTS.filter((act) => act !== 'reorderHeld' && (acted.get(act) ?? 0) === 0))];
    expect(isProof ? never : never.slice(18)).toEqual([]);
  });
});
