import { formatWhole, signOf, type Minor } from '@/core/money/money';
import { STAGE_NAMES, type Stage } from '@/core/tab/stages';
import { gauge, headroomOf, type Level } from '@/core/tab/sums';

type Props = {
  readonly level: Level;
  readonly currency: string;
  /** What the level belongs to, for a screen reader: “03 Electrical”. */
  readonly name: string;
  /** Opens the postings of a stage. */
  readonly onPick?: (stage: Stage) => void;
  /** The stage whose postings are open. */
  readonly chosen?: Stage;
};

const said = (amount: Minor, currency: string) => `${signOf(currency)} ${formatWhole(amount, currency)}`;

/** The level in words: the same that the picture tells. */
export function levelInWords(level: Level, currency: string, name: string): string {
  const stages = gauge(level).segments.map((s) => `${STAGE_NAMES[s.stage].toLowerCase()} ${said(s.amount, currency)}`);
  return `${name}: budget ${said(level.budget, currency)}; ${stages.length === 0 ? 'nothing bought or planned' : stages.join(', ')}; ${headroomInWords(level, currency)}.`;
}

/** What of a budget is left, or by how much it is passed. */
export function headroomInWords(level: Level, currency: string): string {
  const headroom = headroomOf(level);
  return headroom < 0 ? `${said(Math.abs(headroom) as Minor, currency)} over` : `${said(headroom, currency)} headroom`;
}

const percent = (share: number) => `${(share * 100).toFixed(3)}%`;

/** A budget lying in a table or at the foot of a tab: stages from the left, the MAX mark, and what passes it in brick. */
export function LyingGlass({ level, currency, name, tiny = false }: Props & { tiny?: boolean }) {
  const { segments, max, over } = gauge(level);
  const room = tiny ? 1 : 0.94;
  return (
    <span
      role="img"
      aria-label={levelInWords(level, currency, name)}
      title={levelInWords(level, currency, name)}
      className={`lying relative block w-full ${tiny ? 'h-[5px]' : 'h-[15px]'}`}
    >
      <span
        className={`absolute left-0 overflow-hidden border border-line bg-[var(--st-ground)] ${tiny ? 'inset-y-0 rounded-sm border-0 bg-glaze' : 'inset-y-[3px] rounded-[3px]'}`}
        style={{ width: percent(max * room) }}
      />
      <span
        className={`absolute inset-y-0 left-0 overflow-hidden ${tiny ? '' : 'my-[3px] rounded-[3px]'}`}
        style={{ width: percent(room) }}
      >
        {segments.map((s) => (
          <span
            key={s.stage}
            className={`rise absolute inset-y-0 st-${s.stage}`}
            style={{ left: percent(s.from), width: percent(Math.min(s.to, max) - Math.min(s.from, max)) }}
          />
        ))}
        {over && (
          <span
            className="st-over absolute inset-y-0 rounded-r-[3px]"
            style={{ left: percent(over.from), width: percent(over.to - over.from) }}
          />
        )}
      </span>
      {!tiny && (
        <span
          className="absolute inset-y-[3px] left-0 rounded-[3px] border border-[var(--ink-3)]/60"
          style={{ width: percent(max * room) }}
        />
      )}
      {!tiny && <span className="absolute inset-y-0 w-[2px] bg-brick" style={{ left: percent(max * room) }} />}
    </span>
  );
}

/** The budget of a whole job, upright: the picture of the job page. */
export function UprightGlass({ level, currency, name, onPick, chosen }: Props) {
  const { segments, max, over } = gauge(level);
  const room = 0.92;
  const headroom = headroomOf(level);
  const labels = spaced(
    segments.map((s) => ({ ...s, at: ((s.from + s.to) / 2) * room })),
    over === undefined ? max * room - LABEL : 1,
  );
  // Headroom stands under its mark, or above it where the labels leave no room.
  const crowded = (labels.at(-1)?.at ?? 0) > max * room - 2 * LABEL;
  return (
    <div role="group" aria-label={levelInWords(level, currency, name)} className="relative h-[450px]">
      <div className="absolute inset-y-0 left-1 w-[46px] overflow-hidden rounded-full border-2 border-[var(--line)] bg-[var(--st-ground)] shadow-[inset_0_0_0_1px_var(--ink-3)]">
        {segments.map((s) => {
          const style = {
            bottom: percent(s.from * room),
            height: percent((Math.min(s.to, max) - Math.min(s.from, max)) * room),
          };
          const title = `${STAGE_NAMES[s.stage]} ${said(s.amount, currency)}`;
          const look = `rise absolute inset-x-0 st-${s.stage} ${chosen === s.stage ? 'outline-2 -outline-offset-2 outline-copper' : ''}`;
          return (
            <span
              key={s.stage}
              title={title}
              onClick={() => onPick?.(s.stage)}
              className={`${look} ${onPick ? 'cursor-pointer' : ''}`}
              style={style}
            />
          );
        })}
        {over && (
          <span
            title="Over budget"
            className="st-over absolute inset-x-0"
            style={{ bottom: percent(over.from * room), height: percent((over.to - over.from) * room) }}
          />
        )}
      </div>
      <div
        className="absolute left-0 h-[3px] w-[56px] rounded bg-brick"
        style={{ bottom: `calc(${percent(max * room)} - 1px)` }}
      />
      <div
        className="absolute left-[64px] translate-y-1/2 text-[12.5px] font-bold whitespace-nowrap text-brick"
        style={{ bottom: percent(max * room) }}
      >
        MAX {formatWhole(level.budget, currency)}
      </div>
      {labels.map((l) => (
        <button
          key={l.stage}
          type="button"
          onClick={() => onPick?.(l.stage)}
          className={`absolute left-[64px] translate-y-1/2 text-left text-[12.5px] leading-[15px] hover:underline ${chosen === l.stage ? 'text-copper-text' : ''}`}
          style={{ bottom: percent(l.at) }}
        >
          {STAGE_NAMES[l.stage]} <span className="block font-bold">{formatWhole(l.amount, currency)}</span>
        </button>
      ))}
      <div
        className={`absolute top-0 left-[64px] text-[12.5px] font-bold ${headroom < 0 ? 'text-brick' : 'text-enamel'} ${max * room > 0.95 ? 'top-10' : ''}`}
        style={
          headroom < 0
            ? undefined
            : { top: 'auto', bottom: percent(crowded ? max * room + 0.025 : Math.max(max * room - LABEL, 0)) }
        }
      >
        {headroom < 0
          ? `Over ${formatWhole(Math.abs(headroom) as Minor, currency)}`
          : `Headroom ${formatWhole(headroom, currency)}`}
      </div>
    </div>
  );
}

/** Height that a label takes, as a share of the glass. */
const LABEL = 0.075;

/** Keeps labels of thin segments from lying on one another: pushed up from below, then down from the ceiling. */
function spaced<T extends { at: number }>(labels: readonly T[], ceiling: number): T[] {
  let floor = 0.02;
  const raised = labels.map((l) => {
    const at = Math.max(l.at, floor);
    floor = at + LABEL;
    return { ...l, at };
  });
  let most = ceiling;
  return raised
    .reverse()
    .map((l) => {
      const at = Math.min(l.at, most);
      most = at - LABEL;
      return { ...l, at };
    })
    .reverse();
}

/** How far a quantity has come: received, on order, drafted, of all that is needed. */
export function ProgressGlass({
  parts,
  whole,
  words,
}: {
  parts: readonly { stage: Stage; share: number }[];
  whole: number;
  words: string;
}) {
  const shareOf = (p: { share: number }) => Math.max(p.share, 0) / Math.max(whole, 1);
  return (
    <span
      role="img"
      aria-label={words}
      title={words}
      className="lying flex h-[9px] w-full overflow-hidden rounded-[3px] border border-line bg-[var(--st-ground)]"
    >
      {parts.map((p) => (
        <span key={p.stage} className={`shrink-0 st-${p.stage}`} style={{ width: percent(Math.min(shareOf(p), 1)) }} />
      ))}
    </span>
  );
}
