import { must, q, refusedWith, TestCompany } from '../../../tests/support/company';
import { addOwnPlace, changeOwnPlace, retireOwnPlace } from './places';
import { countStock } from '../stores/counting';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const wren = () => yard.as('administrator');
const said = { name: 'Bay 4', address: 'Quay\nTown', instructions: 'Ring twice' };
const placeOf = async (name: string) => {
  const place = await yard.db('deliveryPlace').where({ name }).first();
  return { once: yard.once(), id: place?.id ?? 0, version: place?.version ?? 0 };
};

describe('a place of our own', () => {
  it('is added, changed, and offered no more, each in the history', async () => {
    must(await addOwnPlace(await wren(), { once: yard.once(), ...said }));
    expect(refusedWith(await addOwnPlace(await wren(), { once: yard.once(), ...said, name: 'bay 4' }))).toEqual([
      'place.name',
    ]);
    must(await changeOwnPlace(await wren(), { ...(await placeOf('Bay 4')), ...said, name: 'Bay 5' }));
    must(await retireOwnPlace(await wren(), { ...(await placeOf('Bay 5')), gone: true }));
    expect(await yard.db('deliveryPlace').where({ name: 'Bay 5' }).first()).toMatchObject({ closed: 1, version: 3 });
    const words = (await yard.db('audit').orderBy('id')).map((a) => a.words);
    expect(words).toEqual(['Added location Bay 4', 'Changed location Bay 4', 'Retired location Bay 5']);
  });

  it('stays while something lies there, and while it is the last', async () => {
    expect(refusedWith(await retireOwnPlace(await wren(), { ...(await placeOf('Yard')), gone: true }))).toEqual([
      'place.last',
    ]);
    must(await addOwnPlace(await wren(), { once: yard.once(), ...said }));
    const [, itemId] = yard.ids.items;
    const count = {
      itemId,
      placeId: (await placeOf('Yard')).id,
      jobId: null,
      quantity: q(3),
      value: 300,
      seen: q(0),
      reason: 'Counted',
    };
    must(await countStock(await yard.as('storekeeper'), { once: yard.once(), ...count } as never));
    expect(refusedWith(await retireOwnPlace(await wren(), { ...(await placeOf('Yard')), gone: true }))).toEqual([
      'place.stock',
    ]);
  });

  it('is changed from the version that stands, and nobody else’s is', async () => {
    const ref = await placeOf('Yard');
    must(await changeOwnPlace(await wren(), { ...ref, ...said }));
    expect(await changeOwnPlace(await wren(), { ...ref, once: yard.once(), ...said })).toMatchObject({
      status: 'clash',
    });
    await yard.db('deliveryPlace').update({ kind: 'customer' });
    expect(refusedWith(await changeOwnPlace(await wren(), { ...(await placeOf('Bay 4')), ...said }))).toEqual([
      'missing',
    ]);
  });
});
