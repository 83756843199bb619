import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import { ask, byRole, seen, setLadder, step, waitingFor } from '../../../tests/support/signing';
import { agreeBudgetChange, writeBudgetChange } from '../jobs/budgets';
import { saveLadder } from '../signoff/ladder';
import {
  requestSignOff,
  reassignSignOff,
  refuseSignOff,
  remindSigners,
  signOff,
  withdrawSignOff,
} from '../signoff/signOff';
import { changeInvoice, voidInvoice } from '../invoices/invoices';
import { changeNeeds } from '../buying/manyNeeds';
import { changeNeed } from '../buying/needs';
import { cancelOrder, closeShort, endInvoices } from './ending';
import { changeOrder, draftOrders, holdOrder, putBack } from './orders';
import { moveQuote } from '../quotes/quotes';
import { winQuote } from '../quotes/winning';
import { receive } from '../dock/receiving';
import { markSentByHand, sendOrder } from './sending';
import { saveItem } from '../items/items';
import { saveSupplier } from '../items/suppliers';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const OLD = 999;

/** Every row of every table in the file. */
async function everything(): Promise<Record<string, unknown[]>> {
  const tables = (await yard.db('sqlite_master').where({ type: 'table' }).select('name')) as { name: string }[];
  const rows: Record<string, unknown[]> = {};
  for (const { name } of tables) rows[name] = (await yard.db(name)) as unknown[];
  return rows;
}

/** Each change of a thing that carries a version, made from a version that no longer stands. */
describe('a stale version', () => {
  const drafted = async () => yard.draft([{ needId: await yard.need(), buy: q(12) }]);

  it.each([
    [
      'changing an order',
      async () => {
        const { id } = await drafted();
        const text = { placeId: 1, wantedOn: '', carrier: '', instructions: '', lines: [] };
        return async () =>
          changeOrder(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD, ...text });
      },
    ],
    [
      'holding an order open',
      async () => {
        const { id } = await drafted();
        return async () => holdOrder(await yard.as('buyer'), { orderId: id, version: OLD, hold: true });
      },
    ],
    [
      'putting lines back',
      async () => {
        const { id } = await drafted();
        return async () =>
          putBack(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD, needIds: [1] });
      },
    ],
    [
      'calling an order off',
      async () => {
        const { id } = await drafted();
        return async () =>
          cancelOrder(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD, reason: 'x' });
      },
    ],
    [
      'asking for sign-off',
      async () => {
        const { id } = await drafted();
        return async () => requestSignOff(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD });
      },
    ],
    [
      'setting the ladder',
      async () => async () =>
        saveLadder(await yard.as('administrator'), {
          ...{ once: yard.once(), version: OLD, steps: [], signToleranceShare: 0, signToleranceMost: 0 as never },
        }),
    ],
    [
      'agreeing a budget change',
      async () => {
        const lines = [{ costCodeId: yard.ids.codes[0], amount: 100 as never }];
        const said = { day: TODAY, reason: 'x', customerReference: '', agreedBy: '', quoteChange: null, lines };
        const lead = await yard.as('lead');
        const [jobId] = yard.ids.jobs;
        const { id } = must(await writeBudgetChange(lead, { once: yard.once(), jobId, agreed: false, ...said }));
        return async () => agreeBudgetChange(lead, { once: yard.once(), changeId: id, version: OLD });
      },
    ],
    [
      'sending an order',
      async () => {
        const { id } = await drafted();
        return async () => sendOrder(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD });
      },
    ],
    [
      'marking an order as sent by hand',
      async () => {
        const { id } = await drafted();
        return async () => markSentByHand(await yard.as('buyer'), { once: yard.once(), orderId: id, version: OLD });
      },
    ],
    [
      'closing a line short',
      async () => {
        const { id, lines } = await yard.send(await drafted());
        const input = { once: yard.once(), orderId: id, version: OLD, lineId: lines[0]?.id ?? 0, reason: 'x' };
        return async () => closeShort(await yard.as('buyer'), input);
      },
    ],
    [
      'taking a delivery in',
      async () => {
        const { id, lines } = await yard.send(await drafted());
        const arrivals = [{ lineId: lines[0]?.id ?? 0, arrives: q(1), keepOver: false }];
        return async () =>
          receive(await yard.as('storekeeper'), {
            once: yard.once(),
            orderId: id,
            version: OLD,
            note: '',
            arrivals,
          });
      },
    ],
    [
      'adding to a draft',
      async () => {
        const into = [{ orderId: (await drafted()).id, version: OLD }];
        const picks = [{ needId: await yard.need(), buy: q(1) }];
        return async () => draftOrders(await yard.as('buyer'), { once: yard.once(), picks, into });
      },
    ],
    [
      'choosing a supplier',
      async () => {
        const needs = [{ needId: await yard.need({ supplier: null }), version: OLD }];
        return async () => changeNeeds(await yard.as('buyer'), { needs, supplierId: yard.ids.suppliers[0] });
      },
    ],
    [
      'changing a need',
      async () => {
        const text = { description: 'Hose', unit: 'MTR', price: null, supplierId: null, neededOn: '' };
        const input = { needId: await yard.need(), version: OLD, quantity: q(1), costCodeId: 1, ...text };
        return async () => changeNeed(await yard.as('buyer'), input);
      },
    ],
    [
      'moving a quote',
      async () => async () => moveQuote(await yard.as('lead'), { quoteId: 1, version: OLD, to: 'lost' }),
    ],
    [
      'winning a quote',
      async () => async () =>
        winQuote(await yard.as('lead'), { once: yard.once(), quoteId: 1, version: OLD, wonBy: 'x' }),
    ],
    [
      'matching an invoice',
      async () => {
        const order = await yard.send(await drafted());
        const { id } = must(await yard.invoice(order, 1));
        return () => yard.match(id, 'x', 'accounts', OLD);
      },
    ],
    [
      'changing an invoice',
      async () => {
        const order = await yard.send(await drafted());
        const { id } = must(await yard.invoice(order, 1));
        const invoice = { number: 'B', day: '2026-05-12', typedTotal: 1 as never, lines: [yard.invoiced(order, 1)] };
        return async () =>
          changeInvoice(await yard.as('accounts'), { once: yard.once(), invoiceId: id, version: OLD, ...invoice });
      },
    ],
    [
      'taking an invoice out',
      async () => {
        const { id } = must(await yard.invoice(await yard.send(await drafted()), 1));
        const ref = { invoiceId: id, version: OLD, reason: 'x' };
        return async () => voidInvoice(await yard.as('accounts'), { once: yard.once(), ...ref });
      },
    ],
    [
      'ending invoices',
      async () => {
        const { id, lines } = await yard.send(await drafted());
        const ref = { orderId: id, version: OLD, lineId: lines[0]?.id ?? 0, reason: 'x' };
        return async () => endInvoices(await yard.as('accounts'), { once: yard.once(), ...ref });
      },
    ],
    [
      'saving a supplier',
      async () => {
        const money = { currency: 'GBP', carriage: 0 as never, carriageFreeFrom: null, taxCodeId: 1 };
        const text = { name: 'Eelmoor Metals', contact: '', email: '', address: '', carrier: '' };
        const input = { once: yard.once(), id: 1, version: OLD, paymentDays: 1, leadDays: 1, ...text, ...money };
        return async () => saveSupplier(await yard.as('buyer'), input);
      },
    ],
    [
      'saving an item',
      async () => {
        const text = { number: 'TU-1', name: 'Tube', unit: 'MTR', stocked: false, costCodeId: null, supplierId: null };
        return async () => saveItem(await yard.as('buyer'), { once: yard.once(), id: 1, version: OLD, ...text });
      },
    ],
  ])('is noticed when %s, and nothing is changed', async (_, prepare) => {
    const go = await prepare();
    const [before, sent] = [await everything(), yard.sent.length];
    expect((await go()).status).toBe('clash');
    expect([await everything(), yard.sent.length]).toEqual([before, sent]);
  });
});

describe('a stale version of what is signed', () => {
  it.each(['signing', 'refusing', 'handing on', 'taking back', 'reminding'] as const)('clashes at %s', async (name) => {
    must(await setLadder(yard, [step([byRole('manager')])]));
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    must(await ask(yard, order));
    const [row] = await waitingFor(yard, order.id);
    const ref = { once: yard.once(), orderId: order.id, version: OLD, signOffId: row?.id ?? 0, reason: 'x' };
    const [manager, buyer] = [await yard.as('manager'), await yard.as('buyer')];
    const acts = {
      signing: async () => signOff(manager, { ...ref, seen: await seen(yard, order.id) }),
      refusing: () => refuseSignOff(manager, ref),
      'handing on': () => reassignSignOff(manager, { ...ref, personId: 2 }),
      'taking back': () => withdrawSignOff(buyer, ref),
      reminding: () => remindSigners(buyer, ref),
    };
    const before = await everything();
    expect((await acts[name]()).status).toBe('clash');
    expect(await everything()).toEqual(before);
  });
});
