import { memo, useMemo, type ReactNode } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Sizes } from '#core/derive';
import { type UnitSystem, displayUnit, formatQuantity, toDisplay } from '#core/units';
import { AXIS_TICK, Muted } from '../../kit/index.ts';

const bare = (text: string): string => text.replace(/\u00a0.*/, '');

/** Of what is asked, what each size gives; the size that is there, and where more brings little. */
export const SizeChart = memo(function SizeChart({ sizes, system }: { readonly sizes: Sizes; readonly system: UnitSystem }): ReactNode {
  const { rows, bend, nowM3, now } = sizes;
  const kind = rows[rows.length - 1].roomM3 < 500 ? 'liquid' : 'volume';
  const { unit, factor } = displayUnit(kind, system);
  const points = useMemo(
    () => rows.map((r) => ({ room: toDisplay(r.roomM3, kind, system), met: 100 * (r.suppliedShare ?? 0), dry: r.dryDaysAYear ?? 0 })),
    [rows, kind, system],
  );
  const at = (m3: number): number => toDisplay(m3, kind, system);
  const ticks = [1, 2, 4, 8, 12, 16, 20, 24].flatMap((k) => (points[k] ? [points[k].room] : []));
  return (
    <div role="img" aria-label={`Of what is asked, met by size: ${((now.suppliedShare ?? 0) * 100).toFixed(0)} % with ${formatQuantity(nowM3, kind, system)}`}>
      <Muted>
        Met, % of what is asked (
        <svg width="24" height="8" aria-hidden>
          <line x1="0" x2="24" y1="4" y2="4" stroke="var(--deepWater)" strokeWidth="2.4" />
        </svg>
        ), and days short a year (
        <svg width="24" height="8" aria-hidden>
          <line x1="0" x2="24" y1="4" y2="4" stroke="var(--clayText)" strokeWidth="2" strokeDasharray="5 4" />
        </svg>
        ), by size ({unit}).
      </Muted>
      <ResponsiveContainer width="100%" height={230}>
        <LineChart data={points} margin={{ top: 10, right: 6, bottom: 0, left: -8 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis dataKey="room" type="number" scale="log" domain={['dataMin', 'dataMax']} ticks={ticks} tick={AXIS_TICK} stroke="var(--ink)" tickFormatter={(v: number) => bare(formatQuantity(v / factor, kind, system))} />
          <YAxis yAxisId="met" domain={[0, 100]} tick={AXIS_TICK} stroke="var(--line)" width={46} />
          <YAxis yAxisId="dry" orientation="right" domain={[0, 'dataMax']} tick={AXIS_TICK} stroke="var(--line)" width={40} tickFormatter={(v: number) => v.toFixed(0)} />
          {bend !== null && (
            <ReferenceLine yAxisId="met" x={at(rows[bend].roomM3)} stroke="var(--mossText)" strokeWidth={2} label={{ value: 'bend', position: 'insideTopLeft', ...AXIS_TICK, fill: 'var(--mossText)' }} />
          )}
          <ReferenceLine yAxisId="met" x={at(nowM3)} stroke="var(--ink)" strokeDasharray="5 4" label={{ value: 'as it is', position: 'insideBottomRight', ...AXIS_TICK, fill: 'var(--ink)' }} />
          <Line yAxisId="met" dataKey="met" stroke="var(--deepWater)" strokeWidth={2.4} dot={false} isAnimationActive={false} />
          <Line yAxisId="dry" dataKey="dry" stroke="var(--clayText)" strokeWidth={2} strokeDasharray="5 4" dot={false} isAnimationActive={false} />
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
}); // prettier-ignore
