import type { ReactNode } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Rain } from '#core/project';
import { type StormShape, depthFor, designStorm, longestStorm, peakIntensity, totalsOf, upliftOf, wettestRun } from '#core/rain';
import { displayUnit, toDisplay } from '#core/units';
import { useFormat } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK, Muted, Table } from '../../kit/index.ts';
import { minutesText } from './words.ts';

const BARS = 48;
/** Longer storms are told in hours [min]. */
const HOURS_FROM = 300;
const RUNS_MIN = [5, 10, 15, 30, 60, 120, 360, 720, 1440];

const WORDS: Readonly<Record<StormShape['kind'], string>> = {
  blocks: ': blocks with the wettest in the middle, none above your table.',
  uniform: ': even all through.',
  pattern: ': a regional pattern of 24 hours.',
  own: ': as you typed it.',
  event: ': as the gauge had it.',
};

/** The storm as it falls, and its wettest parts against the table. */
export function StormBars({ rain }: { readonly rain: Rain }): ReactNode {
  const system = useApp((s) => s.system);
  const format = useFormat();
  const { table, storm } = rain;
  const one = longestStorm(table, storm);
  const { durationMin, extrapolated } = totalsOf(table, one);
  const made = designStorm(table, one, Math.max(1, durationMin / (4 * BARS)));
  const inHours = made.durationMin > HOURS_FROM;
  const per = Math.max(1, Math.ceil(made.stepsMm.length / BARS));
  const rows = Array.from({ length: Math.ceil(made.stepsMm.length / per) }, (_, i) => {
    const steps = made.stepsMm.slice(i * per, (i + 1) * per);
    const mm = steps.reduce((a, v) => a + v, 0);
    return {
      at: Number(((i * per * made.stepMin) / (inHours ? 60 : 1)).toFixed(inHours ? 1 : 0)),
      rate: toDisplay((60 * mm) / (steps.length * made.stepMin), 'intensity', system),
    };
  });
  const peak = Math.max(...rows.map((r) => r.rate));
  const unit = displayUnit('intensity', system).unit;
  const factor = upliftOf(storm);
  const held = (minutes: number): string => {
    const depth = depthFor(table, storm.returnYears, minutes);
    return `${format(factor * depth.depthMm, 'rain')}${depth.extrapolated ? ' ?' : ''}`;
  };
  const runs = RUNS_MIN.filter((t) => t <= durationMin && t >= made.stepMin);
  return (
    <div style={{ marginTop: 10 }}>
      <Muted>
        {unit} against {inHours ? 'hours' : 'minutes'} from its start{WORDS[storm.shape?.kind ?? 'blocks']}
      </Muted>
      <div role="img" aria-label={`Rain over the storm, wettest ${peak.toFixed(1)} ${unit}`}>
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
      </div>
      <Table
        caption="Wettest parts of the storm"
        head={['Wettest', 'Rain', 'Intensity', `1 in ${storm.returnYears} yr table`]}
        rows={runs.map((t) => [minutesText(t), format(wettestRun(made, t), 'rain'), format(peakIntensity(made, t), 'intensity'), held(t)])}
      />
      {extrapolated && (
        <Muted style={{ color: 'var(--strawText)' }}>
          This duration lies outside your table: the depth is carried on from its end and is a guess.
        </Muted>
      )}
    </div>
  );
}
