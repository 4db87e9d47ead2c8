import type { ReactNode } from 'react';
import { Area, CartesianGrid, ComposedChart, Line, ResponsiveContainer, Scatter, XAxis, YAxis } from 'recharts';
import type { FittedCurve } from '#core/derive';
import { displayUnit, toDisplay } from '#core/units';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK, Muted } from '../../kit/index.ts';

const TICKS = [1.1, 2, 5, 10, 20, 50, 100, 200];

/** Yearly maxima at their plotting positions, the fit through them and its band. */
export function FrequencyChart({ fitted }: { readonly fitted: FittedCurve }): ReactNode {
  const system = useApp((s) => s.system);
  const show = (mm: number): number => toDisplay(mm, 'rain', system);
  const { unit } = displayUnit('rain', system);
  const line = fitted.curve.map((p) => ({ years: p.returnYears, depth: show(p.depthMm), band: [show(p.low), show(p.high)] }));
  const dots = fitted.fit.plotted.map((p) => ({ years: p.returnYears, greatest: show(p.value) }));
  const last = Math.max(...dots.map((d) => d.years), 100);
  return (
    <div
      role="img"
      aria-label={`Wettest of each of ${dots.length} years in ${unit} against return period, with the fit and its band`}
      style={{ marginTop: 6 }}
    >
      <ResponsiveContainer width="100%" height={230}>
        <ComposedChart margin={{ top: 8, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--line)" strokeDasharray="2 4" />
          <XAxis
            dataKey="years"
            type="number"
            scale="log"
            domain={[1.05, last]}
            ticks={TICKS.filter((t) => t <= last)}
            tick={AXIS_TICK}
            stroke="var(--ink)"
            allowDataOverflow
          />
          <YAxis
            type="number"
            tick={AXIS_TICK}
            stroke="var(--line)"
            width={46}
            domain={[0, 'auto']}
            tickFormatter={(v: number) => String(Number(v.toPrecision(3)))}
          />
          <Area data={line} dataKey="band" stroke="none" fill="var(--water)" fillOpacity={0.18} isAnimationActive={false} />
          <Line data={line} dataKey="depth" stroke="var(--water)" strokeWidth={2} dot={false} isAnimationActive={false} />
          <Scatter data={dots} dataKey="greatest" fill="var(--clay)" isAnimationActive={false} />
        </ComposedChart>
      </ResponsiveContainer>
      <Muted>
        {unit} against the return period in years: dots are the years, the line the fit, the band nine in ten of 2,000 records redrawn from
        them.
      </Muted>
    </div>
  );
}
