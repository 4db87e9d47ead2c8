// The line from end to end: the ground, the pipe, and the head over it.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { LineGround } from './ground.ts';
import type { SupplyLine } from './model.ts';
import { headsAlong, pipeLevels } from './standing.ts';

export function sectionOf(work: SupplyLine, ground: LineGround): SectionShape {
  const { stepM, groundM } = ground;
  const pipe = pipeLevels(work, ground);
  // A pump’s head stands far over everything: drawn to it nothing else could be seen.
  const heads = work.drive === 'fall' ? headsAlong(work, ground) : null;
  const along = (of: (k: number) => number): Point[] => Array.from(groundM, (_, k): Point => [k * stepM, of(k)]);
  return {
    title: heads ? 'Along it: the ground, the pipe, and how high its water would rise' : 'Along it: the ground and the pipe',
    isLong: true,
    parts: [
      { role: 'ground', points: along((k) => groundM[k]) },
      { role: 'pipe', points: along((k) => pipe[k]) },
      ...(heads ? [{ role: 'water' as const, points: along((k) => pipe[k] + heads[k]) }] : []),
    ],
    levels: [
      { name: 'drawn from', levelM: work.levels.drawM },
      { name: 'ends', levelM: work.levels.endM },
    ],
  };
}
