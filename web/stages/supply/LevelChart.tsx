import { memo, useMemo, type ReactNode } from 'react';
import { Area, Bar, ComposedChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { type UnitSystem, displayUnit, formatQuantity, toDisplay } from '#core/units';
import { AXIS_TICK, Muted } from '../../kit/index.ts';
import { MONTHS } from '../rain/words.ts';

export interface LevelChartProps {
  readonly name: string;
  readonly dates: readonly string[];
  readonly rainMm: readonly number[];
  readonly volumeM3: readonly number[];
  readonly roomM3: number;
  readonly deadM3: number;
  readonly system: UnitSystem;
}

/** Rain hangs from the top of the picture, this share of it at the most. */
const RAIN_SHARE = 2.6;

const monthOf = (date: string): string => MONTHS[Number(date.slice(5, 7)) - 1].slice(0, 3);

/** What stands in a store on each evening of a year, with the rain of the day hung above. */
export const LevelChart = memo(function LevelChart({ name, dates, rainMm, volumeM3, roomM3, deadM3, system }: LevelChartProps): ReactNode {
  const kind = roomM3 < 50 ? 'liquid' : 'volume';
  const rows = useMemo(
    () => dates.map((date, i) => ({ date, rain: toDisplay(rainMm[i], 'rain', system), held: toDisplay(volumeM3[i], kind, system) })),
    [dates, rainMm, volumeM3, kind, system],
  );
  const empty = volumeM3.filter((v) => v <= deadM3 + 0.00025).length;
  const firsts = dates.filter((d) => d.endsWith('-01'));
  const most = Math.max(1, ...rows.map((r) => r.rain));
  const room = toDisplay(roomM3, kind, system);
  return (
    <div
      role="img"
      aria-label={`${name} through ${dates[0].slice(0, 4)}: empty on ${empty} days, room for ${formatQuantity(roomM3, kind, system)}`}
    >
      <Muted>
        What stands in it each evening ({displayUnit(kind, system).unit}), and the rain of each day above (
        {displayUnit('rain', system).unit})
      </Muted>
      <ResponsiveContainer width="100%" height={230}>
        <ComposedChart data={rows} margin={{ top: 8, right: 4, bottom: 0, left: 4 }} barCategoryGap={0}>
          <XAxis dataKey="date" tick={AXIS_TICK} stroke="var(--ink)" ticks={firsts} tickFormatter={monthOf} interval={0} />
          <YAxis
            yAxisId="held"
            domain={[0, room * 1.45]}
            ticks={[0, room / 2, room]}
            tickFormatter={(v: number) => formatQuantity(v / displayUnit(kind, system).factor, kind, system).replace(/\u00a0.*/, '')}
            tick={AXIS_TICK}
            stroke="var(--line)"
            width={58}
          />
          <YAxis
            yAxisId="rain"
            orientation="right"
            reversed
            domain={[0, most * RAIN_SHARE]}
            ticks={[0, Math.round(most)]}
            tick={AXIS_TICK}
            stroke="var(--line)"
            width={34}
          />
          <Bar yAxisId="rain" dataKey="rain" fill="var(--water)" isAnimationActive={false} />
          <Area
            yAxisId="held"
            dataKey="held"
            type="stepAfter"
            stroke="var(--deepWater)"
            strokeWidth={1.6}
            fill="var(--water)"
            fillOpacity={0.35}
            isAnimationActive={false}
          />
          <ReferenceLine
            yAxisId="held"
            y={room}
            stroke="var(--ink)"
            strokeDasharray="5 4"
            label={{ value: 'overflow', position: 'insideBottomRight', ...AXIS_TICK, fill: 'var(--ink)' }}
          />
          {deadM3 > 0.01 * roomM3 && (
            <ReferenceLine yAxisId="held" y={toDisplay(deadM3, kind, system)} stroke="var(--clay)" strokeDasharray="2 3" />
          )}
        </ComposedChart>
      </ResponsiveContainer>
    </div>
  );
});
