import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import type { Sump } from '#core/works';
import { markId } from '../../plan/marks.ts';
import type { PlanItem } from '../../plan/types.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const sumpUi: WorkUi<Sump> = {
  kind: 'sump-pump',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (work, { selected }): PlanItem[] => {
    const isSelected = work.id === selected;
    const pipe = { role: 'pressure-pipe', isSelected };
    const pit = { role: 'grate', label: work.name, isSelected };
    return [
      { id: markId(work.id, 'pipe'), version: JSON.stringify([work.line, pipe]), geometry: new LineString(work.line.map(([x, y]) => [x, y])), look: pipe },
      { id: work.id, version: JSON.stringify([work.line[0], pit]), geometry: new OlPoint([...work.line[0]]), look: pit },
    ];
  },
}; // prettier-ignore
