import { type ReactNode, useState } from 'react';
import { Bar, BarChart, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { type LabourRow, labourRows } from '#core/derive';
import { useFormat, useView, useWorks } from '../../app/selectors.ts';
import { AXIS_TICK, FoldPart, Muted, Quantity, Table } from '../../kit/index.ts';
import { MachinePart } from './MachinePart.tsx';

const MORE = [
  { head: 'L/h a year', of: (r: LabourRow) => r.aYear },
  { head: 'L/h in silt', of: (r: LabourRow) => r.inSilt },
] as const;

/** Height of one bar with its name, and of the axis [px]. */
const [BAR_PX, AXIS_PX] = [26, 34];

/** Works by what they hold for an hour, as bars. */
function LabourBars({ rows }: { readonly rows: readonly LabourRow[] }): ReactNode {
  const data = rows.map((r) => ({ name: r.name, litres: Math.round(r.aFill) }));
  return (
    <ResponsiveContainer width="100%" height={BAR_PX * rows.length + AXIS_PX}>
      <BarChart data={data} layout="vertical" margin={{ top: 2, right: 18, bottom: 0, left: 0 }}>
        <XAxis type="number" tick={AXIS_TICK} stroke="var(--ink)" tickCount={4} unit=" L/h" />
        <YAxis type="category" dataKey="name" tick={AXIS_TICK} stroke="var(--line)" width={104} interval={0} />
        <Bar dataKey="litres" fill="var(--water)" isAnimationActive={false} />
      </BarChart>
    </ResponsiveContainer>
  );
}

/** Works held against each other by the water they hold for an hour of work and for what it costs, the best first. */
export function LabourPart({ id }: { readonly id: string }): ReactNode {
  const figures = useView()?.figures;
  const works = useWorks();
  const format = useFormat();
  const [hourCosts, setCosts] = useState<number | null>(null);
  const rows = figures ? labourRows(works, figures) : [];
  const at = rows.findIndex((r) => r.work === id);
  if (rows.length < 2 || at < 0) return null;
  const more = MORE.filter(({ of }) => rows.some((r) => of(r) !== null));
  const isPriced = hourCosts !== null && hourCosts > 0;
  return (
    <FoldPart title="Against other works, by labour" sum={`${format(rows[at].aFill, 'count')} L/h, ${at + 1} of ${rows.length}`} isLookedUp>
      <LabourBars rows={rows} />
      <Table
        caption="Water held for an hour of one person’s work, a fill"
        head={['work', 'holds', 'hours', 'L/h a fill', ...(isPriced ? ['L for 1 of money'] : []), ...more.map((m) => m.head)]}
        rows={rows.map((r) => [
          r.name,
          `${format(r.holdsM3, 'volume')}${r.isSlowed ? ' slowed' : ''}`,
          format(r.hours, 'hours'),
          format(r.aFill, 'count'),
          ...(isPriced ? [format(r.aFill / hourCosts, 'number')] : []),
          ...more.map(({ of }) => format(of(r), 'count')),
        ])}
      />
      <Quantity label="An hour of work costs" kind="number" min={0} max={10_000} value={hourCosts} onChange={setCosts} />
      <Muted>
        By what one person does in a day, as it stands on each sheet, walking and breaks included. A low one may still be right where it
        lies.
      </Muted>
      <MachinePart />
    </FoldPart>
  );
}
