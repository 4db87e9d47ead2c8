// The drain from end to end: the ground, its pipes with their bores, its basins, and the water over them.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { DrainGround } from './ground.ts';
import { RISES_M } from './making.ts';
import { type PipedDrain, joinsAt } from './model.ts';
import { grateLevel, pipesOf, yardOver } from './standing.ts';

const BASIN_M = 0.15;

export function sectionOf(work: PipedDrain, ground: DrainGround, waterM: number | null): SectionShape {
  const { stepM, groundM } = ground;
  const pipes = pipesOf(work, ground);
  const floors = pipes.flatMap(({ fromM, lengthM, upperM, lowerM }): Point[] => [[fromM, upperM], [fromM + lengthM, lowerM]]); // prettier-ignore
  const tops = pipes.flatMap(({ fromM, lengthM, upperM, lowerM, diameterM }): Point[] => [[fromM, upperM + diameterM], [fromM + lengthM, lowerM + diameterM]]); // prettier-ignore
  const first = ground.yards[0];
  return {
    title: 'Along it: the ground, the pipes and the basins',
    isLong: true,
    parts: [
      { role: 'ground', points: Array.from(groundM, (level, k): Point => [k * stepM, level]) },
      ...work.basins.map(({ atM, invertM, sumpM }, k) => {
        const top = yardOver(ground, k) ? grateLevel(work, ground, k) : ground.atBasins[k];
        const box: Point[] = [[atM - BASIN_M, top], [atM + BASIN_M, top], [atM + BASIN_M, invertM - sumpM], [atM - BASIN_M, invertM - sumpM]]; // prettier-ignore
        return { role: 'cut' as const, points: box, isArea: true };
      }),
      { role: 'pipe', points: [...floors, ...tops.reverse()], isArea: true },
      ...work.basins.flatMap((basin, k) =>
        joinsAt(basin) > 0
          ? [
              {
                role: 'pipe' as const,
                points: [
                  [basin.atM, basin.invertM],
                  [basin.atM, ground.atBasins[k] + RISES_M],
                ] as Point[],
              },
            ]
          : [],
      ),
      ...(waterM !== null && first !== undefined
        ? first.basins.map((k) => {
            const { atM } = work.basins[k];
            const half = Math.min(3, Math.max(0.5, ground.lengthM / 12));
            return { role: 'water' as const, points: [[atM - half, waterM], [atM + half, waterM]] as Point[] }; // prettier-ignore
          })
        : []),
    ],
    levels: [
      { name: 'upper invert', levelM: work.basins[0].invertM },
      { name: 'ends', levelM: work.levels.outletM },
    ],
  };
}
