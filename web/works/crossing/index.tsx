import LineString from 'ol/geom/LineString.js';
import Polygon from 'ol/geom/Polygon.js';
import type { ReactNode } from 'react';
import type { Crossing } from '#core/works';
import { useDerived } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { ChooseRow, Muted, Part } from '../../kit/index.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import { WaysOut } from '../shared/WaysOut.tsx';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

/** Which two stores its pipes join, where they join any. */
function Between({ crossing }: { readonly crossing: Crossing }): ReactNode {
  const stores = (useDerived()?.stores ?? []).filter((s) => s.id !== crossing.id);
  const choices = [{ id: 'none', name: 'nothing: its bank holds water of its own' }, ...stores.map((s) => ({ id: s.id, name: s.name }))];
  const set = (a: string, b: string): void => {
    if (a !== 'none' && b !== 'none' && a !== b) dispatch(change(crossing.id, { joins: [a, b] }));
    else if (a === 'none' || b === 'none') dispatch(change(crossing.id, { joins: null }));
  };
  const [a, b] = crossing.joins ?? ['none', 'none'];
  const other = stores.find((s) => s.id !== a)?.id ?? 'none';
  return (
    <Part title="Its pipes join">
      <ChooseRow
        label="One side"
        value={a}
        choices={choices}
        onChange={(v) => set(v, b === 'none' ? (stores.find((s) => s.id !== v)?.id ?? 'none') : b)}
      />
      {crossing.joins && (
        <ChooseRow label="The other side" value={b} choices={choices} onChange={(v) => set(a === 'none' ? other : a, v)} />
      )}
      {crossing.joins && <Muted>Water runs both ways through them, by the levels on both sides.</Muted>}
    </Part>
  );
}

const CrossingSheet = ({ work }: { readonly work: Crossing }): ReactNode => (
  <WorkSheet work={work} answer={work.joins ? null : <WaysOut host={work} />}>
    <Between crossing={work} />
  </WorkSheet>
);

export const crossingUi: WorkUi<Crossing> = {
  kind: 'crossing',
  Sheet: CrossingSheet,
  drag: () => null,
  planItems: (crossing, { result, selected }) => {
    const look = { role: 'crossing', label: crossing.name, isSelected: crossing.id === selected, width: crossing.dimensions.roadWidthM };
    const water = (result?.view.rings[crossing.id] ?? []).map((ring, k): PlanItem => ({
      id: `water:${crossing.id}:${k}`,
      version: JSON.stringify([ring.length, ring[0], ring[ring.length >> 1]]),
      geometry: new Polygon([ring.map(([x, y]) => [x, y])]),
      look: { role: 'water' },
    }));
    return [
      ...water,
      {
        id: crossing.id,
        version: JSON.stringify([crossing.line, look]),
        geometry: new LineString(crossing.line.map(([x, y]) => [x, y])),
        look,
      },
    ];
  },
};
