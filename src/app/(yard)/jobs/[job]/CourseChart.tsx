'use client';

import { Area, Line, ReferenceLine } from 'recharts';
import { formatWhole, type Minor } from '@/core/money/money';
import type { CourseEvent, CoursePoint } from '@/queries/jobs/course';
import { at, TimeChart } from '@/ui/kit/TimeChart';
import { useYard } from '@/ui/frame/YardContext';

type Props = { readonly points: readonly CoursePoint[]; readonly events: readonly CourseEvent[] };

/** The drawing of a job's course, which is fetched when it comes into view. */
export default function CourseChart({ points, events }: Props) {
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
      <Area
        type="stepAfter"
        dataKey="actual"
        name="Actual"
        stroke="var(--st-actual)"
        fill="var(--st-actual)"
        fillOpacity={0.9}
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
      {events.map((e, k) => (
        <ReferenceLine
          key={`${e.day} ${e.what}`}
          x={at(e.day)}
          stroke="var(--copper)"
          strokeDasharray="2 3"
          label={{ value: k + 1, position: 'top', fontSize: 11, fill: 'var(--copper-text)' }}
        />
      ))}
    </TimeChart>
  );
}
