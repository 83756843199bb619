import { hash, verify } from '@node-rs/argon2';
import { z } from 'zod';
import { ROLES } from '@/core/people/rights';
import { decimalsOf, isCurrency } from '@/core/money/currencies';
import type { Minor } from '@/core/money/money';
import { refusal, refused, done, type Result } from '@/core/result';
import { findCompany } from '@/store/company';
import type { Db } from '@/store/connection';
import { countRecentFailures, findByEmail, insertPerson, recordAttempt, type Person } from '@/store/people';
import { insertMany, insertOne } from '@/store/rows';
import { defineAction, inputRefusals, once, Refused, refuse, type Clock } from './action';
import { text } from './fields';

/** Argon2id with 19 MiB and two passes: the first choice of the OWASP Password Storage Cheat Sheet (from memory). */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const hashPassword = (password: string): Promise<string> => hash(password, ARGON);

const MOST_FAILURES = 6;
const WINDOW_MINUTES = 10;
let decoy: Promise<string> | undefined;

/**
 * Checks who signs in. After six failures in ten minutes an address has to wait; the answer never tells whether
 * the address exists.
 */
export async function signIn(
  db: Db,
  clock: Clock,
  input: { email: string; password: string },
): Promise<Result<Person>> {
  const email = input.email.trim().slice(0, 200);
  const now = clock.now();
  const since = new Date(Date.parse(now) - WINDOW_MINUTES * 60_000).toISOString();
  if ((await countRecentFailures(db, email, since)) >= MOST_FAILURES) {
    return refused(refusal('signIn.wait', `Too many tries. Wait ${WINDOW_MINUTES} minutes, then try again.`));
  }
  const person = await findByEmail(db, email);
  decoy ??= hashPassword('nobody signs in with this');
  const good = (await verify(person?.passwordHash ?? (await decoy), input.password)) && person !== undefined;
  await recordAttempt(db, email, now, good);
  if (!good) return refused(refusal('signIn.wrong', 'E-mail or password is wrong.'));
  const { passwordHash: _, ...known } = person;
  return done(known);
}

export const password = z.string().min(10, 'A password has at least 10 characters.').max(200);

const foundingInput = z.object({
  company: text(120, 'Give the company’s name.'),
  address: text(500, 'Give the address: it stands on every order.'),
  companyEmail: z.email('This is no e-mail address.'),
  currency: z.string().toUpperCase().refine(isCurrency, 'Use a currency code such as GBP or EUR.'),
  costCodes: z.string().max(4000),
  owner: text(120, 'Give your name.'),
  email: z.email('This is no e-mail address.'),
  password,
});

function readCostCodes(lines: string): { code: string; name: string }[] {
  return lines
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((l) => {
      const [code = '', ...words] = l.split(/\s+/);
      if (words.length === 0 || code.length > 8)
        refuse(
          'founding.codes',
          `“${l}” is not a cost code: write a number and a name, such as “01 Hull and structure”.`,
          'costCodes',
        );
      return { code, name: words.join(' ') };
    });
}

const FOUNDED = refusal('founding.done', 'The company has been set up already. Sign in instead.');

/**
 * Sets an empty file up: company, cost codes, usual taxes, the yard as place of delivery, and the owner.
 * @returns the owner's id
 */
export async function foundCompany(db: Db, raw: unknown): Promise<Result<number>> {
  if (await findCompany(db)) return refused(FOUNDED);
  const read = foundingInput.safeParse(raw);
  if (!read.success) return refused(...inputRefusals(read.error));
  const passwordHash = await hashPassword(read.data.password);
  try {
    return done(await writeCompany(db, read.data, passwordHash));
  } catch (error) {
    if (error instanceof Refused) return refused(...error.refusals);
    throw error;
  }
}

const writeCompany = (db: Db, input: z.output<typeof foundingInput>, passwordHash: string): Promise<number> =>
  db.transaction(async (trx) => {
    if (await findCompany(trx)) throw new Refused([FOUNDED]);
    const codes = readCostCodes(input.costCodes);
    if (codes.length === 0) refuse('founding.codes', 'Give at least one cost code.', 'costCodes');
    if (new Set(codes.map((c) => c.code)).size < codes.length)
      refuse('founding.codes', 'A cost code stands there twice.', 'costCodes');
    await insertMany(trx, 'costCode', codes);
    const freight = await trx('costCode').whereLike('name', '%freight%').first('id');
    await trx('company').insert({
      id: 1,
      name: input.company,
      address: input.address,
      email: input.companyEmail,
      currency: input.currency,
      freightCodeId: freight?.id ?? null,
      priceToleranceMost: (5 * 10 ** decimalsOf(input.currency)) as Minor,
      ownPassLimit: (50 * 10 ** decimalsOf(input.currency)) as Minor,
      orderTerms: '',
    });
    await insertMany(trx, 'taxCode', [
      { name: 'VAT 20 %', category: 'S', rate: 2000, recoverable: 10_000 },
      { name: 'VAT 5 %', category: 'S', rate: 500, recoverable: 10_000 },
      { name: 'VAT 0 %', category: 'Z', rate: 0, recoverable: 10_000 },
      { name: 'VAT 20 %, not recoverable', category: 'S', rate: 2000, recoverable: 0 },
    ]);
    await insertOne(trx, 'deliveryPlace', { name: 'Our yard', address: input.address });
    return insertPerson(trx, {
      name: input.owner,
      email: input.email,
      passwordHash,
      roles: ['manager', 'buyer', 'administrator'],
    });
  });

export const addPerson = defineAction({
  name: 'addPerson',
  right: 'manage people',
  input: z.object({
    once,
    name: text(120, 'Give a name.'),
    email: z.email('This is no e-mail address.'),
    roles: z
      .array(z.enum(ROLES))
      .min(1, 'Choose at least one role.')
      .transform((r) => [...new Set(r)]),
    password,
  }),
  run: async ({ trx, audit }, { name, email, roles, password: plain }) => {
    if (await findByEmail(trx, email)) refuse('person.email', `Somebody signs in as ${email} already.`, 'email');
    const id = await insertPerson(trx, { name, email, roles, passwordHash: await hashPassword(plain) });
    await audit({ words: `Added ${name}`, subjects: [['person', id]], after: { name, email, roles } });
    return { id };
  },
});

/** Remembers whether a person works in the day or the evening theme. */
export const chooseTheme = defineAction({
  name: 'chooseTheme',
  right: 'see jobs',
  personal: true,
  input: z.object({ theme: z.enum(['day', 'evening']) }),
  run: async ({ trx, actor }, { theme }) => void (await trx('person').where({ id: actor.id }).update({ theme })),
});
