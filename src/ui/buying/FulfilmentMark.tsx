import { FULFILMENT_NAMES, type Fulfilment } from '@/core/needs/fulfilment';

type Shape = {
  /** How high the vial is filled, from 0 to 1. */
  readonly level: number;
  readonly fill?: string;
  /** A dashed glass is none yet. */
  readonly dashed?: boolean;
  /** What is drawn over it: a drop on its way in, a lid that keeps it, a bung, or an arrow out. */
  readonly over?: 'drop' | 'lid' | 'cross' | 'pin' | 'out' | 'strokes';
};

const SHAPES: Readonly<Record<Fulfilment, Shape>> = {
  notNeeded: { level: 0, dashed: true },
  nothing: { level: 0, dashed: true },
  drafted: { level: 0, over: 'strokes' },
  ordered: { level: 0, over: 'drop' },
  partIn: { level: 0.45, fill: 'var(--st-order)' },
  held: { level: 0.85, fill: 'var(--st-order)', over: 'lid' },
  uncertified: { level: 0.85, fill: 'var(--st-order)', over: 'cross' },
  reserved: { level: 0.85, fill: 'var(--st-received)', over: 'pin' },
  in: { level: 1, fill: 'var(--st-received)' },
  invoiced: { level: 1, fill: 'var(--st-actual)' },
  issued: { level: 1, fill: 'var(--st-actual)', over: 'out' },
};

const HEIGHT = 13;

function Over({ over }: { over: Shape['over'] }) {
  const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.4, strokeLinecap: 'round' as const };
  switch (over) {
    case 'drop':
      return <path d="M5 3.2v6M2.9 7.2 5 9.4l2.1-2.2" {...line} />;
    case 'lid':
      return <path d="M.8 1.6h8.4" {...line} strokeWidth={2} />;
    case 'cross':
      return <path d="M3 4l4 4M7 4l-4 4" {...line} />;
    case 'pin':
      return <circle cx="5" cy="7.5" r="1.7" fill="var(--st-ground)" />;
    case 'out':
      return <path d="M3.2 7h7.6M8.8 4.8 11 7l-2.2 2.2" {...line} />;
    case 'strokes':
      return <path d="M2.6 5.5 7.4 3M2.6 8.5 7.4 6M2.6 11.5 7.4 9" {...line} strokeWidth={1} />;
    default:
      return null;
  }
}

/** How far a line has come: a small vial whose filling and shape say it, and the word beside it. */
export function FulfilmentMark({ standing, on }: { readonly standing: Fulfilment; readonly on?: string | undefined }) {
  const { level, fill, dashed = false, over } = SHAPES[standing];
  const faint = standing === 'notNeeded' || standing === 'nothing';
  const room = HEIGHT - 2;
  return (
    <span className={`inline-flex items-baseline gap-1.5 whitespace-nowrap ${faint ? 'text-ink-2' : ''}`}>
      <svg width="12" height="15" viewBox="0 0 12 15" aria-hidden className="shrink-0 translate-y-[2px]">
        {level > 0 && <rect x="1.5" y={1.5 + room * (1 - level)} width="7" height={room * level + 0.5} fill={fill} />}
        <rect
          x="1"
          y="1"
          width="8"
          height={HEIGHT}
          rx="1.6"
          fill="none"
          stroke="currentColor"
          strokeDasharray={dashed ? '1.6 1.6' : undefined}
        />
        <Over over={over} />
      </svg>
      <span>
        {FULFILMENT_NAMES[standing]}
        {on !== undefined && <span className="block text-[12.5px] text-ink-2">{on}</span>}
      </span>
    </span>
  );
}
