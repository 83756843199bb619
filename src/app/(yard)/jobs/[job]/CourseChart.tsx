'use client';

import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { Day } from '@/core/calendar/workdays';
import { formatWhole, type Minor } from '@/core/money/money';
import type { CoursePoint } from '@/queries/job';
import { useYard } from '@/ui/YardContext';

const at = (day: string) => Date.parse(`${day}T12:00:00Z`);

/** The drawing of a job's course, which is fetched when it comes into view. */
export default function CourseChart({ points }: { points: readonly CoursePoint[] }) {
  const { currency, day } = useYard();
  const data = points.map((p) => ({ ...p, at: at(p.day) }));
  const asDay = (n: number) => day(new Date(n).toISOString().slice(0, 10) as Day);
  const money = (n: number) => formatWhole(n as Minor, currency);
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
          tick={{ fontSize: 11.5, fill: 'var(--ink-2)' }}
          stroke="var(--line)"
        />
        <YAxis
          tickFormatter={money}
          width={56}
          tick={{ fontSize: 11.5, fill: 'var(--ink-2)' }}
          stroke="var(--line)"
          tickCount={4}
        />
        <Tooltip
          labelFormatter={(n) => asDay(Number(n))}
          formatter={(n, name) => [money(Number(n)), name]}
          contentStyle={{
            background: 'var(--glaze)',
            border: '1px solid var(--line)',
            borderRadius: 8,
            fontSize: 12.5,
          }}
        />
        <Area
          type="stepAfter"
          dataKey="committed"
          name="Committed"
          stroke="var(--st-received)"
          fill="var(--st-order)"
          fillOpacity={0.75}
          isAnimationActive={false}
        />
        <Line
          type="stepAfter"
          dataKey="forecast"
          name="Forecast"
          stroke="var(--st-received)"
          strokeDasharray="5 4"
          strokeWidth={1.8}
          dot={false}
          isAnimationActive={false}
        />
        <Line
          type="stepAfter"
          dataKey="budget"
          name="Budget"
          stroke="var(--brick)"
          strokeWidth={2}
          dot={false}
          isAnimationActive={false}
        />
        <ReferenceLine y={0} stroke="var(--line)" />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
