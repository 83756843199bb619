import type { Paper } from '@/core/locale/locale';
import { ifAny, letterPdf, LOOKS, piece, type PaperColumn } from './letter';

/** What is to be picked for a job, in the order in which one walks by it; no price stands on it. */
export type PickPaper = {
  readonly job: string;
  readonly company: string;
  readonly size: Paper;
  readonly date: string;
  readonly starts: string;
  readonly lines: readonly PickPaperLine[];
};

export type PickPaperLine = {
  readonly place: string;
  /** The bins it lies in, or the pieces that are there. */
  readonly bin: string;
  readonly description: string;
  readonly number: string;
  readonly quantity: string;
  /** How many serial numbers are to be written down. */
  readonly boxes: number;
};

/** A line to write a number on. */
const BLANK = '________________';
const MOST_BLANKS = 12;

const COLUMNS: readonly PaperColumn<PickPaperLine>[] = [
  { head: 'Location', width: 130, cell: (l) => [piece(l.place, LOOKS.strong), ...ifAny(l.bin, LOOKS.numbers)] },
  { head: 'Description', cell: (l) => [piece(l.description, LOOKS.strong), ...ifAny(l.number, LOOKS.numbers)] },
  { head: 'Quantity', width: 70, right: true, cell: (l) => [piece(l.quantity, LOOKS.strong)] },
  {
    head: 'Picked',
    width: 110,
    cell: (l) => Array.from({ length: Math.min(Math.max(l.boxes, 1), MOST_BLANKS) }, () => piece(BLANK, LOOKS.small)),
  },
];

/** Sets a picking list as a PDF. */
export const pickingListPdf = (paper: PickPaper): Promise<Buffer> =>
  letterPdf(
    {
      title: 'Picking list',
      ...{ number: paper.job, date: paper.date, size: paper.size, author: paper.company },
      subject: `Items to pick for job ${paper.job}`,
      foot: `Job ${paper.job}, as of ${paper.date}`,
      addresses: [],
      facts: [
        { label: 'Work starts', strong: paper.starts, lines: [] },
        { label: 'Lines', strong: String(paper.lines.length), lines: [] },
        { label: 'Picked by', strong: '', lines: [] },
      ],
      totals: [],
      words: paper.lines.length === 0 ? 'Nothing reserved for this job.' : '',
      small: 'In walking order.',
    },
    { lines: paper.lines, columns: COLUMNS },
  );
