import { listed, rowsOf } from '@/store/rows';
import { WAITING } from '@/core/invoices/states';
import { may } from '@/core/people/rights';
import { localeOf, type Locale } from '@/core/locale/locale';
import type { Level } from '@/core/tab/sums';
import type { Day } from '@/core/calendar/workdays';
import type { Db } from '@/store/db';
import { loadCompany } from '@/store/company';
import { loadKeptColumns, loadKeptViews, type KeptColumns, type KeptView } from '@/store/listViews';
import type { Person } from '@/store/people';
import { loadJobLevels } from '@/store/levels';
import { countToBuy } from '../buying/buyList';
import { countOf } from '../sql';

export type RailJob = {
  readonly id: number;
  readonly number: string;
  readonly shortName: string;
  readonly level: Level | null;
};
export type Frame = {
  readonly company: string;
  readonly currency: string;
  readonly locale: Locale;
  readonly unitsUnused: readonly string[];
  readonly rail: readonly RailJob[];
  /** How this person looks at lists. */
  readonly lists: {
    readonly columns: Readonly<Record<string, KeptColumns>>;
    readonly views: readonly KeptView[];
  };
  readonly counts: { readonly gather: number; readonly dock: number; readonly invoices: number };
};

/** What stands around every place: the person's open jobs with their levels, and what waits where. */
export async function loadFrame(db: Db, person: Person, today: Day): Promise<Frame> {
  const { name, currency, ...company } = await loadCompany(db);
  const jobs = await rowsOf<Omit<RailJob, 'level'>>(
    db('openJob as o')
      .join('job as j', 'j.id', 'o.jobId')
      .where({ personId: person.id })
      .orderBy('o.place')
      .select('j.id', 'j.number', 'j.shortName'),
  );
  const levels = may(person, 'see money')
    ? await loadJobLevels(
        db,
        jobs.map((j) => j.id),
      )
    : undefined;
  return {
    company: name,
    currency,
    locale: localeOf(company),
    unitsUnused: (await db('unitUnused')).map((u) => u.code),
    lists: { columns: await loadKeptColumns(db, person.id), views: await loadKeptViews(db, person.id) },
    rail: jobs.map((j) => ({ ...j, level: levels?.get(j.id) ?? null })),
    counts: {
      gather: may(person, 'draft orders') ? await countToBuy(db) : 0,
      dock: may(person, 'see dock') ? await countOf(db('purchaseOrder').where('dueHereOn', '<=', today)) : 0,
      invoices: may(person, 'match invoices')
        ? await countOf(db('invoice').whereRaw(`state in (${listed(WAITING)})`))
        : 0,
    },
  };
}
