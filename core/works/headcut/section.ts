// A head along the fall of its water, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { ABOVE_M, STEP_M } from './ground.ts';
import { type Standing, apronAlong, faceM } from './standing.ts';

export function sectionOf(standing: Standing, waterM: number | null): SectionShape {
  const { head, ground, dropM } = standing;
  const { lipM, footM } = head.levels;
  const { slopeHV, stoneM, plugM } = head.dimensions;
  const apron = apronAlong(standing);
  const end = (apron?.[1] ?? faceM(standing)) + 4;
  const line = Array.from(ground.profileM, (level, k): Point => [k * STEP_M - ABOVE_M, level]).filter(
    ([x, level]) => x <= end && !Number.isNaN(level),
  );
  const out = dropM * slopeHV;
  const face: Point[] = [
    [0, lipM],
    [out, footM],
  ];
  const thick = 2 * stoneM;
  const layer = (from: readonly Point[]): SectionShape['parts'] => [
    { role: 'stone', isArea: true, points: [...from, ...[...from].reverse().map(([x, y]): Point => [x, y - thick])] },
  ];
  const bed = (apron ?? []).map((x): Point => [x, footM]);
  const landing = apron ? layer(bed) : [];
  // As high as half the drop, its back at the foot of the face.
  const [back, high] = [faceM(standing), footM + Math.max(plugM, dropM / 2)];
  const laid: Point[] = [
    [back, footM],
    [back, high],
    [back + plugM, high],
    [back + plugM, footM],
  ];
  const parts: Readonly<Record<typeof head.form, SectionShape['parts']>> = {
    left: [],
    batter: [{ role: 'cut', points: face }],
    rock: layer([...face, ...bed.slice(1)]),
    grass: [{ role: 'cut', points: face }, ...landing],
    plug: [{ role: 'earth', isArea: true, points: laid }, ...landing],
  };
  const stands = waterM === null || waterM <= lipM ? [] : [waterM];
  return {
    title: 'Along the fall, through the lowest of its lip',
    parts: [
      { role: 'ground', points: line },
      ...parts[head.form],
      ...stands.map((level) => ({
        role: 'water' as const,
        points: [
          [-ABOVE_M, level],
          [0, level],
        ] as Point[],
      })),
    ],
    levels: [{ name: 'lip', levelM: lipM }, ...stands.map((levelM) => ({ name: 'water', levelM })), { name: 'foot', levelM: footM }],
  };
}
