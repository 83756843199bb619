import { Text, View } from '@react-pdf/renderer';
import type { Paper } from '@/core/locale/locale';
import { letterPdf, lineHeight, s, type Addressed, type PaperCompany, type Total } from './letter';

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

const Line = ({ line }: { line: QuotePaperLine }) => (
  <View style={s.row} wrap={false}>
    <Text style={s.place}>{line.place}</Text>
    <View style={s.what}>
      <Text style={s.strong}>{line.description}</Text>
      {line.optional && <Text style={s.numbers}>optional, not in the total</Text>}
    </View>
    <Text style={s.quantity}>{line.quantity}</Text>
    <Text style={s.price}>{line.price}</Text>
    <Text style={s.net}>{line.net}</Text>
  </View>
);

const Headings = ({ currency }: { currency: string }) => (
  <View style={s.head} fixed>
    <Text style={s.place}>Line</Text>
    <Text style={s.what}>Description</Text>
    <Text style={s.quantity}>Quantity</Text>
    <Text style={s.price}>Price {currency}</Text>
    <Text style={s.net}>Net {currency}</Text>
  </View>
);

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
    {
      lines: paper.lines,
      heightOf: (l) => lineHeight(l.description, l.optional ? 'optional' : ''),
      headings: <Headings currency={paper.currency} />,
      draw: (line, key) => <Line key={key} line={line} />,
    },
  );
};
