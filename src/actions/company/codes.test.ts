import { loadSupplierForm } from '@/queries/items/suppliers';
import { loadRecord, loadHistory } from '@/queries/company/history';
import { listChoices, nameChoices } from '@/queries/frame/choices';
import { loadOfferedTaxes } from '@/store/company';
import { offeredJobNumber } from '@/store/numbers';
import { UNITS } from '@/core/quantity/units';
import { must, q, TestCompany, TODAY } from '../../../tests/support/company';
import {
  addCostCodes,
  addTax,
  changeCostCode,
  changeTax,
  chooseFreightCode,
  chooseUnits,
  retireCostCode,
  retireTax,
} from './codes';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.closeProven());

const wren = () => yard.as('administrator');
const codeOf = async (code: string) => {
  const row = await yard.db('costCode').where({ code }).first();
  if (row === undefined) throw new Error(`There is no cost code ${code}.`);
  return { once: yard.once(), id: row.id, version: row.version };
};
const taxOf = async (id: number) => {
  const row = await yard.db('taxCode').where({ id }).first();
  if (row === undefined) throw new Error(`There is no tax ${id}.`);
  const { version, name, category, rate, recoverable } = row;
  return { ref: { once: yard.once(), id, version }, tax: { name, category, rate, recoverable } };
};
const lastRecord = async () => {
  const { actor } = await wren();
  const [row] = (await loadHistory(yard.db, actor, { about: 'company' })).rows;
  return loadRecord(yard.db, actor, row?.id ?? 0);
};
const offered = async () =>
  (await listChoices(yard.db, (await wren()).actor, 'costCode', '', TODAY)).map((t) => t.number);

describe('cost codes', () => {
  it('are added from lines, each a number and a name', async () => {
    expect(
      must(await addCostCodes(await wren(), { once: yard.once(), lines: '20 Rigging\n\n 21  Sails and covers ' })),
    ).toEqual({ added: 2 });
    expect(await yard.db('costCode').where({ code: '21' }).first('name')).toEqual({ name: 'Sails and covers' });
    expect((await lastRecord())?.words).toBe('Added cost code 20 Rigging and 21 Sails and covers');
  });

  it.each([
    ['no name', '20'],
    ['a number twice', '20 Rigging\n20 Sails'],
    ['a number that is there', '01 Rigging'],
    ['a number that is too long', '123456789 Rigging'],
    ['(empty)', ' \n'],
    ['9,000 letters', 'x'.repeat(9000)],
  ])('are not added with %s, not even in part', async (_, lines) => {
    const before = await yard.db('costCode');
    expect(
      await addCostCodes(await wren(), { once: yard.once(), lines: `30 Paint\n${lines}`.replace('30 Paint\n \n', '') }),
    ).toMatchObject({ status: 'refused' });
    expect(await yard.db('costCode')).toEqual(before);
  });

  it('change their number and name, and keep what is charged to them', async () => {
    await yard.need();
    const before = await yard.db('codeSum');
    must(await changeCostCode(await wren(), { ...(await codeOf('01')), code: '1A', name: 'Hull and deck' }));
    expect(await yard.db('codeSum')).toEqual(before);
    expect((await lastRecord())?.changes).toEqual([
      { what: 'code', from: '01', to: '1A' },
      { what: 'name', from: 'Hull', to: 'Hull and deck' },
    ]);
    expect(await changeCostCode(await wren(), { ...(await codeOf('02')), code: '1A', name: 'Other' })).toMatchObject({
      refusals: [{ code: 'code.taken', field: 'code' }],
    });
  });

  it('that are offered no more are not to be picked or named, and stay where they are', async () => {
    const { actor } = await wren();
    expect(await offered()).toContain('02');
    must(await retireCostCode(await wren(), { ...(await codeOf('02')), gone: true }));
    expect(await offered()).not.toContain('02');
    expect(await nameChoices(yard.db, actor, 'costCode', ['02'], TODAY)).toEqual([null]);
    const order = await yard.draft([{ needId: await yard.need(), buy: q(2) }]);
    expect(order.lines[0]?.splits[0]?.costCodeId).toBe((await codeOf('02')).id);
    must(await retireCostCode(await wren(), { ...(await codeOf('02')), gone: false }));
    expect(await offered()).toContain('02');
  });

  it('keep the one that carriage is charged to, and the last', async () => {
    must(await chooseFreightCode(await wren(), { once: yard.once(), costCodeId: (await codeOf('01')).id }));
    expect(await retireCostCode(await wren(), { ...(await codeOf('01')), gone: true })).toMatchObject({
      refusals: [{ code: 'code.freight' }],
    });
    must(await chooseFreightCode(await wren(), { once: yard.once(), costCodeId: null }));
    const codes = (await yard.db('costCode')).map((c) => c.code);
    for (const code of codes.slice(1))
      must(await retireCostCode(await wren(), { ...(await codeOf(code)), gone: true }));
    expect(await retireCostCode(await wren(), { ...(await codeOf(codes[0] ?? '')), gone: true })).toMatchObject({
      refusals: [{ code: 'offer.last' }],
    });
    expect(
      await chooseFreightCode(await wren(), { once: yard.once(), costCodeId: (await codeOf(codes[1] ?? '')).id }),
    ).toMatchObject({ refusals: [{ code: 'code.gone' }] });
  });

  it('are not changed from a version that no longer stands', async () => {
    const seen = await codeOf('01');
    must(await changeCostCode(await wren(), { ...seen, code: '01', name: 'Hulls' }));
    expect(await changeCostCode(await wren(), { ...seen, once: yard.once(), code: '01', name: 'Decks' })).toMatchObject(
      { status: 'clash' },
    );
    expect(await retireCostCode(await wren(), { ...seen, once: yard.once(), gone: true })).toMatchObject({
      status: 'clash',
    });
  });
});

describe('taxes', () => {
  const reduced = { name: 'VAT 5.5 %', category: 'S' as const, rate: 550, recoverable: 10_000 };

  it('are added, and offered to suppliers', async () => {
    must(await addTax(await wren(), { once: yard.once(), ...reduced }));
    const { taxes } = await loadSupplierForm(yard.db, (await wren()).actor);
    expect(taxes.at(-1)).toMatchObject(reduced);
    expect(await addTax(await wren(), { once: yard.once(), ...reduced })).toMatchObject({
      refusals: [{ code: 'tax.taken' }],
    });
  });

  it.each([
    ['a rate below zero', { rate: -1 }],
    ['a rate above 100 %', { rate: 10_001 }],
    ['a share above 100 %', { recoverable: 10_001 }],
    ['no name', { name: ' ' }],
    ['a zero rate in the standard category (BR-S-05)', { rate: 0 }],
    ['a rate in the zero category (BR-Z-05)', { category: 'Z' as const }],
    ['a category that there is not', { category: 'X' as never }],
  ])('are not added with %s', async (_, change) =>
    expect(await addTax(await wren(), { once: yard.once(), ...reduced, ...change })).toMatchObject({
      status: 'refused',
    }),
  );

  it('that an order carries keep rate and share, and may change their name', async () => {
    const order = await yard.draft([{ needId: await yard.need(), buy: q(2) }]);
    const id = order.lines[0]?.taxCodeId ?? 0;
    const { ref, tax } = await taxOf(id);
    for (const change of [{ rate: 1500 }, { recoverable: 5000 }, { category: 'E' as const, rate: 0 }])
      expect(await changeTax(await wren(), { ...ref, once: yard.once(), ...tax, ...change })).toMatchObject({
        refusals: [{ code: 'tax.carried' }],
      });
    must(await changeTax(await wren(), { ...ref, once: yard.once(), ...tax, name: 'VAT, usual' }));
    expect((await yard.order(order.id)).gross).toBe(order.gross);
  });

  it('that nothing carries change as they like', async () => {
    must(await addTax(await wren(), { once: yard.once(), ...reduced }));
    const id = (await yard.db('taxCode').max({ id: 'id' }).first())?.id as number;
    const { ref } = await taxOf(id);
    must(await changeTax(await wren(), { ...ref, ...reduced, name: 'VAT 7 %', rate: 700 }));
    expect(await yard.db('taxCode').where({ id }).first()).toMatchObject({ name: 'VAT 7 %', rate: 700, version: 2 });
    expect((await lastRecord())?.changes).toContainEqual({ what: 'rate', from: '5.5 %', to: '7 %' });
  });

  it('that are offered no more stay with those that have them, and one is always left', async () => {
    const ids = (await yard.db('taxCode').orderBy('id')).map((t) => t.id);
    for (const id of ids.slice(1)) must(await retireTax(await wren(), { ...(await taxOf(id)).ref, gone: true }));
    expect((await loadOfferedTaxes(yard.db)).map((t) => t.id)).toEqual(ids.slice(0, 1));
    expect((await loadOfferedTaxes(yard.db, ids.slice(1, 2))).map((t) => t.id)).toEqual(ids.slice(0, 2));
    expect(await retireTax(await wren(), { ...(await taxOf(ids[0] ?? 0)).ref, gone: true })).toMatchObject({
      refusals: [{ code: 'offer.last' }],
    });
  });
});

describe('units', () => {
  it('are offered or not, and never none of them', async () => {
    must(await chooseUnits(await wren(), { once: yard.once(), unused: ['XCA', 'WEE', 'WEE'] }));
    expect(await yard.db('unitUnused').orderBy('code')).toEqual([{ code: 'WEE' }, { code: 'XCA' }]);
    expect((await lastRecord())?.changes).toEqual([{ what: 'not offered', from: '(empty)', to: 'week, can' }]);
    expect(await chooseUnits(await wren(), { once: yard.once(), unused: UNITS.map((u) => u.code) })).toMatchObject({
      refusals: [{ code: 'unit.last' }],
    });
    expect(await chooseUnits(await wren(), { once: yard.once(), unused: ['FURLONG'] })).toMatchObject({
      status: 'refused',
    });
  });
});

describe('the number that a new job is offered', () => {
  const name = async (id: number, number: string) => yard.db('job').where({ id }).update({ number });
  it.each([
    ['{0}', ['412', '99'], '413'],
    ['{0}', ['412A', 'J7'], '1'],
    ['J{yy}-{000}', ['J26-007', 'J25-090'], 'J26-008'],
    ['J{yy}-{000}', ['J26-', 'J26-x9'], 'J26-001'],
    ['{000}/{yyyy}'.replace('/', '.'), ['041.2026', '050.2025'], '042.2026'],
    ['%{00}', ['%12', '_13'], '%13'],
  ])('by %s after %j is %s', async (jobPattern, numbers, next) => {
    const [a, b] = yard.ids.jobs;
    await name(a, numbers[0] ?? '');
    await name(b, numbers[1] ?? '');
    expect(await offeredJobNumber(yard.db, { jobPattern }, TODAY)).toBe(next);
  });
});
