import LineString from 'ol/geom/LineString.js';
import type { Terraces } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const terracesUi: WorkUi<Terraces> = {
  kind: 'terraces',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (work, { selected }) =>
    work.lines.map((line, k): PlanItem => {
      const look = {
        role: work.riser === 'stone' ? 'stone-line' : 'basin-row',
        isSelected: work.id === selected,
        width: 0.6 * work.dimensions.benchM,
        ...(k === 0 ? { label: work.name } : {}),
      };
      return {
        id: k === 0 ? work.id : markId(work.id, `bench${k + 1}`),
        version: JSON.stringify([line, look]),
        geometry: new LineString(line.map(([x, y]) => [x, y])),
        look,
      };
    }),
};
