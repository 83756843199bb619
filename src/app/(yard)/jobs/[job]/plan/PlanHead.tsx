'use client';

import { formatWhole, minor } from '@/core/money/money';
import { PLANNING, PLANNING_NAMES, type Planning } from '@/core/planning/netting';
import { measured } from '@/core/quantity/units';
import type { Ahead } from '@/queries/buying/planAhead';
import type { PlanView } from '@/queries/buying/plan';
import { useYard } from '@/ui/frame/YardContext';

export type PlanRoot = PlanView['roots'][number];

type Props = {
  readonly plan: PlanView;
  readonly ahead: Ahead | undefined;
  readonly mayChange: boolean;
  readonly onSwitch: (to: Planning) => void;
  readonly onBom: (root: PlanRoot) => void;
};

/** What a plan buys, all or its shortfall, and the bills of materials that it is of. */
export function PlanHead({ plan: { roots, planning }, ahead, mayChange, onSwitch, onBom }: Props) {
  const yard = useYard();
  const [first] = roots;
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-4 gap-y-2">
      <span className="flex items-center gap-3">
        <span className="text-ink-2">Buy</span>
        <span role="group" aria-label="What to buy" className="flex overflow-hidden rounded-lg border border-line">
          {PLANNING.map((way) => (
            <button
              key={way}
              type="button"
              aria-pressed={planning === way}
              disabled={!mayChange || ahead === undefined}
              onClick={() => onSwitch(way)}
              className={`px-3 py-1 font-semibold max-phone:py-3 ${planning === way ? 'bg-enamel text-glaze' : 'text-ink-2 hover:text-ink'}`}
            >
              {PLANNING_NAMES[way]}
              {ahead?.planned != null && (
                <span className="font-normal"> {formatWhole(minor(ahead.planned[way]), yard.currency)}</span>
              )}
            </button>
          ))}
        </span>
      </span>
      <span className="text-ink-2">
        {roots.map((r, k) => (
          <span key={r.lineId}>
            {k === 0 ? 'BOM ' : ', '}
            <button
              type="button"
              className="mono font-bold text-ink hover:underline max-phone:py-3.5"
              onClick={() => onBom(r)}
            >
              {r.number}
            </button>
            {r.since !== null && ` from ${yard.day(r.since)}`}, {measured(r.quantity, r.unit)} off
          </span>
        ))}
      </span>
      {ahead !== undefined && ahead.changes > 0 && first !== undefined && (
        <button type="button" className="step ml-auto" onClick={() => onBom(first)}>
          Changed since planning: {ahead.changes}
        </button>
      )}
    </div>
  );
}
