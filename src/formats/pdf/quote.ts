import type { Paper } from '@/core/locale/locale';
import {
  ifAny,
  letterPdf,
  LOOKS,
  piece,
  type Addressed,
  type PaperColumn,
  type PaperCompany,
  type Total,
} from './letter';

/** Everything that stands on a quote for the customer, written out as it is printed; none of it says what things cost us. */
export type QuotePaper = {
  readonly number: string;
  readonly draft: boolean;
  readonly size: Paper;
  readonly date: string;
  readonly company: PaperCompany;
  /** What the company's tax is called: VAT, GST … */
  readonly taxName: string;
  readonly customer: string;
  readonly job: { readonly number: string; readonly name: string; readonly site: string };
  /** For how many pieces it is; empty where it is not by the piece. */
  readonly pieces: string;
  readonly takes: string;
  readonly validUntil: string;
  readonly by: string;
  readonly currency: string;
  readonly lines: readonly QuotePaperLine[];
  readonly totals: readonly Total[];
  readonly words: string;
};

export type QuotePaperLine = {
  readonly place: string;
  readonly description: string;
  readonly optional: boolean;
  readonly quantity: string;
  readonly price: string;
  readonly net: string;
};

const columnsOf = (currency: string): PaperColumn<QuotePaperLine>[] => [
  { head: 'Line', width: 22, cell: (l) => [piece(l.place, LOOKS.muted)] },
  {
    head: 'Description',
    cell: (l) => [
      piece(l.description, LOOKS.strong),
      ...ifAny(l.optional ? 'Optional, not included in total' : '', LOOKS.numbers),
    ],
  },
  { head: 'Quantity', width: 62, right: true, cell: (l) => [piece(l.quantity)] },
  { head: `Unit price (${currency})`, width: 66, right: true, cell: (l) => [piece(l.price)] },
  { head: `Net (${currency})`, width: 66, right: true, cell: (l) => [piece(l.net)] },
];

const filled = (lines: readonly string[]) => lines.filter((l) => l !== '');

/** Sets a quote for the customer as a PDF. */
export const quotePdf = (paper: QuotePaper): Promise<Buffer> => {
  const { company, job } = paper;
  const addresses: Addressed[] = [
    { label: 'To', strong: paper.customer, lines: [] },
    {
      label: 'From',
      strong: company.name,
      lines: filled([
        ...company.address.split('\n'),
        company.email,
        company.taxNumber && `${paper.taxName} no. ${company.taxNumber}`,
      ]),
    },
    { label: 'For', strong: job.name, lines: filled([`Job ${job.number}`, job.site, paper.pieces]) },
  ];
  const fact = (label: string, strong: string): Addressed => ({ label, strong: strong || '–', lines: [] });
  return letterPdf(
    {
      title: paper.draft ? 'Quotation (draft)' : 'Quotation',
      ...{ number: paper.number, date: paper.date, size: paper.size, author: company.name },
      subject: `Quote to ${paper.customer}`,
      foot: `Please quote ${paper.number} on your order.`,
      addresses,
      facts: [fact('Lead time', paper.takes), fact('Valid until', paper.validUntil), fact('Prepared by', paper.by)],
      ...{ totals: paper.totals, words: paper.words, small: `Prices exclude ${paper.taxName}.` },
    },
    { lines: paper.lines, columns: columnsOf(paper.currency) },
  );
};
