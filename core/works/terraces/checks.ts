import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { nearestOnLine, pointAlong } from '../../geometry/index.ts';
import { GRAVITY } from '../../hydraulics/index.ts';
import { stoneThatStands } from '../exit.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, millimetres, upToMm } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { leastLeft, stormAt, worstOf } from '../series.ts';
import { setbackRules } from '../setbacks.ts';
import { leastRule } from '../size-rule.ts';
import { inwardOf } from './model.ts';
import { type Bench, type TerracesFacts, floorOf, wayOf } from './standing.ts';
import { WALL_RULES, ofBench } from './wall-checks.ts';

export type { TerracesFacts } from './standing.ts';

const middle = ({ line, ground }: Bench) => pointAlong(line, ground.lengthM / 2).point;

/** Gentler ground is held by less, steeper ground by none [m/m]: 7, 20 and 25 degrees. */
const [GENTLE, STEEP, TOO_STEEP] = [0.12, 0.36, 0.47];

const slope: Rule<TerracesFacts> = {
  id: 'terraces.slope',
  title: 'Slope they are cut into',
  why: 'Too gentle, and lines of stone do as much for a tenth of the work; too steep, and the walls are higher than the benches are wide.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'sheng-fao', locator: 'bench terraces on 7 to 25 degrees', fromMemory: true },
  find: (facts) => {
    const steepest = worstOf(facts.benches, (b) => b.slope);
    const gentlest = worstOf(facts.benches, (b) => b.slope, 'least');
    const isGentle = steepest.value <= STEEP && gentlest.value < GENTLE;
    const { one, k, value } = isGentle ? gentlest : steepest;
    return {
      value,
      ...(isGentle ? { limit: GENTLE, sense: 'min' } : { limit: STEEP }),
      at: middle(one),
      severity: isGentle ? 'weigh' : gradeMax(value, STEEP, TOO_STEEP),
      do: isGentle
        ? `Lines of stone, half-moons or swales do as much there${ofBench(k, facts)} for less work.`
        : value > STEEP
          ? `Leave such ground to trees${ofBench(k, facts)}, or cut narrow steps for them alone.`
          : 'Nothing.',
    };
  },
};

/** Soil a plant needs under the inner side of a bench [m]. */
const ROOTS_M = 0.3;
/** How deep a bench is cut at its inner side [m]. */
const cutAt = ({ work, benches }: TerracesFacts): { readonly one: Bench; readonly k: number; readonly value: number } =>
  worstOf(benches, (b) => ((b.slope + inwardOf(work)) * work.dimensions.benchM) / 2);

const soil: Rule<TerracesFacts> = {
  id: 'terraces.soil',
  title: 'Soil left under the inner side of a bench',
  why: 'A bench cut down to the rock grows nothing where it was cut.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.3 m and the topsoil spread again' },
  find: (facts) => {
    const { one, k, value: cut } = cutAt(facts);
    const known = facts.site.soilAt(middle(one));
    if (known === null) return { value: null, limit: null, severity: 'unknown', do: 'Describe the ground: how deep its soil is.' };
    const value = known.soilDepthM - cut;
    const narrow = (2 * (known.soilDepthM - ROOTS_M)) / (one.slope + inwardOf(facts.work));
    const to = Math.floor(10 * narrow) / 10;
    const says = say`Make the benches ${amount(to, 'length')} wide`;
    return {
      value,
      limit: ROOTS_M,
      at: middle(one),
      severity: gradeMin(value, 0, ROOTS_M),
      do:
        value < ROOTS_M
          ? to >= 0.5
            ? say`${says}${ofBench(k, facts)}.`
            : `The soil is too thin there for terraces${ofBench(k, facts)}: lay lines of stone.`
          : 'Nothing.',
      ...cureBy(value < ROOTS_M && to >= 0.5, { work: facts.work.id, set: { 'dimensions.benchM': to }, says }),
    };
  },
};

/** Width that who works it needs [m]. */
const WIDTHS = { hand: 1, animals: 2.5, machine: 3.5 } as const;

const width = leastRule<TerracesFacts>(
  {
    id: 'terraces.width',
    title: 'Bench wide enough to be worked',
    why: 'Where a beast or a machine cannot turn, its edge is walked or driven down.',
    source: { key: 'sheng-fao', locator: 'by hand 2.5 to 5 m, by machine 3.5 to 8 m; steps for trees 1 m', fromMemory: true },
  },
  {
    path: 'dimensions.benchM',
    workOf: ({ work }) => work,
    limitFor: ({ work }) => WIDTHS[work.workedBy],
    says: (m) => say`Make the benches ${amount(m, 'length')} wide`,
    mendUnder: 0.6,
  },
);

interface Apart {
  readonly bench: Bench;
  readonly k: number;
  readonly apartM: number;
  readonly takesM: number;
}

/** Each bench and the one above it: how far apart their middles lie, and what bench and riser take. */
const pairsOf = ({ work, benches }: TerracesFacts): readonly Apart[] =>
  benches.slice(1).map((bench, j) => {
    const above = benches.slice(0, j + 1);
    const apartM = above.reduce((least, b) => Math.min(least, nearestOnLine(middle(bench), b.line).distanceM), Infinity);
    return { bench, k: j + 2, apartM, takesM: work.dimensions.benchM + work.dimensions.riserHV * bench.riserM };
  });

const spacing: Rule<TerracesFacts> = {
  id: 'terraces.spacing',
  title: 'From one bench to the next',
  why: 'Nearer than bench and riser take, the upper one stands on what the lower one cuts away.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'geometry', locator: 'bench and riser, level' },
  applies: ({ benches }) => benches.length > 1,
  find: (facts) => {
    const pairs = pairsOf(facts);
    if (pairs.length === 0) return null;
    const { one, value: lacks } = worstOf(pairs, (p) => p.takesM - p.apartM);
    // On curved ground contours come nearer here and there: a tenth is no fault.
    const value = one.apartM;
    return {
      value,
      limit: one.takesM,
      at: middle(one.bench),
      severity: lacks > 0.25 * one.takesM ? 'mend' : lacks > 0.1 * one.takesM ? 'weigh' : 'fine',
      do: lacks > 0.1 * one.takesM ? `Make the benches narrower, or take this one out${ofBench(one.k, facts)}.` : 'Nothing.',
    };
  },
};

const level: Rule<TerracesFacts> = {
  id: 'terraces.level',
  title: 'Ground along a bench under its level',
  why: 'Where its line leaves the contour it is filled: there it settles, water gathers, and the wall is highest.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: (facts) => {
    const { one, k, value } = worstOf(facts.benches, (b) => b.middleM - b.ground.groundM.reduce((a, v) => Math.min(a, v), Infinity));
    const low = one.ground.groundM.reduce((best, v, i) => (v < one.ground.groundM[best] ? i : best), 0);
    return {
      value,
      limit: 0.2,
      at: one.ground.points[low],
      severity: gradeMax(value, 0.2, 0.5),
      do: value > 0.2 ? `Lay it along the contour${ofBench(k, facts)}, and an inlet at its low place.` : 'Nothing.',
    };
  },
};

const tilt: Rule<TerracesFacts> = {
  id: 'terraces.tilt',
  title: 'Fall across a bench',
  why: 'Outward, water runs over the edge and takes it along; steeply inward, it stands at the foot of the wall behind.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'sheng-fao', locator: 'level where rain is scarce, 2 to 5 % into the slope where it is heavy', fromMemory: true },
  applies: ({ work }) => work.lie !== 'level',
  find: ({ work }) => {
    if (work.lie === 'level') return null;
    const value = work.dimensions.fall;
    const isOut = work.lie === 'outward';
    return {
      value,
      // Outward none at all is wanted.
      limit: isOut && value <= 0.05 ? 0 : 0.05,
      severity: isOut ? (value > 0.05 ? 'mend' : 'weigh') : gradeMax(value, 0.05, 0.08),
      do: isOut
        ? 'Lay them level, or falling into the slope with an inlet at each low place.'
        : value > 0.05
          ? 'Let them fall 2 to 5 %.'
          : 'Nothing.',
      ...cureBy(!isOut && value > 0.05, { work: work.id, set: { 'dimensions.fall': 0.05 }, says: 'Let them fall 5 %' }),
    };
  },
};

const passes: Rule<TerracesFacts> = {
  id: 'terraces.passes',
  title: 'Left under the edge at the peak',
  why: 'What goes over the edge cuts the wall out from above, and the next benches after it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '50 mm left at the peak' },
  needs: NEEDS_STORM,
  isOfLevels: true,
  find: (facts) => {
    const worst = leastLeft(facts, facts.benches);
    if (!worst) return null;
    const value = worst.storm.freeboardM;
    const { lipM } = facts.work.dimensions;
    const to = upToMm(lipM + (0.05 - value) + 0.01);
    const says = say`Make its edge ${millimetres(to)} high`;
    return {
      value,
      limit: 0.05,
      at: middle(worst.one),
      severity: gradeMin(value, 0, 0.05),
      do:
        value < 0.05
          ? to <= 0.6
            ? say`${says}, or its inlets wider${ofBench(worst.k, facts)}.`
            : `Make its inlets wider${ofBench(worst.k, facts)}, or lead the water above them past.`
          : 'Nothing.',
      ...cureBy(value < 0.05 && to <= 0.6, { work: facts.work.id, set: { 'dimensions.lipM': to }, says }),
    };
  },
};

/** A bench this long asks for another inlet; longer than that none should be [m]. */
const [REACH_M, MOST_REACH_M] = [60, 100];
const inlets: Rule<TerracesFacts> = {
  id: 'terraces.inlets',
  title: 'Length of bench for each inlet',
  why: 'A long bench gathers a stream at its one way out.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'sheng-fao', locator: 'terraces 100 m long at the most in one direction', fromMemory: true },
  find: (facts) => {
    const { one, k, value } = worstOf(facts.benches, (b) => b.ground.lengthM / facts.work.dimensions.inlets);
    const to = Math.ceil(one.ground.lengthM / REACH_M);
    const says = say`Give each bench ${amount(to, 'count')} inlets`;
    return {
      value,
      limit: REACH_M,
      at: middle(one),
      severity: gradeMax(value, REACH_M, MOST_REACH_M),
      do: value > REACH_M ? say`${says}${ofBench(k, facts)}.` : 'Nothing.',
      ...cureBy(value > REACH_M && to <= 40, { work: facts.work.id, set: { 'dimensions.inlets': to }, says }),
    };
  },
};

const stone: Rule<TerracesFacts> = {
  id: 'terraces.stone',
  title: 'Stone that stays under an inlet',
  why: 'Water that falls from bench to bench digs at the foot of the wall below it.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'isbash-1936', locator: 'rough flow, at the velocity of the fall and of critical depth', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts) => {
    const falls = facts.benches.flatMap((bench) => {
      const peak = stormAt(facts, bench.store)?.peakOutM3s;
      return peak === undefined ? [] : [{ bench, peak }];
    });
    if (falls.length === 0) return null;
    const { inletM, inlets: count, stoneM: value } = facts.work.dimensions;
    /** Half of the height is taken by steps of stone in the riser, as they are built. */
    const velocity = ({ bench, peak }: (typeof falls)[number]): number =>
      peak > 0 ? Math.hypot(Math.cbrt((GRAVITY * peak) / (inletM * count)), Math.sqrt(GRAVITY * bench.riserM)) : 0;
    const V = falls.reduce((a, f) => Math.max(a, velocity(f)), 0);
    const limit = stoneThatStands(V);
    const says = say`Lay stone of ${millimetres(upToMm(limit))}`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? say`${says} under each inlet, or steps of stone down the riser.` : 'Nothing.',
      ...cureBy(value < limit && limit <= 0.6, { work: facts.work.id, set: { 'dimensions.stoneM': upToMm(limit) }, says }),
    };
  },
};

const stands: Rule<TerracesFacts> = {
  id: 'terraces.stands',
  title: 'Hours water stands on a bench',
  why: 'Crops drown in a day or two, and earth that stays wet pushes harder.',
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'gone within 24 hours, 48 at the most' },
  needs: ['ground'],
  find: (facts) => {
    const { one, k, value: deep } = worstOf(facts.benches, (b) => wayOf(b, facts.work) - floorOf(b));
    const known = facts.site.soilAt(middle(one));
    if (known === null) return null;
    if (known.infiltrationMmPerHour <= 0 && deep > 0)
      return { value: null, limit: 24, severity: 'mend', do: 'Nothing soaks in there: let no water stand on them.' };
    const value = deep > 0 ? (1000 * deep) / known.infiltrationMmPerHour : AT_ONCE_H;
    return {
      value,
      limit: 24,
      at: middle(one),
      severity: gradeMax(value, 24, 48),
      do: value > 24 ? `Let less water stand over its outer side${ofBench(k, facts)}, or let it fall less into the slope.` : 'Nothing.',
    };
  },
};
/** Where none stands none is waited for [h]. */
const AT_ONCE_H = 0;

const above: Rule<TerracesFacts> = {
  id: 'terraces.above',
  title: 'Ground above the first bench, for each of its own',
  why: 'Terraces are made for the rain that falls on them: a hillside above fills and breaks them from the top.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'a cut-off drain above the first one' },
  applies: ({ catchment }) => catchment !== null,
  find: ({ catchment, benches, work }) => {
    if (!catchment) return null;
    const value = catchment.areaM2 / (benches[0].ground.lengthM * work.dimensions.benchM);
    return {
      value,
      limit: 3,
      severity: gradeMax(value, 3, 10),
      do: value > 3 ? 'Draw a diversion drain above the first bench, to ground that can take its water.' : 'Nothing.',
    };
  },
};

const topsoil = saidRule<TerracesFacts>(
  {
    id: 'terraces.topsoil',
    title: 'Topsoil kept',
    why: 'Buried topsoil leaves benches of raw subsoil: five years without a crop.',
    source: { ...COMMON_PRACTICE, locator: 'strip by strip, each spread on the bench below' },
  },
  ({ work }) =>
    work.topsoil === 'kept'
      ? FINE
      : { severity: 'mend', do: 'Take the topsoil off first, bench by bench from the bottom up, and spread it again.' },
);

const grown = saidRule<TerracesFacts>(
  {
    id: 'terraces.risers',
    title: 'Something grows on its banks',
    why: 'A bare bank of earth washes down onto the bench below it within a winter.',
    source: { ...COMMON_PRACTICE, locator: 'grass at once, shrubs with roots behind it' },
    applies: ({ work }) => work.riser === 'earth',
  },
  ({ work }) =>
    work.riserGrows === 'bare' ? { severity: 'mend', do: 'Sow or plant dense grass on the banks in the week they are shaped.' } : FINE,
);

export const TERRACES_RULES: readonly Rule<TerracesFacts>[] = [
  slope,
  ...WALL_RULES,
  soil,
  width,
  spacing,
  level,
  tilt,
  passes,
  inlets,
  stone,
  stands,
  above,
  topsoil,
  grown,
  ...setbackRules<TerracesFacts>('terraces', ({ benches }) => benches[benches.length - 1].line),
];
