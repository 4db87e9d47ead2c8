import LineString from 'ol/geom/LineString.js';
import type { ReactNode } from 'react';
import type { Diversion } from '#core/works';
import { useWorks } from '../../app/selectors.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

function DiversionSheet({ id }: { readonly id: string }): ReactNode {
  const drain = useWorks().find((w) => w.id === id) as Diversion | undefined;
  return <WorkSheet id={id} hides={drain?.lining === 'stone' ? [] : ['dimensions.stoneM']} />;
}

export const diversionUi: WorkUi = {
  kind: 'diversion',
  Sheet: DiversionSheet,
  drag: () => null,
  planItems: (work, { selected }) => {
    const drain = work as Diversion;
    const look = { role: 'drain', label: drain.name, isSelected: drain.id === selected, width: drain.dimensions.floorWidthM };
    return [
      { id: drain.id, version: JSON.stringify([drain.line, look]), geometry: new LineString(drain.line.map(([x, y]) => [x, y])), look },
    ];
  },
};
