import { Document, Page, renderToBuffer, StyleSheet, Text, View } from '@react-pdf/renderer';
import type { ReactElement } from 'react';
import type { Paper } from '@/core/locale/locale';
import { MONO, registerFonts, TEXT } from './fonts';

/** What every paper that leaves the house has: its head, who it is between, its sums and its small print. */
export type Letter = {
  /** What it is, as its head says. */
  readonly title: string;
  readonly number: string;
  readonly date: string;
  readonly size: Paper;
  readonly author: string;
  readonly subject: string;
  /** What stands at the foot of every page. */
  readonly foot: string;
  readonly addresses: readonly Addressed[];
  readonly facts: readonly Addressed[];
  readonly totals: readonly Total[];
  readonly words: string;
  readonly small: string;
};

/** The company as its papers name it. */
export type PaperCompany = {
  readonly name: string;
  readonly address: string;
  readonly email: string;
  readonly taxNumber: string;
};

export type Addressed = { readonly label: string; readonly strong: string; readonly lines: readonly string[] };
export type Total = { readonly label: string; readonly amount: string; readonly strong?: boolean };

/** Height of a page, in points. */
const HEIGHTS: Readonly<Record<Paper, number>> = { A4: 842, LETTER: 792 };

const INK = '#17262B';
const MUTED = '#55646A';
const RIM = '#0F3B3A';
const LINE = '#DCD3C0';

export const s = StyleSheet.create({
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

function Running({ letter }: { letter: Letter }) {
  return (
    <>
      <View style={s.running} fixed>
        <View>
          <Text style={s.title}>{letter.title}</Text>
          <Text style={s.number}>{letter.number}</Text>
        </View>
        <View>
          <Text style={s.company}>{letter.author}</Text>
          <Text style={[s.small, { textAlign: 'right' }]}>{letter.date}</Text>
        </View>
      </View>
      <View style={[s.foot, { top: HEIGHTS[letter.size] - 46 }]} fixed>
        <Text>{letter.foot}</Text>
        <Text render={({ pageNumber, totalPages }) => `Page ${pageNumber} of ${totalPages}`} />
      </View>
    </>
  );
}

const Blocks = ({ of }: { of: readonly Addressed[] }) => (
  <View style={s.blocks}>
    {of.map((a) => (
      <Block key={a.label} {...a} />
    ))}
  </View>
);

function Close({ letter }: { letter: Letter }) {
  return (
    <>
      <View style={s.totals} wrap={false}>
        {letter.totals.map((t) => (
          <View key={t.label} style={s.total}>
            <Text style={t.strong ? s.strong : {}}>{t.label}</Text>
            <Text style={t.strong ? s.strong : {}}>{t.amount}</Text>
          </View>
        ))}
      </View>
      <View style={s.notes} wrap={false}>
        {letter.words !== '' && <Text style={{ marginBottom: 8 }}>{letter.words}</Text>}
        <Text style={s.small}>{letter.small}</Text>
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

/** How high a line stands, with a row of small print below it or without. */
export const lineHeight = (description: string, small: string): number =>
  7 + ROW * rowsOf(description) + (small === '' ? 0 : 11);

/**
 * The lines by the pages they are laid out on. All would break by itself, but the layout then weighs what is left anew
 * for every page: 500 lines take 15 s. A page that is judged too full still breaks by itself.
 */
function byPage<L>(letter: Letter, all: readonly L[], heightOf: (line: L) => number): L[][] {
  const blocks = letter.addresses.map(({ lines }) => lines.reduce((rows, l) => rows + rowsOf(l), 1));
  const pages: L[][] = [[]];
  const whole = HEIGHTS[letter.size] - AROUND;
  let room = whole - ABOVE - ROW * Math.max(...blocks);
  for (const line of all) {
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

type Body<L> = {
  readonly lines: readonly L[];
  readonly heightOf: (line: L) => number;
  readonly headings: ReactElement;
  readonly draw: (line: L, key: number) => ReactElement;
};

/** Sets a letter with its lines as a PDF; a long one breaks over pages with its headings repeated. */
export async function letterPdf<L>(letter: Letter, { lines, heightOf, headings, draw }: Body<L>): Promise<Buffer> {
  await registerFonts();
  const pages = byPage(letter, lines, heightOf);
  return renderToBuffer(
    <Document
      title={`${letter.title} ${letter.number}`}
      author={letter.author}
      subject={letter.subject}
      language="en-GB"
    >
      {pages.map((own, k) => (
        <Page key={k} size={letter.size} style={s.page}>
          <Running letter={letter} />
          {k === 0 && <Blocks of={letter.addresses} />}
          {k === 0 && <Blocks of={letter.facts} />}
          {headings}
          {own.map(draw)}
          {k === pages.length - 1 && <Close letter={letter} />}
        </Page>
      ))}
    </Document>,
  );
}
