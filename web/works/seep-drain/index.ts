import LineString from 'ol/geom/LineString.js';
import type { SeepDrain } from '#core/works';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const seepDrainUi: WorkUi<SeepDrain> = {
  kind: 'seep-drain',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (work, { selected }) => {
    const look = { role: 'seeping-pipe', label: work.name, isSelected: work.id === selected };
    return [{ id: work.id, version: JSON.stringify([work.line, look]), geometry: new LineString(work.line.map(([x, y]) => [x, y])), look }];
  },
};
