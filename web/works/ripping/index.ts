import LineString from 'ol/geom/LineString.js';
import MultiLineString from 'ol/geom/MultiLineString.js';
import { type Ripping, slotLines } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

/** So many lines are drawn at most: nearer ones run together on the screen. */
const MOST_DRAWN = 50;

export const rippingUi: WorkUi<Ripping> = {
  kind: 'ripping',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (work, { selected }): PlanItem[] => {
    const isSelected = work.id === selected;
    const key = { role: 'rip-key', label: work.name, isSelected, width: 0.3 };
    const slots = { role: 'rip-slot' };
    const all = slotLines(work);
    const every = Math.ceil(all.length / MOST_DRAWN);
    const lines = all.filter((_, k) => k % every === 0);
    return [
      {
        id: markId(work.id, 'slots'),
        version: JSON.stringify([work.line, work.ring ?? null, work.dimensions, slots]),
        geometry: new MultiLineString(lines.map((l) => l.map(([x, y]) => [x, y]))),
        look: slots,
      },
      { id: work.id, version: JSON.stringify([work.line, key]), geometry: new LineString(work.line.map(([x, y]) => [x, y])), look: key },
    ];
  },
};
