import fc from 'fast-check';
import { existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findUnproven } from './ledger';
import { open } from './connection';
import { nextCount } from './rows';
import { q, TestCompany, TODAY } from '../../tests/support/company';
import { enterInvoice, matchInvoice } from '@/actions/invoices';
import { callOff, closeShort, draftOrders } from '@/actions/orders';
import { receive, takeBack } from '@/actions/receiving';
import { sendOrder } from '@/actions/sending';
import { loadJobLevels, loadLevelsOn } from '@/queries/levels';
import { addLevels, forecastOf } from '@/core/tab/sums';

// The driver’s errors are made outside the test’s realm, so they are known by their words.
const saying = (words: string) => ({ message: expect.stringContaining(words) as string });

describe('the company’s file', () => {
  it('is brought up to date once, with foreign keys and a write-ahead log', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'c.sqlite');
    const first = await open(file);
    expect(await first.db.raw('PRAGMA journal_mode')).toEqual([{ journalMode: 'wal' }]);
    expect(await first.db.raw('PRAGMA foreign_keys')).toEqual([{ foreignKeys: 1 }]);
    await expect(
      Promise.resolve(first.db('quote').insert({ jobId: 99, number: 'x', state: 'writing' })),
    ).rejects.toMatchObject(saying('FOREIGN KEY'));
    await first.db.destroy();
    const second = await open(file);
    expect(second.backup).toBeUndefined();
    await second.db.destroy();
    rmSync(folder, { recursive: true });
  });

  it('is copied before its schema changes', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'old.sqlite');
    const { db } = await open(file);
    await db.raw("delete from schema_step where name = '001-first'");
    await db.destroy();
    await expect(open(file)).rejects.toMatchObject(saying('already exists'));
    expect(readdirSync(folder).filter((n) => n.includes('.before-001-first-'))).toHaveLength(1);
    rmSync(folder, { recursive: true });
  });

  it('is not made out of some other file', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const file = join(folder, 'picture.sqlite');
    writeFileSync(file, 'this is no database, however long it may be. '.repeat(50));
    await expect(open(file)).rejects.toMatchObject(saying('not a database'));
    expect(existsSync(file)).toBe(true);
    rmSync(folder, { recursive: true });
  });
});

describe('the ledger in the file', () => {
  let yard: TestCompany;
  beforeEach(async () => {
    yard = await TestCompany.open();
  });
  afterEach(() => yard.close());

  it('is never changed or deleted', async () => {
    await yard.need();
    await expect(Promise.resolve(yard.db('posting').update({ amount: 1 }))).rejects.toMatchObject(
      saying('never changed'),
    );
    await expect(Promise.resolve(yard.db('posting').delete())).rejects.toMatchObject(saying('never deleted'));
  });

  it('gives numbers without gaps', async () => {
    expect([await nextCount(yard.db, 'x'), await nextCount(yard.db, 'x'), await nextCount(yard.db, 'y')]).toEqual([
      1, 2, 1,
    ]);
  });

  it('notices a line whose postings do not add up', async () => {
    const needId = await yard.need();
    await yard
      .db('need')
      .where({ id: needId })
      .update({ quantity: q(99) });
    expect(await findUnproven(yard.db)).toEqual({ needIds: [needId], splitIds: [] });
  });
});

type Step = {
  act: 'draft' | 'send' | 'receive' | 'takeBack' | 'bill' | 'callOff' | 'closeShort';
  which: number;
  share: number;
};
const step: fc.Arbitrary<Step> = fc.record({
  act: fc.constantFrom('draft', 'send', 'receive', 'takeBack', 'bill', 'callOff', 'closeShort'),
  which: fc.nat(20),
  share: fc.double({ min: 0.05, max: 1, noNaN: true }),
});

/** Tries a step against whatever is there; many are refused, and a refusal must change nothing either. */
async function tryStep(yard: TestCompany, needs: readonly number[], { act, which, share }: Step): Promise<void> {
  const pick = <T>(all: readonly T[]): T | undefined => all[which % Math.max(all.length, 1)];
  const [buyer, store, accounts] = [await yard.as('buyer'), await yard.as('storekeeper'), await yard.as('accounts')];
  const once = yard.once();
  if (act === 'draft') {
    const open = (await yard
      .db('need')
      .whereIn('id', [...needs])
      .where('open', '>', 0)
      .select('id', 'open')) as { id: number; open: number }[];
    const need = pick(open);
    const into = (await yard.db('purchaseOrder').where({ state: 'drafting' }).select({ orderId: 'id' }, 'version')) as {
      orderId: number;
      version: number;
    }[];
    if (need)
      await draftOrders(buyer, {
        once,
        into: which % 2 === 0 ? into.slice(0, 1) : [],
        picks: [{ needId: need.id, buy: Math.max(1, Math.round(need.open * share)) as never }],
      });
    return;
  }
  const order = pick((await yard.db('purchaseOrder').select('id')) as { id: number }[]);
  if (order === undefined) return;
  const now = await yard.order(order.id);
  const line = pick(now.lines);
  const ref = { once, orderId: now.id, version: now.version };
  const some = Math.max(1, Math.round((line?.quantity ?? 0) * share)) as never;
  if (act === 'send') await sendOrder(buyer, ref);
  if (act === 'callOff') await callOff(buyer, { ...ref, reason: 'no' });
  if (act === 'closeShort' && line) await closeShort(buyer, { ...ref, lineId: line.id, reason: 'no' });
  if (act === 'receive' && line)
    await receive(store, {
      ...ref,
      note: '',
      arrivals: [{ lineId: line.id, arrives: some, keepOver: which % 2 === 0 }],
    });
  if (act === 'takeBack') {
    const receipt = pick((await yard.db('receipt').where({ orderId: now.id }).select('id')) as { id: number }[]);
    if (receipt) await takeBack(store, { once, receiptId: receipt.id });
  }
  if (act === 'bill' && line) {
    const entered = await enterInvoice(accounts, {
      once,
      orderId: now.id,
      number: once,
      day: TODAY,
      typedTotal: 1,
      lines: [
        {
          lineId: line.id,
          quantity: some,
          price: Math.round((line.price ?? 0) * (0.8 + share / 2)) as never,
          taxCodeId: (which % 2) + 1,
        },
      ],
    });
    if (entered.status === 'done')
      await matchInvoice(accounts, { once: yard.once(), invoiceId: entered.value.id, version: 1, reason: 'passed' });
  }
}

describe('random histories through the actions', () => {
  it('keep both laws: every line is proven, and every job’s sums agree with its postings', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 6, maxLength: 22 }), async (steps) => {
        const yard = await TestCompany.open();
        try {
          const needs = [
            await yard.need({ quantity: 12.5, price: 7.77 }),
            await yard.need({ job: 1, quantity: 7, price: 3.33, item: yard.ids.items[0] }),
            await yard.need({ quantity: 9, item: yard.ids.items[0], price: null }),
          ];
          for (const s of steps) await tryStep(yard, needs, s);
          expect(await findUnproven(yard.db)).toEqual({ needIds: [], splitIds: [] });
          const kept = await loadJobLevels(yard.db, yard.ids.jobs);
          for (const id of yard.ids.jobs) {
            const summed = addLevels(await loadLevelsOn(yard.db, id, TODAY));
            expect(kept.get(id)?.amounts).toEqual(summed.amounts);
            expect(forecastOf(summed)).toBeGreaterThanOrEqual(0);
          }
          const documents = (await yard.db.raw(
            'select (select coalesce(sum(quantity),0) from receipt_split) as r, (select coalesce(sum(received),0) from split) as sr, (select coalesce(sum(amount),0) from invoice_split) as i, (select coalesce(sum(billed_amount),0) from split) as si',
          )) as Record<string, number>[];
          expect([documents[0]?.r, documents[0]?.i]).toEqual([documents[0]?.sr, documents[0]?.si]);
        } finally {
          await yard.close();
        }
      }),
      { numRuns: 12 },
    );
  });
});
