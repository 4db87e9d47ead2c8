// Rules on shaped ground: that water leaves it and the walls beside it, that earth comes out even, and what lies in the way.
import type { Rule } from '../../contract/index.ts';
import {
  type Point,
  closed,
  distance,
  distanceToRing,
  evenlyAlong,
  lineLength,
  middleOf,
  nearestOnLine,
  pointAlong,
} from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, gradeMax, gradeMin, metres, millimetres } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { nearestFeature } from '../setbacks.ts';
import { COMPACTS, EARTH_BALANCE } from './formulas.ts';
import { type Regrade, isDish } from './model.ts';
import { type RegradeFacts, afterAt, beforeAt, edgeOf, narrowestM, placesIn } from './standing.ts';

/** Least fall by what it is afterwards [m/m]: common practice. */
const LEAST_FALL: Readonly<Record<Regrade['after'], number>> = { lawn: 0.02, paving: 0.01, gravel: 0.01, bed: 0.02 };

const fallIn = ({ work }: RegradeFacts): number =>
  isDish(work) ? (work.levels.startM - work.levels.endM) / Math.max(0.1, lineLength(work.line ?? [])) : work.fall;

const falls: Rule<RegradeFacts> = {
  id: 'regrade.fall',
  title: 'Fall of the finished ground',
  why: 'Ground flatter than a hand can lay it keeps puddles, and puddles become hollows.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'lawns 2 %, paving and gravel 1 %, a dish 1 %' },
  applies: ({ work }) => work.shape === 'plane' || work.shape === 'dish',
  find: (facts) => {
    const { work } = facts;
    const value = fallIn(facts);
    const limit = isDish(work) ? DISH_FALL : LEAST_FALL[work.after];
    return {
      value,
      limit,
      severity: gradeMin(value, limit / 2, limit),
      do: value < limit ? say`Let it fall ${amount(limit, 'slope')} or more.` : 'Nothing.',
      ...(value < limit && !isDish(work) ? { cure: { work: work.id, set: { fall: limit }, says: say`Let it fall ${amount(limit, 'slope')}` } } : {}),
    };
  },
}; // prettier-ignore
const DISH_FALL = 0.01;

/** Walls are looked at so far apart, and the ground so far off them; less is no change [m]. */
const [EVERY_M, OFF_M, NOTHING_M] = [0.5, 2, 1e-3];

interface AtWall {
  readonly at: Point;
  readonly wallM: number;
  readonly fall: number;
}

/** Walls found for some facts: three rules ask for them. */
const walls = new WeakMap<RegradeFacts, readonly AtWall[]>();
function alongWalls(facts: RegradeFacts): readonly AtWall[] {
  const known = walls.get(facts);
  if (known) return known;
  const found = wallsOf(facts);
  walls.set(facts, found);
  return found;
}

/** Finished ground at walls near it, and how it falls away from them. */
function wallsOf({ work, ground, site }: RegradeFacts): AtWall[] {
  // Where the ground at a wall, or before it, is shaped.
  const isShaped = (p: Point): boolean => (isDish(work) ? Math.abs(afterAt(work, ground, p) - beforeAt(ground, p)) > NOTHING_M : distanceToRing(work.ring ?? [], p) < 0.01);
  const buildings = site.features.flatMap(({ kind, ring }) => (kind === 'building' && ring ? [closed(ring)] : []));
  return buildings.flatMap((wall) => {
    const middle = middleOf(wall);
    const count = Math.ceil(lineLength(wall) / EVERY_M);
    return Array.from({ length: count }, (_, k) => pointAlong(wall, k * EVERY_M)).flatMap(({ point, direction: [dx, dy] }): AtWall[] => {
      const outwards = (dy * (point[0] - middle[0]) - dx * (point[1] - middle[1]) >= 0 ? 1 : -1) * OFF_M;
      const off: Point = [point[0] + dy * outwards, point[1] - dx * outwards];
      if (!isShaped(point) && !isShaped(off)) return [];
      const [wallM, offM] = [afterAt(work, ground, point), afterAt(work, ground, off)];
      // Round a corner the ground off one wall lies under the next.
      return Number.isNaN(wallM + offM) || distanceToRing(wall, off) < OFF_M - 0.01 ? [] : [{ at: point, wallM, fall: (wallM - offM) / OFF_M }];
    });
  });
} // prettier-ignore

const away: Rule<RegradeFacts> = {
  id: 'regrade.away',
  title: 'Fall away from the walls near it',
  why: 'Ground that falls towards a wall leads every rain to its foot.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '5 % over the first 2 to 3 m of earth, 2 % of paving; local codes first' },
  applies: (facts) => alongWalls(facts).length > 0,
  find: (facts) => {
    const limit = facts.work.after === 'paving' ? 0.02 : 0.05;
    const worst = alongWalls(facts).reduce((a, b) => (b.fall < a.fall ? b : a));
    const value = worst.fall;
    return {
      value,
      limit,
      at: worst.at,
      severity: gradeMin(value, 0, limit),
      do: value < limit ? say`Let the ground fall ${amount(limit, 'slope')} away from that wall over ${metres(OFF_M)}: raise it there, or take it down further out.` : 'Nothing.',
    };
  },
}; // prettier-ignore

/** Earth and water stay so far under a sill [m]: common practice; local codes first. */
const UNDER_SILL_M = 0.15;

const sill: Rule<RegradeFacts> = {
  id: 'regrade.sill',
  title: 'Finished ground under the lowest sill near it',
  why: 'Earth against a damp course carries water past it, whatever falls outside.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '150 mm under damp course, vent and sill; local codes first' },
  applies: (facts) => alongWalls(facts).length > 0,
  find: (facts) => {
    const { thresholdM } = facts.work;
    if (thresholdM === undefined)
      return { value: null, limit: UNDER_SILL_M, severity: 'unknown', do: 'Level the lowest sill, vent or damp course near it.' };
    const highest = alongWalls(facts).reduce((a, b) => (b.wallM > a.wallM ? b : a));
    const value = thresholdM - highest.wallM;
    return {
      value,
      limit: UNDER_SILL_M,
      at: highest.at,
      severity: gradeMin(value, UNDER_SILL_M / 3, UNDER_SILL_M),
      do: value < UNDER_SILL_M ? say`${millimetres(UNDER_SILL_M - value)} too high against that wall: lower it there.` : 'Nothing.',
    };
  },
};

/** What stands in a survey's own roughness, and what is a puddle to step over [m]. */
const [ROUGH_M, PUDDLE_M] = [0.02, 0.05];

const pools: Rule<RegradeFacts> = {
  id: 'regrade.pools',
  title: 'Deepest hollow left where it was shaped',
  why: 'A low place without a way out is what the work was for: it only moved.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ ground: { pool } }) => {
    const value = pool ? pool.spillM - pool.lowM : NO_POOL_M;
    return {
      value,
      limit: ROUGH_M,
      at: pool?.lowAt ?? null,
      severity: gradeMax(value, ROUGH_M, PUDDLE_M),
      do: value > ROUGH_M ? say`Water stands ${millimetres(value)} deep there before it runs on: give it a dish out, a basin, or more fill.` : 'Nothing.',
    };
  },
}; // prettier-ignore
const NO_POOL_M = 0;

const batter: Rule<RegradeFacts> = {
  id: 'regrade.batter',
  title: 'Its batter, out per 1 up',
  why: 'What is too steep to mow is not kept, and what is not held by roots slides in the first wet winter.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '3 to mow, 2 with roots in it, steeper with a wall' },
  applies: ({ work, ground: { moved } }) => !isDish(work) && Math.max(moved.deepestCutM, moved.highestFillM) > 0.3,
  find: ({ work }) => {
    const value = work.dimensions.batterHV;
    return {
      value,
      limit: 3,
      severity: gradeMin(value, 1.5, 3),
      do: value < 3 ? 'Make it 3 out for 1 up, or hold it by a wall of its own.' : 'Nothing.',
      ...(value < 3 ? { cure: { work: work.id, set: { 'dimensions.batterHV': 3 }, says: 'Make its batter 3 to 1' } } : {}),
    };
  },
}; // prettier-ignore

const balance: Rule<RegradeFacts> = {
  id: 'regrade.balance',
  title: 'Earth left over, or wanting',
  why: 'Earth that is carried away or in costs more than all that is moved on the place.',
  unit: 'm³',
  kind: 'volume',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ ground: { moved } }) => {
    const left = EARTH_BALANCE.evaluate({ C: moved.cutM3, F: moved.fillM3, k: COMPACTS });
    const value = Math.abs(left);
    return {
      value,
      limit: LITTLE_M3,
      severity: value > LITTLE_M3 ? 'weigh' : 'fine',
      do: value <= LITTLE_M3 ? 'Nothing.' : left > 0 ? say`${amount(value, 'volume')} is left over: lay it where it does good, or set the level a little higher.` : say`${amount(value, 'volume')} is wanting: set the level a little lower, or find where it comes from.`,
    };
  },
}; // prettier-ignore
/** Two barrow runs of half a day [m3]. */
const LITTLE_M3 = 2;

/** More than this off a footing takes its frost cover, more than that what it stands on [m]: common practice. */
const [COVER_M, FOOTING_M, BESIDE_WALL_M] = [0.15, 0.3, 1];

const footing: Rule<RegradeFacts> = {
  id: 'regrade.footing',
  title: 'Ground taken off beside a wall',
  why: 'A footing stands by the earth beside it, and keeps from frost by the earth over it.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'no deeper than the footing lies; local codes first' },
  applies: (facts) => alongWalls(facts).length > 0,
  find: (facts) => {
    const { work, ground } = facts;
    const cutAt = (p: Point): number => Math.max(0, beforeAt(ground, p) - afterAt(work, ground, p));
    const along = alongWalls(facts).map((w) => w.at);
    const near = placesIn(isDish(work) ? [] : edgeOf(work)).filter((p) => along.some((at) => distance(at, p) < BESIDE_WALL_M));
    const places = [...along, ...near];
    const at = places.reduce((a, b) => (cutAt(b) > cutAt(a) ? b : a));
    const value = cutAt(at);
    return { value, limit: COVER_M, at, severity: gradeMax(value, COVER_M, FOOTING_M), do: value > COVER_M ? 'Find out how deep the footing lies before anything is dug there, and a short piece at a time.' : 'Nothing.' };
  },
}; // prettier-ignore

const boundary: Rule<RegradeFacts> = {
  id: 'regrade.boundary',
  title: 'From what is shaped to the boundary, with its batter',
  why: 'Ground that is raised or cut at a boundary sends water, and slides, onto a neighbour.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'half a metre and more; local codes first' },
  find: ({ work, ground: { moved }, site }) => {
    if (site.outline.length < 3) return { value: null, limit: 0.5, severity: 'unknown', do: 'Draw the property line.' };
    const outline = closed(site.outline);
    const change = Math.max(moved.deepestCutM, moved.highestFillM);
    const batterM = isDish(work) ? work.dimensions.bedWidthM / 2 + work.dimensions.sideHV * moved.deepestCutM : work.dimensions.batterHV * change;
    const edge = edgeOf(work);
    const places = evenlyAlong(edge, 40);
    const off = (p: Point): number => (distanceToRing(site.outline, p) > 0 ? -1 : 1) * nearestOnLine(p, outline).distanceM - batterM;
    const at = places.reduce((a, b) => (off(b) < off(a) ? b : a));
    const value = off(at);
    return { value, limit: 0.5, at, severity: gradeMin(value, 0, 0.5), do: value < 0.5 ? 'Keep it off the boundary with all of its batter, or agree it with the neighbour in writing.' : 'Nothing.' };
  },
}; // prettier-ignore

const nearBy = (id: string, what: Pick<Rule<RegradeFacts>, 'title' | 'why' | 'source'> & { readonly kinds: readonly string[]; readonly limits: readonly [mend: number, weigh: number]; readonly do: string }): Rule<RegradeFacts> => ({
  id: `regrade.${id}`,
  title: what.title,
  why: what.why,
  source: what.source,
  unit: 'm',
  kind: 'length',
  sense: 'min',
  find: ({ work, site }) => {
    const near = nearestFeature(edgeOf(work), site.features.filter((f) => what.kinds.includes(f.kind)));
    if (!near) return null;
    const [mend, weigh] = what.limits;
    const value = near.distanceM;
    return { value, limit: weigh, at: near.at, severity: gradeMin(value, mend, weigh), do: value < weigh ? what.do : 'Nothing.' };
  },
}); // prettier-ignore

const roots = nearBy('roots', {
  title: 'Distance to the nearest tree',
  why: 'A hand of earth over roots smothers a tree, a hand taken off cuts what feeds it.',
  source: { ...COMMON_PRACTICE, locator: '3 m, better all under its crown' },
  kinds: ['tree'],
  limits: [1, 3],
  do: 'Leave the ground under its crown as it is: end the shape sooner.',
});
const septic = nearBy('septic', {
  title: 'Distance to the septic field',
  why: 'Earth laid on a seepage field shuts its air off, and wheels crush its pipes.',
  source: { ...COMMON_PRACTICE, locator: '3 m; local codes first' },
  kinds: ['septic'],
  limits: [1, 3],
  do: 'Neither earth nor wheels on the field: end the shape sooner.',
});

const seen: Rule<RegradeFacts> = {
  id: 'regrade.seen',
  title: 'How wide it is, in cells of the terrain',
  why: 'A shape narrower than two cells hardly shows in the water that is followed over the map.',
  unit: '',
  kind: 'number',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ work, ground }) => {
    const value = narrowestM(work, ground) / ground.surveyed.cellM;
    return { value, limit: 2, severity: value < 2 ? 'weigh' : 'fine', do: value < 2 ? 'Bring in a finer survey of the yard: until then what runs here is told too coarsely.' : 'Nothing.' };
  },
}; // prettier-ignore

const topsoil: Rule<RegradeFacts> = {
  id: 'regrade.topsoil',
  title: 'Topsoil put back',
  why: 'Grass on subsoil is a crust the next summer, and a crust sheds as paving does.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '100 to 150 mm under a lawn' },
  applies: ({ work }) => work.after === 'lawn' || work.after === 'bed',
  find: ({ work }) => {
    const value = work.dimensions.topsoilM;
    return {
      value,
      limit: 0.1,
      severity: value < 0.1 ? 'weigh' : 'fine',
      do: value < 0.1 ? 'Strip it first, keep it apart, and put 100 mm back.' : 'Nothing.',
      ...(value < 0.1 ? { cure: { work: work.id, set: { 'dimensions.topsoilM': 0.1 }, says: 'Put 100 mm of topsoil back' } } : {}),
    };
  },
};

const services = saidRule<RegradeFacts>(
  {
    id: 'regrade.services',
    title: 'Buried cables and pipes',
    why: 'Ground that is lowered brings them under the spade, ground that is raised buries their covers.',
    source: { ...COMMON_PRACTICE, locator: 'ask before you dig: the law in many places' },
  },
  ({ work }) => (work.services === 'asked' ? FINE : { severity: 'unknown', do: 'Have them located and marked before anybody digs; dig by hand near them.' }),
); // prettier-ignore

export const REGRADE_RULES: readonly Rule<RegradeFacts>[] = [
  falls,
  away,
  sill,
  pools,
  batter,
  balance,
  footing,
  boundary,
  roots,
  septic,
  seen,
  topsoil,
  services,
];
