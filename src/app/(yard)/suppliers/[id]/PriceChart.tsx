'use client';

import { Line, Scatter } from 'recharts';
import type { Day } from '@/core/calendar/workdays';
import { formatPrice, type UnitPrice } from '@/core/money/money';
import { TimeChart } from '@/ui/kit/TimeChart';

export type PricePoint = {
  readonly day: Day;
  readonly listed?: number;
  readonly paid?: number;
  readonly order?: string;
};

type Props = { readonly points: readonly PricePoint[]; readonly currency: string };

/** The drawing of a part's prices over time, which is fetched when the page stands. */
export default function PriceChart({ points, currency }: Props) {
  const money = (n: number) => formatPrice(Math.round(n) as UnitPrice, currency);
  return (
    <TimeChart
      points={points}
      told={money}
      // In whole pence: prices of a hundredth of one are told beside it.
      scale={(n) => money(Math.round(n / 100) * 100)}
      domain={[(low) => low * 0.9, (high) => high * 1.1]}
    >
      <Line
        dataKey="listed"
        name="Listed"
        type="stepAfter"
        stroke="var(--st-received)"
        strokeWidth={2}
        dot={false}
        connectNulls
        isAnimationActive={false}
      />
      <Scatter dataKey="paid" name="Paid" fill="var(--st-actual)" isAnimationActive={false} />
    </TimeChart>
  );
}
