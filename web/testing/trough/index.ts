// The made-up technique's interface: the generic sheet, and its line on the plan.
import LineString from 'ol/geom/LineString.js';
import type { Trough } from '../../../core/testing/trough/index.ts';
import { WorkSheet } from '../../works/shared/WorkSheet.tsx';
import type { WorkUi } from '../../works/types.ts';

export const troughUi: WorkUi<Trough> = {
  kind: 'trough',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (trough, { selected }) => {
    const look = { role: 'drain', label: trough.name, isSelected: trough.id === selected };
    return [
      { id: trough.id, version: JSON.stringify([trough.line, look]), geometry: new LineString(trough.line.map(([x, y]) => [x, y])), look },
    ];
  },
};
