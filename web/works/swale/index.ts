import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import { pointAlong } from '#core/geometry';
import type { Swale } from '#core/works';
import type { PlanItem } from '../../plan/types.ts';
import type { WorkUi } from '../types.ts';
import { SwaleSheet } from './SwaleSheet.tsx';

export const swaleUi: WorkUi<Swale> = {
  kind: 'swale',
  Sheet: SwaleSheet,
  drag: () => null,
  planItems: (swale, { result, selected }) => {
    const section = result?.view.sections[swale.id];
    const depth = Math.max(0.2, (section?.lipM ?? swale.levels.floorM) - swale.levels.floorM);
    const look = {
      role: section?.downhill === -1 ? 'swale-left' : 'swale-right',
      label: swale.name,
      isSelected: swale.id === selected,
      width: swale.dimensions.floorWidthM + 2 * swale.dimensions.sideSlopeHV * depth,
    };
    const line: PlanItem = {
      id: swale.id,
      version: JSON.stringify([swale.line, look]),
      geometry: new LineString(swale.line.map(([x, y]) => [x, y])),
      look,
    };
    const lows = (swale.lowPlaces ?? [])
      .filter((p) => p.levelM < swale.levels.bankCrestM)
      .map((low, k): PlanItem => ({
        id: `low:${swale.id}:${k}`,
        version: JSON.stringify([low, swale.line]),
        geometry: new OlPoint([...pointAlong(swale.line, low.atM).point]),
        look: { role: 'low', label: 'low bank' },
      }));
    return [line, ...lows];
  },
};
