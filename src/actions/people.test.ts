import { must, refusedWith, TestCompany, TODAY } from '../../tests/support/company';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findCompany } from '@/store/company';
import { open } from '@/store/connection';
import { addPerson, foundCompany, hashPassword, signIn } from './people';
import { saveItem, saveSupplier } from './suppliers';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const at = (minute: number) => ({
  today: () => TODAY,
  now: () => `${TODAY}T10:${String(minute).padStart(2, '0')}:00.000Z`,
});
const tried = async (password: string, minute: number, email = 'buyer@yard.example') => {
  const result = await signIn(yard.db, at(minute), { email, password });
  return result.ok ? result.value.name : result.refusals[0]?.code;
};

describe('signing in', () => {
  beforeEach(
    async () =>
      void (await yard
        .db('person')
        .where({ email: 'buyer@yard.example' })
        .update({ passwordHash: await hashPassword('a long password') })),
  );

  it('takes the right password, whatever the case of the address', async () =>
    expect(await tried('a long password', 0, 'Buyer@Yard.Example')).toBe('The buyer'));
  it('answers alike for a wrong password and an unknown address', async () =>
    expect([await tried('wrong', 0), await tried('wrong', 0, 'nobody@yard.example')]).toEqual([
      'signIn.wrong',
      'signIn.wrong',
    ]));
  it('lets nobody in who is no longer active', async () => {
    await yard.db('person').update({ active: 0 });
    expect(await tried('a long password', 0)).toBe('signIn.wrong');
  });
  it('makes an address wait after six failures, also with the right password, and only for a while', async () => {
    for (let k = 0; k < 6; k += 1) await tried('wrong', k);
    expect([await tried('a long password', 6), await tried('a long password', 30)]).toEqual([
      'signIn.wait',
      'The buyer',
    ]);
  });
  it('starts counting anew after a success', async () => {
    for (let k = 0; k < 5; k += 1) await tried('wrong', k);
    await tried('a long password', 5);
    expect([await tried('wrong', 6), await tried('a long password', 7)]).toEqual(['signIn.wrong', 'The buyer']);
  });
  it('keeps no password as it is', async () =>
    expect(await hashPassword('a long password')).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/));
});

describe('an empty file', () => {
  const input = {
    company: 'New Works',
    address: 'Lane 1',
    companyEmail: 'buying@new.example',
    currency: 'gbp',
    costCodes: '01 Materials\n09 Freight and sundries\n',
    owner: 'Ann Owner',
    email: 'ann@new.example',
    password: 'ten letters at least',
  };
  it('is set up with company, cost codes and owner, once', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const { db } = await open(join(folder, 'new.sqlite'));
    await foundCompany(db, input);
    expect(await findCompany(db)).toMatchObject({ name: 'New Works', currency: 'GBP', freightCodeId: 2 });
    expect((await signIn(db, at(0), { email: 'ann@new.example', password: input.password })).ok).toBe(true);
    expect(await foundCompany(db, input)).toMatchObject({ refusals: [{ code: 'founding.done' }] });
    await db.destroy();
    rmSync(folder, { recursive: true });
  });
  it.each([
    ['currency', { currency: 'pounds' }],
    ['password', { password: 'short' }],
    ['email', { email: 'nobody' }],
    ['company', { company: '' }],
  ])('is not set up with a bad %s', async (field, change) => {
    const folder = mkdtempSync(join(tmpdir(), 'kettle-test-'));
    const { db } = await open(join(folder, 'new.sqlite'));
    expect(await foundCompany(db, { ...input, ...change })).toMatchObject({ refusals: [{ field }] });
    expect(await findCompany(db)).toBeUndefined();
    await db.destroy();
    rmSync(folder, { recursive: true });
  });
});

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
    ).toMatchObject({ status: 'clash', theirs: { contact: 'Ann' } });
  });

  it('keeps how a supplier sells an item', async () => {
    const part = {
      supplierId: yard.ids.suppliers[0],
      theirNumber: '88',
      unit: 'XRL',
      factorMany: 60,
      factorOne: 1,
      minimum: 0 as never,
      pack: 10_000 as never,
      breaks: [{ fromQuantity: 0 as never, price: 1_770_000 as never, priceQuantity: 1 }],
    };
    const { id } = must(
      await saveItem(await yard.as('buyer'), {
        once: yard.once(),
        id: null,
        version: 0,
        number: 'CA-9',
        name: 'Cable',
        unit: 'MTR',
        stocked: true,
        costCodeId: null,
        supplierId: yard.ids.suppliers[0],
        part,
      }),
    );
    expect(await yard.db('priceBreak').select('price')).toEqual([{ price: 1_770_000 }]);
    expect(
      refusedWith(
        await saveItem(await yard.as('buyer'), {
          once: yard.once(),
          id: null,
          version: 0,
          number: 'ca-9',
          name: 'Other',
          unit: 'MTR',
          stocked: false,
          costCodeId: null,
          supplierId: null,
          part: null,
        }),
      ),
    ).toEqual(['item.number']);
    expect(id).toBeGreaterThan(0);
  });
});
