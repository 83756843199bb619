import { loadJobAsset } from '@/queries/jobs/assets';
import { must, refusedWith, TestCompany } from '../../../tests/support/company';
import { setAsset } from './assets';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const GEARBOX = { name: 'Gearbox', description: 'two-speed', serial: '88-412', notes: '' };
type Asset = Parameters<typeof setAsset>[1]['asset'];

const set = async (job: number, asset: Asset) => {
  const jobId = yard.ids.jobs[job] ?? 0;
  const { version } = (await yard.db('job').where({ id: jobId }).first('version'))!;
  return setAsset(await yard.as('lead'), { once: yard.once(), jobId, version, asset });
};
const of = async (job: number) => loadJobAsset(yard.db, (await yard.as('storekeeper')).actor, yard.ids.jobs[job] ?? 0);

describe('what a job works on', () => {
  it('is new, known to be the customer’s afterwards, and kept as it is changed', async () => {
    must(await set(0, { ...GEARBOX, id: null, version: 0 }));
    const { own } = await of(0);
    expect(own).toMatchObject({ ...GEARBOX, version: 1 });
    const customerId = (await yard.db('job').where({ id: yard.ids.jobs[0] }).first('customerId'))!.customerId;
    await yard.db('job').where({ id: yard.ids.jobs[1] }).update({ customerId });
    const { known } = await of(1);
    expect(known.map((a) => a.id)).toEqual([own?.id]);
    must(await set(1, { ...GEARBOX, notes: 'flange machined', id: own?.id ?? 0, version: 1 }));
    expect((await of(0)).own).toMatchObject({ notes: 'flange machined', version: 2 });
    expect(await set(0, { ...GEARBOX, id: own?.id ?? 0, version: 1 })).toMatchObject({ status: 'clash' });
    must(await set(0, null));
    expect((await of(0)).own).toBeNull();
  });

  it('is never another customer’s', async () => {
    must(await set(0, { ...GEARBOX, id: null, version: 0 }));
    const id = (await of(0)).own?.id ?? 0;
    const other = await yard.db('customer').insert({ name: 'Another' }).returning('id');
    await yard.db('job').where({ id: yard.ids.jobs[1] }).update({ customerId: other[0]?.id });
    expect((await of(1)).known).toEqual([]);
    expect(refusedWith(await set(1, { ...GEARBOX, id, version: 1 }))).toEqual(['missing']);
  });
});
