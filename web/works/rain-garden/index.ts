import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import Polygon from 'ol/geom/Polygon.js';
import { type RainGarden, radiusOf } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { change } from '../levels.ts';
import { circleRing } from '../shared/circle.ts';
import { GardenSheet } from './GardenSheet.tsx';
import type { WorkUi } from '../types.ts';

export const rainGardenUi: WorkUi<RainGarden> = {
  kind: 'rain-garden',
  Sheet: GardenSheet,
  // The place of the chain that lies nearest to the pointer goes along.
  drag: (work, to) => {
    const away = work.line.map(([x, y]) => Math.hypot(x - to[0], y - to[1]));
    const nearest = away.indexOf(Math.min(...away));
    return change(work.id, {
      line: work.line.map((p, k) => (k === nearest ? [Math.round(10 * to[0]) / 10, Math.round(10 * to[1]) / 10] : p)),
    });
  },
  planItems: (work, { selected }) => {
    const isSelected = work.id === selected;
    const look = { role: 'drain', label: work.name, isSelected, width: 0.3 };
    const chain: PlanItem = {
      id: work.id,
      version: JSON.stringify([work.line, look]),
      geometry: new LineString(work.line.map(([x, y]) => [x, y])),
      look,
    };
    const basins = work.basins.flatMap((basin, k): PlanItem[] => {
      const at = work.line[k];
      const water = { role: 'water', isSelected };
      const grip = { role: 'peg', isSelected };
      return [
        {
          id: `basin:${work.id}:${k}`,
          version: JSON.stringify([at, basin.areaM2, water]),
          geometry: new Polygon([circleRing(at, radiusOf(basin))]),
          look: water,
        },
        {
          id: markId(work.id, `basin${k + 1}`),
          version: JSON.stringify([at, grip]),
          geometry: new OlPoint([...at]),
          look: grip,
          isMovable: true,
        },
      ];
    });
    return [...basins, chain];
  },
};
