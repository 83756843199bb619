import { must, q, refusedWith, TestCompany } from '../../../tests/support/company';
import { numbered, spotsIn } from '../../../tests/support/dock';
import { readCountFile } from '@/queries/stores/countFile';
import { insertOne } from '@/store/rows';
import { takeCounts } from './counting';

let yard: TestCompany;
let tube: number;
beforeEach(async () => {
  yard = await TestCompany.open();
  tube = yard.ids.items[0];
});
afterEach(() => yard.closeProven());

const pile = () => yard.db('stockSum').where({ itemId: tube, placeId: 1, jobId: 0 }).first('quantity', 'value');

describe('a file that counts bin by bin', () => {
  const itemFile = async (...rows: string[]) => {
    const { number } = (await yard.db('item').where({ id: tube }).first('number'))!;
    const keeper = await yard.as('manager');
    const text = ['Item,Bin,Serial number,Quantity,Value', ...rows.map((r) => `${number},${r}`)].join('\n');
    const read = await readCountFile(yard.db, keeper.actor, Buffer.from(text));
    if (!read.ok) throw new Error('not read');
    return {
      told: read.value,
      take: async () => takeCounts(keeper, { once: yard.once(), rows: [...read.value.taken] }),
    };
  };
  const spots = () => spotsIn(yard.db);

  beforeEach(async () => {
    for (const name of ['A-1', 'A-2']) await insertOne(yard.db, 'bin', { placeId: 1, name });
  });

  it('puts each bin right, and leaves what lies in the others, and what it is worth', async () => {
    const opening = await itemFile('A-1,,6,60', 'A-2,,4,50');
    expect(opening.told).toMatchObject({ moved: 1, value: 11_000 });
    must(await opening.take());
    expect([await spots(), await pile()]).toEqual([
      [
        [0, 'A-1', null, 6],
        [0, 'A-2', null, 4],
      ],
      { quantity: q(10), value: 11_000 },
    ]);
    // Five in A-2, worth 70.00; the six in A-1 keep the 66.00 of their average.
    const later = await itemFile('A-2,,5,70');
    expect(later.told).toMatchObject({ value: 2600, counts: [{ before: q(4), after: q(5) }] });
    must(await later.take());
    expect(await pile()).toEqual({ quantity: q(11), value: 13_600 });
    expect(refusedWith(await later.take())).toEqual(['stores.moved']);
  });

  it('counts nothing twice, whoever asks for it', async () => {
    must(await (await itemFile('A-1,,6,60')).take());
    const asked = async (...parts: readonly object[]) =>
      takeCounts(await yard.as('manager'), {
        once: yard.once(),
        rows: [{ itemId: tube, placeId: 1, value: null, keep: null, reason: 'twice', parts: parts as never }],
      });
    const bins = await yard.db('bin').orderBy('name').select('id');
    const none = { seen: q(6), quantity: 0 };
    expect(refusedWith(await asked({ binId: bins[0]?.id, ...none }, { binId: bins[0]?.id, ...none }))).toEqual([
      'stores.twice',
    ]);
    expect(refusedWith(await asked({ binId: bins[0]?.id, ...none }, none))).toEqual(['stores.twice']);
    await yard.db('item').where({ id: yard.ids.items[1] }).update({ tracking: 'serial', unit: 'C62' });
    const found = (k: number) => ({ binId: bins[k]?.id, seen: 0, quantity: q(1), numbers: numbered('SN-9') });
    const serials = await takeCounts(await yard.as('manager'), {
      once: yard.once(),
      rows: [
        {
          ...{ itemId: yard.ids.items[1], placeId: 1, value: null, keep: null, reason: 'twice' },
          parts: [found(0), found(1)],
        },
      ],
    });
    expect(refusedWith(serials)).toEqual(['numbers.twice']);
  });

  it('takes no serial number that lies in another bin, and says where it is', async () => {
    await yard.db('item').where({ id: tube }).update({ tracking: 'serial', unit: 'C62' });
    must(await (await itemFile('A-1,SN-1,1,40', 'A-2,SN-2,1,60')).take());
    expect((await itemFile('A-2,SN-1,1,')).told).toMatchObject({ moved: 0, value: null });
    expect(await (await itemFile('A-2,SN-1,1,')).take()).toMatchObject({
      refusals: [{ code: 'numbers.elsewhere', message: expect.stringContaining('SN-1 is in stock at') }],
    });
    must(await (await itemFile('A-2,SN-2,1,80')).take());
    expect([await spots(), await pile()]).toEqual([
      [
        [0, 'A-1', 'SN-1', 1],
        [0, 'A-2', 'SN-2', 1],
      ],
      { quantity: q(2), value: 12_000 },
    ]);
  });
});
