// The series along its bed, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { type Bed, bedAt } from '../bed.ts';
import { bodyOf } from './forms.ts';
import type { CheckDams } from './model.ts';
import { toeAbove } from './spacing.ts';
import type { Standing } from './store.ts';

/** Dams drawn at most: more are lines in a smudge. */
const MOST_DRAWN = 40;

export function longSection(work: CheckDams, { bed, dams }: { readonly bed: Bed; readonly dams: readonly Standing[] }): SectionShape {
  const shown = dams.slice(0, MOST_DRAWN);
  const { crestWidthM, upSlopeHV, downSlopeHV } = bodyOf(work);
  const last = shown[shown.length - 1];
  const endM = Math.min(bed.lengthM, last.dam.atM + 6);
  const ground: Point[] = Array.from(bed.bedM, (level, i): Point => [i * bed.stepM, level]).filter(([x]) => x < endM);
  const bodies = shown.map(({ dam, bedM, notchM }): Point[] => {
    const h = notchM - bedM;
    const [up, down] = [dam.atM - crestWidthM / 2, dam.atM + crestWidthM / 2];
    const foot = (x: number): Point => [x, bedAt(bed, x)];
    return [foot(up - upSlopeHV * h), [up, notchM], [down, notchM], foot(down + downSlopeHV * h)];
  });
  const pools = shown.map(({ dam, notchM, fromM }): Point[] => {
    const toe = Math.max(fromM, toeAbove(bed, dam.atM, notchM) ?? fromM);
    return [
      [toe, notchM],
      [dam.atM - crestWidthM / 2, notchM],
    ];
  });
  return {
    isLong: true,
    title: dams.length > shown.length ? `Along the bed: the upper ${shown.length} of ${dams.length}` : 'Along the bed',
    parts: [
      { role: 'ground', points: [...ground, [endM, bedAt(bed, endM)]] },
      ...pools.map((points) => ({ role: 'full' as const, points })),
      ...bodies.map((points) => ({ role: 'stone' as const, points, isArea: true })),
    ],
    levels: [
      { name: 'highest notch', levelM: shown[0].notchM },
      { name: 'lowest notch', levelM: last.notchM },
    ],
  };
}
