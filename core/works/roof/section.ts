// A roof across, to scale: its slope, the gutter at its eaves and the ground.
import type { SectionShape } from '../../contract/index.ts';
import { type Roof, areaOf } from './model.ts';
import { type RoofGround, gutterLevels, gutterOf } from './standing.ts';

export function sectionOf(roof: Roof, ground: RoofGround, waterM: number | null): SectionShape {
  const { riseM, gutterLengthM, gutterM } = roof.dimensions;
  const { rimM, soleM } = gutterLevels(roof, ground);
  // Two planes as wide as its area asks over its eaves.
  const half = Math.max(0.5, areaOf(roof) / Math.max(0.5, gutterLengthM) / 2);
  const { deepM } = gutterOf(roof);
  const water = waterM === null ? null : Math.min(waterM, rimM);
  const gutter = [[half, rimM], [half, rimM - deepM], [half + gutterM, rimM - deepM], [half + gutterM, rimM]] as const; // prettier-ignore
  return {
    title: 'Across, eaves to eaves',
    parts: [
      { role: 'ground', points: [[-half - 1.5, ground.groundM], [half + 1.5, ground.groundM]] }, // prettier-ignore
      { role: 'cut', points: [[-half + 0.4, ground.groundM], [-half + 0.4, rimM], [half - 0.4, rimM], [half - 0.4, ground.groundM]] }, // prettier-ignore
      { role: 'earth', isArea: true, points: [[-half, rimM], [0, rimM + riseM + 0.05], [half, rimM], [half, rimM - 0.08], [0, rimM + riseM - 0.08], [-half, rimM - 0.08]] }, // prettier-ignore
      ...(roof.gutter === 'none' ? [] : [{ role: 'pipe' as const, points: gutter }]),
      ...(water !== null && water > soleM && roof.gutter !== 'none' ? [{ role: 'water' as const, points: [[half, water], [half + gutterM, water]] as const }] : []), // prettier-ignore
    ],
    levels: [
      { name: 'gutter rim', levelM: rimM },
      { name: 'ground', levelM: ground.groundM },
    ],
  };
}
