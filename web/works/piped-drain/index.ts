import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import Polygon from 'ol/geom/Polygon.js';
import { pointAlong } from '#core/geometry';
import { type PipedDrain, hasGrate } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import { nearestAlong } from '../shared/across.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const pipedDrainUi: WorkUi<PipedDrain> = {
  kind: 'piped-drain',
  Sheet: WorkSheet,
  // Dragging it takes its basin that stands nearest along the line.
  drag: (work, to) => {
    const { k, atM } = nearestAlong(work.line, work.basins, to);
    return change(work.id, { [`basins.${k}.atM`]: atM });
  },
  planItems: (work, { selected, result }) => {
    const isSelected = work.id === selected;
    // Where water would stand without it: seen while it is looked at.
    const yards = (isSelected ? (result?.view.rings[work.id] ?? []) : []).map((ring, k): PlanItem => {
      const water = { role: 'hollow-water' };
      return {
        id: `yard:${work.id}:${k}`,
        version: JSON.stringify([ring.length, ring[0], water]),
        geometry: new Polygon([ring.map(([x, y]) => [x, y])]),
        look: water,
      };
    });
    const look = { role: 'buried-pipe', label: work.name, isSelected };
    const pipe: PlanItem = {
      id: work.id,
      version: JSON.stringify([work.line, look]),
      geometry: new LineString(work.line.map(([x, y]) => [x, y])),
      look,
    };
    const basins = work.basins.map((basin, k): PlanItem => {
      const mark = { role: hasGrate(basin) ? 'grate' : 'lid', isSelected };
      return {
        id: markId(work.id, `basin${k + 1}`),
        version: JSON.stringify([work.line, basin.atM, mark]),
        geometry: new OlPoint([...pointAlong(work.line, basin.atM).point]),
        look: mark,
        isMovable: true,
      };
    });
    return [...yards, pipe, ...basins];
  },
};
