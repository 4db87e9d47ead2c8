import { memo, useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { Area, CartesianGrid, ComposedChart, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import styled from 'styled-components';
import type { Derived, View } from '#core/derive';
import { type UnitSystem, displayUnit, formatNumber, toDisplay } from '#core/units';
import { useApp } from '../../app/store.ts';
import { FONT } from '../../app/theme.ts';
import { AXIS_TICK, Button } from '../../kit/index.ts';

const Title = styled.p`
  font-size: 13px;
  color: var(--muted);
  margin: 8px 0 0;
`;
const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font: 13px ${FONT.figures};
  th,
  td {
    text-align: right;
    padding: 3px 4px;
    border-bottom: 1px solid var(--line);
  }
`;

/** Longest time shown after the rain [s]. */
const TAIL_S = 6 * 3600;

const hourTick = (h: number): string => `${Number(h.toFixed(1))} h`;

interface Row {
  readonly hours: number;
  readonly level: number;
  readonly inflow: number;
  readonly outflow: number;
  readonly rain: number | null;
}

/** Level of a store over the storm with its rain, inflow and outflow, and the same as a table. */
export function StormChart({ id }: { readonly id: string }): ReactNode {
  const system = useApp((s) => s.system);
  // Drawn after the fields and figures have answered: a chart takes longer than all of them.
  const store = useDeferredValue(useApp((s) => s.result?.derived.stores.find((one) => one.id === id)));
  const series = useDeferredValue(useApp((s) => s.result?.view.series.find((one) => one.id === id)));
  return store && series ? <Drawn store={store} series={series} system={system} /> : null;
}

interface Shown {
  readonly store: Derived['stores'][number];
  readonly series: View['series'][number];
  readonly system: UnitSystem;
}

/** The chart itself: it stands still as long as what it shows does. */
const Drawn = memo(function Drawn({ store, series, system }: Shown): ReactNode {
  const [asTable, setAsTable] = useState(false);
  const rows = useMemo((): Row[] => {
    // Enough to show the flood and its end, not the hours of trickle after it.
    const { rainMm, stepS } = series;
    const tail = Math.min(1.2 * rainMm.length, TAIL_S / stepS);
    const last = Math.min(series.levelM.length - 1, Math.ceil(rainMm.length + tail));
    const stride = Math.max(1, Math.floor(last / 160));
    const out: Row[] = [];
    for (let i = 0; i <= last; i += stride) {
      const rainStep = rainMm.slice(i, i + stride);
      out.push({
        hours: (i * series.stepS) / 3600,
        level: toDisplay(series.levelM[i], 'level', system),
        inflow: toDisplay(series.inM3s[i], 'flow', system),
        outflow: toDisplay(series.outM3s[i], 'flow', system),
        rain: rainStep.length > 0 ? toDisplay((rainStep.reduce((a, v) => a + v, 0) * 3600) / (stride * stepS), 'intensity', system) : null,
      });
    }
    return out;
  }, [series, system]);
  if (rows.length === 0) return null;
  const unit = (kind: 'level' | 'flow' | 'intensity'): string => displayUnit(kind, system).unit;
  const sill = store.sillM === null ? null : toDisplay(store.sillM, 'level', system);
  const crest = toDisplay(store.crestM, 'level', system);
  const floor = toDisplay(store.floorM, 'level', system);
  const top = Math.max(crest, ...rows.map((r) => r.level));
  const pad = 0.08 * (top - floor);
  const tick = (v: number): string => v.toFixed(top - floor > 3 ? 1 : 2);
  return (
    <div>
      <Title>
        Water level ({unit('level')}) over hours, with the rain ({unit('intensity')}) from above
      </Title>
      {asTable ? (
        <Table>
          <thead>
            <tr>
              <th>h</th>
              <th>level</th>
              <th>in</th>
              <th>out</th>
              <th>rain</th>
            </tr>
          </thead>
          <tbody>
            {rows
              .filter((_, i) => i % 8 === 0)
              .map((r) => (
                <tr key={r.hours}>
                  <td>{r.hours.toFixed(1)}</td>
                  <td>{r.level.toFixed(3)}</td>
                  <td>{r.inflow.toFixed(1)}</td>
                  <td>{r.outflow.toFixed(1)}</td>
                  <td>{r.rain?.toFixed(0) ?? ''}</td>
                </tr>
              ))}
          </tbody>
        </Table>
      ) : (
        <div
          role="img"
          aria-label={`Level rises from ${formatNumber(store.floorM, 'level', system)} to ${formatNumber(store.peakLevelM, 'level', system)} ${unit('level')}`}
        >
          <ResponsiveContainer width="100%" height={170}>
            <ComposedChart data={rows} margin={{ top: 6, right: 18, bottom: 0, left: -6 }}>
              <CartesianGrid stroke="var(--line)" vertical={false} />
              <XAxis dataKey="hours" type="number" domain={[0, 'dataMax']} tick={AXIS_TICK} tickFormatter={hourTick} stroke="var(--ink)" />
              <YAxis yAxisId="level" domain={[floor, top + pad]} tick={AXIS_TICK} tickFormatter={tick} width={58} stroke="var(--line)" />
              <YAxis yAxisId="rain" orientation="right" reversed domain={[0, (max: number) => max * 3]} hide />
              {/* One path of steps: a bar for every step would be a hundred and more things to draw. */}
              <Area
                yAxisId="rain"
                dataKey="rain"
                type="stepAfter"
                stroke="none"
                fill="var(--muted)"
                fillOpacity={0.55}
                isAnimationActive={false}
              />
              <Area
                yAxisId="level"
                dataKey="level"
                stroke="var(--deepWater)"
                strokeWidth={2}
                fill="var(--water)"
                fillOpacity={0.35}
                baseValue={floor}
                isAnimationActive={false}
              />
              {sill !== null && (
                <ReferenceLine
                  yAxisId="level"
                  y={sill}
                  stroke="var(--ink)"
                  strokeDasharray="5 4"
                  label={{ value: 'sill', position: 'insideBottomRight', ...AXIS_TICK, fill: 'var(--ink)' }}
                />
              )}
              <ReferenceLine
                yAxisId="level"
                y={crest}
                stroke="var(--mossText)"
                strokeWidth={2}
                label={{ value: 'lowest crest', position: 'insideTopRight', ...AXIS_TICK, fill: 'var(--mossText)' }}
              />
            </ComposedChart>
          </ResponsiveContainer>
          <Title>Flow ({unit('flow')}): coming, dashed, and leaving</Title>
          <ResponsiveContainer width="100%" height={120}>
            <LineChart data={rows} margin={{ top: 6, right: 18, bottom: 0, left: -6 }}>
              <CartesianGrid stroke="var(--line)" vertical={false} />
              <XAxis dataKey="hours" type="number" domain={[0, 'dataMax']} tick={AXIS_TICK} tickFormatter={hourTick} stroke="var(--ink)" />
              <YAxis tick={AXIS_TICK} width={58} stroke="var(--line)" />
              <Line
                dataKey="inflow"
                dot={false}
                stroke="var(--clayText)"
                strokeWidth={1.8}
                strokeDasharray="5 4"
                isAnimationActive={false}
              />
              <Line dataKey="outflow" dot={false} stroke="var(--deepWater)" strokeWidth={2} isAnimationActive={false} />
            </LineChart>
          </ResponsiveContainer>
        </div>
      )}
      <Button look="quiet" onPress={() => setAsTable(!asTable)}>
        {asTable ? 'Show the chart' : 'Show as a table'}
      </Button>
    </div>
  );
});
