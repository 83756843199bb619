import { differenceWords } from '@/core/invoices/match';
import { formatMoney } from '@/core/money/money';
import type { Db } from '@/store/db';
import { compareInvoice, differencesOf } from '@/store/invoices';
import type { Invoice } from '@/store/tables';

/** What is held of an invoice, each difference told by itself; undefined when nothing is. */
export const differenceOf = async (db: Db, invoice: Invoice): Promise<string | undefined> =>
  invoice.state === 'held'
    ? differenceWords(differencesOf(await compareInvoice(db, invoice)), (a) => formatMoney(a, invoice.currency))
    : undefined;
