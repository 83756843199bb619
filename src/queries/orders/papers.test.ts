import { closeShort } from '@/actions/orders/ending';
import type { Minor } from '@/core/money/money';
import { loadPaper } from '@/workings/orders/paper';
import { insertMany } from '@/store/rows';
import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import { loadDockOrder } from '../dock/order';
import { findInvoiceable, listInvoices, loadInvoice, loadInvoiceForm } from '../invoices/invoices';
import { loadHistory } from '../company/history';
import { loadOrder, loadOrderForm } from './order';
import { loadShares } from './orders';
import { listMessages, loadDocument, loadMessage, loadRaw } from './outbox';
import { listPeople } from '../people/people';
import { listItems, loadItem } from '../items/items';
import { listSuppliers, loadSupplier } from '../items/suppliers';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const buyer = async () => (await yard.as('buyer')).actor;

async function sent() {
  return yard.send(await yard.draft([{ needId: await yard.need({ neededOn: '2026-05-20' }), buy: q(12) }]));
}

async function invoiced(typedTotal = 11_520) {
  const order = await sent();
  must(await yard.takeIn(order, 12));
  return { order, ...must(await yard.invoice(order, 12, { number: 'B-1', typedTotal: typedTotal as Minor })) };
}

describe('the paper of an order', () => {
  it('has all that a supplier needs', async () => {
    const order = await yard.draft([{ needId: await yard.need({ neededOn: '2026-05-20' }), buy: q(12) }]);
    const paper = await loadPaper(yard.db, order.id, TODAY);
    expect(paper).toMatchObject({
      number: 'K26-0001',
      draft: true,
      date: 'Tue 12 May 2026',
      company: { name: 'Test Yard', address: 'Quay\nTown' },
      supplier: { name: 'Eelmoor Metals' },
      deliverTo: { name: 'Yard' },
      wanted: 'Tue 19 May 2026',
      payment: '30 days from date of invoice',
      buyer: 'The buyer',
      currency: 'GBP',
    });
    expect(paper?.lines).toEqual([
      {
        number: 1,
        struck: false,
        description: 'Hose',
        ourNumber: '',
        theirNumber: '',
        quantity: '12 m',
        notes: [],
        price: '8.00',
        wanted: 'Tue 19 May 2026',
        net: '96.00',
      },
      {
        number: 2,
        struck: false,
        description: 'Carriage',
        ourNumber: '',
        theirNumber: '',
        quantity: '',
        price: '25.00',
        wanted: '',
        notes: [],
        net: '25.00',
      },
    ]);
    expect(paper?.totals.map((t) => [t.label, t.amount])).toEqual([
      ['Goods and services', '96.00'],
      ['Charges', '25.00'],
      ['Total excl. VAT', '121.00'],
      ['VAT 20 % on 121.00', '24.20'],
      ['Total incl. VAT', '£\u202f145.20'],
    ]);
  });

  it('is no draft any more as it is sent, and is there for no order', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(12) }]);
    expect((await loadPaper(yard.db, order.id, TODAY, true))?.draft).toBe(false);
    expect(await loadPaper(yard.db, 999, TODAY)).toBeUndefined();
  });

  it('says that a price is to be agreed', async () => {
    const order = await yard.draft([{ needId: await yard.need({ price: null }), buy: q(12) }]);
    expect((await loadPaper(yard.db, order.id, TODAY))?.lines[0]?.price).toBe('Price to be agreed');
  });
});

describe('an order’s page', () => {
  it('has its lines, jobs, receipts, invoices, papers and mail', async () => {
    const { order } = await invoiced();
    const view = await loadOrder(yard.db, await buyer(), order.number, TODAY);
    expect(view).toMatchObject({
      madeBy: 'The buyer',
      totals: { net: 12_100, gross: 14_520 },
      receipts: [{ number: 'R-00001', note: 'DN 1', who: 'The storekeeper', quantity: q(12) }],
      invoices: [{ number: 'B-1', state: 'entered' }],
      messages: [{ state: 'taken', recipient: 'orders@eelmoor.example' }],
      documents: [{ name: 'K26-0001.pdf' }],
      editable: false,
    });
    expect(view?.jobs.get(yard.ids.jobs[0])?.number).toBe('412');
    expect(await loadShares(yard.db, yard.ids.jobs[0], [order.id])).toEqual(new Map([[order.id, 12_100]]));
    expect(await loadOrder(yard.db, await buyer(), 'K26-9999', TODAY)).toBeUndefined();
  });

  it('tells its history, newest first', async () => {
    const { order } = await invoiced();
    const { rows: history } = await loadHistory(yard.db, await buyer(), { about: 'order', id: order.id });
    expect(history.map((h) => h.words.split(' ')[0])).toEqual([
      'Entered',
      'Received',
      'Sent',
      'Created',
      'Sending',
      'Drafted',
    ]);
  });

  it('offers taxes and what the supplier says of its parts', async () => {
    const { order } = await invoiced();
    const form = await loadOrderForm(yard.db, await buyer(), order, TODAY);
    expect(form.taxes).toHaveLength(2);
    expect(form.terms.map((t) => t.itemId)).toEqual(order.lines.flatMap((l) => l.itemId ?? []));
  });
});

describe('the dock’s page', () => {
  it('shows what is due for whom, and which receipts were taken back', async () => {
    const { order } = await invoiced();
    const keeper = (await yard.as('storekeeper')).actor;
    const view = await loadDockOrder(yard.db, keeper, order.number);
    expect(view?.lines).toMatchObject([
      { description: 'Hose', ordered: q(12), received: q(12), closed: false, for: [{ job: '412' }] },
    ]);
    expect(view?.receipts).toMatchObject([{ number: 'R-00001', back: 0 }]);
    expect(JSON.stringify(view)).not.toContain('price');
  });

  it('shows a line that nothing more comes of', async () => {
    const order = await sent();
    const input = {
      once: yard.once(),
      orderId: order.id,
      version: order.version,
      lineId: order.lines[0]?.id ?? 0,
      reason: 'x',
    };
    must(await closeShort(await yard.as('buyer'), input));
    expect((await loadDockOrder(yard.db, await buyer(), order.number))?.lines[0]?.closed).toBe(true);
  });
});

describe('invoices', () => {
  it('wait with what they differ by, and are found by number, supplier or order', async () => {
    await invoiced(12_000);
    const accounts = (await yard.as('accounts')).actor;
    const [row] = (await listInvoices(yard.db, accounts, {})).rows;
    expect(row).toMatchObject({
      number: 'B-1',
      supplier: 'Eelmoor Metals',
      order: 'K26-0001',
      state: 'held',
      differences: '+£\u202f4.80',
      gross: 11_520,
    });
    expect(row?.dueOn).toBe('2026-06-11');
    for (const words of ['B-1', 'eelmoor', 'K26-0001'])
      expect((await listInvoices(yard.db, accounts, { words })).rows).toHaveLength(1);
    expect((await listInvoices(yard.db, accounts, { show: 'matched' })).rows).toEqual([]);
  });

  it('tell who entered and who matched them', async () => {
    const { id } = await invoiced();
    must(await yard.match(id, '', 'buyer'));
    const view = await loadInvoice(yard.db, await buyer(), id);
    expect(view).toMatchObject({
      enteredBy: 'The accounts',
      matchedBy: 'The buyer',
      differs: false,
      invoice: { state: 'matched' },
    });
  });

  it('are entered beside ordered, received and invoiced before', async () => {
    const { order } = await invoiced();
    const form = await loadInvoiceForm(yard.db, await buyer(), order.number);
    expect(form?.lines.map((l) => [l.line.description, l.received, l.elsewhere, l.expected])).toEqual([
      ['Hose', q(12), q(12), q(0)],
      ['Carriage', q(0), q(0), q(1)],
    ]);
    expect((await findInvoiceable(yard.db, await buyer(), 'eelm')).map((o) => o.number)).toEqual([order.number]);
    expect(await findInvoiceable(yard.db, await buyer(), 'pellam')).toEqual([]);
  });
});

describe('the outbox', () => {
  it('has each message with its answer, its body and its paper', async () => {
    await sent();
    const person = await buyer();
    const [row] = (await listMessages(yard.db, person)).rows;
    expect(row).toMatchObject({
      order: 'K26-0001',
      recipient: 'orders@eelmoor.example',
      state: 'taken',
      answer: '250 taken',
      who: 'The buyer',
    });
    const message = await loadMessage(yard.db, person, row?.id ?? 0);
    expect(message?.body).toContain('Please find attached our purchase order K26-0001');
    expect((await loadRaw(yard.db, person, row?.id ?? 0))?.equals(yard.sent[0]?.raw ?? Buffer.alloc(0))).toBe(true);
    expect((await loadDocument(yard.db, person, message?.documentId ?? 0))?.bytes.subarray(0, 5).toString()).toBe(
      '%PDF-',
    );
    expect(await loadMessage(yard.db, person, 999)).toBeUndefined();
  });

  it('is kept from who may not see money', async () => {
    await sent();
    const keeper = (await yard.as('storekeeper')).actor;
    for (const look of [
      listMessages(yard.db, keeper),
      loadMessage(yard.db, keeper, 1),
      loadRaw(yard.db, keeper, 1),
      loadDocument(yard.db, keeper, 1),
    ]) {
      await expect(look).rejects.toThrow('You don’t have permission to see prices and budgets.');
    }
  });
});

describe('suppliers, items and people', () => {
  it('show what is on order and what is left to buy', async () => {
    await sent();
    await yard.need({ supplier: 1 });
    const { rows } = await listSuppliers(yard.db, await buyer());
    expect(rows.map((s) => [s.name, s.openOrders, s.onOrder, s.toBuy])).toEqual([
      ['Eelmoor Metals', 1, 12_100, 0],
      ['Pellam Bearings', 0, 0, 1],
    ]);
    expect((await listSuppliers(yard.db, await buyer(), { words: 'pell' })).rows.map((s) => s.name)).toEqual([
      'Pellam Bearings',
    ]);
    expect((await loadSupplier(yard.db, await buyer(), 1, TODAY))?.orders).toMatchObject([
      { number: 'K26-0001', net: 12_100 },
    ]);
  });

  it('show how a supplier sells an item', async () => {
    const part = { supplierId: 1, itemId: 1, unit: 'MTR', theirNumber: '88', pack: 50_000 };
    await insertMany(yard.db, 'supplierPart', [part]);
    await insertMany(yard.db, 'priceBreak', [{ partId: 1, fromQuantity: 0, price: 98_500 }]);
    expect((await loadSupplier(yard.db, await buyer(), 1, TODAY))?.parts).toMatchObject([
      { number: 'TU-1', price: 98_500, pack: 50_000, breaks: 1 },
    ]);
    expect((await loadItem(yard.db, await buyer(), 1, TODAY))?.parts[0]?.terms).toMatchObject({
      unit: 'MTR',
      pack: 50_000,
      prices: [{ price: 98_500 }],
    });
    expect((await listItems(yard.db, await buyer(), TODAY, { words: 'tub' })).rows.map((i) => i.number)).toEqual([
      'TU-1',
    ]);
    const down = await listItems(yard.db, await buyer(), TODAY, { sort: '-number' });
    expect(down.rows.map((i) => i.number)).toEqual([...down.rows.map((i) => i.number)].sort().reverse());
  });

  it('show people to the administrator only', async () => {
    expect(await listPeople(yard.db, (await yard.as('administrator')).actor)).toHaveLength(6);
    await expect(listPeople(yard.db, await buyer())).rejects.toThrow(
      'You don’t have permission to manage people and settings.',
    );
  });
});
