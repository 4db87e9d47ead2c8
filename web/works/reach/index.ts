import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import { nearestOnLine, pointAlong } from '#core/geometry';
import { type Reach, across } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import type { WorkUi } from '../types.ts';
import { ReachSheet } from './ReachSheet.tsx';

export const reachUi: WorkUi<Reach> = {
  kind: 'reach',
  Sheet: ReachSheet,
  // Dragging it takes its section that stands nearest along the line.
  drag: (work, to) => {
    const { atM } = nearestOnLine(to, work.line);
    const k = work.sections.reduce((best, s, i) => (Math.abs(s.atM - atM) < Math.abs(work.sections[best].atM - atM) ? i : best), 0);
    return change(work.id, { [`sections.${k}.atM`]: Math.round(10 * atM) / 10 });
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
    const sections = work.sections.flatMap((s, k): PlanItem[] => {
      const ends = across(work.line, { atM: s.atM, bankWidthM: s.bedWidthM + s.leftOutM + s.rightOutM });
      const bar = { role: 'channel-section', isSelected };
      const grip = { role: 'peg', isSelected };
      return [
        {
          id: `section:${work.id}:${k}`,
          version: JSON.stringify([ends, bar]),
          geometry: new LineString(ends.map(([x, y]) => [x, y])),
          look: bar,
        },
        {
          id: markId(work.id, `section${k + 1}`),
          version: JSON.stringify([work.line, s.atM, grip]),
          geometry: new OlPoint([...pointAlong(work.line, s.atM).point]),
          look: grip,
          isMovable: true,
        },
      ];
    });
    return [bed, ...sections];
  },
};
