import type { ReactNode } from 'react';
import { Area, CartesianGrid, ComposedChart, Line, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { FlowSeries } from '#core/derive';
import { displayUnit, toDisplay } from '#core/units';
import { useFormat } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK, Muted } from '../../kit/index.ts';

const POINTS = 160;
/** Longer series are told in hours [min]. */
const HOURS_FROM = 300;
/** A tail under this share of the peak is left out. */
const TAIL = 0.005;

const peakOf = (flow: Float64Array): number => flow.reduce((a, v) => Math.max(a, v), 0);

/** Flow over the storm: a catchment's, or what leaves with the works and without them. */
export function FlowChart({ series, name }: { readonly series: FlowSeries; readonly name: string }): ReactNode {
  const system = useApp((s) => s.system);
  const format = useFormat();
  const { flowM3s, withoutM3s, stepS } = series;
  const peaks = [peakOf(flowM3s), withoutM3s ? peakOf(withoutM3s) : 0];
  const most = Math.max(...peaks);
  if (most === 0) return <Muted>Nothing runs off {name} in this storm.</Muted>;
  let end = Math.max(flowM3s.length, withoutM3s?.length ?? 0) - 1;
  while (end > 0 && Math.max(flowM3s[end] ?? 0, withoutM3s?.[end] ?? 0) < TAIL * most) end--;
  const per = Math.max(1, Math.ceil((end + 1) / POINTS));
  const minutes = ((end + 1) * stepS) / 60;
  const scale = minutes > HOURS_FROM ? 60 : 1;
  // The highest of each few steps, so that no peak is lost to the drawing.
  const highest = (flow: Float64Array | null, k: number): number =>
    flow ? toDisplay(peakOf(flow.subarray(k * per, (k + 1) * per)), 'flow', system) : 0;
  const rows = Array.from({ length: Math.ceil((end + 1) / per) }, (_, k) => ({
    at: ((k + 0.5) * per * stepS) / 60 / scale,
    flow: highest(flowM3s, k),
    without: highest(withoutM3s, k),
  }));
  const { unit } = displayUnit('flow', system);
  const told = withoutM3s ? `${format(peaks[0], 'flow')} with the works, ${format(peaks[1], 'flow')} without` : format(peaks[0], 'flow');
  return (
    <div role="img" aria-label={`Flow of ${name} in ${unit} over the storm, highest ${told}`}>
      <ResponsiveContainer width="100%" height={170}>
        <ComposedChart data={rows} margin={{ top: 10, right: 36, bottom: 2, left: 0 }}>
          <CartesianGrid stroke="var(--line)" strokeDasharray="2 4" />
          <XAxis
            dataKey="at"
            type="number"
            domain={[0, 'dataMax']}
            tick={AXIS_TICK}
            stroke="var(--ink)"
            unit={scale === 60 ? ' h' : ' min'}
            tickFormatter={(v: number) => String(Number(v.toFixed(scale === 60 ? 1 : 0)))}
            minTickGap={30}
          />
          <YAxis tick={AXIS_TICK} stroke="var(--line)" width={50} />
          <Area dataKey="flow" stroke="var(--deepWater)" fill="var(--water)" fillOpacity={0.35} strokeWidth={2} isAnimationActive={false} />
          {withoutM3s && (
            <Line dataKey="without" stroke="var(--clayText)" strokeDasharray="6 4" strokeWidth={2} dot={false} isAnimationActive={false} />
          )}
        </ComposedChart>
      </ResponsiveContainer>
      <Muted>
        Flow in {unit} from the beginning of the rain{withoutM3s ? '; the broken line is the land with nothing built' : ''}.
      </Muted>
    </div>
  );
}
