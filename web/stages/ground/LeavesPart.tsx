import { useState, type ReactNode } from 'react';
import type { Derived } from '#core/derive';
import { useDerived, useFormat, useView, useWorks } from '../../app/selectors.ts';
import { Choose, Muted, Part, Row, Table } from '../../kit/index.ts';
import { FlowChart } from './FlowChart.tsx';

type Exit = Derived['exits'][number];

const nameOf = (exit: Exit, k: number): string => (exit.isPlace ? `Place ${k + 1}` : 'Along the rest of the line');

const minutesAt = (s: number | null): string => (s === null ? '–' : `${Math.round(s / 60)} min`);

/** One sentence for what the works do to what leaves. */
function whole(exits: readonly Exit[], format: (v: number, kind: 'volume') => string): string {
  const [without, with_] = [exits.reduce((a, e) => a + e.without.volumeM3, 0), exits.reduce((a, e) => a + e.with.volumeM3, 0)];
  if (without === 0) return 'In this storm nothing leaves the property.';
  const share = Math.round(100 * (1 - with_ / without));
  return `${format(with_, 'volume')} leaves the property in this storm; with nothing built it would be ${format(without, 'volume')}${share === 0 ? '' : `, so ${share} % is kept back`}.`;
}

/** Where water leaves the property: how much, how hard and when, with the works and without them. */
export function LeavesPart(): ReactNode {
  const derived = useDerived();
  const view = useView();
  const works = useWorks();
  const format = useFormat();
  const exits = derived?.exits ?? [];
  const [chosen, choose] = useState<string | null>(null);
  if (exits.length === 0) return <Muted>Bring in terrain and rain to see where water leaves, how much and when.</Muted>;
  const k = Math.max(
    0,
    exits.findIndex((e) => e.id === chosen),
  );
  const exit = exits[k];
  const series = view?.flows.find((f) => f.id === exit.id);
  const hasWorks = works.some((w) => w.status !== 'retired');
  return (
    <>
      <Part title="Where water leaves">
        <p style={{ margin: '4px 0 8px' }}>{whole(exits, format)}</p>
        <Table
          caption="Places where water leaves"
          head={['', 'Ground', 'Peak', 'with nothing built']}
          rows={exits.map((e, i) => [
            nameOf(e, i),
            format(e.areaM2, 'land'),
            format(e.with.peakM3s, 'flow'),
            format(e.without.peakM3s, 'flow'),
          ])}
        />
        <Muted>
          Places that gather a twentieth or more of all that leaves are told one by one and marked on the plan. Ground beyond the property
          that drains through it counts; springs do not.
        </Muted>
      </Part>
      <Part title="How it passes">
        <Row>
          <Choose label="At" value={exit.id} choices={exits.map((e, i) => ({ id: e.id, name: nameOf(e, i) }))} onChange={choose} />
        </Row>
        <Table
          caption="Peak, its time and volume"
          head={['', 'Peak', 'after', 'Volume']}
          rows={[
            ...(hasWorks ? [['with the works', exit.with] as const] : []),
            [hasWorks ? 'with nothing built' : 'as it is', exit.without] as const,
          ].map(([name, f]) => [name, format(f.peakM3s, 'flow'), minutesAt(f.peakAtS), format(f.volumeM3, 'volume')])}
        />
        {series && <FlowChart series={hasWorks ? series : { ...series, withoutM3s: null }} name={nameOf(exit, k)} />}
      </Part>
    </>
  );
}
