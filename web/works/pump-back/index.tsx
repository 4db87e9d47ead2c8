import LineString from 'ol/geom/LineString.js';
import type { ReactNode } from 'react';
import type { Line, Point } from '#core/geometry';
import { middleOf } from '#core/geometry';
import type { PumpBack } from '#core/works';
import { useDerived, useWorks } from '../../app/selectors.ts';
import { dispatch } from '../../app/store.ts';
import { ChooseRow, Part } from '../../kit/index.ts';
import { change } from '../levels.ts';
import { hostLine } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

function PumpSheet({ id }: { readonly id: string }): ReactNode {
  const works = useWorks();
  const pump = works.find((w) => w.id === id) as PumpBack | undefined;
  const stores = useDerived()?.stores ?? [];
  if (!pump) return null;
  const choices = stores.filter((s) => s.id !== pump.host).map((s) => ({ id: s.id, name: works.find((w) => w.id === s.id)?.name ?? s.id }));
  return (
    <WorkSheet id={id} hides={pump.drive === 'sun' ? [] : ['panelShare']}>
      <Part title="Lifts to">
        <ChooseRow label="Upper store" value={pump.to} choices={choices} onChange={(to) => dispatch(change(id, { to }))} />
      </Part>
    </WorkSheet>
  );
}

const middle = (line: Line | null): Point | null => (line ? middleOf(line) : null);

export const pumpBackUi: WorkUi = {
  kind: 'pump-back',
  Sheet: PumpSheet,
  drag: () => null,
  planItems: (work, { works, selected }) => {
    const pump = work as PumpBack;
    const [a, b] = [middle(hostLine(works, pump.host)), middle(hostLine(works, pump.to))];
    if (!a || !b) return [];
    const look = { role: 'seen-led', label: pump.name, isSelected: pump.id === selected };
    return [{ id: pump.id, version: JSON.stringify([a, b, look]), geometry: new LineString([[...a], [...b]]), look }];
  },
};
