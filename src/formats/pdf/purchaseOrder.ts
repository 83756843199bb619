import type { Paper } from '@/core/locale/locale';
import { ifAny, letterPdf, LOOKS, piece, type Addressed, type PaperColumn, type PaperCompany } from './letter';
import type { Look } from './setting';

/** Everything that stands on the paper, written out as it is printed. */
export type OrderPaper = {
  readonly number: string;
  readonly draft: boolean;
  /** 0 for an order as it is first sent. */
  readonly revision: number;
  readonly size: Paper;
  readonly date: string;
  readonly company: PaperCompany;
  /** What the company's tax is called: VAT, GST … */
  readonly taxName: string;
  readonly supplier: { readonly name: string; readonly contact: string; readonly address: string };
  readonly deliverTo: { readonly name: string; readonly address: string; readonly instructions: string };
  readonly wanted: string;
  /** The last day it can come; nothing where that is not said. */
  readonly latest: string;
  readonly carrier: string;
  readonly siteContact: string;
  readonly payment: string;
  readonly buyer: string;
  readonly instructions: string;
  readonly currency: string;
  readonly lines: readonly PaperLine[];
  readonly totals: readonly { readonly label: string; readonly amount: string; readonly strong?: boolean }[];
  /** Files that go with it, by name and revision. */
  readonly goesWith: readonly string[];
  /** What a revision changes beside the lines that are still there. */
  readonly revised: readonly string[];
  readonly terms: string;
};

export type PaperLine = {
  readonly number: number;
  /** It was ordered, and is cancelled. */
  readonly struck: boolean;
  readonly description: string;
  readonly ourNumber: string;
  readonly theirNumber: string;
  /** What else the line says: a note, where it goes, what a revision changes in it. */
  readonly notes: readonly string[];
  readonly quantity: string;
  readonly price: string;
  readonly wanted: string;
  readonly net: string;
};

const addressesOf = ({ company, taxName, supplier, deliverTo, siteContact }: OrderPaper): Addressed[] =>
  [
    { label: 'Supplier', strong: supplier.name, lines: [supplier.contact, ...supplier.address.split('\n')] },
    {
      label: 'Buyer',
      strong: company.name,
      lines: [
        ...company.address.split('\n'),
        company.email,
        company.taxNumber && `${taxName} no. ${company.taxNumber}`,
      ],
    },
    {
      label: 'Deliver to',
      strong: deliverTo.name,
      lines: [...deliverTo.address.split('\n'), deliverTo.instructions, siteContact && `Site contact ${siteContact}`],
    },
  ].map((a) => ({ ...a, lines: a.lines.filter((l) => l !== '') }));

const fact = (label: string, strong: string): Addressed => ({ label, strong, lines: [] });

const lookOf = (line: PaperLine, look: Look = LOOKS.text): Look => ({ ...look, struck: line.struck });

const columnsOf = (currency: string): PaperColumn<PaperLine>[] => [
  { head: 'Line', width: 22, cell: (l) => [piece(String(l.number), LOOKS.muted)] },
  {
    head: 'Description',
    cell: (l) => {
      const numbers = [l.ourNumber && `Our item no. ${l.ourNumber}`, l.theirNumber && `Your item no. ${l.theirNumber}`];
      return [
        piece(l.description, lookOf(l, LOOKS.strong)),
        ...ifAny(numbers.filter(Boolean).join('   '), LOOKS.numbers),
        ...l.notes.map((note) => piece(note, LOOKS.small)),
      ];
    },
  },
  { head: 'Quantity', width: 62, right: true, cell: (l) => [piece(l.quantity, lookOf(l))] },
  { head: `Unit price (${currency})`, width: 66, right: true, cell: (l) => [piece(l.price, lookOf(l))] },
  { head: 'Required by', width: 88, right: true, cell: (l) => [piece(l.wanted)] },
  { head: `Net (${currency})`, width: 66, right: true, cell: (l) => [piece(l.net)] },
];

/** What stands below the lines: instructions, what goes with the order, and what a revision changes beside them. */
const wordsBelow = ({ instructions, goesWith, revised }: OrderPaper): string =>
  [
    instructions,
    goesWith.length === 0 ? '' : `Enclosed with this order: ${goesWith.join(', ')}.`,
    revised.length === 0 ? '' : `Changes in this revision:\n${revised.join('\n')}`,
  ]
    .filter(Boolean)
    .join('\n\n');

/** Sets a purchase order as a PDF. */
export const purchaseOrderPdf = (paper: OrderPaper): Promise<Buffer> =>
  letterPdf(
    {
      title: `Purchase order${paper.revision === 0 ? '' : `, revision ${paper.revision}`}${paper.draft ? ' (draft)' : ''}`,
      ...{ number: paper.number, date: paper.date, size: paper.size, author: paper.company.name },
      subject: `Order to ${paper.supplier.name}`,
      foot: `Please quote order no. ${paper.number} on all delivery notes and invoices.`,
      addresses: addressesOf(paper),
      facts: [
        fact('Required by', paper.latest === '' ? paper.wanted : `${paper.wanted}, no later than ${paper.latest}`),
        fact('Carrier', paper.carrier || '–'),
        fact('Payment terms', paper.payment),
        fact('Buyer', paper.buyer),
      ],
      ...{ totals: paper.totals, words: wordsBelow(paper), small: paper.terms },
    },
    { lines: paper.lines, columns: columnsOf(paper.currency) },
  );
