'use client';

import type { ReactNode } from 'react';
import { CartesianGrid, ComposedChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { Day } from '@/core/calendar/workdays';
import { useYard } from '../frame/YardContext';

type Props = {
  readonly points: readonly { readonly day: Day }[];
  /** How an amount is written where it is told, and on the scale. */
  readonly told: (amount: number) => string;
  readonly scale: (amount: number) => string;
  /** Where the scale begins and ends, by the least and the most there is; at nothing unless it is said. */
  readonly domain?: readonly [(least: number) => number, (most: number) => number];
  /** The lines and areas, each by its key in the points. */
  readonly children: ReactNode;
};

/** Where a day stands on the scale of time. */
export const at = (day: string) => Date.parse(`${day}T12:00:00Z`);
const TICK = { fontSize: 11.5, fill: 'var(--ink-2)' };

/** Amounts over time. */
export function TimeChart({ points, told, scale, domain, children }: Props) {
  const { day } = useYard();
  const data = points.map((p) => ({ ...p, at: at(p.day) }));
  const asDay = (n: number) => day(new Date(n).toISOString().slice(0, 10) as Day);
  return (
    <ResponsiveContainer width="100%" height="100%">
      <ComposedChart data={data} margin={{ top: 18, right: 12, bottom: 0, left: 4 }} accessibilityLayer={false}>
        <CartesianGrid vertical={false} stroke="var(--line-2)" />
        <XAxis
          dataKey="at"
          type="number"
          domain={['dataMin', 'dataMax']}
          tickFormatter={asDay}
          minTickGap={60}
          tick={TICK}
          stroke="var(--line)"
        />
        <YAxis
          tickFormatter={scale}
          width={60}
          tick={TICK}
          stroke="var(--line)"
          tickCount={4}
          {...(domain === undefined ? {} : { domain: [...domain] })}
        />
        <Tooltip
          labelFormatter={(n) => asDay(Number(n))}
          formatter={(n, name) => [told(Number(n)), name]}
          contentStyle={{
            background: 'var(--glaze)',
            border: '1px solid var(--line)',
            borderRadius: 8,
            fontSize: 12.5,
          }}
        />
        {children}
      </ComposedChart>
    </ResponsiveContainer>
  );
}
