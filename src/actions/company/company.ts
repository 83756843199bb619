import { z } from 'zod';
import { counted } from '@/core/words';
import { publicHolidays } from '@/formats/holidays';
import { insertMany } from '@/store/rows';
import { refreshNeeds } from '@/store/tab/needs';
import { defineAction, found, once, refuse, sameVersion } from '../action';
import { companyFields, dayOffFields, holidayYear, rateFields } from '@/core/records/company';
import { requiredDay } from '@/core/records/fields';

const SUBJECTS = [['company', 1]] as const;

/** Saves how the company works: its week, what receiving takes, and what is passed without a question. */
export const saveCompany = defineAction({
  name: 'saveCompany',
  right: 'manage people',
  input: z.object({
    once,
    version: z.number().int(),
    ...companyFields.shape,
  }),
  run: async ({ trx, company, audit }, { once: _, version, week, ...input }) => {
    sameVersion(company, version, 'The company');
    const row = { ...input, week: week.join(',') };
    await trx('company')
      .where({ id: 1 })
      .update({ ...row, version: version + 1 });
    await refreshNeeds(trx);
    await audit({
      words: 'Changed the company’s settings',
      subjects: SUBJECTS,
      before: company,
      after: { ...company, ...row },
    });
  },
});

/** Adds a day on which nobody works. */
export const addDayOff = defineAction({
  name: 'addDayOff',
  right: 'manage people',
  input: z.object({ once, ...dayOffFields.shape }),
  run: async ({ trx, audit }, { once: _, ...off }) => {
    if ((await trx('dayOff').where({ day: off.day }).first('day')) !== undefined)
      refuse('day.off', 'That date is already a non-working day.', 'day');
    await trx('dayOff').insert(off);
    await refreshNeeds(trx);
    await audit({ words: `Added non-working day ${off.day}: ${off.name}`, subjects: SUBJECTS, after: off });
  },
});

/** Makes a day off a working day again. */
export const removeDayOff = defineAction({
  name: 'removeDayOff',
  right: 'manage people',
  input: z.object({ day: requiredDay('Choose the date to make a working day.') }),
  run: async ({ trx, audit }, { day }) => {
    const off = found(await trx('dayOff').where({ day }).first(), 'This non-working day');
    await trx('dayOff').where({ day }).delete();
    await refreshNeeds(trx);
    await audit({ words: `Made ${day} a working day`, subjects: SUBJECTS, before: off });
  },
});

/** Takes in the public holidays of the company's country for a year; days that are off already keep their names. */
export const takeHolidays = defineAction({
  name: 'takeHolidays',
  right: 'manage people',
  input: z.object({ once, year: holidayYear }),
  run: async ({ trx, company, audit }, { year }) => {
    const known = new Set((await trx('dayOff').select('day')).map((d) => d.day));
    const all = publicHolidays(company.country, [year]);
    if (all.length === 0)
      refuse('day.country', 'No public holidays are built in for your country. Add the days by hand.', 'year');
    const fresh = all.filter((d) => !known.has(d.day));
    if (fresh.length === 0) refuse('day.none', `All public holidays of ${year} are already non-working days.`, 'year');
    await insertMany(trx, 'dayOff', fresh);
    await refreshNeeds(trx);
    await audit({
      words: `Added ${counted(fresh.length, 'public holiday')} for ${year}`,
      subjects: SUBJECTS,
      after: { days: fresh },
    });
    return { days: fresh.length };
  },
});

/** Enters the exchange rate of a currency from a day on; for a day that has one, it is put right. */
export const saveRate = defineAction({
  name: 'saveRate',
  right: 'keep suppliers',
  input: z.object({
    once,
    ...rateFields.shape,
  }),
  run: async ({ trx, company, audit }, { once: _, ...row }) => {
    if (row.currency === company.currency)
      refuse(
        'rate.own',
        `${row.currency} is your own currency and needs no rate. Choose another currency.`,
        'currency',
      );
    const { currency, day } = row;
    const before = await trx('exchangeRate').where({ currency, day }).first();
    await trx('exchangeRate').insert(row).onConflict(['currency', 'day']).merge();
    const words = `Set rate 1 ${currency} = ${row.rate} ${company.currency} from ${day}`;
    await audit({ words, subjects: SUBJECTS, before, after: row });
  },
});

/** Takes an exchange rate out that was entered by mistake. Orders and invoices keep the rate they were made with. */
export const removeRate = defineAction({
  name: 'removeRate',
  right: 'keep suppliers',
  input: z.object({ currency: z.string(), day: requiredDay('Choose the rate to remove.') }),
  run: async ({ trx, audit }, { currency, day }) => {
    const before = found(await trx('exchangeRate').where({ currency, day }).first(), 'This rate');
    await trx('exchangeRate').where({ currency, day }).delete();
    await audit({ words: `Removed ${currency} rate from ${day}`, subjects: SUBJECTS, before });
  },
});
