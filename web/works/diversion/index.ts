import LineString from 'ol/geom/LineString.js';
import type { Diversion } from '#core/works';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const diversionUi: WorkUi<Diversion> = {
  kind: 'diversion',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (drain, { selected }) => {
    const look = { role: 'drain', label: drain.name, isSelected: drain.id === selected, width: drain.dimensions.floorWidthM };
    return [
      { id: drain.id, version: JSON.stringify([drain.line, look]), geometry: new LineString(drain.line.map(([x, y]) => [x, y])), look },
    ];
  },
};
