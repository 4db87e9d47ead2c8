import type { ReactNode } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { displayUnit } from '#core/units';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK } from '../../kit/index.ts';

/** Area onto each stretch of a line, by how far along it lies; both in the reader's units. */
export function StretchBars({ rows }: { readonly rows: readonly { readonly at: number; readonly area: number }[] }): ReactNode {
  const system = useApp((s) => s.system);
  return (
    <ResponsiveContainer width="100%" height={96}>
      <BarChart data={[...rows]} margin={{ top: 4, right: 30, bottom: 0, left: -10 }} barCategoryGap={1}>
        <XAxis
          dataKey="at"
          tick={AXIS_TICK}
          stroke="var(--ink)"
          unit={` ${displayUnit('distance', system).unit}`}
          interval="preserveStartEnd"
          minTickGap={30}
        />
        <YAxis tick={AXIS_TICK} stroke="var(--line)" width={56} tickCount={3} />
        <Bar dataKey="area" fill="var(--water)" isAnimationActive={false} />
      </BarChart>
    </ResponsiveContainer>
  );
}
