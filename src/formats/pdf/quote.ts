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
      ...ifAny(l.optional ? 'optional, not in the total' : '', LOOKS.numbers),
    ],
  },
  { head: 'Quantity', width: 62, right: true, cell: (l) => [piece(l.quantity)] },
  { head: `Price ${currency}`, width: 66, right: true, cell: (l) => [piece(l.price)] },
  { head: `Net ${currency}`, width: 66, right: true, cell: (l) => [piece(l.net)] },
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
      lines: filled([...company.address.split('\n'), company.email, company.taxNumber && `VAT ${company.taxNumber}`]),
    },
    { label: 'For', strong: job.name, lines: filled([`Job ${job.number}`, job.site, paper.pieces]) },
  ];
  const fact = (label: string, strong: string): Addressed => ({ label, strong: strong || '–', lines: [] });
  return letterPdf(
    {
      title: paper.draft ? 'Quote (draft)' : 'Quote',
      ...{ number: paper.number, date: paper.date, size: paper.size, author: company.name },
      subject: `Quote to ${paper.customer}`,
      foot: `Please name ${paper.number} in your order.`,
      addresses,
      facts: [fact('It takes', paper.takes), fact('Holds until', paper.validUntil), fact('Written by', paper.by)],
      ...{ totals: paper.totals, words: paper.words, small: 'Prices are without tax.' },
    },
    { lines: paper.lines, columns: columnsOf(paper.currency) },
  );
};
