import { numbered, openDock, type Dock } from '../../../tests/support/dock';
import { must, q, type TestCompany, TODAY } from '../../../tests/support/company';
import { issueStock, returnIssue } from '@/actions/stores/issuing';
import { moveStock } from '@/actions/stores/moving';
import { returnGoods } from '@/actions/dock/sendingBack';
import { returnNotePdf } from '@/formats/pdf/returnNote';
import { insertOne } from '@/store/rows';
import { extractText, getDocumentProxy } from 'unpdf';
import { loadLabels, loadReturnPaper } from './papers';
import { loadLotWay } from '../stores/lotHistory';

let yard: TestCompany;
let dock: Dock;

beforeEach(async () => {
  ({ yard, dock } = await openDock());
});
afterEach(async () => yard.closeProven());

const keeper = async () => (await yard.as('storekeeper')).actor;

describe('labels of a receipt', () => {
  it('are one for each job, with its own part of what came, and where it lies', async () => {
    const [own, other] = [await dock.need(4, 0), await dock.need(3, 1)];
    const of = await dock.order({ needId: own, buy: q(4) }, { needId: other, buy: q(3) });
    const binId = await insertOne(yard.db, 'bin', { placeId: 1, name: 'A-02' });
    const came = must(await dock.take(of, 6, { binId }));
    const labels = await loadLabels(yard.db, await keeper(), came.id);
    expect(labels.map((l) => [l.whose, l.quantity, l.place, l.code])).toEqual([
      ['Job 412', '4 m', 'Yard, A-02', 'TU-1'],
      ['Job 418', '2 m', 'Yard, A-02', 'TU-1'],
    ]);
    expect(JSON.stringify(labels)).not.toMatch(/price|value|32\.00/);
  });

  it('are one for each piece that has a number', async () => {
    await dock.serial();
    const needId = await dock.pieces(2);
    const of = await dock.order({ needId, buy: q(2) });
    const came = must(await dock.take(of, 2, { numbers: numbered('SN-1', 'SN-2') }));
    const labels = await loadLabels(yard.db, await keeper(), came.id);
    expect(labels.map((l) => [l.code, l.quantity])).toEqual([
      ['SN-1', '1'],
      ['SN-2', '1'],
    ]);
  });
});

describe('a return note', () => {
  it('says what goes back, why, and what is awaited, without a price', async () => {
    const { order: of } = await dock.ordered(10);
    must(await dock.take(of, 10));
    const { version, lines } = await yard.order(of.id);
    const sent = must(
      await returnGoods(await yard.as('storekeeper'), {
        ...{ once: yard.once(), orderId: of.id, version, reason: 'bent', carrier: 'Parcel' },
        lines: [{ lineId: lines[0]?.id ?? 0, quantity: q(3), from: 'accepted', wants: 'credit' }],
      }),
    );
    const paper = await loadReturnPaper(yard.db, await keeper(), sent.id, TODAY);
    expect(paper).toMatchObject({ number: 'B-00001', order: of.number, reason: 'bent', carrier: 'Parcel' });
    expect(paper?.lines).toMatchObject([{ description: 'Tube', quantity: '3 m', awaited: 'credit note' }]);
    if (paper === undefined) throw new Error('There is no paper.');
    const pdf = await getDocumentProxy(new Uint8Array(await returnNotePdf(paper)));
    const { text } = await extractText(pdf, { mergePages: true });
    for (const words of ['Goods return note', 'B-00001', of.number, 'Reason for return: bent', '3 m', 'credit note'])
      expect(text).toContain(words);
    expect(text).not.toMatch(/£|8\.00|24\.00/);
  });

  it('is none of a delivery', async () => {
    const { order: of } = await dock.ordered(10);
    const came = must(await dock.take(of, 10));
    expect(await loadReturnPaper(yard.db, await keeper(), came.id, TODAY)).toBeUndefined();
  });
});

describe('the way of a serial number', () => {
  it('leads from its supplier to its job and back, in order', async () => {
    await dock.serial();
    const needId = await dock.pieces(1);
    const of = await dock.order({ needId, buy: q(1) });
    must(await dock.take(of, 1, { numbers: numbered('SN-1') }));
    const at = { itemId: dock.tube, placeId: 1, jobId: yard.ids.jobs[0], quantity: q(1), numbers: numbered('SN-1') };
    const binId = await insertOne(yard.db, 'bin', { placeId: 1, name: 'A-02' });
    const asKeeper = await yard.as('storekeeper');
    must(await moveStock(asKeeper, { once: yard.once(), ...at, toPlaceId: 1, toBinId: binId }));
    const { id } = must(await issueStock(asKeeper, { once: yard.once(), ...at, to: { needId } }));
    const lot = await yard.db('lot').first('id');
    const way = () => loadLotWay(yard.db, asKeeper.actor, lot?.id ?? 0);
    expect((await way())?.now).toBe('is with job 412');
    const back = { once: yard.once(), issueId: id, version: 1, quantity: q(1), reason: 'spare' };
    must(await returnIssue(asKeeper, { ...back, numbers: numbered('SN-1') }));
    const told = await way();
    expect(told?.now).toBe('is in stock at Yard, for job 412');
    expect(told?.events.map((e) => [e.what, e.quantity / 10_000, e.bin, e.job, e.supplier])).toEqual([
      ['received', 1, null, null, 'Eelmoor Metals'],
      ['moved', -1, null, null, null],
      ['moved', 1, 'A-02', null, null],
      ['issued', -1, 'A-02', '412', null],
      ['returned', 1, null, '412', null],
    ]);
  });
});
