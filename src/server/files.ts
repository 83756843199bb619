/** The thread that reads files that are handed over and writes lists, with a connection of its own that only looks. */
import type { Person } from '@/store/people';
import type { BringIn } from '@/actions/quotes/importing';
import { writeCsv } from '@/formats/sheet/csv';
import { writeXlsx } from '@/formats/sheet/xlsx';
import { readSheet } from '@/formats/sheet/read';
import type { ListQuery } from '@/queries/lists/list';
import { openList, type ListName } from '@/queries/lists/lists';
import * as boms from '@/queries/items/boms';
import { readBudgetFile as readBudgeted } from '@/queries/jobs/budgetFile';
import { readCountFile as readCounted } from '@/queries/stores/countFile';
import * as prices from '@/queries/items/priceLists';
import * as quotes from '@/queries/quotes/importing';
import type { Day } from '@/core/calendar/workdays';
import { connectReaders, snapshot, type Db } from '@/store/db';
import { done, type Result } from '@/core/result';
import type { HowFar } from './progress';
import { clock, companyFile } from './setting';

let readers: Db | undefined;
const look = <T>(read: (db: Db) => Promise<T>): Promise<T> =>
  snapshot((readers ??= connectReaders(companyFile())), read);

export const checkQuoteFile = ({ person, fileId, given }: { person: Person; fileId: number; given?: quotes.Given }) =>
  look((db) => quotes.checkQuoteFile(db, person, clock.today(), fileId, given));

/** Whether a file can be read at all. */
export const openQuoteFile = async (bytes: Uint8Array): Promise<Result<{ rows: number }>> => {
  const sheet = await readSheet(bytes);
  return sheet.ok ? done({ rows: sheet.value.rows.length }) : sheet;
};

/** Reads a kept file; how far it has come stands in memory that the asker sees. */
export const readQuoteFile = ({ person, input, far }: { person: Person; input: BringIn; far: HowFar }) =>
  look((db) =>
    quotes.readQuoteFile(db, person, clock.today(), input.fileId, input, (done, of) => {
      far[0] = done;
      far[1] = of;
    }),
  );

type Handed = { person: Person; bytes: Uint8Array; on: Day };

/** What a file of BOMs holds, and what is wrong with it. */
export const readBomFile = ({ person, itemId, bytes, on }: Handed & { itemId: number }) =>
  look((db) => boms.readBomFile(db, person, itemId, bytes, on));

/** What a supplier's price list holds, and what it would change. */
export const readPriceFile = ({ person, supplierId, bytes, on }: Handed & { supplierId: number }) =>
  look((db) => prices.readPriceFile(db, person, supplierId, bytes, on));

/** What a file of counts says, beside what lies in stores. */
export const readCountFile = ({ person, bytes }: Omit<Handed, 'on'>) => look((db) => readCounted(db, person, bytes));

/** What a file says of a job's budget, beside what it is now. */
export const readBudgetFile = ({ person, job, bytes }: Omit<Handed, 'on'> & { job: string }) =>
  look((db) => readBudgeted(db, person, job, bytes));

type Listed = { person: Person; name: ListName; query: ListQuery; as: 'csv' | 'xlsx' };

/** A list as CSV or a workbook, whole and of one moment. */
export const writeList = ({ person, name, query, as }: Listed): Promise<Uint8Array> =>
  look(async (db) => {
    const { title, columns, pages } = await openList(db, person, name, query, clock.today());
    if (as === 'csv') {
      const parts: string[] = [];
      for await (const part of writeCsv(columns, pages)) parts.push(part);
      return Buffer.from(parts.join(''));
    }
    const rows: never[] = [];
    for await (const page of pages) rows.push(...page);
    return writeXlsx(title, columns, rows);
  });
