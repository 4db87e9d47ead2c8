// Three slots across, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { Slot } from './ground.ts';
import type { Ripping } from './model.ts';

export function sectionOf(work: Ripping, slots: readonly Slot[], slope: number): SectionShape {
  const { spacingM: s, depthM: d, pointM: w } = work.dimensions;
  const [level] = slots[Math.floor(slots.length / 2)].groundM;
  const g = (x: number): number => level - slope * x;
  const reach = 1.6 * s;
  const slot = (x: number): Point[] => [
    [x - w, g(x - w)],
    [x - w / 2, g(x) - d],
    [x + w / 2, g(x) - d],
    [x + w, g(x + w)],
  ];
  const under = (m: number): Point[] => [[-reach, g(-reach) - m], [reach, g(reach) - m]]; // prettier-ignore
  return {
    title: 'Across three slots',
    parts: [
      { role: 'ground', points: under(0) },
      ...(work.panM === undefined ? [] : [{ role: 'key' as const, points: under(work.panM) }]),
      ...[-s, 0, s].map((x) => ({ role: 'cut' as const, points: slot(x) })),
    ],
    levels: [{ name: 'ground', levelM: g(0) }],
  };
}
