import JSZip from 'jszip';
import { simpleParser } from 'mailparser';
import { loadFileBytes, loadFilesFor, loadOrderData } from '@/queries/company/files';
import { loadFloorPaper } from '@/queries/jobs/materialSheet';
import { loadOrder } from '@/queries/orders/order';
import { zip } from '@/formats/zip';
import { loadPaper } from '@/workings/orders/paper';
import type { Day } from '@/core/calendar/workdays';
import { must, q, refusedWith, TestCompany, TODAY } from '../../../tests/support/company';
import type { StoredOrder } from '@/store/orders';
import { markLine } from '../dock/lineMarks';
import { keepFile, sendWith, removeFile } from '../company/files';
import { chooseMail } from '../people/people';
import { loadChase } from '@/queries/orders/chasing';
import { chaseOrder, sendOrder } from './sending';
import { saveMailWords, saveTextBlocks } from '../company/wording';

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

describe('mails', () => {
  it('go to everybody who gets orders, with a copy to oneself and in one’s own words', async () => {
    const order = await draft();
    await yard.db('supplierContact').insert([
      { supplierId: 1, place: 1, name: 'Ann', email: 'ann@eelmoor.example', getsOrders: 1 },
      { supplierId: 1, place: 2, name: 'Bob', email: 'bob@eelmoor.example', getsOrders: 0 },
      { supplierId: 1, place: 3, name: 'Twin', email: 'ORDERS@eelmoor.example', getsOrders: 1 },
    ]);
    must(await chooseMail(await buyer(), { of: 'copies', on: true }));
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
    const read = async (day: Day) => loadChase(yard.db, late.actor, order.number, day);
    const before = await read('2026-06-20' as Day);
    expect(must(await chaseOrder(late, { once: yard.once(), orderId: order.id })).came).toBe('taken');
    const mail = await simpleParser(yard.sent.at(-1)?.raw ?? '');
    expect([mail.subject, mail.attachments]).toEqual([`Purchase order ${order.number}: delivery date?`, []]);
    expect(mail.text).toContain('- 12 m Hose, required by Tue 19 May');
    // What was read before is what went.
    expect(before).toMatchObject({ subject: mail.subject, recipients: [yard.sent.at(-1)?.to] });
    expect('body' in (before ?? {}) && (before as { body: string }).body.trim()).toBe(mail.text?.trim());
    expect((await again(order)).state).toBe('sent');
    must(await yard.takeIn(order, 12));
    expect(refusedWith(await chaseOrder(late, { once: yard.once(), orderId: order.id }))).toEqual(['order.in']);
    expect(await read(TODAY)).toEqual({ refused: `Order ${order.number} is fully received: nothing to chase.` });
    await expect(loadChase(yard.db, (await yard.as('storekeeper')).actor, order.number, TODAY)).rejects.toThrow();
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

describe('certificates', () => {
  it('are asked for on paper and in data: of what always comes with one, and of a line that is marked', async () => {
    const item = { item: 1, description: 'Tube' };
    const order = await yard.draft([
      { needId: await yard.need(item), buy: q(12) },
      { needId: await yard.need({ description: 'Plate, cut' }), buy: q(1) },
      { needId: await yard.need({ description: 'Bolts' }), buy: q(4) },
    ]);
    await yard.db('item').where({ id: 1 }).update({ certificate: 1 });
    const plate = order.lines.find((l) => l.description === 'Plate, cut');
    await yard.db('orderLine').where({ id: plate?.id }).update({ note: 'no burrs' });
    must(await markLine(await yard.as('storekeeper'), { lineId: plate?.id ?? 0, inspected: false, certificate: true }));
    const asked = { Tube: ['Certificate required'], 'Plate, cut': ['no burrs · Certificate required'], Bolts: [] };
    const paper = await loadPaper(yard.db, order.id, TODAY);
    expect(Object.fromEntries((paper?.lines ?? []).map((l) => [l.description, l.notes]))).toEqual(asked);
    const file = await loadOrderData(yard.db, await sender(), order.number, 'csv', TODAY);
    expect(new TextDecoder().decode(file?.bytes).match(/Certificate required/g)).toHaveLength(2);
    // What is kept is the note alone.
    expect((await again(order)).lines.map((l) => l.note)).toEqual(['', 'no burrs', '']);
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
    must(await removeFile(await buyer(), { documentId: id, out: true }));
    const send = async () =>
      sendOrder(await buyer(), { once: yard.once(), orderId: order.id, version: (await again(order)).version });
    const refused = await send();
    expect(refused).toMatchObject({ status: 'refused', refusals: [{ code: 'file.missing' }] });
    expect(JSON.stringify(refused)).toContain('frame.dxf (rev. C)');
    expect([(await again(order)).state, yard.sent]).toEqual(['drafting', []]);
    must(await removeFile(await buyer(), { documentId: id, out: false }));
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
      ['Hose', '12 m', 'Eelmoor Metals', order.number, '5 m received, rest Tue 19 May 2026', 'Yard'],
      ['Clamp', '4 m', 'Eelmoor Metals', 'K26-0002', 'not sent yet', 'Yard'],
    ]);
    expect(paper?.open.map((l) => [l.description, l.from, l.comes])).toEqual([
      ['Seal', 'no supplier yet', 'no date yet'],
    ]);
    expect(JSON.stringify(paper)).not.toContain('8.00');
  });
});
