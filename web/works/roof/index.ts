import Polygon from 'ol/geom/Polygon.js';
import { type Point, closed } from '#core/geometry';
import type { Roof } from '#core/works';
import { change } from '../levels.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

const tenth = (v: number): number => Math.round(10 * v) / 10;
const middleOf = ({ ring }: Roof): Point => ring.reduce<Point>(([x, y], p) => [x + p[0] / ring.length, y + p[1] / ring.length], [0, 0]);

export const roofUi: WorkUi<Roof> = {
  kind: 'roof',
  Sheet: WorkSheet,
  // All of it goes along: its middle comes to lie under the pointer.
  drag: (work, [x, y]) => {
    const [mx, my] = middleOf(work);
    return change(work.id, { ring: work.ring.map(([px, py]) => [tenth(px + x - mx), tenth(py + y - my)]) });
  },
  planItems: (work, { selected }) => {
    const look = { role: 'roof', label: work.name, isSelected: work.id === selected };
    return [
      {
        id: work.id,
        version: JSON.stringify([work.ring, look]),
        geometry: new Polygon([closed(work.ring).map(([x, y]) => [x, y])]),
        look,
        isMovable: true,
      },
    ];
  },
};
