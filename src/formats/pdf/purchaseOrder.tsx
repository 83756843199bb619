import { Document, Page, renderToBuffer, StyleSheet, Text, View } from '@react-pdf/renderer';
import type { Paper } from '@/core/locale/locale';
import { MONO, registerFonts, TEXT } from './fonts';

/** Everything that stands on the paper, written out as it is printed. */
export type OrderPaper = {
  readonly number: string;
  readonly draft: boolean;
  readonly size: Paper;
  readonly date: string;
  readonly company: {
    readonly name: string;
    readonly address: string;
    readonly email: string;
    readonly taxNumber: string;
  };
  readonly supplier: { readonly name: string; readonly contact: string; readonly address: string };
  readonly deliverTo: { readonly name: string; readonly address: string; readonly instructions: string };
  readonly wanted: string;
  readonly carrier: string;
  readonly payment: string;
  readonly buyer: string;
  readonly instructions: string;
  readonly currency: string;
  readonly lines: readonly PaperLine[];
  readonly totals: readonly { readonly label: string; readonly amount: string; readonly strong?: boolean }[];
  readonly terms: string;
};

export type PaperLine = {
  readonly place: string;
  readonly description: string;
  readonly ourNumber: string;
  readonly theirNumber: string;
  readonly quantity: string;
  readonly price: string;
  readonly wanted: string;
  readonly net: string;
};

/** Height of a page, in points. */
const HEIGHTS: Readonly<Record<Paper, number>> = { A4: 842, LETTER: 792 };

const INK = '#17262B';
const MUTED = '#55646A';
const RIM = '#0F3B3A';
const LINE = '#DCD3C0';

const s = StyleSheet.create({
  page: {
    fontFamily: TEXT,
    fontSize: 9.5,
    color: INK,
    paddingTop: 96,
    paddingBottom: 64,
    paddingHorizontal: 44,
    lineHeight: 1.35,
  },
  running: {
    position: 'absolute',
    top: 32,
    left: 44,
    right: 44,
    flexDirection: 'row',
    justifyContent: 'space-between',
    borderBottomWidth: 1.5,
    borderBottomColor: RIM,
    paddingBottom: 10,
  },
  title: { fontSize: 17, fontWeight: 700, color: RIM, lineHeight: 1.2 },
  company: { fontSize: 11, fontWeight: 700, textAlign: 'right' },
  number: { fontFamily: MONO, fontSize: 12, fontWeight: 700 },
  small: { fontSize: 8, color: MUTED },
  label: { fontSize: 8, color: MUTED, marginBottom: 1 },
  blocks: { flexDirection: 'row', gap: 18, marginBottom: 14 },
  block: { flex: 1 },
  strong: { fontWeight: 700 },
  head: {
    flexDirection: 'row',
    borderBottomWidth: 1,
    borderBottomColor: INK,
    paddingVertical: 4,
    fontSize: 8,
    color: MUTED,
  },
  row: { flexDirection: 'row', borderBottomWidth: 0.5, borderBottomColor: LINE, paddingTop: 4, paddingBottom: 2 },
  place: { width: 22, color: MUTED },
  what: { flex: 1, paddingRight: 8 },
  numbers: { fontFamily: MONO, fontSize: 8, color: MUTED },
  quantity: { width: 62, textAlign: 'right' },
  price: { width: 66, textAlign: 'right' },
  wanted: { width: 96, textAlign: 'right' },
  net: { width: 66, textAlign: 'right' },
  totals: { marginTop: 8, marginLeft: 'auto', width: 230 },
  total: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    paddingVertical: 3,
    borderBottomWidth: 0.5,
    borderBottomColor: LINE,
  },
  notes: { marginTop: 18 },
  foot: {
    position: 'absolute',
    left: 44,
    right: 44,
    flexDirection: 'row',
    justifyContent: 'space-between',
    fontSize: 8,
    color: MUTED,
    borderTopWidth: 0.5,
    borderTopColor: LINE,
    paddingTop: 6,
  },
});

type Addressed = { readonly label: string; readonly strong: string; readonly lines: readonly string[] };

function Block({ label, strong, lines }: Addressed) {
  return (
    <View style={s.block}>
      <Text style={s.label}>{label}</Text>
      <Text style={s.strong}>{strong}</Text>
      {lines.map((l, k) => (
        <Text key={k}>{l}</Text>
      ))}
    </View>
  );
}

function Line({ line }: { line: PaperLine }) {
  const numbers = [line.ourNumber && `ours ${line.ourNumber}`, line.theirNumber && `yours ${line.theirNumber}`]
    .filter(Boolean)
    .join('   ');
  return (
    <View style={s.row} wrap={false}>
      <Text style={s.place}>{line.place}</Text>
      <View style={s.what}>
        <Text style={s.strong}>{line.description}</Text>
        {numbers !== '' && <Text style={s.numbers}>{numbers}</Text>}
      </View>
      <Text style={s.quantity}>{line.quantity}</Text>
      <Text style={s.price}>{line.price}</Text>
      <Text style={s.wanted}>{line.wanted}</Text>
      <Text style={s.net}>{line.net}</Text>
    </View>
  );
}

function Running({ paper }: { paper: OrderPaper }) {
  return (
    <>
      <View style={s.running} fixed>
        <View>
          <Text style={s.title}>{paper.draft ? 'Purchase order (draft)' : 'Purchase order'}</Text>
          <Text style={s.number}>{paper.number}</Text>
        </View>
        <View>
          <Text style={s.company}>{paper.company.name}</Text>
          <Text style={[s.small, { textAlign: 'right' }]}>{paper.date}</Text>
        </View>
      </View>
      <View style={[s.foot, { top: HEIGHTS[paper.size] - 46 }]} fixed>
        <Text>Please quote {paper.number} on delivery notes and invoices.</Text>
        <Text render={({ pageNumber, totalPages }) => `Page ${pageNumber} of ${totalPages}`} />
      </View>
    </>
  );
}

const addressesOf = ({ company, supplier, deliverTo }: OrderPaper): Addressed[] =>
  [
    { label: 'To', strong: supplier.name, lines: [supplier.contact, ...supplier.address.split('\n')] },
    {
      label: 'From',
      strong: company.name,
      lines: [...company.address.split('\n'), company.email, company.taxNumber && `VAT ${company.taxNumber}`],
    },
    {
      label: 'Deliver to',
      strong: deliverTo.name,
      lines: [...deliverTo.address.split('\n'), deliverTo.instructions],
    },
  ].map((a) => ({ ...a, lines: a.lines.filter((l) => l !== '') }));

function Blocks({ paper }: { paper: OrderPaper }) {
  return (
    <>
      <View style={s.blocks}>
        {addressesOf(paper).map((a) => (
          <Block key={a.label} {...a} />
        ))}
      </View>
      <View style={s.blocks}>
        <Block label="Wanted" strong={paper.wanted} lines={[]} />
        <Block label="Carrier" strong={paper.carrier || '–'} lines={[]} />
        <Block label="Payment" strong={paper.payment} lines={[]} />
        <Block label="Buyer" strong={paper.buyer} lines={[]} />
      </View>
    </>
  );
}

function Headings({ currency }: { currency: string }) {
  return (
    <View style={s.head} fixed>
      <Text style={s.place}>Line</Text>
      <Text style={s.what}>Description</Text>
      <Text style={s.quantity}>Quantity</Text>
      <Text style={s.price}>Price {currency}</Text>
      <Text style={s.wanted}>Wanted</Text>
      <Text style={s.net}>Net {currency}</Text>
    </View>
  );
}

function Close({ paper }: { paper: OrderPaper }) {
  return (
    <>
      <View style={s.totals} wrap={false}>
        {paper.totals.map((t) => (
          <View key={t.label} style={s.total}>
            <Text style={t.strong ? s.strong : {}}>{t.label}</Text>
            <Text style={t.strong ? s.strong : {}}>{t.amount}</Text>
          </View>
        ))}
      </View>
      <View style={s.notes} wrap={false}>
        {paper.instructions !== '' && <Text style={{ marginBottom: 8 }}>{paper.instructions}</Text>}
        <Text style={s.small}>{paper.terms}</Text>
      </View>
    </>
  );
}

/** Points of height that are not for lines: margins, running head and headings; the first page has addresses too. */
const AROUND = 192;
const ABOVE = 75;
const ROW = 13;
/** How many letters surely stand on one row of an address or a description. */
const LETTERS = 30;

const rowsOf = (text: string): number => Math.max(1, Math.ceil(text.length / LETTERS));

const heightOf = (line: PaperLine): number =>
  7 + ROW * rowsOf(line.description) + (line.ourNumber + line.theirNumber === '' ? 0 : 11);

/**
 * The lines by the pages they are laid out on. All would break by itself, but the layout then weighs what is left anew
 * for every page: 500 lines take 15 s. A page that is judged too full still breaks by itself.
 */
function byPage(paper: OrderPaper): PaperLine[][] {
  const blocks = addressesOf(paper).map(({ lines }) => lines.reduce((rows, l) => rows + rowsOf(l), 1));
  const pages: PaperLine[][] = [[]];
  const whole = HEIGHTS[paper.size] - AROUND;
  let room = whole - ABOVE - ROW * Math.max(...blocks);
  for (const line of paper.lines) {
    const height = heightOf(line);
    if (height > room) {
      pages.push([]);
      room = whole;
    }
    room -= height;
    pages.at(-1)?.push(line);
  }
  return pages;
}

function Paper({ paper }: { paper: OrderPaper }) {
  const pages = byPage(paper);
  return (
    <Document
      title={`Purchase order ${paper.number}`}
      author={paper.company.name}
      subject={`Order to ${paper.supplier.name}`}
      language="en-GB"
    >
      {pages.map((lines, k) => (
        <Page key={k} size={paper.size} style={s.page}>
          <Running paper={paper} />
          {k === 0 && <Blocks paper={paper} />}
          <Headings currency={paper.currency} />
          {lines.map((line) => (
            <Line key={line.place} line={line} />
          ))}
          {k === pages.length - 1 && <Close paper={paper} />}
        </Page>
      ))}
    </Document>
  );
}

/** Sets a purchase order as a PDF; a long one breaks over pages with its headings repeated. */
export async function purchaseOrderPdf(paper: OrderPaper): Promise<Buffer> {
  await registerFonts();
  return renderToBuffer(<Paper paper={paper} />);
}
