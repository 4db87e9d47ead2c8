import type { ReactNode } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { displayUnit, toDisplay } from '#core/units';
import { useApp } from '../../app/store.ts';
import { useView } from '../../app/selectors.ts';
import { AXIS_TICK, Muted } from '../../kit/index.ts';

const BARS = 24;

/** The storm as it falls: wettest in the middle. */
export function StormBars(): ReactNode {
  const storm = useView()?.storm;
  const system = useApp((s) => s.system);
  if (!storm) return null;
  const per = Math.max(1, Math.ceil(storm.stepsMm.length / BARS));
  const rows = Array.from({ length: Math.ceil(storm.stepsMm.length / per) }, (_, i) => {
    const steps = storm.stepsMm.slice(i * per, (i + 1) * per);
    const mm = steps.reduce((a, v) => a + v, 0);
    return {
      minute: Math.round((i + 0.5) * per * storm.stepMin),
      rate: toDisplay((60 * mm) / (steps.length * storm.stepMin), 'intensity', system),
    };
  });
  const peak = Math.max(...rows.map((r) => r.rate));
  const unit = displayUnit('intensity', system).unit;
  return (
    <div role="img" aria-label={`Rain over the storm, wettest ${peak.toFixed(1)} ${unit} in the middle`} style={{ marginTop: 10 }}>
      <Muted>How it falls ({unit}): blocks with the wettest in the middle, none above your table.</Muted>
      <ResponsiveContainer width="100%" height={130}>
        <BarChart data={rows} margin={{ top: 6, right: 22, bottom: 0, left: -14 }} barCategoryGap={1}>
          <XAxis
            dataKey="minute"
            tick={AXIS_TICK}
            stroke="var(--ink)"
            tickFormatter={(m: number) => `${m}`}
            unit=" min"
            interval="preserveStartEnd"
            minTickGap={28}
          />
          <YAxis tick={AXIS_TICK} stroke="var(--line)" width={56} />
          <Bar dataKey="rate" fill="var(--water)" isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
      {storm.extrapolated && (
        <Muted style={{ color: 'var(--strawText)' }}>
          This duration lies outside your table: the depth is carried on from its end and is a guess.
        </Muted>
      )}
    </div>
  );
}
