// A chain along its line, to scale.
import type { SectionShape } from '../../contract/index.ts';
import { type Point, distance } from '../../geometry/index.ts';
import type { RainGarden } from './model.ts';
import type { Basin, GardenGround } from './standing.ts';

export function sectionOf(work: RainGarden, basins: readonly Basin[], ground: GardenGround): SectionShape {
  const { pondM, sideHV, mediaM } = work.dimensions;
  const along = work.line.map((_, k) => work.line.slice(1, k + 1).reduce((a, p, i) => a + distance(work.line[i], p), 0));
  const places = along.map((x, k): Point => [x, ground.placesM[k]]);
  return {
    isLong: true,
    title: 'Along the chain',
    parts: [
      { role: 'ground', points: places },
      ...basins.flatMap((b, k): SectionShape['parts'] => {
        const x = along[k];
        const inner = b.radiusM - sideHV * pondM;
        const cut: Point[] = [
          [x - b.radiusM, b.overflowM],
          [x - inner, b.floorM],
          [x + inner, b.floorM],
          [x + b.radiusM, b.overflowM],
        ];
        const soil: Point[] = [
          [x - inner, b.floorM],
          [x - inner, b.floorM - mediaM],
          [x + inner, b.floorM - mediaM],
          [x + inner, b.floorM],
        ];
        return [
          { role: 'earth', isArea: true, points: soil },
          { role: 'cut', points: cut },
          { role: 'full', points: [cut[0], cut[3]] },
        ];
      }),
    ],
    levels: [
      { name: basins.length > 1 ? 'first overflow' : 'overflow', levelM: basins[0].overflowM },
      ...(basins.length > 1 ? [{ name: 'last overflow', levelM: basins[basins.length - 1].overflowM }] : []),
    ],
  };
}
