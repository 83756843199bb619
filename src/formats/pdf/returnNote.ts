import type { Paper } from '@/core/locale/locale';
import { ifAny, letterPdf, LOOKS, piece, type PaperColumn, type PaperCompany } from './letter';

/** What goes back to a supplier, written out as it is printed; no price stands on it. */
export type ReturnPaper = {
  readonly number: string;
  readonly order: string;
  readonly date: string;
  readonly size: Paper;
  readonly company: PaperCompany;
  readonly supplier: { readonly name: string; readonly address: string };
  readonly reason: string;
  readonly carrier: string;
  readonly by: string;
  readonly lines: readonly ReturnPaperLine[];
};

export type ReturnPaperLine = {
  readonly description: string;
  readonly number: string;
  readonly quantity: string;
  readonly awaited: string;
  readonly numbers: string;
};

const COLUMNS: readonly PaperColumn<ReturnPaperLine>[] = [
  {
    head: 'What',
    cell: (l) => [
      piece(l.description, LOOKS.strong),
      ...ifAny(l.number, LOOKS.numbers),
      ...ifAny(l.numbers, LOOKS.numbers),
    ],
  },
  { head: 'Quantity', width: 80, right: true, cell: (l) => [piece(l.quantity)] },
  { head: 'Awaited', width: 120, cell: (l) => [piece(l.awaited)] },
];

/** Sets the note that goes along with returned goods as a PDF. */
export const returnNotePdf = (paper: ReturnPaper): Promise<Buffer> =>
  letterPdf(
    {
      title: 'Return note',
      ...{ number: paper.number, date: paper.date, size: paper.size, author: paper.company.name },
      subject: `Goods of ${paper.order} sent back`,
      foot: `Please name ${paper.number} on the credit note or the delivery.`,
      addresses: [
        { label: 'To', strong: paper.supplier.name, lines: paper.supplier.address.split('\n') },
        { label: 'From', strong: paper.company.name, lines: paper.company.address.split('\n') },
      ],
      facts: [
        { label: 'Of order', strong: paper.order, lines: [] },
        { label: 'Carrier', strong: paper.carrier || '–', lines: [] },
        { label: 'Sent by', strong: paper.by, lines: [] },
      ],
      totals: [],
      words: `Why it goes back: ${paper.reason}`,
      small: '',
    },
    { lines: paper.lines, columns: COLUMNS },
  );
