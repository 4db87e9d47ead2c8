// The line from end to end: the ground, the pipe, and the head over it.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { LineGround } from './ground.ts';
import type { WaterLine } from './model.ts';
import { headsAlong, pipeLevels } from './standing.ts';

export function sectionOf(work: WaterLine, ground: LineGround): SectionShape {
  const { stepM, groundM } = ground;
  const pipe = pipeLevels(work, ground);
  const heads = headsAlong(work, ground);
  const along = (of: (k: number) => number): Point[] => Array.from(groundM, (_, k): Point => [k * stepM, of(k)]);
  return {
    title: 'Along it: the ground, the pipe, and how high its water would rise',
    isLong: true,
    parts: [
      { role: 'ground', points: along((k) => groundM[k]) },
      { role: 'pipe', points: along((k) => pipe[k]) },
      { role: 'water', points: along((k) => pipe[k] + heads[k]) },
    ],
    levels: [
      { name: 'drawn from', levelM: work.levels.drawM },
      { name: 'ends', levelM: work.levels.endM },
    ],
  };
}
