import type { Day } from '@/core/calendar/workdays';
import type { AskedSignature, Matter } from '@/core/signoff/signing';
import type { Minor } from '@/core/money/money';
import type { Names } from '@/core/signoff/words';
import { loadCompany, loadCostCodes } from '@/store/company';
import type { Db } from '@/store/db';
import { whereIn } from '@/store/rows';
import type { SignOffRow } from '@/store/tables';
import { loadSignatories } from '@/store/signoff/ladder';
import { signedBy, writersOf } from './reckon';

export const askedOf = (row: SignOffRow): AskedSignature => {
  const { place, handedTo, state, decidedBy, forId } = row;
  return { place, by: signedBy(row), handedTo, state, decidedBy, forId };
};

/** Who may sign anything on a day, and for whom. */
export type Signers = Pick<Matter, 'currency' | 'people' | 'deputies' | 'today'>;

export const loadSigners = async (db: Db, today: Day): Promise<Signers> => ({
  currency: (await loadCompany(db)).currency,
  people: await loadSignatories(db),
  deputies: await db('deputy').where('toDay', '>=', today),
  today,
});

/** What decides who may sign an order now. */
export const matterOf = async (
  db: Db,
  signers: Signers,
  { id, number }: { readonly id: number; readonly number: string },
  value: Minor,
  asked: readonly AskedSignature[],
): Promise<Matter> => ({ ...signers, number, value, writers: await writersOf(db, id), asked });

/** What the things that ladders speak of are called. */
export async function loadNames(db: Db, jobIds: readonly number[] = []): Promise<Names> {
  const nameOf = <T extends { readonly id: number }>(rows: readonly T[], name: (row: T) => string) => {
    const known = new Map(rows.map((r) => [r.id, r]));
    return (id: number) => {
      const row = known.get(id);
      return row === undefined ? '' : name(row);
    };
  };
  const suppliers = await whereIn(db, 'supplier', 'id', await ladderSuppliers(db));
  return {
    currency: (await loadCompany(db)).currency,
    person: nameOf(await db('person').select('id', 'name'), (p) => p.name),
    job: nameOf(await whereIn(db, 'job', 'id', jobIds), (j) => j.number),
    code: nameOf(await loadCostCodes(db), (c) => `${c.code} ${c.name}`),
    supplier: nameOf(suppliers, (s) => s.name),
  };
}

const ladderSuppliers = async (db: Db): Promise<number[]> =>
  (await db('ladderStep').whereNotNull('supplierId').select('supplierId')).flatMap((s) => s.supplierId ?? []);
