import { must, refusedWith, TestCompany } from '../../../tests/support/company';
import { findPerson } from '@/store/people';
import { addPerson, changePerson, setActive } from './people';
import { saveSupplier } from '../items/suppliers';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

describe('people, suppliers and items', () => {
  it('are added by who may, with an address of their own', async () => {
    const input = {
      once: yard.once(),
      name: 'Kit Marl',
      email: 'kit@yard.example',
      roles: ['buyer' as const],
      password: 'ten letters at least',
    };
    expect(refusedWith(await addPerson(await yard.as('buyer'), input))).toEqual(['right']);
    must(await addPerson(await yard.as('administrator'), input));
    expect(refusedWith(await addPerson(await yard.as('administrator'), { ...input, once: yard.once() }))).toEqual([
      'person.email',
    ]);
  });

  it('change, and are let in no more; the last administrator stays', async () => {
    const admin = await yard.as('administrator');
    const me = { personId: admin.actor.id, version: 1 };
    expect(refusedWith(await setActive(admin, { ...me, active: false }))).toEqual(['person.last']);
    expect(refusedWith(await changePerson(admin, { ...me, name: 'A', roles: ['buyer'] }))).toEqual(['person.last']);
    const buyer = { personId: (await yard.as('buyer')).actor.id, version: 1 };
    must(await changePerson(admin, { ...buyer, name: 'Ann', roles: ['administrator', 'field', 'field'] }));
    expect((await yard.as('buyer')).actor).toMatchObject({ name: 'Ann', roles: ['administrator', 'field'] });
    must(await changePerson(admin, { ...me, name: 'A', roles: ['buyer'] }));
    expect(await findPerson(yard.db, admin.actor.id)).toMatchObject({ roles: ['buyer'] });
    const storekeeper = { personId: (await yard.as('storekeeper')).actor.id, version: 1 };
    const ann = await yard.as('buyer');
    must(await setActive(ann, { ...storekeeper, active: false }));
    expect(await findPerson(yard.db, storekeeper.personId)).toBeUndefined();
    must(await setActive(ann, { ...storekeeper, version: 2, active: true }));
    expect(refusedWith(await setActive(ann, { ...storekeeper, version: 3, active: true }))).toEqual(['person.active']);
  });

  const supplier = {
    id: null,
    version: 0,
    name: 'Cobb & Tiller',
    contact: '',
    email: 'shop@cobb.example',
    address: '',
    currency: 'GBP',
    rate: 1_000_000,
    paymentDays: 30,
    leadDays: 2,
    carriage: 0 as never,
    carriageFreeFrom: null,
    taxCodeId: 1,
    carrier: '',
  };
  it.each([
    ['twice by name', { name: 'eelmoor metals' }, 'supplier.name'],
    ['with no address', { email: 'nowhere' }, 'input'],
    ['with half a day', { leadDays: 1.5 }, 'input'],
    ['with an unknown currency', { currency: 'XQQ' }, 'input'],
  ])('refuses a supplier %s', async (_, change, code) =>
    expect(
      refusedWith(await saveSupplier(await yard.as('buyer'), { once: yard.once(), ...supplier, ...change })),
    ).toEqual([code]),
  );

  it('shows a clash when two people change one supplier', async () => {
    const { id } = must(await saveSupplier(await yard.as('buyer'), { once: yard.once(), ...supplier }));
    must(
      await saveSupplier(await yard.as('buyer'), { once: yard.once(), ...supplier, id, version: 1, contact: 'Ann' }),
    );
    expect(
      await saveSupplier(await yard.as('manager'), { once: yard.once(), ...supplier, id, version: 1, contact: 'Bob' }),
    ).toMatchObject({ status: 'clash', theirs: { version: 2 } });
  });
});
