'use client';

import { Area, Line, ReferenceLine } from 'recharts';
import { formatWhole, type Minor } from '@/core/money/money';
import type { CoursePoint } from '@/queries/job';
import { TimeChart } from '@/ui/TimeChart';
import { useYard } from '@/ui/YardContext';

/** The drawing of a job's course, which is fetched when it comes into view. */
export default function CourseChart({ points }: { points: readonly CoursePoint[] }) {
  const { currency } = useYard();
  const money = (n: number) => formatWhole(n as Minor, currency);
  return (
    <TimeChart points={points} told={money} scale={money}>
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
    </TimeChart>
  );
}
