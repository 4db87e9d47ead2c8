import type { ReactNode } from 'react';
import { CartesianGrid, ComposedChart, Line, ReferenceLine, ResponsiveContainer, Scatter, XAxis, YAxis } from 'recharts';
import type { Reduction } from '#core/ground';
import { displayUnit, toDisplay } from '#core/units';
import { useFormat } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK, Muted, Table } from '../../kit/index.ts';

/** Rate of each interval against time, with the rate taken. */
export function RateChart({ found }: { readonly found: Reduction }): ReactNode {
  const system = useApp((s) => s.system);
  const format = useFormat();
  const { intervals, rateMmPerHour, isSteady } = found;
  if (intervals.length < 2 || rateMmPerHour === null) return null;
  const { unit } = displayUnit('intensity', system);
  const rows = intervals.map((i) => ({ at: i.toMin, rate: Number(toDisplay(i.rateMmPerHour, 'intensity', system).toPrecision(4)) }));
  const taken = toDisplay(rateMmPerHour, 'intensity', system);
  return (
    <>
      <div
        role="img"
        aria-label={`Rate in ${unit} against minutes; ${format(rateMmPerHour, 'intensity')} ${isSteady ? 'is steady' : 'is the least so far'}`}
      >
        <ResponsiveContainer width="100%" height={170}>
          <ComposedChart data={rows} margin={{ top: 10, right: 36, bottom: 4, left: 0 }}>
            <CartesianGrid stroke="var(--line)" strokeDasharray="2 4" />
            <XAxis dataKey="at" type="number" domain={[0, 'dataMax']} tick={AXIS_TICK} stroke="var(--ink)" unit=" min" minTickGap={28} />
            <YAxis tick={AXIS_TICK} stroke="var(--line)" width={46} domain={[0, 'auto']} />
            <ReferenceLine y={taken} stroke="var(--clayText)" strokeDasharray="6 4" />
            <Line dataKey="rate" stroke="var(--water)" strokeWidth={2} dot={false} isAnimationActive={false} />
            <Scatter dataKey="rate" fill="var(--deepWater)" isAnimationActive={false} />
          </ComposedChart>
        </ResponsiveContainer>
        <Muted>Rate in {unit} as it slackens; the broken line is what is taken.</Muted>
      </div>
      <Table
        caption="Rate of each interval"
        head={['From', 'To', 'Fell', 'Water fell at', 'Ground takes']}
        rows={intervals.map((i) => [
          `${Number(i.fromMin.toFixed(1))} min`,
          `${Number(i.toMin.toFixed(1))}`,
          format(i.fromMm - i.toMm, 'rain'),
          format(i.fallMmPerHour, 'intensity'),
          format(i.rateMmPerHour, 'intensity'),
        ])}
      />
    </>
  );
}
