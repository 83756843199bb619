'use client';

import { CartesianGrid, ComposedChart, Line, ResponsiveContainer, Scatter, Tooltip, XAxis, YAxis } from 'recharts';
import type { Day } from '@/core/calendar/workdays';
import { formatPrice, type UnitPrice } from '@/core/money/money';
import { useYard } from '@/ui/YardContext';

export type PricePoint = {
  readonly day: Day;
  readonly listed?: number;
  readonly paid?: number;
  readonly order?: string;
};

type Props = { readonly points: readonly PricePoint[]; readonly currency: string };

const at = (day: string) => Date.parse(`${day}T12:00:00Z`);

/** The drawing of a part's prices over time, which is fetched when the page stands. */
export default function PriceChart({ points, currency }: Props) {
  const { day } = useYard();
  const data = points.map((p) => ({ ...p, at: at(p.day) }));
  const asDay = (n: number) => day(new Date(n).toISOString().slice(0, 10) as Day);
  const money = (n: number) => formatPrice(Math.round(n) as UnitPrice, currency);
  // A scale in whole pence: prices of a hundredth of one are told beside it.
  const scale = (n: number) => money(Math.round(n / 100) * 100);
  const tick = { fontSize: 11.5, fill: 'var(--ink-2)' };
  return (
    <ResponsiveContainer width="100%" height="100%">
      <ComposedChart data={data} margin={{ top: 10, right: 12, bottom: 0, left: 4 }} accessibilityLayer={false}>
        <CartesianGrid vertical={false} stroke="var(--line-2)" />
        <XAxis
          dataKey="at"
          type="number"
          domain={['dataMin', 'dataMax']}
          tickFormatter={asDay}
          minTickGap={60}
          tick={tick}
          stroke="var(--line)"
        />
        <YAxis
          tickFormatter={scale}
          width={64}
          tick={tick}
          axisLine={false}
          tickLine={false}
          domain={[(low: number) => low * 0.9, (high: number) => high * 1.1]}
        />
        <Tooltip
          labelFormatter={(n) => asDay(Number(n))}
          formatter={(value, name) => [money(Number(value)), name === 'paid' ? 'Paid' : 'Listed']}
          contentStyle={{ background: 'var(--glaze)', border: '1px solid var(--line)', borderRadius: 8 }}
        />
        <Line
          dataKey="listed"
          type="stepAfter"
          stroke="var(--st-received)"
          strokeWidth={2}
          dot={false}
          connectNulls
          isAnimationActive={false}
        />
        <Scatter dataKey="paid" fill="var(--st-actual)" isAnimationActive={false} />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
