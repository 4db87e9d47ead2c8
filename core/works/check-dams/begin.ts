import type { Begun, DrawSpec, Technique } from '../../contract/index.ts';
import { type Line, type Point, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { begun, groundUnder, mm, offTerrain } from '../beginning.ts';
import { type Bed, acrossAt, measureBed, ontoBed, riseOf } from './bed.ts';
import type { CheckDams, Dam } from './model.ts';
import { byGully, bySight } from './spacing.ts';

/** First height of a dam, and how far its ends stand over its notch [m]: common practice. */
const [FIRST_HIGH_M, FIRST_ENDS_M] = [0.6, 0.3];
/** Never lower than this [m], and no lower for the shallowest part of them. */
const [LEAST_HIGH_M, SHALLOWER] = [0.3, 0.25];
/** A bed that rises by more than this from its upper end on is no channel drawn from above [m]. */
const RISES_M = 0.5;

const newDams = (id: string, name: string, on: { readonly line: Line; readonly dams: readonly Dam[] }): CheckDams => ({
  id,
  kind: 'check-dams',
  name,
  status: 'planned',
  line: on.line,
  form: 'rock',
  dams: on.dams,
  dimensions: {
    notchDepthM: FIRST_ENDS_M,
    notchWidthM: mm(Math.min(2, ...on.dams.map((dam) => dam.bedWidthM))),
    crestWidthM: 0.5,
    upSlopeHV: 1.25,
    downSlopeHV: 2,
    pieceM: 0.25,
    sideKeyM: 0.6,
    bedKeyM: 0.3,
    apronM: mm(1.75 * Math.max(...on.dams.map((dam) => dam.heightM))),
  },
  labour: { m3PerDay: 1, carryM: 50 },
});

export const DAMS_SAMPLE = newDams('dams', 'Check dams', {
  line: [
    [0, 0],
    [40, 0],
  ],
  dams: [{ atM: 40, heightM: 0.6, bedWidthM: 2, bankWidthM: 5, depthM: 1.2 }],
});

const HINT = 'Draw it down the bed of the channel, from its upper end; double-click to end.';

export const DAMS_DRAWS: readonly DrawSpec[] = [
  { id: 'check-dams', name: 'Check dams, crest level with toe', what: 'line', least: 2, hint: HINT },
  { id: 'check-dams-gully', name: 'Check dams, by the gully rule', what: 'line', least: 2, hint: HINT },
  {
    id: 'check-dam',
    name: 'One check dam',
    what: 'line',
    least: 2,
    hint: 'Draw it down the bed: the dam stands at its lower end; double-click to end.',
  },
];

const SPACED: Readonly<Record<string, (bed: Bed, heightM: number) => readonly number[]>> = {
  'check-dams': bySight,
  'check-dams-gully': byGully,
  'check-dam': (bed) => [bed.lengthM],
};

const rising = ({ riseM, atM }: { readonly riseM: number; readonly atM: number }): Begun => ({
  ok: false,
  problem: {
    code: 'check-dams.rises',
    what: say`the bed as drawn rises by ${amount(riseM, 'length')} on its way down, at ${amount(atM, 'distance')}`,
    field: 'line',
    do: 'Draw it along the lowest of the channel, from its upper to its lower end.',
  },
});

/** A series down a channel, whichever end was drawn first, each dam with its channel as the terrain shows it. */
export const beginDams: Technique<CheckDams, unknown>['begin'] = ({ how, points }, land) => {
  const ground = groundUnder(points, land);
  if (!ground) return offTerrain('the channel');
  const down = ground[0] >= ground[ground.length - 1] ? points : [...points].reverse();
  const line = ontoBed(land.grid, down).map(([x, y]): Point => [mm(x), mm(y)]);
  const bed = measureBed(line, land);
  const rise = riseOf(bed);
  if (rise.riseM > RISES_M || bed.bedM[0] - bed.bedM[bed.bedM.length - 1] < 0.1) return rising(rise);
  const places = SPACED[how] ?? bySight;
  // Twice: the channel where they stand tells how high most of them can be.
  const depths = places(bed, FIRST_HIGH_M).map((atM) => acrossAt(land.grid, line, atM).depthM);
  const usual = depths.sort((a, b) => a - b)[Math.floor(SHALLOWER * depths.length)];
  const heightM = mm(Math.max(LEAST_HIGH_M, Math.min(FIRST_HIGH_M, usual - FIRST_ENDS_M)));
  const all = places(bed, heightM).map((atM): Dam => {
    const { bedWidthM, bankWidthM, depthM } = acrossAt(land.grid, line, atM);
    return { atM: mm(Math.min(atM, lineLength(line))), heightM, bedWidthM: mm(bedWidthM), bankWidthM: mm(bankWidthM), depthM: mm(depthM) };
  });
  // Where the channel is too shallow to hold one between its banks none is set, unless there would be none at all.
  const held = all.filter((dam) => dam.depthM >= heightM + FIRST_ENDS_M);
  const dams = held.length > 0 ? held : all;
  const work = newDams(land.idFor('check-dams'), land.nameFor('Check dams'), { line, dams });
  return {
    ...begun(work),
    said: say`${amount(dams.length, 'count')} dams, ${amount(heightM, 'length')} high, on the lowest ground beside your line. Width and depth of the channel are read from the terrain: measure them.`,
  } as Begun;
};
