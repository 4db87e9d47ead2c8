import { memo, useDeferredValue, useMemo, type ReactNode } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Condition } from '#core/contract';
import { type Derived, type View, hours } from '#core/derive';
import { type UnitSystem, displayUnit, formatNumber, toDisplay } from '#core/units';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK, Muted } from '../../kit/index.ts';

/** Lines of the chart: told apart by dash as well as colour. */
const LINES: readonly { readonly condition: Condition; readonly name: string; readonly stroke: string; readonly dash?: string }[] = [
  { condition: 'found', name: 'as found', stroke: 'var(--deepWater)' },
  { condition: 'full', name: 'all full', stroke: 'var(--strawText)', dash: '6 4' },
  { condition: 'blocked', name: 'pipes blocked too', stroke: 'var(--alarm)', dash: '2 3' },
  { condition: 'unpowered', name: 'mains gone', stroke: 'var(--ink)', dash: '8 3 2 3' },
];

/** A length on the axis: minutes bare after the first, so that all have room. */
const shortly = (minutes: number, k: number): string => (minutes >= 60 ? `${minutes / 60} h` : `${minutes}${k === 0 ? ' min' : ''}`);

interface Shown {
  readonly store: Derived['stores'][number];
  readonly peaks: View['peaks'][string];
  readonly system: UnitSystem;
}

/** Lines drawn over one another say nothing apart: one whose every level is another's is left out. */
function linesIn(peaks: Shown['peaks']): typeof LINES {
  const levels = (c: Condition): string => peaks.flatMap((p) => (p.condition === c ? [p.peakLevelM.toFixed(3)] : [])).join();
  const seen = new Set<string>();
  return LINES.filter(({ condition }) => {
    const key = levels(condition);
    const isNew = key !== '' && !seen.has(key);
    seen.add(key);
    return isNew;
  });
}

/** How high a store's water stands in each storm of the set. */
export function PeaksChart({ id }: { readonly id: string }): ReactNode {
  const system = useApp((s) => s.system);
  const store = useDeferredValue(useApp((s) => s.result?.derived.stores.find((one) => one.id === id)));
  const peaks = useDeferredValue(useApp((s) => s.result?.view.peaks[id]));
  const durations = new Set(peaks?.map((p) => p.durationMin));
  return store && peaks && durations.size > 1 ? <Drawn store={store} peaks={peaks} system={system} /> : null;
}

const Drawn = memo(function Drawn({ store, peaks, system }: Shown): ReactNode {
  const shown = useMemo(() => linesIn(peaks), [peaks]);
  const rows = useMemo(() => {
    const durations = [...new Set(peaks.map((p) => p.durationMin))].sort((a, b) => a - b);
    return durations.map((durationMin) => ({
      durationMin,
      ...Object.fromEntries(
        peaks.filter((p) => p.durationMin === durationMin).map((p) => [p.condition, toDisplay(p.peakLevelM, 'level', system)]),
      ),
    }));
  }, [peaks, system]);
  const unit = displayUnit('level', system).unit;
  const crest = toDisplay(store.crestM, 'level', system);
  const way = toDisplay(store.wayOutM, 'level', system);
  const levels = peaks.map((p) => toDisplay(p.peakLevelM, 'level', system));
  const [low, high] = [Math.min(way, ...levels), Math.max(crest, ...levels)];
  const pad = 0.08 * (high - low);
  const worst = peaks.reduce((a, b) => (b.peakLevelM > a.peakLevelM ? b : a));
  return (
    <div
      role="img"
      aria-label={`Highest water by length of storm: at most ${formatNumber(worst.peakLevelM, 'level', system)} ${unit} in ${hours(worst.durationMin)} of rain`}
    >
      <Muted>
        Highest water ({unit}) by length of storm
        {shown.length > 1 && (
          <>
            :{' '}
            {shown.map(({ name, stroke, dash }, k) => (
              <span key={name} style={{ whiteSpace: 'nowrap' }}>
                {k > 0 && ', '}
                <svg width="24" height="8" aria-hidden>
                  <line x1="0" x2="24" y1="4" y2="4" stroke={stroke} strokeWidth="2" strokeDasharray={dash} />
                </svg>{' '}
                {name}
              </span>
            ))}
          </>
        )}
      </Muted>
      <ResponsiveContainer width="100%" height={170}>
        <LineChart data={rows} margin={{ top: 8, right: 18, bottom: 0, left: -6 }}>
          <CartesianGrid stroke="var(--line)" vertical={false} />
          <XAxis dataKey="durationMin" tick={AXIS_TICK} tickFormatter={shortly} stroke="var(--ink)" interval="preserveStartEnd" />
          <YAxis
            domain={[low - pad, high + pad]}
            tick={AXIS_TICK}
            tickFormatter={(v: number) => v.toFixed(2)}
            width={58}
            stroke="var(--line)"
          />
          <ReferenceLine
            y={crest}
            stroke="var(--mossText)"
            strokeWidth={2}
            label={{ value: 'lowest crest', position: 'insideTopRight', ...AXIS_TICK, fill: 'var(--mossText)' }}
          />
          <ReferenceLine
            y={way}
            stroke="var(--ink)"
            strokeDasharray="5 4"
            label={{ value: 'way out', position: 'insideBottomRight', ...AXIS_TICK, fill: 'var(--ink)' }}
          />
          {shown.map(({ condition, stroke, dash }) => (
            <Line
              key={condition}
              dataKey={condition}
              stroke={stroke}
              strokeWidth={2}
              dot={{ r: 2.5, fill: stroke, strokeDasharray: '' }}
              isAnimationActive={false}
              {...(dash === undefined ? {} : { strokeDasharray: dash })}
            />
          ))}
        </LineChart>
      </ResponsiveContainer>
    </div>
  );
});
