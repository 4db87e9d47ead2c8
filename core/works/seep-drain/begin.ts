import type { Technique } from '../../contract/index.ts';
import { type Point, distance, lineLength, nearestOnLine } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { groundUnder, mm, offTerrain } from '../beginning.ts';
import { newSeepDrain } from './create.ts';
import type { SeepDrain } from './model.ts';

const PURPOSES: Readonly<Record<string, readonly [SeepDrain['purpose'], number]>> = {
  'seep-drain': ['yard', 0.45],
  'wall-drain': ['wall', 0.6],
  'slope-drain': ['slope', 0.8],
};
/** Least fall it is laid at [m/m], and so near to what takes it it is at it [m]: common practice. */
const [FALL, AT_M] = [0.005, 6];

/** As deep as is usual under all of its ground, falling as little as it must, whichever end was drawn first. */
export const beginSeep: Technique<SeepDrain, unknown>['begin'] = ({ how, points }, land) => {
  const levels = groundUnder(points, land);
  if (!levels) return offTerrain('the drain');
  const isDown = levels[0] >= levels[levels.length - 1];
  const line = isDown ? points : [...points].reverse();
  const ground = isDown ? levels : [...levels].reverse();
  const [purpose, deepM] = PURPOSES[how] ?? PURPOSES['seep-drain'];
  const length = lineLength(line);
  const step = length / (ground.length - 1);
  // Nowhere shallower: the upper end lies as deep as the lowest ground on the way asks for.
  const upperM = Math.min(...ground.map((level, k) => level - deepM + FALL * k * step));
  const outletM = Math.min(upperM - FALL * length, ground[ground.length - 1] - deepM);
  const end: Point = line[line.length - 1];
  const into = (land.waters ?? [])
    .filter((w) => w.roofM2 === null)
    .map((w) => ({ w, apart: w.shafts ? Math.min(...w.shafts.map((s) => distance(s.at, end))) : Math.min(...w.lines.map((l) => nearestOnLine(end, l).distanceM)) }))
    .filter((one) => one.apart < AT_M)
    .sort((a, b) => a.apart - b.apart)[0]?.w; // prettier-ignore
  const work = newSeepDrain(land.idFor('seep-drain'), land.nameFor('Seepage drain'), {
    line,
    purpose,
    levels: { upperM: mm(upperM), outletM: mm(outletM) },
    ...(into ? { into: into.id } : {}),
  });
  return {
    ok: true,
    works: [work],
    said: say`It lies ${amount(deepM, 'length')} deep and more and takes what seeps, no flood: what runs over the ground wants basins and whole pipe.`,
  };
};
