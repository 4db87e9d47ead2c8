// A line through it: the ground before and after.
import type { SectionShape } from '../../contract/index.ts';
import { type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { type Regrade, isDish } from './model.ts';
import { type RegradeGround, afterAt, beforeAt, throughIt } from './standing.ts';

const PARTS = 60;

export function sectionOf(work: Regrade, ground: RegradeGround): SectionShape {
  const line = throughIt(work, ground);
  const length = lineLength(line);
  const along = (levelAt: (at: Point) => number): Point[] =>
    Array.from({ length: PARTS + 1 }, (_, k): Point => [(length * k) / PARTS, levelAt(pointAlong(line, (length * k) / PARTS).point)]).filter(([, level]) => !Number.isNaN(level));
  const after = along((p) => afterAt(work, ground, p));
  return {
    title: isDish(work) ? 'Along its bed: before and after' : 'Through its first corner and its middle: before and after',
    isLong: true,
    parts: [
      { role: 'ground', points: along((p) => beforeAt(ground, p)) },
      { role: 'cut', points: after },
    ],
    levels: isDish(work)
      ? [{ name: 'bed, upper end', levelM: work.levels.startM }, { name: 'bed, lower end', levelM: work.levels.endM }]
      : [{ name: 'after, at its middle', levelM: after[Math.floor(after.length / 2)]?.[1] ?? work.levels.levelM }],
  };
} // prettier-ignore
