import type { ReactNode } from 'react';
import { CartesianGrid, ComposedChart, Line, ResponsiveContainer, Scatter, XAxis, YAxis } from 'recharts';
import { SHERMAN_INTENSITY, fitCurve } from '#core/rain';
import type { Rain } from '#core/project';
import { displayUnit, toDisplay } from '#core/units';
import { useFormat } from '../../app/selectors.ts';
import { useApp } from '../../app/store.ts';
import { AXIS_TICK, Muted, Part, Table } from '../../kit/index.ts';
import { minutesText } from './words.ts';

const TICKS = [5, 15, 60, 180, 720, 1440, 4320];
const POINTS = 40;
/** A departure above this is worth a look [share]. */
const LARGE = 0.1;

/** The curve through one return period of the table, with what it leaves over. */
export function CurvePart({ rain }: { readonly rain: Rain }): ReactNode {
  const system = useApp((s) => s.system);
  const format = useFormat();
  const { table, storm } = rain;
  const row = table.returnYears.indexOf(storm.returnYears);
  const curve = fitCurve(table, row);
  if (!curve)
    return (
      <Part title="Curve through the table">
        <Muted>Three durations at least are needed for a curve.</Muted>
      </Part>
    );
  const { durationsMin } = table;
  const [from, to] = [durationsMin[0], durationsMin[durationsMin.length - 1]];
  const rate = (mmPerHour: number): number => toDisplay(mmPerHour, 'intensity', system);
  const line = Array.from({ length: POINTS + 1 }, (_, i) => {
    const t = from * (to / from) ** (i / POINTS);
    return { t, curve: rate(SHERMAN_INTENSITY.evaluate({ a: curve.a, b: curve.b, n: curve.n, t })) };
  });
  const points = durationsMin.map((t, c) => ({ t, table: rate((60 * table.depthMm[row][c]) / t) }));
  const { unit } = displayUnit('intensity', system);
  const worst = Math.round(100 * curve.worst);
  return (
    <Part title={`Curve through 1 in ${storm.returnYears} years`}>
      <Muted>
        i = {rate(curve.a).toPrecision(4)} / (t + {curve.b.toFixed(1)})^{curve.n.toFixed(3)} in {unit} and minutes, from {minutesText(from)}{' '}
        to {minutesText(to)}. The table departs from it by at most <strong>{worst} %</strong>
        {curve.worst > LARGE ? ': look at the durations marked below.' : '.'} Outside these durations nothing is carried on without a word.
      </Muted>
      <div
        role="img"
        aria-label={`Intensity in ${unit} against duration: table and curve, at most ${worst} % apart`}
        style={{ marginTop: 8 }}
      >
        <ResponsiveContainer width="100%" height={190}>
          <ComposedChart margin={{ top: 8, right: 14, bottom: 4, left: 0 }}>
            <CartesianGrid stroke="var(--line)" strokeDasharray="2 4" />
            <XAxis
              dataKey="t"
              type="number"
              scale="log"
              domain={[from, to]}
              ticks={TICKS.filter((t) => t >= from && t <= to)}
              tickFormatter={minutesText}
              tick={AXIS_TICK}
              stroke="var(--ink)"
              allowDuplicatedCategory={false}
            />
            <YAxis
              type="number"
              scale="log"
              domain={['auto', 'auto']}
              tick={AXIS_TICK}
              stroke="var(--line)"
              width={46}
              tickFormatter={(v: number) => String(Number(v.toPrecision(2)))}
            />
            <Line data={line} dataKey="curve" stroke="var(--water)" strokeWidth={2} dot={false} isAnimationActive={false} />
            <Scatter data={points} dataKey="table" fill="var(--clay)" isAnimationActive={false} />
          </ComposedChart>
        </ResponsiveContainer>
        <Muted>Intensity in {unit}: dots are your table, the line is the curve.</Muted>
      </div>
      <Table
        caption="Table against curve"
        head={['Duration', 'Table', 'Curve', 'Apart']}
        rows={durationsMin.map((t, c) => [
          minutesText(t),
          format(table.depthMm[row][c], 'rain'),
          format(curve.depthMm[c], 'rain'),
          `${curve.residual[c] > 0 ? '+' : ''}${(100 * curve.residual[c]).toFixed(1)} %${Math.abs(curve.residual[c]) > LARGE ? ' !' : ''}`,
        ])}
      />
    </Part>
  );
}
