// The pit from top to bottom, with where its pump starts and stops.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { Sump } from './model.ts';
import type { SumpGround } from './standing.ts';

export function sectionOf({ levels, diameterM, inletM }: Sump, { pitM }: SumpGround, waterM: number | null): SectionShape {
  const { floorM, stopM, startM, rimM } = levels;
  const half = diameterM / 2;
  const flat = (level: number): Point[] => [[-half, level], [half, level]]; // prettier-ignore
  return {
    title: 'The pit: where its pump starts and stops',
    parts: [
      { role: 'ground', points: [[-half - 1, pitM], [-half, pitM]] }, // prettier-ignore
      { role: 'ground', points: [[half, pitM], [half + 1, pitM]] }, // prettier-ignore
      { role: 'stone', points: [[-half, rimM], [-half, floorM], [half, floorM], [half, rimM]] }, // prettier-ignore
      { role: 'full', points: flat(startM) },
      ...(waterM === null || waterM <= floorM ? [] : [{ role: 'water' as const, points: flat(Math.min(waterM, rimM + 0.2)) }]),
      ...(inletM === undefined ? [] : [{ role: 'pipe' as const, points: [[half, inletM], [half + 0.6, inletM + 0.01]] as Point[] }]), // prettier-ignore
    ],
    levels: [
      { name: 'rim', levelM: rimM },
      { name: 'starts', levelM: startM },
      { name: 'stops', levelM: stopM },
      { name: 'bottom', levelM: floorM },
    ],
  };
}
