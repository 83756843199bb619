import { Text, View } from '@react-pdf/renderer';
import type { Paper } from '@/core/locale/locale';
import { letterPdf, lineHeight, s } from './letter';

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

const WIDE = { width: 118, paddingLeft: 8 };

const Line = ({ line }: { line: FloorLine }) => (
  <View style={s.row} wrap={false}>
    <View style={s.what}>
      <Text style={s.strong}>{line.description}</Text>
      {line.number !== '' && <Text style={s.numbers}>{line.number}</Text>}
    </View>
    <Text style={s.quantity}>{line.quantity}</Text>
    <View style={WIDE}>
      <Text>{line.from}</Text>
      {line.order !== '' && <Text style={s.numbers}>{line.order}</Text>}
    </View>
    <View style={WIDE}>
      <Text>{line.comes}</Text>
      {line.goesTo !== '' && <Text style={s.small}>{line.goesTo}</Text>}
    </View>
  </View>
);

const Headings = () => (
  <View style={s.head} fixed>
    <Text style={s.what}>What</Text>
    <Text style={s.quantity}>Quantity</Text>
    <Text style={WIDE}>From</Text>
    <Text style={WIDE}>Comes, and where</Text>
  </View>
);

/** Sets a job's slip for the shop floor as a PDF: what is ordered, then what is not yet. */
export const floorSlipPdf = (paper: FloorPaper): Promise<Buffer> =>
  letterPdf(
    {
      title: 'What is ordered',
      ...{ number: `${paper.number} ${paper.name}`, date: paper.date, size: paper.size, author: paper.company },
      subject: `Material of job ${paper.number}`,
      foot: `Job ${paper.number}, as of ${paper.date}`,
      addresses: [{ label: 'Where', strong: paper.site || '–', lines: [] }],
      facts: [
        { label: 'Work starts', strong: paper.starts, lines: [] },
        { label: 'Ordered', strong: String(paper.lines.length), lines: [] },
        { label: 'Not ordered yet', strong: String(paper.open.length), lines: [] },
      ],
      totals: [],
      words: paper.lines.length + paper.open.length === 0 ? 'Nothing is on this job’s buy list.' : '',
      small: 'Days are the supplier’s promise where one was given, else the day it is wanted.',
    },
    {
      lines: [...paper.lines, ...paper.open.map((l) => ({ ...l, order: 'not ordered yet' }))],
      heightOf: (l) => lineHeight(l.description, l.number + l.order + l.goesTo),
      headings: <Headings />,
      draw: (line, key) => <Line key={key} line={line} />,
    },
  );
