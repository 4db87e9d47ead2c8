// One of them down its slope through its middle, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { siltedShare } from '../series.ts';
import type { HalfMoons } from './model.ts';
import { type Row, deepestM } from './standing.ts';

export function sectionOf(work: HalfMoons, row: Row, waterM: number | null): SectionShape {
  const { radiusM: r, dugM, overTipsM, bundTopM, bundSlopeHV: z } = work.dimensions;
  const { slope: S, tipsM } = row;
  const g = (x: number): number => tipsM - S * x;
  const isPit = work.form === 'pit';
  const [up, down] = [-Math.max(1, r), isPit ? r + 1 : r + bundTopM + 2 * z * (S * r + overTipsM) + 1];
  const floor = tipsM - deepestM(work, row);
  const dug: Point[] = isPit
    ? [[-r, g(-r)], [-r, floor], [r, floor], [r, g(r)]] // prettier-ignore
    : [[0, g(0)], [0, g(0) - dugM], [r, g(r) - dugM]]; // prettier-ignore
  const top = tipsM + overTipsM;
  const inner = r + z * (top - g(r));
  const bund: Point[] = [
    [r, g(r)],
    [inner, top],
    [inner + bundTopM, top],
    [inner + bundTopM + z * (top - g(inner + bundTopM)), g(inner + bundTopM + z * (top - g(inner + bundTopM)))],
  ];
  const edge = (level: number): Point[] => [
    [isPit ? -r : Math.max(0, (tipsM - dugM - level) / Math.max(1e-6, S)), level],
    [isPit ? r : Math.min(inner, r + z * Math.max(0, level - g(r))), level],
  ];
  const silt = floor + deepestM(work, row) * siltedShare(work);
  return {
    title: isPit ? 'A pit of the highest row' : 'Down the slope, through the middle of one of the highest row',
    parts: [
      { role: 'ground', points: [[up, g(up)], [down, g(down)]] }, // prettier-ignore
      { role: 'cut', points: dug },
      ...(isPit ? [] : [{ role: 'earth' as const, isArea: true, points: bund }]),
      ...(siltedShare(work) > 0 ? [{ role: 'key' as const, points: edge(silt) }] : []),
      { role: 'full', points: edge(tipsM) },
      ...(waterM !== null && waterM > floor ? [{ role: 'water' as const, points: edge(waterM) }] : []),
    ],
    levels: [
      ...(isPit ? [] : [{ name: 'bund', levelM: top }]),
      { name: isPit ? 'rim' : 'tips', levelM: tipsM },
      { name: 'floor', levelM: floor },
    ],
  };
}
