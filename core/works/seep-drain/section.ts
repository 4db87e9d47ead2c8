// The drain from end to end: the ground and the pipe, as planned and as read.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { SeepGround } from './ground.ts';
import type { SeepDrain } from './model.ts';
import { invertAt } from './standing.ts';

export function sectionOf(work: SeepDrain, ground: SeepGround): SectionShape {
  const { stepM, groundM, lengthM } = ground;
  const { pipeM, overM, underM } = work.dimensions;
  const edge = (overInvertM: number): Point[] => [0, lengthM].map((at): Point => [at, invertAt(work, ground, at) + overInvertM]);
  const laid = [...(work.laid ?? [])].sort((a, b) => a.atM - b.atM);
  return {
    title: 'Along it: the ground, the gravel and the pipe',
    isLong: true,
    parts: [
      { role: 'ground', points: Array.from(groundM, (level, k): Point => [k * stepM, level]) },
      { role: 'stone', points: [...edge(-underM), ...edge(pipeM + overM).reverse()], isArea: true },
      { role: 'pipe', points: [...edge(0), ...edge(pipeM).reverse()], isArea: true },
      ...(laid.length > 1 ? [{ role: 'cut' as const, points: laid.map((r): Point => [r.atM, r.levelM]) }] : []),
    ],
    levels: [
      { name: 'upper invert', levelM: work.levels.upperM },
      { name: 'ends', levelM: work.levels.outletM },
    ],
  };
}
