import { differenceInWords, differenceWords } from '@/core/invoices/match';
import { formatMoney } from '@/core/money/money';
import type { Db } from '@/store/db';
import { compareInvoice, differencesOf } from '@/store/invoices';
import type { Invoice } from '@/store/tables';

/** What is held of an invoice, each difference told by itself; undefined when nothing is. */
export const differenceOf = async (
  db: Db,
  invoice: Invoice,
  told: 'figures' | 'words' = 'figures',
): Promise<string | undefined> =>
  invoice.state === 'held'
    ? (told === 'figures' ? differenceWords : differenceInWords)(
        differencesOf(await compareInvoice(db, invoice)),
        (a) => formatMoney(a, invoice.currency),
      )
    : undefined;
