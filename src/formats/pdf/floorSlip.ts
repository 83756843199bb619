import type { Paper } from '@/core/locale/locale';
import { ifAny, letterPdf, LOOKS, piece, type PaperColumn } from './letter';

/** What a job has on order, written out to hang beside the work; no price stands on it. */
export type FloorPaper = {
  readonly number: string;
  readonly name: string;
  readonly site: string;
  readonly company: string;
  readonly size: Paper;
  readonly date: string;
  readonly starts: string;
  readonly lines: readonly FloorLine[];
  /** What is not ordered yet. */
  readonly open: readonly FloorLine[];
};

export type FloorLine = {
  readonly description: string;
  readonly number: string;
  readonly quantity: string;
  readonly from: string;
  readonly order: string;
  readonly comes: string;
  readonly goesTo: string;
};

const COLUMNS: readonly PaperColumn<FloorLine>[] = [
  { head: 'Description', cell: (l) => [piece(l.description, LOOKS.strong), ...ifAny(l.number, LOOKS.numbers)] },
  { head: 'Quantity', width: 62, right: true, cell: (l) => [piece(l.quantity)] },
  { head: 'Supplier', width: 110, cell: (l) => [...ifAny(l.from, LOOKS.text), ...ifAny(l.order, LOOKS.numbers)] },
  { head: 'Expected, and where', width: 110, cell: (l) => [piece(l.comes), ...ifAny(l.goesTo, LOOKS.small)] },
];

/** Sets a job's slip for the shop floor as a PDF: what is ordered, then what is not yet. */
export const floorSlipPdf = (paper: FloorPaper): Promise<Buffer> =>
  letterPdf(
    {
      title: 'Material status',
      ...{ number: `${paper.number} ${paper.name}`, date: paper.date, size: paper.size, author: paper.company },
      subject: `Material of job ${paper.number}`,
      foot: `Job ${paper.number}, as of ${paper.date}`,
      addresses: [{ label: 'Site or bay', strong: paper.site || '–', lines: [] }],
      facts: [
        { label: 'Work starts', strong: paper.starts, lines: [] },
        { label: 'On order', strong: String(paper.lines.length), lines: [] },
        { label: 'To order', strong: String(paper.open.length), lines: [] },
      ],
      totals: [],
      words: paper.lines.length + paper.open.length === 0 ? 'Nothing on this job’s buy list.' : '',
      small: 'Dates are the supplier’s promise where given, otherwise the required date.',
    },
    {
      lines: [...paper.lines, ...paper.open.map((l) => ({ ...l, order: 'not ordered yet' }))],
      columns: COLUMNS,
    },
  );
