import JSZip from 'jszip';
import { simpleParser } from 'mailparser';
import { loadFileBytes, loadFilesFor, loadOrderData } from '@/queries/files';
import { loadFloorPaper } from '@/queries/floor';
import { previewEnding } from '@/queries/endings';
import { loadOrder } from '@/queries/order';
import { zip } from '@/formats/zip';
import { loadPaper } from '@/store/paper';
import type { Day } from '@/core/calendar/workdays';
import { must, q, refusedWith, TestCompany, TODAY } from '../../tests/support/company';
import { changeDraft, firstLine, orderInput } from '../../tests/support/typed';
import type { StoredOrder } from '@/store/orders';
import { chargeElsewhere } from './charging';
import { confirmOrder } from './confirming';
import { callOff, closeShort, draftAgain, openAgain } from './ending';
import { keepFile, sendWith, takeOutFile } from './files';
import { changeOrder } from './orders';
import { addPlace } from './places';
import { chooseCopies } from './people';
import { chaseOrder, sendOrder } from './sending';
import { saveSupplier } from './suppliers';
import { saveMailWords, saveTextBlocks } from './wording';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
  await yard.db('supplier').update({ carriage: 0 as never });
});
afterEach(() => yard.closeProven());

const draft = async (change: Parameters<TestCompany['need']>[0] = {}) =>
  yard.draft([{ needId: await yard.need(change), buy: q(change.quantity ?? 12) }]);
const again = (order: StoredOrder) => yard.order(order.id);
const buyer = () => yard.as('buyer');
const sender = async () => (await buyer()).actor;
const bytes = (text: string) => new TextEncoder().encode(text);

async function rename(order: StoredOrder, number: string) {
  const now = await again(order);
  const ref = { once: yard.once(), orderId: now.id, version: now.version, number };
  return changeOrder(await buyer(), { ...ref, ...orderInput(now) } as never);
}

describe('an order’s number', () => {
  it('is set by hand, and is always its own', async () => {
    const [one, two] = [await draft(), await draft()];
    expect(must(await rename(one, 'FRAMES-7')).number).toBe('FRAMES-7');
    expect(refusedWith(await rename(two, 'frames-7'))).toEqual(['order.number']);
    for (const wrong of ['a b', 'a/b', '', '../x', '#1', 'ü/1'])
      expect(refusedWith(await rename(two, wrong))).toEqual(['order.number']);
    expect((await again(one)).counted).toBeNull();
  });

  it('of the pattern is passed over where somebody took it, and a count given up is taken up where no gap may be', async () => {
    const one = await draft();
    must(await rename(one, 'K26-0003'));
    expect([(await draft()).number, (await draft()).number]).toEqual(['K26-0002', 'K26-0004']);
    await yard.db('company').update({ orderGaps: 'fill' });
    const five = await draft();
    must(await rename(five, 'BY-HAND'));
    expect([(await draft()).number, (await draft()).number]).toEqual(['K26-0005', 'K26-0006']);
  });

  it('names its job where the pattern says so', async () => {
    await yard.db('company').update({ orderPattern: '{job}-{000}' });
    expect((await draft()).number).toBe('412-001');
    const both = [await yard.need(), await yard.need({ job: 1 })];
    expect((await yard.draft(both.map((needId) => ({ needId, buy: q(1) })))).number).toBe('X-002');
  });
});

describe('where an order goes', () => {
  it('is a place of ours, of a customer, of a supplier, or one of its own; a line may go elsewhere', async () => {
    const order = await draft();
    const said = { name: 'Pier 4', address: 'Pier 4\nTown', instructions: 'by boat' };
    const once = must(await addPlace(await buyer(), { once: yard.once(), kept: { as: 'once' }, ...said }));
    const site = await addPlace(await buyer(), {
      once: yard.once(),
      kept: { as: 'site', jobId: yard.ids.jobs[0] },
      ...said,
      name: 'The slip',
    });
    must(
      await changeDraft(yard, order, (text) => {
        text.placeId = once.id;
        firstLine(text).placeId = must(site).id;
      }),
    );
    const paper = await loadPaper(yard.db, order.id, TODAY);
    expect([paper?.deliverTo.name, paper?.lines[0]?.notes]).toEqual(['Pier 4', ['Deliver to The slip, Pier 4, Town']]);
    const clash = { once: yard.once(), kept: { as: 'own' as const }, ...said, name: 'the slip' };
    expect(refusedWith(await addPlace(await buyer(), clash))).toEqual(['place.name']);
  });

  it('follows a supplier’s addresses, and one of a customer’s takes the place of the one before', async () => {
    const supplier = { name: 'Zinc Works', email: '', currency: 'GBP', address: 'Zinc Lane' };
    const addresses = [{ whatFor: 'collecting', address: 'Gate 2' }];
    const { id } = must(
      await saveSupplier(await buyer(), { once: yard.once(), id: null, version: 0, ...supplier, addresses }),
    );
    const places = () =>
      yard.db('deliveryPlace').where({ supplierId: id, closed: 0 }).orderBy('id').select('name', 'address');
    expect(await places()).toEqual([
      { name: 'Zinc Works', address: 'Zinc Lane' },
      { name: 'Zinc Works, collecting', address: 'Gate 2' },
    ]);
    must(await saveSupplier(await buyer(), { once: yard.once(), id, version: 1, ...supplier, address: 'New Lane' }));
    expect(await places()).toEqual([{ name: 'Zinc Works', address: 'New Lane' }]);
    const kept = { as: 'customer', customerId: 1, which: 'billing' } as const;
    for (const name of ['Old office', 'New office'])
      must(await addPlace(await buyer(), { once: yard.once(), kept, name, address: 'x', instructions: '' }));
    expect(await yard.db('deliveryPlace').where({ customerId: 1, closed: 0 }).select('name')).toEqual([
      { name: 'New office' },
    ]);
  });
});

describe('prices and charges', () => {
  it('carry a discount of the line to the tab, and keep the price before it', async () => {
    const order = await draft();
    must(await changeDraft(yard, order, (text) => (firstLine(text).discount = 1250)));
    const [line] = (await again(order)).lines;
    expect([line?.price, line?.grossPrice, line?.net, await yard.tab()]).toEqual([
      70_000,
      80_000,
      8400,
      { drafted: 8400 },
    ]);
    expect((await loadPaper(yard.db, order.id, TODAY))?.lines[0]?.price).toBe('8.00 less 12.5 %');
  });

  it('take a discount on the order, in pounds or as a share, with tax that cannot be recovered', async () => {
    await yard.db('supplier').update({ taxCodeId: 2 });
    const order = await draft();
    const discount = {
      kind: 'charge',
      itemId: null,
      description: 'Discount',
      ourNumber: '',
      theirNumber: '',
      quantity: q(1),
      unit: 'C62',
      priceQuantity: 1,
      free: false,
      note: '',
      placeId: null,
      chargeKind: 'discount',
      spread: 'value',
      taxCodeId: 2,
      wantedOn: '',
      chargeCodeId: null,
      splits: [],
    };
    must(
      await changeDraft(yard, order, (text) => text.lines.push({ ...discount, price: null, discount: 1000 } as never)),
    );
    expect([(await again(order)).net, await yard.tab()]).toEqual([8640, { drafted: 10_368 }]);
    must(await changeDraft(yard, await again(order), (text) => (firstLine(text).price = 100_000 as never)));
    expect((await again(order)).net).toBe(10_800);
  });

  it('ask whether nothing is meant', async () => {
    const order = await draft({ price: 0 });
    const send = async () =>
      sendOrder(await buyer(), { once: yard.once(), orderId: order.id, version: (await again(order)).version });
    expect(refusedWith(await send())).toEqual(['line.free']);
    must(await changeDraft(yard, order, (text) => (firstLine(text).free = true)));
    expect(must(await send()).came).toBe('taken');
    expect((await loadPaper(yard.db, order.id, TODAY))?.lines[0]?.price).toBe('free of charge');
  });
});

describe('a line of an order that was sent', () => {
  it('shows what closing it frees, and is opened again', async () => {
    await yard.budget(20_000);
    const order = await yard.send(await draft());
    must(await yard.takeIn(order, 5));
    const lineId = order.lines[0]?.id ?? 0;
    const [ahead] = (await previewEnding(yard.db, await sender(), order.number, { what: 'closeShort', lineId })) ?? [];
    const ref = async () => ({ once: yard.once(), orderId: order.id, version: (await again(order)).version, lineId });
    must(await closeShort(await buyer(), { ...(await ref()), reason: 'sold out' }));
    const closed = await yard.tab();
    expect([closed, ahead?.after.amounts.onOrder, ahead?.after.amounts.planned]).toEqual([
      { received: 4000, planned: 5600 },
      0,
      5600,
    ]);
    const [back] = (await previewEnding(yard.db, await sender(), order.number, { what: 'openAgain', lineId })) ?? [];
    must(await openAgain(await buyer(), { ...(await ref()), reason: 'found some' }));
    expect([await yard.tab(), back?.after.amounts.onOrder, (await again(order)).state]).toEqual([
      { onOrder: 5600, received: 4000 },
      5600,
      'partIn',
    ]);
    expect(refusedWith(await openAgain(await buyer(), { ...(await ref()), reason: 'x' }))).toEqual(['line.open']);
  });

  it('is charged to another job with all that came and was billed, and covers its buy list', async () => {
    const order = await yard.send(await draft({ item: yard.ids.items[0] }));
    must(await yard.takeIn(order, 5));
    const { id } = must(await yard.bill(await again(order), 5));
    must(await yard.match(id));
    const need = await yard.need({ job: 1, item: yard.ids.items[0], quantity: 20, price: 8 });
    const splits = [{ id: order.lines[0]?.splits[0]?.id ?? 0, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[1] }];
    const ref = {
      once: yard.once(),
      orderId: order.id,
      version: (await again(order)).version,
      reason: 'meant for 418',
    };
    must(await chargeElsewhere(await buyer(), { ...ref, splits }));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([
      { planned: 9600 },
      { planned: 6400, onOrder: 5600, actual: 4000 },
    ]);
    expect((await yard.db('need').where({ id: need }).first('open'))?.open).toBe(q(8));
  });

  it('takes unbilled carriage along, and leaves what is billed', async () => {
    await yard.db('supplier').update({ carriage: 2500 as never, carriageFreeFrom: null });
    const order = await yard.send(await draft());
    const move = async (jobId: number) => {
      const now = await again(order);
      const id = now.lines[0]?.splits[0]?.id ?? 0;
      const splits = [{ id, jobId, costCodeId: yard.ids.codes[1] }];
      const ref = { once: yard.once(), orderId: now.id, version: now.version };
      return chargeElsewhere(await buyer(), { ...ref, splits, reason: 'x' });
    };
    must(await move(yard.ids.jobs[1]));
    expect(await yard.tab(1)).toEqual({ onOrder: 12_100 });
    const carriage = (await again(order)).lines[1];
    const lines = [{ lineId: carriage?.id ?? 0, quantity: q(1), price: 250_000 as never, taxCodeId: 1 }];
    must(await yard.match(must(await yard.bill(order, 1, { lines, typedTotal: 3000 as never })).id));
    must(await move(yard.ids.jobs[0]));
    expect([await yard.tab(0), await yard.tab(1)]).toEqual([{ onOrder: 9600 }, { actual: 2500 }]);
  });

  it('is not charged elsewhere from a draft, out of stores, or apart from the lines it follows', async () => {
    await yard.db('supplier').update({ carriage: 2500 as never });
    const drafted = await draft();
    const attempt = async (order: StoredOrder, id: number) =>
      refusedWith(
        await chargeElsewhere(await buyer(), {
          once: yard.once(),
          orderId: order.id,
          version: order.version,
          splits: [{ id, jobId: yard.ids.jobs[1], costCodeId: yard.ids.codes[0] }],
          reason: 'x',
        }),
      );
    expect(await attempt(drafted, drafted.lines[0]?.splits[0]?.id ?? 0)).toEqual(['order.state']);
    const order = await yard.send(drafted);
    expect(await attempt(order, order.lines[1]?.splits[0]?.id ?? 0)).toEqual(['line.follows']);
    expect(await attempt(order, 9999)).toEqual(['missing']);
  });
});

describe('an order that was called off', () => {
  it('is drafted again while its lines are still to buy, and not once its supplier had it', async () => {
    const order = await draft();
    const off = async (of: StoredOrder) =>
      callOff(await buyer(), { once: yard.once(), orderId: of.id, version: (await again(of)).version, reason: 'x' });
    const back = async (of: StoredOrder) =>
      draftAgain(await buyer(), { orderId: of.id, version: (await again(of)).version });
    must(await off(order));
    must(await back(order));
    expect([(await again(order)).state, await yard.tab()]).toEqual(['drafting', { drafted: 9600 }]);
    must(await off(order));
    await yard.draft([{ needId: order.lines[0]?.splits[0]?.needId ?? 0, buy: q(12) }]);
    expect(refusedWith(await back(order))).toEqual(['need.open']);
    const out = await yard.send(await draft());
    must(await off(out));
    expect(refusedWith(await back(out))).toEqual(['order.sent']);
  });
});

describe('a supplier’s answer', () => {
  it('is written down line by line, and makes the order confirmed once every line is', async () => {
    const needs = [await yard.need(), await yard.need({ description: 'Clamp', price: 3 })];
    const order = await yard.send(await yard.draft(needs.map((needId) => ({ needId, buy: q(12) }))));
    const said = async (k: number, change: object = {}) =>
      confirmOrder(await buyer(), {
        once: yard.once(),
        orderId: order.id,
        version: (await again(order)).version,
        theirNumber: 'AB-77',
        note: '',
        lines: [
          {
            lineId: order.lines[k]?.id ?? 0,
            quantity: q(12),
            price: 85_000 as never,
            promisedOn: '2026-05-20',
            ...change,
          },
        ],
      });
    expect(must(await said(0)).state).toBe('sent');
    expect(must(await said(1)).state).toBe('confirmed');
    const after = await again(order);
    expect([after.theirNumber, after.lines[0]?.promisedOn, after.lines[0]?.confirmedPrice]).toEqual([
      'AB-77',
      '2026-05-20',
      85_000,
    ]);
    // What they ask is told, and moves nothing: it is for the buyer to revise.
    expect(await yard.tab()).toEqual({ onOrder: 13_200 });
    expect(refusedWith(await said(0, { promisedOn: '2026-04-01' }))).toEqual(['confirm.day']);
    expect(refusedWith(await said(0, { lineId: 9999 }))).toEqual(['missing']);
    expect(await yard.db('confirmation').where({ orderId: order.id })).toHaveLength(2);
    must(await callOff(await buyer(), { once: yard.once(), orderId: order.id, version: after.version, reason: 'x' }));
    expect(refusedWith(await said(0))).toEqual(['order.state']);
  });
});

describe('mails', () => {
  it('go to everybody who gets orders, with a copy to oneself and in one’s own words', async () => {
    const order = await draft();
    await yard.db('supplierContact').insert([
      { supplierId: 1, place: 1, name: 'Ann', email: 'ann@eelmoor.example', getsOrders: 1 },
      { supplierId: 1, place: 2, name: 'Bob', email: 'bob@eelmoor.example', getsOrders: 0 },
      { supplierId: 1, place: 3, name: 'Twin', email: 'ORDERS@eelmoor.example', getsOrders: 1 },
    ]);
    must(await chooseCopies(await buyer(), { copies: true }));
    const words = {
      supplierId: 1,
      kind: 'order' as const,
      subject: 'Order {number} for {supplier}',
      body: 'Hello {nobody}',
    };
    must(await saveMailWords(await buyer(), words));
    must(await saveMailWords(await buyer(), { ...words, supplierId: null, subject: 'Never' }));
    await yard.send(order);
    const mail = await simpleParser(yard.sent[0]?.raw ?? '');
    expect(yard.sent[0]?.to).toBe('ORDERS@eelmoor.example, ann@eelmoor.example, buyer@yard.example');
    expect([mail.subject, mail.text?.trim()]).toEqual([`Order ${order.number} for Eelmoor Metals`, 'Hello {nobody}']);
    expect([mail.to, mail.cc].map((a) => (Array.isArray(a) ? a[0] : a)?.text)).toEqual([
      'ORDERS@eelmoor.example, ann@eelmoor.example',
      'buyer@yard.example',
    ]);
    expect(refusedWith(await saveMailWords(await buyer(), { ...words, body: '' }))).toEqual(['mail.half']);
    must(await saveMailWords(await buyer(), { ...words, subject: '', body: '' }));
    expect(await yard.db('mailWords').select('supplierId')).toEqual([{ supplierId: null }]);
  });

  it('ask after what is owed, and leave the order as it is', async () => {
    const order = await yard.send(await draft({ neededOn: '2026-05-20' }));
    const late = await yard.as('buyer', '2026-06-20' as Day);
    expect(must(await chaseOrder(late, { once: yard.once(), orderId: order.id })).came).toBe('taken');
    const mail = await simpleParser(yard.sent.at(-1)?.raw ?? '');
    expect([mail.subject, mail.attachments]).toEqual([`Purchase order ${order.number}: when can we expect it?`, []]);
    expect(mail.text).toContain('- 12 m Hose, wanted Tue 19 May');
    expect((await again(order)).state).toBe('sent');
    must(await yard.takeIn(order, 12));
    expect(refusedWith(await chaseOrder(late, { once: yard.once(), orderId: order.id }))).toEqual(['order.in']);
    expect(refusedWith(await chaseOrder(late, { once: yard.once(), orderId: (await draft()).id }))).toEqual([
      'order.state',
    ]);
  });

  it('carry the data files that a supplier takes', async () => {
    await yard.db('supplier').update({ dataFiles: 'ubl,csv' });
    const order = await yard.send(await draft());
    const mail = await simpleParser(yard.sent[0]?.raw ?? '');
    expect(mail.attachments.map((a) => a.filename)).toEqual([
      `${order.number}.pdf`,
      `${order.number}.xml`,
      `${order.number}.csv`,
    ]);
    expect(mail.attachments[1]?.content.toString()).toContain(
      '<cbc:PayableAmount currencyID="GBP">115.20</cbc:PayableAmount>',
    );
    expect(mail.attachments[2]?.content.toString()).toContain('Hose');
    const view = await loadOrder(yard.db, await sender(), order.number, TODAY);
    expect(view?.documents.map((d) => d.name).sort()).toEqual(mail.attachments.map((a) => a.filename).sort());
    expect((await loadOrderData(yard.db, await sender(), order.number, 'ubl', TODAY))?.name).toBe(
      `${order.number}.xml`,
    );
  });

  it('leave no formula in the list that goes along', async () => {
    const order = await draft({ description: '=HYPERLINK("x")' });
    const csv = await loadOrderData(yard.db, await sender(), order.number, 'csv', TODAY);
    expect(csv?.bytes.toString()).toContain("'=HYPERLINK");
  });
});

describe('files', () => {
  const keep = async (change: object = {}) =>
    keepFile(await buyer(), {
      once: yard.once(),
      about: 'job',
      aboutId: yard.ids.jobs[0],
      name: 'frame.dxf',
      revision: 'C',
      bytes: bytes('SECTION'),
      ...change,
    });
  const along = async (order: StoredOrder, documentIds: number[]) =>
    sendWith(await buyer(), { orderId: order.id, version: (await again(order)).version, documentIds });

  it('go with an order: by name on its paper, in its mail and in one archive', async () => {
    const order = await draft();
    const { id } = must(await keep());
    must(await keep({ about: 'order', aboutId: order.id, name: 'cut list.csv', revision: '', bytes: bytes('a,b') }));
    const own = (await loadOrder(yard.db, await sender(), order.number, TODAY))?.files.map((f) => f.id) ?? [];
    must(await along(order, [...own, id]));
    expect((await loadPaper(yard.db, order.id, TODAY))?.goesWith).toEqual(['cut list.csv', 'frame.dxf (rev. C)']);
    await yard.send(await again(order));
    const mail = await simpleParser(yard.sent[0]?.raw ?? '');
    expect(mail.attachments.map((a) => [a.filename, a.content.toString().slice(0, 7)])).toEqual([
      [`${order.number}.pdf`, '%PDF-1.'],
      ['cut list.csv', 'a,b'],
      ['frame.dxf', 'SECTION'],
    ]);
    const read = await JSZip.loadAsync(zip((await loadFileBytes(yard.db, await sender(), order.number)) ?? []));
    expect(Object.keys(read.files).sort()).toEqual(['cut list.csv', 'frame.dxf']);
    expect(await yard.db('messageFile')).toHaveLength(3);
    expect(refusedWith(await along(order, []))).toEqual(['order.state']);
    const found = await loadFilesFor(yard.db, await sender(), order.number);
    expect(found?.map((f) => [f.about, f.files.length])).toEqual([
      ['order', 1],
      ['job', 1],
    ]);
  });

  it('that are missing stop the send, by name', async () => {
    const order = await draft();
    const { id } = must(await keep());
    must(await along(order, [id]));
    must(await takeOutFile(await buyer(), { documentId: id, out: true }));
    const send = async () =>
      sendOrder(await buyer(), { once: yard.once(), orderId: order.id, version: (await again(order)).version });
    const refused = await send();
    expect(refused).toMatchObject({ status: 'refused', refusals: [{ code: 'file.missing' }] });
    expect(JSON.stringify(refused)).toContain('frame.dxf (rev. C)');
    expect([(await again(order)).state, yard.sent]).toEqual(['drafting', []]);
    must(await takeOutFile(await buyer(), { documentId: id, out: false }));
    expect(must(await send()).came).toBe('taken');
  });

  it('are looked at before they are kept', async () => {
    expect(refusedWith(await keep({ name: 'run.exe', bytes: bytes('MZ') }))).toEqual(['file.program']);
    expect(refusedWith(await keep({ name: 'drawing.dxf', bytes: bytes('MZ\u0090') }))).toEqual(['file.program']);
    expect(refusedWith(await keep({ name: 'big.pdf', bytes: new Uint8Array(30 * 1024 * 1024) }))).toEqual([
      'file.large',
    ]);
    expect(refusedWith(await keep({ name: '..' }))).toEqual(['file.name']);
    expect(refusedWith(await keep({ aboutId: 9999 }))).toEqual(['missing']);
    expect(refusedWith(await along(await draft(), [9999]))).toEqual(['file.missing']);
    expect(await yard.db('document')).toEqual([]);
  });
});

describe('words on orders', () => {
  it('stand on those they are for', async () => {
    const blocks = [
      { words: 'For all', supplierId: null, jobKind: null },
      { words: 'For Pellam', supplierId: yard.ids.suppliers[1], jobKind: null },
      { words: 'For repairs', supplierId: null, jobKind: 'repair' as const },
      { words: 'For contracts', supplierId: null, jobKind: 'contract' as const },
    ];
    must(await saveTextBlocks(await buyer(), { blocks }));
    expect((await loadPaper(yard.db, (await draft()).id, TODAY))?.terms).toBe('For all\n\nFor repairs');
    expect((await loadPaper(yard.db, (await draft({ supplier: 1 })).id, TODAY))?.terms).toBe(
      'For all\n\nFor Pellam\n\nFor repairs',
    );
  });
});

describe('the slip for the shop floor', () => {
  it('says what is ordered, when it comes and where it goes, and no price', async () => {
    const order = await yard.send(await draft({ neededOn: '2026-05-20' }));
    must(await yard.takeIn(order, 5));
    await draft({ description: 'Clamp', quantity: 4 });
    await yard.need({ description: 'Seal', quantity: 2, supplier: null });
    const paper = await loadFloorPaper(yard.db, (await yard.as('storekeeper')).actor, '412', TODAY);
    expect(paper?.lines.map((l) => [l.description, l.quantity, l.from, l.order, l.comes, l.goesTo])).toEqual([
      ['Hose', '12 m', 'Eelmoor Metals', order.number, '5 m in, rest Tue 19 May 2026', 'Yard'],
      ['Clamp', '4 m', 'Eelmoor Metals', 'K26-0002', 'not sent yet', 'Yard'],
    ]);
    expect(paper?.open.map((l) => [l.description, l.from, l.comes])).toEqual([
      ['Seal', 'no supplier yet', 'needed no day yet'],
    ]);
    expect(JSON.stringify(paper)).not.toContain('8.00');
  });
});
