// A bar across a channel with its grip on the bed: a dam, or a place where it was measured.
import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import { type Line, nearestOnLine, pointAlong } from '#core/geometry';
import { across } from '#core/works';
import { markId } from '../../plan/marks.ts';
import { drawnOnce } from '../../plan/once.ts';
import type { Look, PlanItem } from '../../plan/types.ts';

/** A channel's bed as a line on the plan. */
export function bedItem(work: { readonly id: string; readonly name: string; readonly line: Line }, isSelected: boolean): PlanItem {
  const look = { role: 'drain', label: work.name, isSelected, width: 0.3 };
  return { id: work.id, version: JSON.stringify([work.line, look]), geometry: new LineString(work.line.map(([x, y]) => [x, y])), look };
}

/** Of many along one line most stay where they are while one is moved. */
const barred = drawnOnce<PlanItem[]>();

/** The bar, from bank to bank, and the grip it is moved by. */
export function barItems(
  line: Line,
  at: { readonly atM: number; readonly bankWidthM: number },
  on: { readonly id: string; readonly work: string; readonly grip: string; readonly look: Look },
): PlanItem[] {
  return barred(at, [line, on.id, on.look.role, on.look.width, on.look.label, on.look.isSelected], () => {
    const ends = across(line, at);
    const { point } = pointAlong(line, at.atM);
    const grip = { role: 'peg', isSelected: on.look.isSelected === true };
    return [
      { id: on.id, version: JSON.stringify([ends, on.look]), geometry: new LineString(ends.map(([x, y]) => [x, y])), look: on.look },
      {
        id: markId(on.work, on.grip),
        version: JSON.stringify([point, grip]),
        geometry: new OlPoint([...point]),
        look: grip,
        isMovable: true,
      },
    ];
  });
}

/** Which of several along a line stands nearest to a place, and where that is, to a tenth of a metre. */
export function nearestAlong(
  line: Line,
  list: readonly { readonly atM: number }[],
  to: readonly [number, number],
): { readonly k: number; readonly atM: number } {
  const { atM } = nearestOnLine(to, line);
  const k = list.reduce((best, one, i) => (Math.abs(one.atM - atM) < Math.abs(list[best].atM - atM) ? i : best), 0);
  return { k, atM: Math.round(10 * atM) / 10 };
}
