// Whether the walls of terraces stand: how high, how thick, drained or not, turned over, pushed along, pressing too hard.
import type { Finding, Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { FOOTING_SOURCE, type Stability, baseFor, footingOf, stabilityOf } from '../gravity/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, metres } from '../rules.ts';
import { leastRule } from '../size-rule.ts';
import { type Worst, whichOf, worstOf } from '../series.ts';
import { stoneOf } from './making.ts';
import { type Bench, DRAINS_M, type TerracesFacts, loadOf } from './standing.ts';

export const isStone = ({ work }: TerracesFacts): boolean => work.riser === 'stone';
export const ofBench = (k: number, { benches }: TerracesFacts): string => whichOf('bench', k, benches);
export const highest = ({ benches }: TerracesFacts): Worst<Bench> => worstOf(benches, (b) => b.riserM);

/** Heights anybody may build, and those that are for who designs walls, by what holds them [m]. */
const HEIGHTS = { stone: [0.9, 1.2], earth: [1.2, 1.8] } as const;

const height: Rule<TerracesFacts> = {
  id: 'terraces.height',
  title: 'Height of a riser',
  why: 'A wall twice as high is pushed four times as hard, and falls on whoever works below it.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'dry stone 0.9 to 1.2 m without a design, banks of earth 1.2 to 1.8 m: verify locally' },
  find: (facts) => {
    const { one: bench, k, value } = highest(facts);
    const { riser } = facts.work;
    const [limit, most] = HEIGHTS[riser];
    return {
      value,
      limit,
      at: bench.ground.points[Math.floor(bench.ground.points.length / 2)],
      severity: gradeMax(value, limit, most),
      do:
        value > most
          ? say`Make the benches narrower${ofBench(k, facts)}, or have this one designed by somebody licensed for it.`
          : value > limit
            ? say`Make the benches narrower${ofBench(k, facts)}, and let a mason see it first.`
            : 'Nothing.',
    };
  },
};

/** How far a riser leans back at the least, out per 1 up. */
const BATTERS = { stone: [0.08, 0.125], earth: [0.5, 0.75] } as const;

const batter: Rule<TerracesFacts> = {
  id: 'terraces.batter',
  title: 'How far its risers lean back, out per 1 up',
  why: 'Upright, a riser comes forward with the first wet winter.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: {
    key: 'sheng-fao',
    locator: 'earth 0.75, stone 0.5 in his terraces; dry walls 1 in 8 to 1 in 6 (common practice)',
    fromMemory: true,
  },
  find: ({ work }) => {
    const value = work.dimensions.riserHV;
    const [least, limit] = BATTERS[work.riser];
    const says = say`Let its risers lean back ${amount(limit, 'number')} for 1 up`;
    return {
      value,
      limit,
      severity: gradeMin(value, least, limit),
      do: value < limit ? say`${says}.` : 'Nothing.',
      ...cureBy(value < limit, { work: work.id, set: { 'dimensions.riserHV': limit }, says }),
    };
  },
};

const base = leastRule<TerracesFacts>(
  {
    id: 'terraces.base',
    title: 'Width of the wall at its base',
    why: 'A dry wall has no mortar: only its width holds it upright.',
    source: { ...COMMON_PRACTICE, locator: 'half of its height and more' },
    applies: isStone,
  },
  {
    path: 'dimensions.baseM',
    workOf: ({ work }) => work,
    limitFor: (facts) => (highest(facts).value + facts.work.dimensions.foundationM) / 2,
    says: (m) => say`Make its base ${metres(m)} wide`,
    mendUnder: 0.8,
  },
);

const foundation = leastRule<TerracesFacts>(
  {
    id: 'terraces.foundation',
    title: 'How deep its walls stand',
    why: 'On loose or frost-lifted ground the lowest stones go first.',
    source: { ...COMMON_PRACTICE, locator: '0.15 to 0.3 m into firm ground, deeper where it freezes' },
    applies: isStone,
  },
  {
    path: 'dimensions.foundationM',
    workOf: ({ work }) => work,
    limitFor: () => 0.15,
    says: (m) => say`Set its walls ${metres(m)} into the ground`,
    mendUnder: 0.4,
  },
);

const drain = leastRule<TerracesFacts>(
  {
    id: 'terraces.drain',
    title: 'Gravel behind the walls',
    why: 'Water that cannot leave pushes as hard as the earth, and fills every gap with it.',
    source: { ...COMMON_PRACTICE, locator: '0.3 m down to its foot, with a way out there' },
    applies: isStone,
  },
  {
    path: 'dimensions.drainM',
    workOf: ({ work }) => work,
    limitFor: () => DRAINS_M,
    says: (m) => say`Lay ${metres(m)} of gravel behind its walls`,
    also: ', down to their foot, with a way out there',
    mendUnder: 0.5,
  },
);

const UNSEEN: Finding = {
  value: null,
  limit: null,
  severity: 'unknown',
  do: 'Dig a pit where the highest wall is to stand, and say what lies under and behind it.',
};

interface Safety {
  readonly id: string;
  readonly title: string;
  readonly why: string;
  readonly unit: string;
  readonly sense: 'min' | 'max';
  readonly valueOf: (s: Stability) => number;
  readonly limits: (facts: TerracesFacts, s: Stability) => readonly [limit: number, mend: number];
  readonly source: Rule<TerracesFacts>['source'];
}

const STATICS = { key: 'statics', fromMemory: true } as const;

const SAFETIES: readonly Safety[] = [
  {
    id: 'terraces.overturning',
    title: 'Safety of the highest wall against overturning',
    why: 'Earth, and the water in it, tip it about its foot; only its weight holds it back.',
    unit: 'ratio',
    sense: 'min',
    valueOf: (s) => s.overturning,
    limits: () => [2, 1.5],
    source: { ...STATICS, locator: '2 is usual, 1.5 the least' },
  },
  {
    id: 'terraces.sliding',
    title: 'Safety of the highest wall against sliding',
    why: 'Pushed forward a finger each winter, it stands on nothing one day.',
    unit: 'ratio',
    sense: 'min',
    valueOf: (s) => s.sliding,
    limits: () => [1.5, 1.2],
    source: { ...STATICS, locator: '1.5; the earth before its foot left out' },
  },
  {
    id: 'terraces.middle-third',
    title: 'How far from the middle of its base the highest wall presses',
    why: 'Beyond the middle third its heel lifts: dry stones open there.',
    unit: 'm',
    sense: 'max',
    valueOf: (s) => Math.abs(s.eccentricityM),
    limits: (_, s) => [s.sixthM, 1.5 * s.sixthM],
    source: { ...STATICS, locator: 'a sixth of its base' },
  },
  {
    id: 'terraces.bearing',
    title: 'Greatest pressure under the highest wall, in kPa',
    why: 'Where its toe presses harder than the ground bears, it leans over.',
    unit: 'kPa',
    sense: 'max',
    valueOf: (s) => s.pressureKpa,
    limits: ({ work }) => {
      const bears = footingOf(work)?.bearsKpa ?? Infinity;
      return [bears, 1.25 * bears];
    },
    source: FOOTING_SOURCE,
  },
];

function isWell({ sense, valueOf, limits }: Safety, facts: TerracesFacts, stands: Stability): boolean {
  const [limit] = limits(facts, stands);
  return sense === 'min' ? valueOf(stands) >= limit : valueOf(stands) <= limit;
}

/** Something of how the highest wall stands, which a wider base mends. */
const standRule = (safety: Safety): Rule<TerracesFacts> => ({
  ...safety,
  kind: safety.unit === 'm' ? 'difference' : 'number',
  applies: isStone,
  find: (facts) => {
    const { work } = facts;
    if (!isStone(facts)) return null;
    const { one: bench, value: riserM } = highest(facts);
    const load = loadOf(work, riserM);
    if (!load) return UNSEEN;
    const stands = (baseM: number): Stability => stabilityOf({ ...load, body: { ...load.body, baseM } });
    const now = stands(work.dimensions.baseM);
    const { sense } = safety;
    const [limit, mend] = safety.limits(facts, now);
    const value = safety.valueOf(now);
    const isFine = isWell(safety, facts, now);
    // What mends one must not leave another.
    const wide = isFine ? null : baseFor(work.dimensions.baseM, (m) => SAFETIES.every((other) => isWell(other, facts, stands(m))));
    const says = wide !== null && wide <= 4 ? say`Make its base ${amount(wide, 'length')} wide` : null;
    return {
      value: Number.isFinite(value) ? value : null,
      limit,
      at: bench.ground.points[Math.floor(bench.ground.points.length / 2)],
      severity: sense === 'min' ? gradeMin(value, mend, limit) : gradeMax(value, limit, mend),
      do: isFine
        ? 'Nothing.'
        : says
          ? say`${says}, on which it stands in every way, or its benches narrower.`
          : 'Lower it, or have it designed by somebody licensed for it.',
      ...(says && wide !== null ? cureBy(true, { work: work.id, set: { 'dimensions.baseM': wide }, says }) : {}),
    };
  },
});

const near: Rule<TerracesFacts> = {
  id: 'terraces.stone-near',
  title: 'Stone lying loose near',
  why: 'What is not there is bought and carried, or prised out of the slope that holds all of it.',
  unit: 'm³',
  kind: 'volume',
  sense: 'min',
  source: COMMON_PRACTICE,
  applies: (facts) => isStone(facts) && facts.work.rockNearM3 !== undefined,
  find: ({ work, benches }) => {
    if (work.riser !== 'stone' || work.rockNearM3 === undefined) return null;
    const limit = stoneOf(work, benches);
    const value = work.rockNearM3;
    return {
      value,
      limit,
      severity: value < limit ? 'weigh' : 'fine',
      do:
        value < limit
          ? say`${amount(limit - value, 'volume')} more is needed: fewer benches, banks of earth, or stone brought in.`
          : 'Nothing.',
    };
  },
};

export const WALL_RULES: readonly Rule<TerracesFacts>[] = [height, batter, base, foundation, drain, ...SAFETIES.map(standRule), near];
