// A soakaway cut across, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { siltedShare } from '../series.ts';
import type { Soakaway } from './model.ts';
import type { Hole } from './standing.ts';

const box = (half: number, low: number, high: number): Point[] => [
  [-half, high],
  [-half, low],
  [half, low],
  [half, high],
];

export function sectionOf(work: Soakaway, hole: Hole, waterM: number | null): SectionShape {
  const { widthM, surroundM } = work.dimensions;
  const half = (widthM + (work.fill === 'rings' ? 2 * surroundM : 0)) / 2;
  const reach = half + 1.5;
  // Its lower side, right, is where the rim is.
  const g = (x: number): number => hole.rimM + hole.slope * (half - x);
  const siltM = hole.floorM + (hole.rimM - hole.floorM) * siltedShare(work);
  const water = waterM === null ? null : Math.min(waterM, hole.rimM);
  return {
    title: 'Across, where it lets go',
    parts: [
      { role: 'ground', points: [[-reach, g(-reach)], [-half, g(-half)]] }, // prettier-ignore
      { role: 'ground', points: [[half, g(half)], [reach, g(reach)]] }, // prettier-ignore
      { role: 'cut', points: [[-half, g(-half)], ...box(half, hole.floorM, hole.rimM).slice(1)] }, // prettier-ignore
      ...(work.fill === 'stone' ? [{ role: 'stone' as const, isArea: true, points: box(half, hole.floorM, hole.rimM) }] : []),
      ...(work.fill === 'rings'
        ? [-1, 1].map((side) => ({ role: 'stone' as const, isArea: true, points: [[side * half, hole.rimM], [side * half, hole.floorM], [(side * widthM) / 2, hole.floorM], [(side * widthM) / 2, hole.rimM]] as Point[] })) // prettier-ignore
        : []),
      ...(siltedShare(work) > 0 ? [{ role: 'earth' as const, isArea: true, points: box(half, hole.floorM, siltM) }] : []),
      { role: 'full', points: [[-half, hole.rimM], [half, hole.rimM]] }, // prettier-ignore
      ...(water !== null && water > hole.floorM ? [{ role: 'water' as const, points: [[-half, water], [half, water]] as Point[] }] : []), // prettier-ignore
    ],
    levels: [
      { name: 'rim', levelM: hole.rimM },
      { name: 'floor', levelM: hole.floorM },
    ],
  };
}
