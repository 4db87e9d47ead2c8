import LineString from 'ol/geom/LineString.js';
import MultiLineString from 'ol/geom/MultiLineString.js';
import type { Point } from '#core/geometry';
import { type HalfMoons, basinsIn } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

/** Corners of an arc, and basins of a row drawn one by one at most: more are a dotted line. */
const [CORNERS, MOST_DRAWN] = [12, 400];

/** The bund of one, open uphill; of a pit its rim. Downhill is right of its row. */
function arc({ at, along }: ReturnType<typeof basinsIn>[number], on: { readonly radiusM: number; readonly isPit: boolean }): Point[] {
  const [dx, dy] = along;
  const down: Point = [dy, -dx];
  const sweep = on.isPit ? 2 * Math.PI : Math.PI;
  return Array.from({ length: CORNERS + 1 }, (_, k): Point => {
    const angle = (sweep * k) / CORNERS;
    const [c, s] = [Math.cos(angle) * on.radiusM, Math.sin(angle) * on.radiusM];
    return [at[0] + dx * c + down[0] * s, at[1] + dy * c + down[1] * s];
  });
}

export const halfMoonsUi: WorkUi<HalfMoons> = {
  kind: 'half-moons',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (work, { selected }) =>
    work.rows.map((row, k): PlanItem => {
      const basins = basinsIn(work, k);
      const { radiusM } = work.dimensions;
      const look = { role: 'basin-row', isSelected: work.id === selected, width: 0.4, ...(k === 0 ? { label: work.name } : {}) };
      const isDrawn = basins.length <= MOST_DRAWN;
      const arcs = isDrawn ? basins.map((b) => arc(b, { radiusM, isPit: work.form === 'pit' })) : [];
      return {
        id: k === 0 ? work.id : markId(work.id, `row${k + 1}`),
        version: JSON.stringify([row, work.dimensions, work.form, look]),
        geometry: isDrawn ? new MultiLineString(arcs.map((a) => a.map(([x, y]) => [x, y]))) : new LineString(row.map(([x, y]) => [x, y])),
        look,
      };
    }),
};
