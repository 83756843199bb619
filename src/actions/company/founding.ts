import type { z } from 'zod';
import { decimalsOf } from '@/core/money/currencies';
import type { Minor } from '@/core/money/money';
import { foundingFields } from '@/core/records/company';
import { codesIn } from '@/core/records/settings';
import { refusal, refused, type Result } from '@/core/result';
import { usualTaxes, type UsualTax } from '@/formats/taxes';
import { findCompany } from '@/store/company';
import type { Db } from '@/store/db';
import { findPerson, insertPerson, type Person } from '@/store/people';
import { insertMany, insertOne } from '@/store/rows';
import { beginWork, inputRefusals, orRefused, Refused, type Clock } from '../action';
import { hashPassword } from '../people/passwords';

const FOUNDED = refusal('founding.done', 'The company has been set up already. Sign in instead.');

/**
 * Sets an empty file up: company, cost codes, the usual taxes of its country, the yard as place of delivery, and the
 * owner. It is the first thing that the record tells.
 * @returns the owner's id
 */
export async function foundCompany(db: Db, clock: Clock, raw: unknown): Promise<Result<number>> {
  if (await findCompany(db)) return refused(FOUNDED);
  const read = foundingFields.safeParse(raw);
  if (!read.success) return refused(...inputRefusals(read.error));
  const { password, ...said } = read.data;
  return orRefused(async () => {
    const made = { passwordHash: await hashPassword(password), taxes: await usualTaxes(said.country) };
    return db.transaction((trx) => writeCompany(trx, clock, said, made));
  });
}

type Said = Omit<z.output<typeof foundingFields>, 'password'>;
type Made = { readonly passwordHash: string; readonly taxes: readonly UsualTax[] };

async function writeCompany(trx: Db, clock: Clock, said: Said, { passwordHash, taxes }: Made): Promise<number> {
  if (await findCompany(trx)) throw new Refused([FOUNDED]);
  const { company: name, address, companyEmail, currency, country, costCodes, owner, email } = said;
  const codes = codesIn(costCodes);
  await insertMany(trx, 'costCode', codes);
  const freight = await trx('costCode').whereLike('name', '%freight%').first('id');
  const whole = 10 ** decimalsOf(currency);
  await trx('company').insert({
    id: 1,
    name,
    address,
    email: companyEmail,
    currency,
    country,
    freightCodeId: freight?.id ?? null,
    priceToleranceMost: (5 * whole) as Minor,
    ownPassLimit: (50 * whole) as Minor,
    orderTerms: '',
  });
  await insertMany(trx, 'taxCode', taxes);
  await insertOne(trx, 'deliveryPlace', { name: 'Our yard', address });
  const roles = ['manager', 'buyer', 'administrator'] as const;
  const id = await insertPerson(trx, { name: owner, email, passwordHash, roles });
  const { work, end } = await beginWork(trx, clock, (await findPerson(trx, id)) as Person, 'foundCompany');
  await work.audit({
    words: `Created company ${name}`,
    subjects: [
      ['company', 1],
      ['person', id],
    ],
    after: { ...said, costCodes: codes, taxes },
  });
  await end();
  return id;
}
