import LineString from 'ol/geom/LineString.js';
import type { Line, Point } from '#core/geometry';
import { middleOf } from '#core/geometry';
import type { PumpBack } from '#core/works';
import { hostLine } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

const middle = (line: Line | null): Point | null => (line ? middleOf(line) : null);

export const pumpBackUi: WorkUi<PumpBack> = {
  kind: 'pump-back',
  Sheet: WorkSheet,
  drag: () => null,
  planItems: (pump, { works, selected }) => {
    const [a, b] = [middle(hostLine(works, pump.host)), middle(hostLine(works, pump.to))];
    if (!a || !b) return [];
    const look = { role: 'seen-led', label: pump.name, isSelected: pump.id === selected };
    return [{ id: pump.id, version: JSON.stringify([a, b, look]), geometry: new LineString([[...a], [...b]]), look }];
  },
};
