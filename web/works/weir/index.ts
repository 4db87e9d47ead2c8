import LineString from 'ol/geom/LineString.js';
import Polygon from 'ol/geom/Polygon.js';
import { pointAlong } from '#core/geometry';
import type { Weir } from '#core/works';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const weirUi: WorkUi<Weir> = {
  kind: 'weir',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (weir, { result, selected }) => {
    const isSelected = weir.id === selected;
    const { topWidthM, notchWidthM } = weir.dimensions;
    const look = { role: 'check-dam', label: weir.name, isSelected, width: Math.max(1, topWidthM) };
    const water = (result?.view.rings[weir.id] ?? []).map((ring, k): PlanItem => ({
      id: `water:${weir.id}:${k}`,
      version: JSON.stringify([ring.length, ring[0], ring[ring.length >> 1]]),
      geometry: new Polygon([ring.map(([x, y]) => [x, y])]),
      look: { role: 'water' },
    }));
    const ends = [-1, 1].map((side) => pointAlong(weir.line, weir.notchAtM + (side * notchWidthM) / 2).point);
    const notch = { role: 'sill', isSelected, width: Math.max(1, topWidthM) };
    return [
      ...water,
      { id: weir.id, version: JSON.stringify([weir.line, look]), geometry: new LineString(weir.line.map(([x, y]) => [x, y])), look },
      {
        id: `notch:${weir.id}`,
        version: JSON.stringify([ends, notch]),
        geometry: new LineString(ends.map(([x, y]) => [x, y])),
        look: notch,
      },
    ];
  },
};
