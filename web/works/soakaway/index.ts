import LineString from 'ol/geom/LineString.js';
import Polygon from 'ol/geom/Polygon.js';
import { type Point, lineLength, pointAlong } from '#core/geometry';
import type { Soakaway } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import { circleRing } from '../shared/circle.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

const middleOf = ({ line }: Soakaway): Point => pointAlong(line, lineLength(line) / 2).point;
const tenth = (v: number): number => Math.round(10 * v) / 10;

export const soakawayUi: WorkUi<Soakaway> = {
  kind: 'soakaway',
  Sheet: WorkSheet,
  // All of it goes along: its middle comes to lie under the pointer.
  drag: (work, [x, y]) => {
    const [mx, my] = middleOf(work);
    return change(work.id, { line: work.line.map(([px, py]) => [tenth(px + x - mx), tenth(py + y - my)]) });
  },
  planItems: (work, { selected }) => {
    const isSelected = work.id === selected;
    const isTrench = work.form === 'trench';
    const look = { role: 'soak', label: work.name, isSelected, width: isTrench ? work.dimensions.widthM : 0.3 };
    const along: PlanItem = {
      id: work.id,
      version: JSON.stringify([work.line, look]),
      geometry: new LineString(work.line.map(([x, y]) => [x, y])),
      look,
      isMovable: true,
    };
    if (isTrench) return [along];
    const pit = { role: 'water', isSelected };
    const ring = circleRing(middleOf(work), work.dimensions.widthM / 2);
    return [
      along,
      { id: markId(work.id, 'pit'), version: JSON.stringify([ring, pit]), geometry: new Polygon([ring]), look: pit, isMovable: true },
    ];
  },
};
