import type { Paper } from '@/core/locale/locale';
import { loadFaces } from './fonts';
import { Setting, type Look, type Piece } from './setting';

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

/** A column of lines: its head, how wide it is in points (all that is left where nothing is said), and what stands in it. */
export type PaperColumn<L> = {
  readonly head: string;
  readonly width?: number;
  readonly right?: true;
  readonly cell: (line: L) => readonly Piece[];
};

/** Width and height of a page, in points. */
const SIZES: Readonly<Record<Paper, readonly [width: number, height: number]>> = {
  A4: [595.28, 841.89],
  LETTER: [612, 792],
};

const [INK, MUTED, RIM, LINE] = ['#17262B', '#55646A', '#0F3B3A', '#DCD3C0'];
const look = (face: Look['face'], size: number, colour = INK): Look => ({ face, size, colour });

/** How text looks on paper. */
export const LOOKS = {
  text: look('text', 9.5),
  strong: look('strong', 9.5),
  muted: look('text', 9.5, MUTED),
  small: look('text', 8, MUTED),
  numbers: look('mono', 8, MUTED),
} as const;
const TITLE = look('strong', 17, RIM);
const NUMBER = look('monoStrong', 12);
const COMPANY = look('strong', 11);

export const piece = (text: string, own: Look = LOOKS.text): Piece => ({ text, look: own });
/** A piece where there is something to say. */
export const ifAny = (text: string, own: Look): Piece[] => (text === '' ? [] : [piece(text, own)]);

const SIDE = 44;
const TOP = 96;
const FOOT = 64;
const GAP = 18;
const BETWEEN = 8;

/** A page that is filled from above. */
class Pages {
  y = TOP;
  readonly width: number;
  private readonly bottom: number;

  constructor(
    readonly set: Setting,
    private readonly letter: Letter,
  ) {
    const [width, height] = SIZES[letter.size];
    this.width = width - 2 * SIDE;
    this.bottom = height - FOOT;
    this.turn();
  }

  /** Goes on to a new page, with the head that runs over all. */
  turn(): void {
    const { set, letter, width } = this;
    set.doc.addPage({ size: [...SIZES[letter.size]], margin: 0 });
    set.put([piece(letter.title, TITLE), piece(letter.number, NUMBER)], SIDE, 32, width * 0.66);
    set.put([piece(letter.author, COMPANY), piece(letter.date, LOOKS.small)], SIDE, 32, width, 'right');
    set.line(SIDE, 82, width, 1.5, RIM);
    this.y = TOP;
  }

  /** Makes room for something so high. @returns whether a new page was begun for it */
  room(height: number): boolean {
    const turns = this.y + height > this.bottom && this.y > TOP;
    if (turns) this.turn();
    return turns;
  }

  blocks(of: readonly Addressed[]): void {
    const { set } = this;
    const width = (this.width - GAP * (of.length - 1)) / Math.max(of.length, 1);
    const heights = of.map(({ label, strong, lines }, k) => {
      const pieces = [piece(label, LOOKS.small), piece(strong, LOOKS.strong), ...lines.map((l) => piece(l))];
      return set.put(pieces, SIDE + k * (width + GAP), this.y, width);
    });
    this.y += Math.max(...heights, 0) + 14;
  }
}

type Placed<L> = PaperColumn<L> & { readonly x: number; readonly wide: number };

/** Columns side by side: those of a set width, and the rest for the others. */
function placed<L>(columns: readonly PaperColumn<L>[], whole: number): Placed<L>[] {
  const open = columns.filter((c) => c.width === undefined).length;
  const taken = columns.reduce((sum, c) => sum + (c.width ?? 0), 0);
  const rest = (whole - taken - BETWEEN * (columns.length - 1)) / Math.max(open, 1);
  let x = SIDE;
  return columns.map((c) => {
    const at = { ...c, x, wide: c.width ?? rest };
    x += at.wide + BETWEEN;
    return at;
  });
}

function headings<L>(pages: Pages, columns: readonly Placed<L>[]): void {
  const { set } = pages;
  const height = Math.max(...columns.map((c) => set.height([piece(c.head, LOOKS.small)], c.wide)));
  for (const c of columns)
    set.put([piece(c.head, LOOKS.small)], c.x, pages.y + 4, c.wide, c.right === true ? 'right' : 'left');
  pages.y += height + 8;
  set.line(SIDE, pages.y, pages.width, 1, INK);
}

function rows<L>(pages: Pages, columns: readonly Placed<L>[], lines: readonly L[]): void {
  const { set } = pages;
  for (const line of lines) {
    const cells = columns.map((c) => c.cell(line));
    const height = 6 + Math.max(...columns.map((c, k) => set.height(cells[k] ?? [], c.wide)));
    if (pages.room(height)) headings(pages, columns);
    columns.forEach((c, k) => set.put(cells[k] ?? [], c.x, pages.y + 4, c.wide, c.right === true ? 'right' : 'left'));
    pages.y += height;
    set.line(SIDE, pages.y, pages.width, 0.5, LINE);
  }
}

const TOTALS = 230;

function close(pages: Pages, { totals, words, small }: Letter): void {
  const { set, width } = pages;
  const row = (t: Total) => (t.strong === true ? LOOKS.strong : LOOKS.text);
  const high = totals.reduce((sum, t) => sum + set.height([piece(t.label, row(t))], TOTALS) + 6, 8);
  pages.room(high);
  pages.y += 8;
  for (const t of totals) {
    const x = SIDE + width - TOTALS;
    const height = set.put([piece(t.label, row(t))], x, pages.y + 3, TOTALS - 90);
    set.put([piece(t.amount, row(t))], x, pages.y + 3, TOTALS, 'right');
    pages.y += height + 6;
    set.line(x, pages.y, TOTALS, 0.5, LINE);
  }
  pages.y += GAP;
  for (const note of [...ifAny(words, LOOKS.text), piece(small, LOOKS.small)]) {
    // A long note goes on over pages, row by row.
    for (const row of set.rows(note, width).map((text) => [piece(text, note.look)])) {
      pages.room(set.height(row, width));
      pages.y += set.put(row, SIDE, pages.y, width);
    }
    pages.y += BETWEEN;
  }
}

/** Sets a letter with its lines as a PDF; a long one breaks over pages with its headings repeated. */
export async function letterPdf<L>(
  letter: Letter,
  { lines, columns }: { readonly lines: readonly L[]; readonly columns: readonly PaperColumn<L>[] },
): Promise<Buffer> {
  const { title, number, author, subject } = letter;
  const set = new Setting(await loadFaces(), {
    info: { Title: `${title} ${number}`, Author: author, Subject: subject },
    lang: 'en-GB',
    displayTitle: true,
  });
  const pages = new Pages(set, letter);
  pages.blocks(letter.addresses);
  pages.blocks(letter.facts);
  const own = placed(columns, pages.width);
  headings(pages, own);
  rows(pages, own, lines);
  close(pages, letter);
  const { start, count } = set.doc.bufferedPageRange();
  const [, height] = SIZES[letter.size];
  for (let k = 0; k < count; k += 1) {
    set.doc.switchToPage(start + k);
    set.line(SIDE, height - 46, pages.width, 0.5, LINE);
    set.put([piece(letter.foot, LOOKS.small)], SIDE, height - 40, pages.width * 0.75);
    set.put([piece(`Page ${k + 1} of ${count}`, LOOKS.small)], SIDE, height - 40, pages.width, 'right');
  }
  return set.end();
}
