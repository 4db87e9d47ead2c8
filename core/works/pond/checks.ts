import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { WAVE_HAWKSLEY, WAVE_RUNUP, fetchFreeboard } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { between, cureBy, gradeMax, gradeMin, upToMm, metres, millimetres } from '../rules.ts';
import { leastTopWidth } from './formulas.ts';
import { PLACE_RULES, type PondFacts } from './place-checks.ts';
import { SERVICE_RULES } from './service-checks.ts';
import { waterAt } from '../basin/index.ts';

/** Freeboard a wall must keep over its highest water: what waves of its open water run up, and what AH-590 keeps. */
export function freeboardNeeded(reachM: number): number {
  const run = WAVE_RUNUP.evaluate({ h: WAVE_HAWKSLEY.evaluate({ F: reachM }) });
  return Math.max(run, fetchFreeboard(reachM));
}

const freeboard: Rule<PondFacts> = {
  id: 'pond.freeboard',
  isOfLevels: true,
  title: 'Freeboard of the wall in the storm',
  why: 'Water or waves over an earth wall cut it down in hours, and all the water behind it goes at once.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'ah590', locator: 'freeboard by open water: 1.0, 1.5, 2.0 ft; or the waves’ run-up where it is more', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ ground }) => ground.wall !== null,
  find: ({ pond, ground, storm, basin }) => {
    if (!storm || !ground.wall) return null;
    const limit = freeboardNeeded(waterAt(basin, storm.peakLevelM).reachM);
    const value = pond.levels.crestM - storm.peakLevelM;
    return {
      value,
      limit,
      severity: gradeMin(value, limit, limit),
      do:
        value < limit
          ? say`Raise the crest by ${millimetres(limit - value)}, or lower or widen its ways out. Many farms keep ${amount(1, 'length')}.`
          : say`Nothing: many farms keep ${amount(1, 'length')} by habit.`,
      ...cureBy(value < limit, {
        work: pond.id,
        set: { 'levels.crestM': upToMm(pond.levels.crestM + limit - value) },
        says: say`Raise the crest by ${millimetres(limit - value)}`,
      }),
    };
  },
};

const wayOut: Rule<PondFacts> = {
  id: 'pond.way-out',
  isOfLevels: true,
  title: 'Ways out below the crest',
  why: 'A wall that can hold water must have somewhere for it to go, and a second place for when the first is blocked.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { key: 'common-practice', locator: 'the way out is designed and built first; outlets clog, so give a second' },
  find: ({ store }) => {
    if (!store) return null;
    const ways = store.outlets.filter((o) => (o.kind === 'sill' || o.kind === 'rated') && o.levelM < store.crestM);
    const value = ways.length;
    const onlyPipes = value > 0 && ways.every((o) => o.exit?.shape === 'pipe');
    return {
      value,
      limit: 2,
      severity: value === 0 || onlyPipes ? 'mend' : value < 2 ? 'weigh' : 'fine',
      do:
        value === 0
          ? 'Add a level sill or a cut spillway on natural ground beside the wall.'
          : onlyPipes
            ? 'Pipes clog: add an open way out above them, on natural ground.'
            : value < 2
              ? 'Add a second, a little higher, for the night the first is blocked.'
              : 'Nothing.',
    };
  },
};

const tiesIn: Rule<PondFacts> = {
  id: 'pond.ends',
  isOfLevels: true,
  title: 'Ends of the wall tied into the ground',
  why: 'Water goes round the lower end long before it tops the wall, along the joint where wall meets ground.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'crest carried level into the valley side' },
  find: ({ pond, ground, store }) => {
    if (!ground.wall || !store) return null;
    const value = ground.roundM - pond.levels.crestM;
    const first = store.sillM ?? pond.levels.crestM;
    return {
      value,
      limit: 0,
      at: ground.roundAt,
      severity: ground.roundM <= first ? 'mend' : value < 0 ? 'weigh' : 'fine',
      do:
        value < 0
          ? say`Carry the wall further into the side until the ground is ${millimetres(-value)} higher, or make this place a spillway and say so.`
          : 'Nothing.',
    };
  },
};

const topWidth: Rule<PondFacts> = {
  id: 'pond.top-width',
  title: 'Width of the crest',
  why: 'A narrow crest cracks through, burrows meet in it, and no machine can mend it.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'cps-378', locator: 'top width by height', fromMemory: true },
  find: ({ pond, earth }) => {
    if (!earth) return null;
    const limit = leastTopWidth(earth.toeHeightM);
    const value = pond.dimensions.topWidthM;
    return {
      value,
      limit,
      severity: gradeMin(value, 0.6 * limit, limit),
      do: value < limit ? say`Make it ${metres(limit)} wide.` : 'Nothing.',
      ...cureBy(value < limit, { work: pond.id, set: { 'dimensions.topWidthM': upToMm(limit) }, says: say`Make it ${metres(limit)} wide` }),
    };
  },
};

const sides: Rule<PondFacts> = {
  id: 'pond.sides',
  title: 'Both sides of the wall together',
  why: 'Steep sides slump when the pond falls fast, and mowing them kills people.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { key: 'cps-378', locator: 'sum of both sides at least 5 to 1, neither steeper than 2 to 1', fromMemory: true },
  find: ({ pond, earth }) => {
    if (!earth) return null;
    const { waterSlopeHV, backSlopeHV } = pond.dimensions;
    const value = waterSlopeHV + backSlopeHV;
    const isSteep = Math.min(waterSlopeHV, backSlopeHV) < 2;
    return {
      value,
      limit: 5,
      severity: isSteep || value < 4 ? 'mend' : value < 5 ? 'weigh' : 'fine',
      do: isSteep || value < 5 ? 'Flatten them: 3 to 1 on the water, 2 to 1 outside; 3 to 1 both in silty clay.' : 'Nothing.',
      ...cureBy(isSteep || value < 5, {
        work: pond.id,
        set: { 'dimensions.waterSlopeHV': Math.max(3, waterSlopeHV), 'dimensions.backSlopeHV': Math.max(2, backSlopeHV) },
        says: 'Flatten them: 3 to 1 on the water, 2 to 1 outside',
      }),
    };
  },
};

const key: Rule<PondFacts> = {
  id: 'pond.key',
  title: 'Key under the wall',
  why: 'Water finds the joint between the wall and the ground it was set on. The key cuts that path.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'cps-378', locator: 'core trench at least 0.6 to 1 m deep, 2.4 m wide, down to tight ground', fromMemory: true },
  find: ({ pond, earth }) => {
    if (!earth) return null;
    const { keyDepthM: value, keyWidthM } = pond.dimensions;
    return {
      value,
      limit: 0.6,
      severity: value < 0.3 ? 'mend' : value < 0.6 || keyWidthM < 1 ? 'weigh' : 'fine',
      do:
        value < 0.6 || keyWidthM < 1
          ? 'Cut it down to ground that holds water, a blade wide, and fill it in thin rolled layers.'
          : 'Nothing.',
      ...cureBy(value < 0.6 || keyWidthM < 1, {
        work: pond.id,
        set: { 'dimensions.keyDepthM': Math.max(0.6, value), 'dimensions.keyWidthM': Math.max(1, keyWidthM) },
        says: say`Cut it ${metres(Math.max(0.6, value))} deep and ${metres(Math.max(1, keyWidthM))} wide`,
      }),
    };
  },
};

const settlement: Rule<PondFacts> = {
  id: 'pond.settlement',
  title: 'Built higher for settling',
  why: 'Fresh fill sinks, most where it is highest: there the settled crest ends up lowest.',
  unit: '%',
  kind: 'percent',
  sense: 'min',
  source: { key: 'cps-378', locator: 'at least 5 % of the height, 10 % where it is only dumped', fromMemory: true },
  find: ({ pond, earth }) => {
    if (!earth) return null;
    const value = pond.settlementPercent;
    return {
      value,
      limit: 5,
      severity: gradeMin(value, 2, 5),
      do: value < 5 ? 'Build it 5 % higher in rolled layers, 10 % dumped.' : 'Nothing.',
      ...cureBy(value < 5, { work: pond.id, set: { settlementPercent: 5 }, says: 'Build it 5 % higher in rolled layers' }),
    };
  },
};

const clay: Rule<PondFacts> = {
  id: 'pond.clay',
  title: 'Clay in the earth of the wall',
  why: 'Sand lets water through and washes out; the wall then fails from inside.',
  unit: '%',
  kind: 'percent',
  sense: 'min',
  source: { key: 'common-practice', locator: '20 % clay or more; no dispersive soil, peat or gypsum' },
  find: ({ pond, earth }) => {
    if (!earth) return null;
    const { clayPercent: value } = pond;
    if (value === undefined) {
      return {
        value: null,
        limit: 20,
        severity: 'unknown',
        do: 'Dig two holes where the earth comes from; do a jar and a crumb test, and note the clay.',
      };
    }
    return {
      value,
      limit: 20,
      severity: gradeMin(value, 10, 20),
      do: value < 20 ? 'Bring better earth for the core, or line it.' : 'Nothing.',
    };
  },
};

/** Common limits of regulation, verify locally: height, water, what it is called. From memory (handbook 8). */
const LIMITS: readonly (readonly [heightM: number, waterM3: number, words: string])[] = [
  [1.83, 61_700, 'the United States’ inventory (6 ft and 50 acre-feet)'],
  [7.62, 18_500, 'the United States’ inventory (25 ft and 15 acre-feet)'],
  [0, 10_000, 'registration in Wales (10 000 m³; 25 000 m³ in England)'],
  [5, 50_000, 'South Africa’s dams with a safety risk (5 m and 50 000 m³)'],
  [15, 0, 'large dams everywhere (15 m)'],
];
/** A wall this high is no longer something to build by oneself [m]: common practice. */
const OWN_HEIGHT_M = 3;

const regulated: Rule<PondFacts> = {
  id: 'pond.regulated',
  title: 'Height of the wall, and what is regulated',
  why: 'Above certain sizes a dam is not a do-it-yourself work: a law asks for an engineer, and people downstream need one.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { key: 'common-practice', locator: 'thresholds of several countries: verify locally' },
  find: ({ earth, store }) => {
    if (!earth || !store) return null;
    const value = earth.toeHeightM;
    const met = LIMITS.filter(([height, water]) => value >= height && store.heldM3 >= water);
    return {
      value,
      limit: OWN_HEIGHT_M,
      severity: met.length > 0 ? 'mend' : value > OWN_HEIGHT_M ? 'weigh' : 'fine',
      do:
        met.length > 0
          ? `This is not a do-it-yourself work: it passes ${met[0][2]}. A licensed engineer must design it; ask your authority before anything is dug.`
          : value > OWN_HEIGHT_M
            ? 'Have an engineer design it; ask your authority which rules apply.'
            : 'Ask your authority whether a permit is needed: rules differ from place to place.',
    };
  },
};

const seepage: Rule<PondFacts> = {
  id: 'pond.losses',
  title: 'Water lost in a day',
  why: 'A pond that seeps and dries faster than it is fed is a pit.',
  unit: 'mm',
  kind: 'rain',
  sense: 'max',
  source: { key: 'common-practice', locator: 'seepage up to 3 mm a day good, 10 mm poor' },
  find: ({ pond }) => {
    const value = pond.seepageMmPerDay;
    return {
      value,
      limit: 3,
      severity: gradeMax(value, 3, 10),
      do: value > 3 ? 'Look for a burrow, an old pipe or a gravel seam first; then line it with clay rolled 0.3 m thick.' : 'Nothing.',
    };
  },
};

const borrow: Rule<PondFacts> = {
  id: 'pond.borrow',
  title: 'Earth dug against earth needed',
  why: 'Earth brought from elsewhere costs more than the whole wall.',
  unit: 'm³',
  kind: 'volume',
  sense: 'min',
  source: { key: 'common-practice', locator: 'fill takes up 0.9 of what it was in the ground' },
  find: ({ pond, earth, basin }) => {
    if (!earth || pond.borrow !== 'inside') return null;
    const limit = (earth.earthM3 + earth.keyM3) / 0.9;
    const value = basin.dugM3 + earth.keyM3;
    return {
      value,
      limit,
      severity: value < 0.95 * limit ? 'weigh' : 'fine',
      do:
        value < 0.95 * limit
          ? say`Dig ${amount(limit - value, 'volume')} more from the pond: draw or deepen its pit. What is dug below the sill holds water too.`
          : 'Nothing: spread what is over, away from the water.',
    };
  },
};

const depth: Rule<PondFacts> = {
  id: 'pond.depth',
  title: 'Deepest water when full',
  why: 'Shallow ponds dry out, warm up and grow over; deep ones drown people.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'ah590', locator: 'least depth by climate: 1.8 m humid to 4.3 m arid', fromMemory: true },
  find: ({ store }) => {
    if (!store) return null;
    const value = store.wayOutM - store.floorM;
    return {
      value,
      limit: 1.8,
      severity: value < 1.8 ? 'weigh' : 'fine',
      do:
        value < 1.8
          ? 'Deepen a quarter of it where water should last through a dry season.'
          : 'Fence it, or give it a shelf of 4 to 1 and a way to climb out.',
    };
  },
};

const feeding: Rule<PondFacts> = {
  id: 'pond.catchment',
  title: 'Ground that feeds it, to its water',
  why: 'Too little ground never fills it; too much washes it out and silts it up.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { key: 'ah590', locator: 'catchment 10 to 50 times the pond by climate', fromMemory: true },
  find: ({ store, catchment }) => {
    const water = store?.waterM2;
    if (!catchment || water === undefined || water <= 0) return null;
    const value = catchment.areaM2 / water;
    return {
      value,
      ...between(value, [10, 100], 'min'),
      severity: value < 10 || value > 100 ? 'weigh' : 'fine',
      do:
        value < 10 ? 'Lead more ground to it, or make it smaller.' : value > 100 ? 'Make its ways out ample and expect silt.' : 'Nothing.',
    };
  },
};

const footKnown: Rule<PondFacts> = {
  id: 'pond.foot-unknown',
  title: 'Ground under the foot of the wall',
  why: 'A wall is as high as its outer foot is low: where that ground is not known, nor are its height, its earth and what they must be.',
  unit: '',
  kind: 'count',
  sense: 'max',
  source: { key: 'geometry' },
  find: ({ ground, earth }) =>
    ground.wall && !earth
      ? {
          value: null,
          limit: null,
          severity: 'unknown',
          title: 'A foot of the wall stands on ground without a level',
          do: 'Bring in terrain that reaches both feet, or move the wall inwards.',
        }
      : null,
};

export const POND_RULES: readonly Rule<PondFacts>[] = [
  footKnown,
  freeboard,
  wayOut,
  tiesIn,
  topWidth,
  sides,
  key,
  settlement,
  clay,
  regulated,
  seepage,
  borrow,
  depth,
  feeding,
  ...SERVICE_RULES,
  ...PLACE_RULES,
];
