// Two benches and the riser between them, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { outlineOf, slabsOf } from '../gravity/index.ts';
import { type Terraces, inwardOf } from './model.ts';
import { type Bench, bodyOf, edgeOf, floorOf, wayOf } from './standing.ts';

export function sectionOf(work: Terraces, bench: Bench, waterM: number | null): SectionShape {
  const { benchM: Wb, riserHV: U, lipM, foundationM, drainM } = work.dimensions;
  const i = inwardOf(work);
  const half = Wb / 2;
  const g = (x: number): number => bench.middleM - bench.slope * x;
  // Downhill is right. The riser behind leans away; the one before it goes down to the next bench.
  const foot: Point = [half + U * bench.riserM, bench.outerM - bench.riserM];
  const cutTop = -half - (U * bench.riserM) / 2;
  const reach = half + Math.max(1, Math.abs(cutTop) - half) + 1;
  const floor = (x: number): number => bench.middleM + i * x;
  const water = Math.max(floorOf(bench), waterM ?? floorOf(bench));
  const surface = (level: number): Point[] => [
    [i > 0 || i === 0 ? -half : Math.max(-half, half - (level - bench.outerM) / -i), level],
    [i >= 0 ? (i === 0 ? half : Math.min(half, -half + (level - bench.innerM) / i)) : half, level],
  ];
  const filled: Point[] = [
    [0, bench.middleM],
    [half, bench.outerM],
    [half, bench.outerM + lipM],
    [half + U * lipM, bench.outerM],
    [half + (U * bench.riserM) / 2, g(half + (U * bench.riserM) / 2)],
  ];
  const wall = outlineOf(slabsOf(bodyOf(work, bench.riserM)), { toeAt: 0, baseAt: foot[1] - foundationM }).map(([x, y]): Point => [
    foot[0] - x,
    y,
  ]);
  return {
    title: 'A bench across, at its mean slope',
    parts: [
      { role: 'ground', points: [[-reach, g(-reach)], [reach, g(reach)]] }, // prettier-ignore
      { role: 'cut', points: [[cutTop, g(cutTop)], [-half, bench.innerM], [0, bench.middleM], [half, bench.outerM]] }, // prettier-ignore
      { role: 'earth', isArea: true, points: filled },
      ...(work.riser === 'stone' && drainM > 0 ? [{ role: 'key' as const, isArea: true, points: gravel(foot, bench, work) }] : []),
      ...(work.riser === 'stone' ? [{ role: 'stone' as const, isArea: true, points: wall }] : []),
      { role: 'full', points: surface(wayOf(bench, work)) },
      ...(waterM !== null && water > floorOf(bench) + 1e-6
        ? [{ role: 'water' as const, points: surface(Math.min(water, edgeOf(bench, work))) }]
        : []),
    ],
    levels: [
      { name: 'edge', levelM: edgeOf(bench, work) },
      { name: 'bench, middle', levelM: floor(0) },
      { name: 'foot of the riser', levelM: foot[1] },
    ],
  };
}

/** Gravel behind the wall before the bench. */
function gravel([x, y]: Point, bench: Bench, { dimensions: { baseM, drainM } }: Terraces): Point[] {
  const back = x - baseM;
  return [
    [back, y],
    [back, y + bench.riserM],
    [back - drainM, y + bench.riserM],
    [back - drainM, y],
  ];
}
