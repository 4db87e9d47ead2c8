// Corners of a drawn line or ring: gripped on the plan, or typed.
import OlPoint from 'ol/geom/Point.js';
import type { Command } from '#core/commands';
import type { WorkBase } from '#core/contract';
import type { Point } from '#core/geometry';
import { type Corner, catalogue, cornersOf, movedCorner } from '#core/works';
import { markId } from '../plan/marks.ts';
import type { PlanItem } from '../plan/types.ts';
import { change } from './levels.ts';

const gripOf = (work: WorkBase, { path, k }: Corner): string => markId(work.id, `corner-${path}-${k + 1}`);

/** The corners of a work that may be moved; none where it is drawn anew. */
export function cornersIn(work: WorkBase): readonly Corner[] {
  const { corners } = catalogue.describe(work);
  return corners ? cornersOf(work, corners) : [];
}

/** Grips on the corners of a work that is looked at. */
export const cornerItems = (work: WorkBase): PlanItem[] =>
  cornersIn(work).map((corner) => ({
    id: gripOf(work, corner),
    version: JSON.stringify(corner.at),
    geometry: new OlPoint([...corner.at]),
    look: { role: 'corner', isSelected: true },
    isMovable: true,
  }));

/** The corner a grip is of. */
export const cornerOf = (work: WorkBase, grip: string): Corner | undefined => cornersIn(work).find((c) => gripOf(work, c) === grip);

/** The command that moves a corner; null where the work has none. */
export function cornerTo(work: WorkBase, { path, k }: Corner, to: Point): Command | null {
  const { corners } = catalogue.describe(work);
  return corners && change(work.id, movedCorner(work, corners, { path, k, to }));
}
