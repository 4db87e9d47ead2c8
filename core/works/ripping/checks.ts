import type { Finding, Rule } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, downToMm, gradeMax, gradeMin, metres, millimetres } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { nearestFeature } from '../setbacks.ts';
import { RIP_DRAFT, RIP_POWER } from './formulas.ts';
import { type Ripping, timesOf } from './model.ts';
import { REACHES, SOILS, type RipFacts } from './standing.ts';

export type { RipFacts } from './standing.ts';

/** Water in a slot moves from here on [m/m]: 10 mm in 10 m. */
const RUNS = 0.001;
/** The key line has no number: others are counted from the highest. */
const nth = (k: number): string => ` (line ${k} from the top)`;

/** The stretch of any line in which water runs back into a valley the most. */
function worstLead({ ground }: RipFacts): { readonly k: number; readonly fall: number; readonly at: Point } | null {
  let worst: { k: number; fall: number; at: Point } | null = null;
  ground.slots.forEach(({ leads }, k) => {
    for (const { fall, at } of leads) if (!worst || fall < worst.fall) worst = { k: k + 1, fall, at };
  });
  return worst;
}

const direction: Rule<RipFacts> = {
  id: 'ripping.direction',
  title: 'Fall from valley to ridge, at its worst line',
  why: 'A slot that falls into the valley gathers what it should spread, and begins a gully.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'from the valley out to the ridge, by level at every tenth line' },
  find: (facts) => {
    const worst = worstLead(facts);
    // On ground with neither valley nor ridge there is nothing to lead away or towards.
    if (!worst) return null;
    return {
      value: worst.fall,
      limit: 0,
      at: worst.at,
      severity: gradeMin(worst.fall, -5 * RUNS, -RUNS),
      do:
        worst.fall < -RUNS
          ? say`It falls ${millimetres(-10 * worst.fall)} in 10 m back into the valley${nth(worst.k)}: lay that part beside a key line of its own, or begin lower in the valley.`
          : 'Nothing.',
    };
  },
};

const along: Rule<RipFacts> = {
  id: 'ripping.along',
  title: 'Steepest fall along a line',
  why: 'A slot that falls is a gutter: water runs in it, and cuts it deeper.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '1 in 100 over ten metres, 3 in 100 at the most' },
  find: ({ ground }) => {
    if (ground.slots.length === 0) return null;
    const steepest = ground.slots.reduce((a, b) => (b.steepest > a.steepest ? b : a));
    const k = ground.slots.indexOf(steepest) + 1;
    return {
      value: steepest.steepest,
      limit: 0.01,
      at: steepest.steepestAt,
      severity: gradeMax(steepest.steepest, 0.01, 0.03),
      do: steepest.steepest > 0.01 ? `Leave that part out${nth(k)}, or lay it beside a key line of its own.` : 'Nothing.',
    };
  },
};

const slope: Rule<RipFacts> = {
  id: 'ripping.slope',
  title: 'Slope it is driven across',
  why: 'A tractor that pulls across a slope turns over without a warning.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'across 15 %, 25 % at the most with wide wheels' },
  find: ({ ground }) => ({
    value: ground.slope,
    limit: 0.15,
    severity: gradeMax(ground.slope, 0.15, 0.25),
    do: ground.slope > 0.15 ? 'Rest and plant such ground, or lay works by hand; no machine across it.' : 'Nothing.',
  }),
};

const pan: Rule<RipFacts> = {
  id: 'ripping.pan',
  title: 'How far under the hard layer it goes',
  why: 'Above it nothing is broken; far below it only fuel is burnt.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '20 to 50 mm under it' },
  find: ({ work }) => {
    if (work.panM === undefined)
      return {
        value: null,
        limit: null,
        severity: 'unknown',
        do: 'Push a rod or dig at ten places: how deep the hard layer begins and ends.',
      };
    const value = work.dimensions.depthM - work.panM;
    return {
      value,
      limit: 0.02,
      severity: gradeMin(value, -0.1, 0.02),
      do: value < 0.02 ? 'It stays in the hard layer this time: go deeper next season, when roots have gone down.' : 'Nothing.',
    };
  },
};

/** How deep the first, second and third time [m]: common practice. */
const deepestIn = (season: number): number => Math.min(0.5, 0.1 + 0.1 * season);

const depth: Rule<RipFacts> = {
  id: 'ripping.depth',
  title: 'Depth, for this season',
  why: 'Ripped too deep at once, raw ground comes up and the slots fall shut again.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '0.2 m the first time, a little deeper each next one' },
  find: ({ work }) => {
    const value = work.dimensions.depthM;
    const limit = deepestIn(work.dimensions.season);
    const says = say`Rip it ${metres(limit)} deep this time`;
    return {
      value,
      limit,
      severity: gradeMax(value, limit, 1.5 * limit),
      do: value > limit ? say`${says}.` : 'Nothing.',
      ...cureBy(value > limit, { work: work.id, set: { 'dimensions.depthM': limit }, says }),
    };
  },
};

const critical: Rule<RipFacts> = {
  id: 'ripping.critical',
  title: 'Depth, by the width of its point',
  why: 'Deeper than that a point no longer lifts and cracks the soil: it presses it aside and polishes the slot.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { key: 'godwin-spoor-1977', locator: 'critical depth, five to seven times the width', fromMemory: true },
  find: ({ work }) => {
    const { depthM, pointM } = work.dimensions;
    const value = depthM / pointM;
    return {
      value,
      limit: 6,
      severity: gradeMax(value, 6, 9),
      do: value > 6 ? 'Fit a wider point or wings, or go less deep.' : 'Nothing.',
    };
  },
};

const spacing: Rule<RipFacts> = {
  id: 'ripping.spacing',
  title: 'Slots apart, by their depth',
  why: 'Between slots too far apart the ground stays as hard as it was.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'to break all of it 1 to 1.5 times the depth; to lead water and start roots up to 5' },
  find: ({ work }) => {
    const { spacingM, depthM } = work.dimensions;
    const value = spacingM / depthM;
    const to = downToMm(5 * depthM);
    const says = say`Lay the slots ${metres(to)} apart`;
    return {
      value,
      limit: 5,
      severity: gradeMax(value, 5, 10),
      do: value > 5 ? say`${says}.` : 'Nothing.',
      ...cureBy(value > 5 && to >= 0.3, { work: work.id, set: { 'dimensions.spacingM': to }, says }),
    };
  },
};

const rock: Rule<RipFacts> = {
  id: 'ripping.rock',
  title: 'Soil left under its points',
  why: 'A shank that strikes rock breaks, or brings it up into the pasture.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ work, site }) => {
    const soils = work.line.map((p) => site.soilAt(p));
    if (soils.some((s) => s === null))
      return { value: null, limit: null, severity: 'unknown', do: 'Describe the ground: how deep its soil is.' };
    const shallowest = soils.reduce((a, s) => Math.min(a, s ? s.soilDepthM : a), Infinity);
    const value = shallowest - work.dimensions.depthM;
    const to = downToMm(shallowest - 0.1);
    const says = say`Rip it ${metres(to)} deep`;
    return {
      value,
      limit: 0.1,
      severity: gradeMin(value, 0, 0.1),
      do:
        value < 0.1
          ? to >= 0.05
            ? say`${says}, and lift where stones ring.`
            : 'The soil is too thin there to be ripped: rest it, or lay lines of stone.'
          : 'Nothing.',
      ...cureBy(value < 0.1 && to >= 0.05, { work: work.id, set: { 'dimensions.depthM': to }, says }),
    };
  },
};

const dry = saidRule<RipFacts>(
  {
    id: 'ripping.dry',
    title: 'Dry where it is cut',
    why: 'Wet ground smears and is pressed by the wheels: it is worse than before.',
    source: { ...COMMON_PRACTICE, locator: 'a clod from that depth breaks' },
  },
  ({ work }) =>
    work.soil === 'dry'
      ? FINE
      : work.soil === 'not-looked'
        ? { severity: 'unknown', do: 'Dig to that depth the day before and break a clod.' }
        : work.soil === 'moist'
          ? { severity: 'weigh', do: 'Wait until it is dry at that depth: moist it cracks half as far.' }
          : { severity: 'mend', do: 'Wait for the dry season: wet it smears shut.' },
);

const services = saidRule<RipFacts>(
  {
    id: 'ripping.services',
    title: 'Buried cables and pipes asked for',
    why: 'A shank finds every pipe in the field, and the power line too.',
    source: { ...COMMON_PRACTICE, locator: 'the law in many places' },
  },
  ({ work }) =>
    work.services === 'asked'
      ? FINE
      : { severity: 'unknown', do: 'Ask for buried cables and pipes, and mark them, before a shank goes in.' },
);

const gully: Rule<RipFacts> = {
  id: 'ripping.gully',
  title: 'Distance to the nearest ditch or gully',
  why: 'A slot that ends at an edge breaks through it and eats back into the field.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'shanks out of the ground 5 m before it' },
  find: ({ ground, site }) => {
    const near = ground.slots.flatMap(({ line }) => {
      const found = nearestFeature(
        line,
        site.features.filter((f) => f.kind === 'ditch'),
      );
      return found ? [found] : [];
    });
    if (near.length === 0) return null;
    const nearest = near.reduce((a, b) => (b.distanceM < a.distanceM ? b : a));
    return {
      value: nearest.distanceM,
      limit: 5,
      at: nearest.at,
      severity: gradeMin(nearest.distanceM, 2, 5),
      do: nearest.distanceM < 5 ? 'Draw the field so that lines end before it, and lift the shanks there.' : 'Nothing.',
    };
  },
};

const power: Rule<RipFacts> = {
  id: 'ripping.power',
  title: 'Power of the engine, in kW',
  why: 'A machine too small spins, goes shallow and polishes what it should break.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { key: 'asae-d497', locator: 'subsoiler with narrow points; wheels bring about 0.6 to the ground', fromMemory: true },
  applies: ({ work }) => work.machine.powerKw !== undefined,
  find: ({ work }): Finding | null => {
    const { powerKw: value, speedKmh: v, shanks: n } = work.machine;
    if (value === undefined) return null;
    if (work.texture === 'unknown')
      return { value: null, limit: null, severity: 'unknown', do: 'Say whether it is clay, loam or sand: it tells how hard it pulls.' };
    const limit = RIP_POWER.evaluate({
      F: RIP_DRAFT.evaluate({ f: SOILS[work.texture], v, n, d: 100 * work.dimensions.depthM }),
      v,
      e: REACHES,
    });
    const fewer = Math.floor((n * value) / limit);
    const says = say`Take ${amount(fewer, 'count')} shanks`;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do:
        value < limit
          ? fewer >= 1
            ? say`${says} at once, drive slower or go less deep.`
            : 'Take a larger machine, or go less deep.'
          : 'Nothing.',
      ...cureBy(value < limit && fewer >= 1, { work: work.id, set: { 'machine.shanks': fewer }, says }),
    };
  },
};

const rest: Rule<RipFacts> = {
  id: 'ripping.rest',
  title: 'Days nothing grazes it after',
  why: 'Roots keep a slot open; hooves close it in an afternoon.',
  unit: 'days',
  kind: 'days',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '60 days of growth and more' },
  find: ({ work }) => {
    const value = work.restDays;
    return {
      value,
      limit: 60,
      severity: gradeMin(value, 20, 60),
      do: value < 60 ? 'Keep stock off for 60 days of growth.' : 'Nothing.',
      ...cureBy(value < 60, { work: work.id, set: { restDays: 60 }, says: 'Keep stock off for 60 days' }),
    };
  },
};

const isMade = ({ status }: Ripping): boolean => status === 'built' || status === 'existing';

const gained: Rule<RipFacts> = {
  id: 'ripping.gained',
  title: 'Times the rate of the ground beside it',
  why: 'Many fields ripped at a cost take in no more than before: only rings set in and beside it tell.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'twice as much in the first years; under half as much again it was hardly worth it' },
  applies: ({ work }) => isMade(work) || timesOf(work) !== null,
  find: ({ work }) => {
    const value = timesOf(work);
    if (value === null)
      return isMade(work)
        ? {
            value: null,
            limit: null,
            severity: 'unknown',
            do: 'Set rings in it and beside it after the first wet season, and note both rates.',
          }
        : null;
    return {
      value,
      limit: 1.5,
      severity: value < 1.5 ? 'weigh' : 'fine',
      do: value < 1.5 ? 'Look for what closes it: traffic, stock, bare ground; ripping again gains little until that ends.' : 'Nothing.',
    };
  },
};

export const RIPPING_RULES: readonly Rule<RipFacts>[] = [
  direction,
  along,
  slope,
  pan,
  depth,
  critical,
  spacing,
  rock,
  dry,
  services,
  gully,
  power,
  rest,
  gained,
];
