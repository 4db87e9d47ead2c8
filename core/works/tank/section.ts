// A vessel upright through its middle, to scale.
import type { SectionShape } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { type Tank, rimHeight } from './model.ts';
import { type TankGround, baseM, floorOf, oneM3 } from './standing.ts';

const STEPS = 16;

/** Half of its width at a height: of a measured one, of a square as large. */
function halfAt(tank: Tank, hM: number): number {
  const { form, dimensions } = tank;
  const { diameterM, topM, heightM, lengthM } = dimensions;
  if (form === 'box') return lengthM / 2;
  if (form === 'upright') return diameterM / 2;
  if (form === 'cone') return (diameterM + ((topM - diameterM) * hM) / heightM) / 2;
  if (form === 'lying') return Math.sqrt(Math.max(0, hM * (diameterM - hM)));
  const d = rimHeight(tank) / 200;
  const [low, high] = [Math.max(0, hM - d), hM + d];
  return Math.sqrt(Math.max(0, (oneM3(tank, high) - oneM3(tank, low)) / (high - low))) / 2;
}

export function sectionOf(tank: Tank, ground: TankGround, waterM: number | null): SectionShape {
  const floorM = floorOf(tank, ground);
  const rim = rimHeight(tank);
  const sideUp = (upTo: number): Point[] => Array.from({ length: STEPS + 1 }, (_, k) => [halfAt(tank, (upTo * k) / STEPS), floorM + (upTo * k) / STEPS]);
  const filled = (upTo: number): Point[] => [...sideUp(upTo).map(([x, y]): Point => [-x, y]).reverse(), ...sideUp(upTo)];
  const { overflowM, overflowPipeM, tapM, inletM } = tank.dimensions;
  const reach = baseM(tank) / 2 + 1;
  const water = waterM === null ? null : Math.min(rim, Math.max(0, waterM - floorM));
  const across = (hM: number, out: number): Point[] => [[halfAt(tank, hM), floorM + hM], [halfAt(tank, hM) + out, floorM + hM]]; // prettier-ignore
  const { groundM } = ground;
  return {
    title: 'Upright, through its middle',
    parts: [
      { role: 'ground', points: [[-reach, groundM], [reach, groundM]] }, // prettier-ignore
      ...(water !== null && water > 0 ? [{ role: 'water' as const, isArea: true, points: filled(water) }] : []),
      { role: 'cut', points: [...filled(rim)] },
      { role: 'full', points: [[-halfAt(tank, overflowM), floorM + overflowM], [halfAt(tank, overflowM), floorM + overflowM]] }, // prettier-ignore
      { role: 'pipe', points: across(overflowM, 0.3) },
      { role: 'pipe', points: across(overflowM + overflowPipeM, 0.3) },
      { role: 'pipe', points: across(tapM, 0.15) },
      { role: 'pipe', points: across(inletM, 0.3).map(([x, y]): Point => [-x, y]) },
    ],
    levels: [
      { name: 'overflow', levelM: floorM + overflowM },
      { name: 'tap', levelM: floorM + tapM },
      { name: 'floor', levelM: floorM },
    ],
  };
} // prettier-ignore
