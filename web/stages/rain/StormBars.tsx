import type { ReactNode } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { displayUnit, toDisplay } from '#core/units';
import { useApp } from '../../app/store.ts';
import { useProject, useView } from '../../app/selectors.ts';
import type { StormShape } from '#core/rain';
import { AXIS_TICK, Muted } from '../../kit/index.ts';

const BARS = 48;
/** Longer storms are told in hours [min]. */
const HOURS_FROM = 300;

const WORDS: Readonly<Record<StormShape['kind'], string>> = {
  blocks: ': blocks with the wettest in the middle, none above your table.',
  uniform: ': even all through.',
  pattern: ': a regional pattern of 24 hours.',
  own: ': as you typed it.',
  event: ': as the gauge had it.',
};

/** The storm as it falls. */
export function StormBars(): ReactNode {
  const storm = useView()?.storm;
  const system = useApp((s) => s.system);
  const shape = useProject().rain?.storm.shape?.kind ?? 'blocks';
  if (!storm) return null;
  const inHours = storm.stepsMm.length * storm.stepMin > HOURS_FROM;
  const per = Math.max(1, Math.ceil(storm.stepsMm.length / BARS));
  const rows = Array.from({ length: Math.ceil(storm.stepsMm.length / per) }, (_, i) => {
    const steps = storm.stepsMm.slice(i * per, (i + 1) * per);
    const mm = steps.reduce((a, v) => a + v, 0);
    return {
      at: Number(((i * per * storm.stepMin) / (inHours ? 60 : 1)).toFixed(inHours ? 1 : 0)),
      rate: toDisplay((60 * mm) / (steps.length * storm.stepMin), 'intensity', system),
    };
  });
  const peak = Math.max(...rows.map((r) => r.rate));
  const unit = displayUnit('intensity', system).unit;
  return (
    <div role="img" aria-label={`Rain over the storm, wettest ${peak.toFixed(1)} ${unit}`} style={{ marginTop: 10 }}>
      <Muted>
        {unit} against {inHours ? 'hours' : 'minutes'} from its start{WORDS[shape]}
      </Muted>
      <ResponsiveContainer width="100%" height={130}>
        <BarChart data={rows} margin={{ top: 6, right: 22, bottom: 0, left: -14 }} barCategoryGap={1}>
          <XAxis
            dataKey="at"
            tick={AXIS_TICK}
            stroke="var(--ink)"
            unit={inHours ? ' h' : ' min'}
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
