'use client';

import { PLANNED_WORK, PLANNED_WORK_NAMES, type PlannedWork } from '@/core/planning/plan';
import type { PlanRow } from '@/queries/buying/plan';
import { ShelfPlain } from '@/ui/kit/Shelf';

type StepsProps = {
  /** Whether more than reserving is theirs. */
  readonly mayChange: boolean;
  readonly rows: readonly PlanRow[];
  readonly busy: boolean;
  readonly onReserve: () => void;
  readonly onLetGo: () => void;
  readonly onMend: () => void;
  readonly onOut: () => void;
  readonly onIn: (lineIds: number[]) => void;
  readonly onWork: (lineId: number, work: PlannedWork) => void;
};

/** What can be done with the picked branches. */
export function PickedSteps({ mayChange, rows, busy, onReserve, onLetGo, onMend, onOut, onIn, onWork }: StepsProps) {
  const out = rows.flatMap((r) => (r.leftOut === null || r.lineId === null ? [] : [r.lineId]));
  const inside = rows.filter((r) => r.lineId !== null && r.leftOut === null);
  const bought = rows.filter((r) => r.need !== null && r.isIn);
  const held = bought.filter((r) => (r.need?.inStores ?? 0) + (r.need?.coming ?? 0) > 0);
  const [one] = rows;
  const made = rows.length === 1 && one?.gotBy === 'made' && one.parent !== null ? one : undefined;
  return (
    <>
      {mayChange && made?.lineId != null && (
        <label className="flex items-center gap-2">
          <span className="text-on-rim-2">{made.description} is</span>
          <select
            className="field field-small !w-auto"
            disabled={busy}
            value={made.work}
            onChange={(e) => onWork(made.lineId ?? 0, e.target.value as PlannedWork)}
          >
            {PLANNED_WORK.map((way) => (
              <option key={way} value={way}>
                {PLANNED_WORK_NAMES[way]}
              </option>
            ))}
          </select>
        </label>
      )}
      {bought.length > 0 && (
        <ShelfPlain onClick={onReserve} disabled={busy}>
          Reserve
        </ShelfPlain>
      )}
      {mayChange && bought.length > 0 && (
        <ShelfPlain onClick={onMend} disabled={busy}>
          Change…
        </ShelfPlain>
      )}
      {held.length > 0 && (
        <ShelfPlain onClick={onLetGo} disabled={busy}>
          Unreserve
        </ShelfPlain>
      )}
      {mayChange && inside.length > 0 && (
        <ShelfPlain onClick={onOut} disabled={busy}>
          Exclude…
        </ShelfPlain>
      )}
      {mayChange && out.length > 0 && (
        <ShelfPlain onClick={() => onIn(out)} disabled={busy}>
          Include again
        </ShelfPlain>
      )}
    </>
  );
}
