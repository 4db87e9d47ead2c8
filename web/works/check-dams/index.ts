import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import { nearestOnLine, pointAlong } from '#core/geometry';
import { type CheckDams, across } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import type { WorkUi } from '../types.ts';
import { DamsSheet } from './DamsSheet.tsx';

/** As wide as a dam is drawn at the least along the flow [m]. */
const THICK_M = 0.8;

export const checkDamsUi: WorkUi<CheckDams> = {
  kind: 'check-dams',
  Sheet: DamsSheet,
  // Dragging the series takes its dam that stands nearest along the channel.
  drag: (work, to) => {
    const { atM } = nearestOnLine(to, work.line);
    const nearest = work.dams.reduce((a, b) => (Math.abs(b.atM - atM) < Math.abs(a.atM - atM) ? b : a));
    return change(work.id, { [`dams.${work.dams.indexOf(nearest)}.atM`]: Math.round(10 * atM) / 10 });
  },
  planItems: (work, { selected }) => {
    const isSelected = work.id === selected;
    const look = { role: 'drain', label: work.name, isSelected, width: 0.3 };
    const bed: PlanItem = {
      id: work.id,
      version: JSON.stringify([work.line, look]),
      geometry: new LineString(work.line.map(([x, y]) => [x, y])),
      look,
    };
    const dams = work.dams.flatMap((dam, k): PlanItem[] => {
      const ends = across(work.line, dam);
      const bar = { role: 'check-dam', isSelected, width: Math.max(THICK_M, work.dimensions.crestWidthM) };
      const grip = { role: 'peg', isSelected };
      return [
        {
          id: `dam:${work.id}:${k}`,
          version: JSON.stringify([ends, bar]),
          geometry: new LineString(ends.map(([x, y]) => [x, y])),
          look: bar,
        },
        {
          id: markId(work.id, `dam${k + 1}`),
          version: JSON.stringify([work.line, dam.atM, grip]),
          geometry: new OlPoint([...pointAlong(work.line, dam.atM).point]),
          look: grip,
          isMovable: true,
        },
      ];
    });
    return [bed, ...dams];
  },
};
