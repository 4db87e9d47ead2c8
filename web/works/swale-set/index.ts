import LineString from 'ol/geom/LineString.js';
import type { SwaleSet } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const swaleSetUi: WorkUi<SwaleSet> = {
  kind: 'swale-set',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (work, { selected }) =>
    work.lines.map((line, k): PlanItem => {
      const look = {
        role: 'swale-right',
        isSelected: work.id === selected,
        width: work.dimensions.floorWidthM,
        ...(k === 0 ? { label: work.name } : {}),
      };
      return {
        id: k === 0 ? work.id : markId(work.id, `row${k + 1}`),
        version: JSON.stringify([line, look]),
        geometry: new LineString(line.map(([x, y]) => [x, y])),
        look,
      };
    }),
};
