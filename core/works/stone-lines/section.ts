// A line across its slope at its lowest place, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { siltedShare } from '../series.ts';
import { type Row, topOf } from './standing.ts';
import type { StoneLines } from './model.ts';

export function sectionOf(work: StoneLines, row: Row, waterM: number | null): SectionShape {
  const { heightM, baseWidthM, topWidthM, trenchM } = work.dimensions;
  const half = baseWidthM / 2;
  const lean = (baseWidthM - topWidthM) / 2;
  const s = row.slope;
  const reach = Math.max(1.5, Math.min(8, heightM / s + 0.5));
  const g = (x: number): number => row.lowM - s * x;
  const top = topOf(row, work);
  const body: Point[] = [
    [-half, g(-half) - trenchM],
    [-half, g(-half)],
    [-half + lean, top],
    [half - lean, top],
    [half, g(half)],
    [half, g(half) - trenchM],
  ];
  const edge = (level: number): Point[] => [
    [-Math.min(reach, (level - row.lowM) / s), level],
    [-half, level],
  ];
  const silt = row.lowM + heightM * siltedShare(work);
  return {
    title: 'Across its slope, at the lowest place of the highest line',
    parts: [
      { role: 'ground', points: [[-reach, g(-reach)], [1.5, g(1.5)]] }, // prettier-ignore
      ...(siltedShare(work) > 0 ? [{ role: 'earth' as const, isArea: true, points: [...edge(silt), [-half, g(-half)] as Point] }] : []),
      { role: 'stone', isArea: true, points: body },
      { role: 'full', points: edge(top) },
      ...(waterM !== null && waterM > row.lowM ? [{ role: 'water' as const, points: edge(waterM) }] : []),
    ],
    levels: [
      { name: 'top', levelM: top },
      { name: 'ground', levelM: row.lowM },
    ],
  };
}
