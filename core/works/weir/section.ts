// A weir along the flow through its notch, to scale: what it holds left, its fall right.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { outlineOf, slabsOf } from '../gravity/index.ts';
import type { Thalweg } from './ground.ts';
import type { Standing } from './standing.ts';

const APRON_DEEP_M = 0.3;

export function sectionOf(standing: Standing, waterM: number | null): SectionShape {
  const { work, ground, channel, body, dropM } = standing;
  const { notchM, crestM } = work.levels;
  const { baseWidthM, apronM, apronDropM, cutoffM, foundationM, rampUpHV, rampDownHV } = work.dimensions;
  const half = baseWidthM / 2;
  const [left, right] = [Math.max(4, half + rampUpHV * dropM + 2), half + apronM + 3];
  // Drawn down the flow along the bed: what the wall holds lies left.
  const along = ({ awayM, levelM }: Thalweg, side: 1 | -1): Point[] => awayM.map((away, k): Point => [side * away, levelM[k]]);
  const sorted = [...along(ground.up, -1).reverse(), ...along(ground.down, 1).slice(1)].filter(([x]) => x >= -left && x <= right);
  const bed = channel.bedM;
  // From the toe, which is on the lower side, inwards: mirrored, since inwards is up the flow.
  const outline = outlineOf(slabsOf(body), { toeAt: -half, baseAt: bed - foundationM }).map(([x, y]): Point => [-x, y]);
  const apron: Point[] = [
    [half, bed - apronDropM],
    [half + apronM, bed - apronDropM],
    [half + apronM, bed - apronDropM - APRON_DEEP_M - cutoffM],
    [half + apronM - Math.min(1, apronM), bed - apronDropM - APRON_DEEP_M - cutoffM],
    [half + apronM - Math.min(1, apronM), bed - apronDropM - APRON_DEEP_M],
    [half, bed - apronDropM - APRON_DEEP_M],
  ];
  const ramp = (out: number, side: 1 | -1): SectionShape['parts'] =>
    out <= 0
      ? []
      : [
          {
            role: 'earth',
            isArea: true,
            points: [
              [side * half, bed],
              [side * half, notchM],
              [side * (half + out * dropM), bed],
            ],
          },
        ];
  const edge = (level: number): Point[] => [
    [-left, level],
    [0, level],
  ];
  const stands = waterM === null || waterM <= bed ? [] : [{ role: 'water' as const, points: edge(waterM) }];
  return {
    title: 'Along the flow, through its notch',
    parts: [
      ...ramp(rampUpHV, -1),
      ...ramp(rampDownHV, 1),
      ...(apronM > 0 ? [{ role: 'stone' as const, points: apron, isArea: true }] : []),
      { role: 'stone', points: outline, isArea: true },
      { role: 'ground', points: sorted },
      { role: 'full', points: edge(notchM) },
      ...stands,
    ],
    levels: [
      { name: 'ends', levelM: crestM },
      { name: 'notch', levelM: notchM },
      ...(waterM === null || waterM <= bed ? [] : [{ name: 'water', levelM: waterM }]),
      { name: 'bed', levelM: bed },
      { name: 'base', levelM: bed - foundationM },
    ],
  };
}
