import type { Paper } from '@/core/locale/locale';
import { ifAny, letterPdf, LOOKS, piece, type PaperColumn } from './letter';

/** What is to be counted at a place, in the order of its bins; no price stands on it, and on a blind one no quantity. */
export type CountPaper = {
  readonly number: string;
  readonly company: string;
  readonly size: Paper;
  readonly date: string;
  readonly place: string;
  readonly blind: boolean;
  readonly lines: readonly CountPaperLine[];
};

export type CountPaperLine = {
  readonly bin: string;
  readonly description: string;
  readonly number: string;
  readonly unit: string;
  readonly book: string;
};

const BLANK = '____________';

const columns = (blind: boolean): readonly PaperColumn<CountPaperLine>[] => [
  { head: 'Bin', width: 70, cell: (l) => [piece(l.bin || '–', LOOKS.numbers)] },
  { head: 'Description', cell: (l) => [piece(l.description, LOOKS.strong), ...ifAny(l.number, LOOKS.numbers)] },
  ...(blind
    ? []
    : [{ head: 'Book qty', width: 60, right: true as const, cell: (l: CountPaperLine) => [piece(l.book)] }]),
  { head: 'Counted', width: 110, right: true, cell: (l) => [piece(`${BLANK} ${l.unit}`)] },
];

/** Sets a counting sheet as a PDF. */
export const countSheetPdf = (paper: CountPaper): Promise<Buffer> =>
  letterPdf(
    {
      title: 'Count sheet',
      ...{ number: paper.number, date: paper.date, size: paper.size, author: paper.company },
      subject: `Count of ${paper.place}`,
      foot: `${paper.number}, ${paper.place}`,
      addresses: [{ label: 'Location', strong: paper.place, lines: [] }],
      facts: [
        { label: 'Lines', strong: String(paper.lines.length), lines: [] },
        { label: 'Counted by', strong: '', lines: [] },
        { label: 'Date', strong: '', lines: [] },
      ],
      totals: [],
      words: paper.lines.length === 0 ? 'No book stock here.' : '',
      small: paper.blind ? 'Blind count: book quantities not shown.' : '',
    },
    { lines: paper.lines, columns: columns(paper.blind) },
  );
