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
    head: 'Description',
    cell: (l) => [
      piece(l.description, LOOKS.strong),
      ...ifAny(l.number, LOOKS.numbers),
      ...ifAny(l.numbers, LOOKS.numbers),
    ],
  },
  { head: 'Quantity', width: 80, right: true, cell: (l) => [piece(l.quantity)] },
  { head: 'Action required', width: 120, cell: (l) => [piece(l.awaited)] },
];

/** Sets the note that goes along with returned goods as a PDF. */
export const returnNotePdf = (paper: ReturnPaper): Promise<Buffer> =>
  letterPdf(
    {
      title: 'Goods return note',
      ...{ number: paper.number, date: paper.date, size: paper.size, author: paper.company.name },
      subject: `Goods returned, order ${paper.order}`,
      foot: `Please quote ${paper.number} on your credit note or replacement delivery note.`,
      addresses: [
        { label: 'To', strong: paper.supplier.name, lines: paper.supplier.address.split('\n') },
        { label: 'From', strong: paper.company.name, lines: paper.company.address.split('\n') },
      ],
      facts: [
        { label: 'Order no.', strong: paper.order, lines: [] },
        { label: 'Carrier', strong: paper.carrier || '–', lines: [] },
        { label: 'Sent by', strong: paper.by, lines: [] },
      ],
      totals: [],
      words: `Reason for return: ${paper.reason}`,
      small: '',
    },
    { lines: paper.lines, columns: COLUMNS },
  );
