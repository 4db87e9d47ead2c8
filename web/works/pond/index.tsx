import LineString from 'ol/geom/LineString.js';
import Polygon from 'ol/geom/Polygon.js';
import type { ReactNode } from 'react';
import { type Line, closed } from '#core/geometry';
import type { Pond } from '#core/works';
import type { PlanItem } from '../../plan/types.ts';
import { WaysOut } from '../shared/WaysOut.tsx';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

const PondSheet = ({ work }: { readonly work: Pond }): ReactNode => <WorkSheet work={work} answer={<WaysOut host={work} />} />;

const coordinates = (line: Line): number[][] => line.map(([x, y]) => [x, y]);

export const pondUi: WorkUi<Pond> = {
  kind: 'pond',
  Sheet: PondSheet,
  drag: () => null,
  planItems: (pond, { result, selected }) => {
    const isSelected = pond.id === selected;
    const rings = result?.view.rings[pond.id] ?? [];
    const water = rings.map((ring, k): PlanItem => {
      const look = { role: 'water', isSelected, ...(k === 0 ? { label: pond.name } : {}) };
      return {
        id: k === 0 ? pond.id : `water:${pond.id}:${k}`,
        version: JSON.stringify([ring.length, ring[0], ring[ring.length >> 1], look]),
        geometry: new Polygon([coordinates(ring)]),
        look,
      };
    });
    const own = rings.length > 0 ? `wall:${pond.id}` : pond.id;
    const look = { role: 'earth-wall', isSelected, width: pond.dimensions.topWidthM, ...(rings.length > 0 ? {} : { label: pond.name }) };
    const wall: PlanItem[] = pond.wall
      ? [{ id: own, version: JSON.stringify([pond.wall, look]), geometry: new LineString(coordinates(pond.wall)), look }]
      : [];
    const pit: PlanItem[] =
      pond.pit && rings.length === 0
        ? [
            {
              id: own,
              version: JSON.stringify([pond.pit, look]),
              geometry: new Polygon([coordinates(closed(pond.pit))]),
              look: { ...look, role: 'water' },
            },
          ]
        : [];
    return [...water, ...wall, ...(pond.wall ? [] : pit)];
  },
};
