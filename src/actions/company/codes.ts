import { z } from 'zod';
import { formatDecimal } from '@/core/money/decimal';
import { codeLines, codesIn, costCodeFields, taxFields, unitCodes } from '@/core/records/settings';
import { unitOf, UNITS } from '@/core/quantity/units';
import { together } from '@/core/words';
import type { Db } from '@/store/db';
import { insertMany, insertOne } from '@/store/rows';
import { defineAction, found, once, refuse, sameVersion, type Work } from '../action';

const SUBJECTS = [['company', 1]] as const;
const ref = { once, id: z.number().int(), version: z.number().int() };

const codeTaken = async (trx: Db, code: string, but: number): Promise<void> => {
  const other = await trx('costCode').where({ code }).whereNot({ id: but }).first('name');
  if (other !== undefined)
    refuse('code.taken', `Cost code ${code} already exists (${other.name}). Choose another number.`, 'code');
};

/** Adds cost codes, one for each line. */
export const addCostCodes = defineAction({
  name: 'addCostCodes',
  right: 'manage people',
  input: z.object({ once, lines: codeLines }),
  run: async ({ trx, audit }, { lines }) => {
    const codes = codesIn(lines);
    for (const { code } of codes) await codeTaken(trx, code, 0);
    await insertMany(trx, 'costCode', codes);
    const names = together(codes.map((c) => `${c.code} ${c.name}`));
    await audit({ words: `Added cost code ${names}`.slice(0, 300), subjects: SUBJECTS, after: { costCodes: codes } });
    return { added: codes.length };
  },
});

/** Gives a cost code another number or name; what is charged to it stays. */
export const changeCostCode = defineAction({
  name: 'changeCostCode',
  right: 'manage people',
  input: z.object({ ...ref, ...costCodeFields.shape }),
  run: async ({ trx, audit }, { id, version, code, name }) => {
    const before = sameVersion(
      found(await trx('costCode').where({ id }).first(), 'This cost code'),
      version,
      'This cost code',
    );
    await codeTaken(trx, code, id);
    await trx('costCode')
      .where({ id })
      .update({ code, name, version: version + 1 });
    await audit({
      words: `Changed cost code ${before.code} ${before.name}`,
      subjects: SUBJECTS,
      before: { code: before.code, name: before.name },
      after: { code, name },
    });
  },
});

/** Takes a row out of what is offered, or into it again; one is always left. */
async function offer(
  { trx, audit }: Work,
  table: 'costCode' | 'taxCode',
  what: string,
  { id, version, gone }: { readonly id: number; readonly version: number; readonly gone: boolean },
): Promise<void> {
  const was = gone ? 0 : 1;
  await trx(table)
    .where({ id })
    .update({ gone: gone ? 1 : 0, version: version + 1 });
  if ((await trx(table).where({ gone: 0 }).first('id')) === undefined)
    refuse('offer.last', `${what} is the last one in use. Add another before you retire it.`, 'gone');
  const words = `${gone ? 'Retired' : 'Reinstated'} ${what}`;
  await audit({ words, subjects: SUBJECTS, before: { gone: was }, after: { gone: gone ? 1 : 0 } });
}

/** Offers a cost code no more, or again. What is charged to it stays and can be seen. */
export const retireCostCode = defineAction({
  name: 'retireCostCode',
  right: 'manage people',
  input: z.object({ ...ref, gone: z.boolean() }),
  run: async (work, to) => {
    const row = found(await work.trx('costCode').where({ id: to.id }).first(), 'This cost code');
    const { code, name } = sameVersion(row, to.version, 'This cost code');
    if (to.gone && work.company.freightCodeId === to.id)
      refuse(
        'code.freight',
        'Carriage is charged to this cost code. Choose another default for carriage first.',
        'gone',
      );
    await offer(work, 'costCode', `cost code ${code} ${name}`, to);
  },
});

/** Chooses the cost code that carriage is charged to where nothing else is said. */
export const chooseFreightCode = defineAction({
  name: 'chooseFreightCode',
  right: 'manage people',
  input: z.object({ once, costCodeId: z.number().int().nullable() }),
  run: async ({ trx, company, audit }, { costCodeId }) => {
    const code = costCodeId === null ? undefined : await trx('costCode').where({ id: costCodeId }).first();
    if (costCodeId !== null && found(code, 'This cost code').gone === 1)
      refuse('code.gone', 'This cost code is retired. Choose another.', 'costCodeId');
    await trx('company').where({ id: 1 }).update({ freightCodeId: costCodeId });
    await audit({
      words:
        code === undefined
          ? 'Carriage has no default cost code'
          : `Set default cost code for carriage to ${code.code} ${code.name}`,
      subjects: SUBJECTS,
      before: { freightCodeId: company.freightCodeId },
      after: { freightCodeId: costCodeId },
    });
  },
});

const taxTaken = async (trx: Db, name: string, but: number): Promise<void> => {
  if ((await trx('taxCode').where({ name }).whereNot({ id: but }).first('id')) !== undefined)
    refuse('tax.taken', `There is already a tax called ${name}. Choose another name.`, 'name');
};

/** Adds a tax that purchases carry. */
export const addTax = defineAction({
  name: 'addTax',
  right: 'manage people',
  input: z.object({ once }).and(taxFields),
  run: async ({ trx, audit }, { once: _, ...tax }) => {
    await taxTaken(trx, tax.name, 0);
    await insertOne(trx, 'taxCode', tax);
    await audit({ words: `Added tax ${tax.name}, ${formatDecimal(tax.rate, 2, 0)} %`, subjects: SUBJECTS, after: tax });
  },
});

/**
 * Changes a tax. What an order or an invoice carries already keeps its category, rate and share: a new rate is a new tax.
 */
export const changeTax = defineAction({
  name: 'changeTax',
  right: 'manage people',
  input: z.object(ref).and(taxFields),
  run: async ({ trx, audit }, { once: _, id, version, ...tax }) => {
    const before = sameVersion(found(await trx('taxCode').where({ id }).first(), 'This tax'), version, 'This tax');
    await taxTaken(trx, tax.name, id);
    const differs = (['category', 'rate', 'recoverable'] as const).find((f) => before[f] !== tax[f]);
    if (differs !== undefined && (await isCarried(trx, id)))
      refuse(
        'tax.carried',
        `${before.name} is in use on orders or invoices, so only its name can change. Add a new tax for the new rate, and retire this one.`,
        differs,
      );
    await trx('taxCode')
      .where({ id })
      .update({ ...tax, version: version + 1 });
    const { name, category, rate, recoverable } = before;
    await audit({
      words: `Changed tax ${name}`,
      subjects: SUBJECTS,
      before: { name, category, rate, recoverable },
      after: tax,
    });
  },
});

const isCarried = async (trx: Db, taxCodeId: number): Promise<boolean> =>
  (await trx('orderLine').where({ taxCodeId }).first('id')) !== undefined ||
  (await trx('invoiceLine').where({ taxCodeId }).first('id')) !== undefined;

/** Offers a tax no more, or again. Suppliers who had it keep it until another is chosen for them. */
export const retireTax = defineAction({
  name: 'retireTax',
  right: 'manage people',
  input: z.object({ ...ref, gone: z.boolean() }),
  run: async (work, to) => {
    const tax = found(await work.trx('taxCode').where({ id: to.id }).first(), 'This tax');
    sameVersion(tax, to.version, 'This tax');
    await offer(work, 'taxCode', `tax ${tax.name}`, to);
  },
});

/** Chooses the units that are offered to be picked; all others can still be read, and what has them keeps them. */
export const chooseUnits = defineAction({
  name: 'chooseUnits',
  right: 'manage people',
  input: z.object({ once, unused: unitCodes }),
  run: async ({ trx, audit }, { unused }) => {
    if (unused.length === UNITS.length) refuse('unit.last', 'Keep at least one unit in use.', 'unused');
    const before = (await trx('unitUnused').orderBy('code')).map((u) => u.code);
    await trx('unitUnused').delete();
    await insertMany(
      trx,
      'unitUnused',
      unused.map((code) => ({ code })),
    );
    const names = (codes: readonly string[]) => codes.map((c) => unitOf(c).name).join(', ');
    await audit({
      words: `Changed units in use (${UNITS.length - unused.length})`,
      subjects: SUBJECTS,
      before: { notOffered: names(before) },
      after: { notOffered: names(unused) },
    });
  },
});
