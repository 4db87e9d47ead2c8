import Polygon from 'ol/geom/Polygon.js';
import type { Point } from '#core/geometry';
import type { Tank } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import { circleRing } from '../shared/circle.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

/** Vessels drawn one by one at most: more of them are told by their number. */
const MOST_DRAWN = 12;
/** Between vessels that stand in a row [m]. */
const GAP_M = 0.1;

/** Its outline from above, its middle at a place. */
function outlineOf({ form, dimensions, ledges = [] }: Tank, [x, y]: Point): number[][] {
  const { diameterM, topM, lengthM, widthM } = dimensions;
  const box = (w: number, h: number): number[][] => [
    [x - w / 2, y - h / 2],
    [x + w / 2, y - h / 2],
    [x + w / 2, y + h / 2],
    [x - w / 2, y + h / 2],
    [x - w / 2, y - h / 2],
  ];
  if (form === 'box') return box(lengthM, widthM);
  if (form === 'lying') return box(lengthM, diameterM);
  if (form === 'measured') {
    const side = Math.sqrt(Math.max(0.01, ...ledges.map((l) => l.areaM2)));
    return box(side, side);
  }
  return circleRing([x, y], (form === 'cone' ? Math.max(diameterM, topM) : diameterM) / 2);
}

/** How wide one of a row is, from the first towards the east. */
const acrossOf = ({ form, dimensions }: Tank): number =>
  form === 'box' || form === 'lying' ? dimensions.lengthM : Math.max(dimensions.diameterM, form === 'cone' ? dimensions.topM : 0);

export const tankUi: WorkUi<Tank> = {
  kind: 'tank',
  Sheet: WorkSheet,
  drag: (work, [x, y]) => change(work.id, { at: [Math.round(10 * x) / 10, Math.round(10 * y) / 10] }),
  planItems: (work, { selected }) => {
    const isSelected = work.id === selected;
    return Array.from({ length: Math.min(MOST_DRAWN, work.count) }, (_, k): PlanItem => {
      const look = { role: 'vessel', isSelected, ...(k === 0 ? { label: work.name } : {}) };
      const ring = outlineOf(work, [work.at[0] + k * (acrossOf(work) + GAP_M), work.at[1]]);
      return {
        id: k === 0 ? work.id : markId(work.id, `vessel-${k}`),
        version: JSON.stringify([ring, look]),
        geometry: new Polygon([ring]),
        look,
        isMovable: k === 0,
      };
    });
  },
};
