// The channel from end to end: its bed, its lower bank, and the water line as it is just full.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { type Standing, carriesOf } from './standing.ts';

export function sectionOf(standing: Standing): SectionShape {
  const { reach, cuts } = standing;
  const along = (over: (k: number) => number): Point[] => cuts.map(({ section }, k): Point => [section.atM, section.bedM + over(k)]);
  const carried = carriesOf(standing);
  const { clearM } = reach;
  const [first, last] = [cuts[0].section, cuts[cuts.length - 1].section];
  return {
    title: carried ? 'Along it: the bed, the lower bank, and water as much as it carries' : 'Along it: the bed and the lower bank',
    isLong: true,
    parts: [
      { role: 'earth', points: along((k) => cuts[k].bankM) },
      ...(carried ? [{ role: 'full' as const, points: along((k) => carried.depthsM[k]) }] : []),
      { role: 'ground', points: along(() => clearM ?? ON_THE_BED_M) },
      ...(clearM === undefined ? [] : [{ role: 'cut' as const, points: along(() => ON_THE_BED_M) }]),
    ],
    levels: [
      { name: 'bed, upper end', levelM: first.bedM },
      { name: 'bed, lower end', levelM: last.bedM },
    ],
  };
}
const ON_THE_BED_M = 0;
