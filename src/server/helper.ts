/** The thread for what takes long: it sets papers and reads files, with a connection of its own that only looks. */
import type { Person } from '@/store/people';
import { purchaseOrderPdf, type OrderPaper } from '@/formats/pdf/purchaseOrder';
import * as quotes from '@/queries/quoteImport';
import { connectReaders, snapshot, type Db } from '@/store/connection';
import { clock, companyFile } from './setting';

let readers: Db | undefined;
const look = <T>(read: (db: Db) => Promise<T>): Promise<T> =>
  snapshot((readers ??= connectReaders(companyFile())), read);

export const setPaper = (paper: OrderPaper): Promise<Buffer> => purchaseOrderPdf(paper);

export const checkQuoteFile = ({ person, fileId, given }: { person: Person; fileId: number; given?: quotes.Given }) =>
  look((db) => quotes.checkQuoteFile(db, person, clock.today(), fileId, given));
