import LineString from 'ol/geom/LineString.js';
import Polygon from 'ol/geom/Polygon.js';
import type { Regrade } from '#core/works';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const regradeUi: WorkUi<Regrade> = {
  kind: 'regrade',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (work, { selected }): PlanItem[] => {
    const look = { role: work.shape === 'dish' ? 'shaped-line' : 'shaped-ground', label: work.name, isSelected: work.id === selected };
    const drawn = (work.shape === 'dish' ? (work.line ?? []) : (work.ring ?? [])).map(([x, y]) => [x, y]);
    if (drawn.length < 2) return [];
    const geometry = work.shape === 'dish' ? new LineString(drawn) : new Polygon([drawn]);
    return [{ id: work.id, version: JSON.stringify([drawn, look]), geometry, look }];
  },
};
