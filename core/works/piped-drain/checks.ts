// Rules on the water of a drain: where it stands, what goes past, what its grates and pipes take, where it ends.
import { type Finding, NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { type Point, closed, contains, lineLength, pointAlong } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { amount, say } from '../../units/index.ts';
import { exitFlow, noneCarries } from '../exit.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, metres, millimetres } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { storeIdOf, whichOf, worstOf } from '../series.ts';
import { byLikelihood, causeName, causesOf, isLookedAt } from './found.ts';
import { JOINING_RULES } from './joining-checks.ts';
import { isOpen } from './model.ts';
import { PIPE_RULES } from './pipe-checks.ts';
import { leaps } from './slope-checks.ts';
import { type DrainFacts, exitOf, grateLevel, grateTakes, leastTakes, pipeId, pipesOf } from './standing.ts';
import { type YardStorm, hasYard, pastOf, placeOf, stormsOf } from './yards.ts';

const isInOpen = ({ work, ground }: DrainFacts): boolean => ground.taker === null && work.ends === 'daylight';
const most = <T>(list: readonly T[], valueOf: (one: T) => number): T | null => (list.length === 0 ? null : worstOf(list, valueOf).one);

/** Water a shoe keeps out, and a boot [m]: common practice. */
const [SHOE_M, BOOT_M] = [0.05, 0.15];
const stands: Rule<DrainFacts> = {
  id: 'piped-drain.stands',
  title: 'Water over the lowest ground of the yard',
  why: 'A drain is there so that nothing stands: what does is seen at every door.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '50 mm is walked through, 150 mm comes into boots and under doors' },
  needs: NEEDS_STORM,
  applies: hasYard,
  find: (facts) => {
    const { ground } = facts;
    const deep = ({ n, storm }: YardStorm): number => storm.peakLevelM - ground.yards[n].pool.lowM;
    const worst = most(stormsOf(facts), deep);
    if (!worst) return null;
    const value = Math.max(0, deep(worst));
    const [first] = ground.yards[worst.n].basins;
    return {
      value,
      limit: SHOE_M,
      at: placeOf(facts, first),
      title: say`Water over the lowest ground of the yard${whichOf('yard', worst.n + 1, ground.yards)}`,
      severity: gradeMax(value, SHOE_M, BOOT_M),
      do:
        value > SHOE_M
          ? 'See which is short, grate or pipe; and since both block, shape the ground so that water runs on before it stands so deep.'
          : 'Nothing.',
    };
  },
};

const threshold: Rule<DrainFacts> = {
  id: 'piped-drain.threshold',
  title: 'Left under the lowest sill near it',
  why: 'Under a sill water is a nuisance; over it a floor, a boiler and a year of mould.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '150 mm; local codes first' },
  needs: NEEDS_STORM,
  applies: hasYard,
  find: (facts) => {
    const { thresholdM } = facts.work;
    if (thresholdM === undefined)
      return { value: null, limit: 0.15, severity: 'unknown', do: 'Level the lowest door sill, vent or cellar window near its basins.' };
    const highest = most(stormsOf(facts), ({ storm }) => storm.peakLevelM);
    if (!highest) return null;
    const value = thresholdM - highest.storm.peakLevelM;
    return {
      value,
      limit: 0.15,
      severity: gradeMin(value, 0.05, 0.15),
      do: value < 0.15 ? say`${millimetres(0.15 - value)} short: drain more, or lead the ground away from the wall and give the water another way on.` : 'Nothing.',
    };
  },
}; // prettier-ignore

/** A wall is to stand dry [m]. */
const DRY_M = 0;
/** Walls are looked at so far apart [m]. */
const LOOK_M = 0.5;

/** Deepest water of a storm against a building, and where [m]; null where none of them stands in a yard's water. */
function againstWall(facts: DrainFacts): { readonly value: number; readonly at: Point; readonly name: string } | null {
  const { site, ground } = facts;
  let worst: { readonly value: number; readonly at: Point; readonly name: string } | null = null;
  for (const { n, storm } of stormsOf(facts)) {
    const { ring } = ground.yards[n];
    for (const { kind, ring: wall, name = 'the building' } of site.features) {
      if (kind !== 'building' || !wall) continue;
      const round = closed(wall);
      for (let m = 0; m < lineLength(round); m += LOOK_M) {
        const at = pointAlong(round, m).point;
        const value = contains(ring, at) ? storm.peakLevelM - levelAt(site.grid, at) : -Infinity;
        if (value > 0 && (worst === null || value > worst.value)) worst = { value, at, name };
      }
    }
  }
  return worst;
}

const wall: Rule<DrainFacts> = {
  id: 'piped-drain.wall',
  title: 'Water against a wall',
  why: 'Water that stands against a wall comes through it, and softens what it stands on.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'ground falls away from walls for 2 to 3 m' },
  needs: NEEDS_STORM,
  applies: ({ site, ground }) => ground.yards.length > 0 && site.features.some((f) => f.kind === 'building'),
  find: (facts) => {
    if (stormsOf(facts).length === 0) return null;
    const worst = againstWall(facts);
    // No wall in its water: none stands against one.
    const value = worst === null ? DRY_M : worst.value;
    return {
      value,
      limit: DRY_M,
      at: worst?.at ?? null,
      ...(worst ? { title: say`Water against ${worst.name}` } : {}),
      severity: gradeMax(value, DRY_M, SHOE_M),
      do: value > DRY_M ? 'Raise the ground along the wall so that it falls away from it, or drain more: see what else stands there.' : 'Nothing.',
    };
  },
}; // prettier-ignore

/** What of a yard’s water may run on past its grates. */
const [LITTLE, MUCH] = [0.1, 0.35];
const past: Rule<DrainFacts> = {
  id: 'piped-drain.past',
  title: 'Of what comes, runs on past its grates',
  why: 'What a basin does not take is the next one’s, or the neighbour’s.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'each basin by its own run-on and what passes the one above' },
  needs: NEEDS_STORM,
  applies: hasYard,
  find: (facts) => {
    const { links, ground, work } = facts;
    const volumeOf = (outlet: string): number =>
      links.reduce((a, l) => a + (l.outlet === outlet && l.volumeM3 !== null ? l.volumeM3 : 0), 0);
    const share = ({ n, storm }: YardStorm): number => {
      const id = storeIdOf(work.id, n);
      // What a grate on a slope lets pass never came into its yard.
      const passed = volumeOf(pastOf(id));
      const comes = storm.inM3 + passed;
      return comes <= 0 ? 0 : (passed + volumeOf(`${id}#on`)) / comes;
    };
    const worst = most(stormsOf(facts), share);
    if (!worst) return null;
    const value = share(worst);
    return {
      value,
      limit: LITTLE,
      at: placeOf(facts, ground.yards[worst.n].basins[0]),
      title: say`Of what comes, runs on past its grates${whichOf('yard', worst.n + 1, ground.yards)}`,
      severity: gradeMax(value, LITTLE, MUCH),
      do: value > LITTLE ? 'Set a larger grate or a basin below it, or size what lies below for this too.' : 'Nothing.',
    };
  },
};

/** Depth over a grate that it is judged at [m]: water a shoe keeps out. */
const grates: Rule<DrainFacts> = {
  id: 'piped-drain.grate',
  title: 'Peak against what its grates take, leaves on them',
  why: 'A grate that is small or full of leaves leaves the pipe below it half empty.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { key: 'hec22', locator: 'ch. 4, the less of weir and opening; half clogged', fromMemory: true },
  needs: NEEDS_STORM,
  applies: hasYard,
  find: (facts) => {
    const { work, ground } = facts;
    const shareOf = ({ n, storm }: YardStorm): number => {
      const takes = ground.yards[n].basins.reduce((a, k) => a + grateTakes(work, work.basins[k], SHOE_M + work.dimensions.setM), 0);
      return storm.peakInM3s / Math.max(1e-9, takes);
    };
    const worst = most(stormsOf(facts), shareOf);
    if (!worst) return null;
    const value = shareOf(worst);
    const [k] = ground.yards[worst.n].basins;
    const { grateLongM, grateWideM } = work.basins[k];
    const by = Math.ceil(20 * Math.sqrt(value / ground.yards[worst.n].basins.length) * grateLongM) / 20;
    const to = Math.min(20, Math.max(grateLongM, by));
    const says = say`Make grate ${String(k + 1)} ${metres(to)} long`;
    return {
      value,
      limit: 1,
      at: placeOf(facts, k),
      severity: gradeMax(value, 1, 1.5),
      do: value > 1 ? say`${says}, or set a second one beside it, or sweep it before every rain.` : 'Nothing.',
      ...cureBy(value > 1 && to > grateLongM && grateWideM > 0, { work: work.id, set: { [`basins.${k}.grateLongM`]: to, [`basins.${k}.grateWideM`]: Math.min(3, Math.max(grateWideM, to)) }, says }),
    };
  },
}; // prettier-ignore

const pipes: Rule<DrainFacts> = {
  id: 'piped-drain.pipe',
  title: 'Peak against what its pipes take',
  why: 'A pipe that is full pushes water up through the lowest grate above it.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { key: 'hds-5', locator: 'inlet and barrel, water at the grate', fromMemory: true },
  needs: NEEDS_STORM,
  find: (facts): Finding | null => {
    const { work, ground, conduits = [] } = facts;
    const all = pipesOf(work, ground).flatMap((pipe) => {
      const one = conduits.find((c) => c.id === pipeId(work, ground, pipe.k));
      return one ? [{ pipe, share: one.peakM3s / Math.max(1e-9, one.capacityM3s), peakM3s: one.peakM3s }] : [];
    });
    const worst = most(all, (one) => one.share);
    if (!worst) return null;
    const { pipe, share: value, peakM3s } = worst;
    return {
      value,
      limit: 0.9,
      at: placeOf(facts, pipe.k),
      title: say`Peak against what pipe ${String(pipe.k + 1)} takes`,
      severity: gradeMax(value, 0.9, 1),
      do: value > 0.9 ? say`${amount(peakM3s, 'flow')} come to it: make it and all below it wider, or steeper.` : 'Nothing.',
    };
  },
};

const stuck: Rule<DrainFacts> = {
  id: 'piped-drain.grate-low',
  title: 'Its grate over the lowest ground near it',
  why: 'A grate beside the low place leaves a puddle for good: grates sit a finger under the ground, at its lowest.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: COMMON_PRACTICE,
  applies: hasYard,
  find: (facts) => {
    const { work, ground } = facts;
    const over = (n: number): number => Math.min(...ground.yards[n].basins.map((k) => grateLevel(work, ground, k))) - ground.yards[n].pool.lowM;
    const [worst] = ground.yards.map((_, n) => n).sort((a, b) => over(b) - over(a));
    const value = over(worst);
    return {
      value,
      limit: 0,
      at: ground.yards[worst].pool.lowAt,
      severity: gradeMax(value, 0, 0.05),
      do: value > 0 ? say`Move it to the lowest ground, or set it ${millimetres(value)} deeper.` : 'Nothing.',
    };
  },
}; // prettier-ignore

const speed: Rule<DrainFacts> = {
  id: 'piped-drain.exit-velocity',
  title: 'Velocity where its water leaves',
  why: 'A pipe in the open digs a hole below itself, and the hole works back under it.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'chow1959', locator: 'Table 7-6 (SCS TP-61) for cover; Isbash for stone', fromMemory: true },
  needs: NEEDS_STORM,
  applies: isInOpen,
  find: (facts) => {
    const { work, ground, conduits = [], site } = facts;
    const last = conduits.find((c) => c.id === pipeId(work, ground, work.basins.length - 1));
    const exit = exitOf(work, ground);
    const soil = site.soilAt(exit.at);
    if (!last || !soil) return null;
    const { velocityMs: value, standsMs } = exitFlow(exit, last.peakM3s, soil.cover);
    if (value === null || standsMs === null)
      return { value, limit: null, at: exit.at, severity: last.peakM3s > 0 ? 'mend' : 'weigh', do: noneCarries(soil.cover, exit.slope) };
    return {
      value,
      limit: standsMs,
      at: exit.at,
      severity: gradeMax(value, standsMs, 1.25 * standsMs),
      do: value > standsMs ? 'Lay stone there, twice as wide as the pipe and four times as long, or end it in a basin.' : 'Nothing.',
    };
  },
}; // prettier-ignore

const drowned: Rule<DrainFacts> = {
  id: 'piped-drain.outside',
  title: 'Its end over the highest water outside',
  why: 'Water outside that stands over the end comes back up the pipe into the yard.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: COMMON_PRACTICE,
  applies: ({ ground }) => ground.taker === null,
  find: ({ work, ground }) => {
    const { outsideM } = work;
    if (outsideM === undefined)
      return { value: null, limit: 0, severity: 'unknown', do: 'Ask, or look for the mark, how high water stands where it ends in a great storm.' };
    const value = work.levels.outletM - outsideM;
    const lowest = Math.min(...work.basins.map((b, k) => (isOpen(b) ? grateLevel(work, ground, k) : ground.atBasins[k])));
    return {
      value,
      limit: 0,
      severity: outsideM >= lowest ? 'mend' : gradeMin(value, -Infinity, 0),
      do: outsideM >= lowest ? 'Water outside stands over a grate: a flap on its end, and a sump with a pump for the yard.' : value < 0 ? 'Put a flap on its end, and count on less while water stands there.' : 'Nothing.',
    };
  },
}; // prettier-ignore

const mouth = saidRule<DrainFacts>(
  { id: 'piped-drain.mouth', title: 'Its end closed to animals', why: 'What nests in a pipe stops it, and nobody sees where.', source: COMMON_PRACTICE, applies: isInOpen },
  ({ work }) => (work.mouth === 'open' ? { severity: 'weigh', do: 'Put a grille or a flap on it that opens by itself and can be lifted off.' } : FINE),
); // prettier-ignore

const asked = saidRule<DrainFacts>(
  { id: 'piped-drain.asked', title: 'Whose ground or drain takes its water', why: 'Water led off a plot is somebody else’s flood, or ice on somebody else’s path: the law of most places asks first.', source: { ...COMMON_PRACTICE, locator: 'verify locally' }, applies: ({ ground }) => ground.taker === null },
  ({ work }) => (work.asked === 'asked' ? FINE : { severity: 'unknown', do: 'Ask whoever owns the ground, the street or its drain, and write down what was allowed.' }),
); // prettier-ignore

/** Share of what it should let through, whole and clean: under the first it is to weigh, under the second to mend. */
const [WELL, BADLY] = [0.8, 0.5];
const passes: Rule<DrainFacts> = {
  id: 'piped-drain.passes',
  title: 'What it lets through, as tried, against what it would whole',
  why: 'An old drain is tried before anything new is tied into it: what is under the ground is seldom what was laid.',
  unit: 'ratio',
  kind: 'number',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'a flow test of the outfall before tying in' },
  applies: ({ work }) => work.status === 'existing',
  find: ({ work, ground }) => {
    const { passesM3s } = work;
    if (passesM3s === undefined)
      return { value: null, limit: WELL, severity: 'unknown', do: 'Try it: empty a barrel into its upper basin with a watch in hand.' };
    const whole = leastTakes(work, ground);
    const value = Math.min(1, passesM3s / Math.max(1e-9, whole));
    const [[first, share]] = byLikelihood(causesOf(work.found));
    const why = isLookedAt(work) ? say` Likeliest, ${amount(100 * share, 'count')} of a hundred: ${causeName(first)}.` : ' Say what you see of it, and it is told why.';
    return { value, limit: WELL, severity: gradeMin(value, BADLY, WELL), do: value < WELL ? say`It lets through ${amount(passesM3s, 'tapFlow')} of ${amount(whole, 'tapFlow')}.${why}` : 'Nothing.' };
  },
}; // prettier-ignore

export const PIPED_DRAIN_RULES: readonly Rule<DrainFacts>[] = [
  stands,
  threshold,
  wall,
  past,
  grates,
  leaps,
  pipes,
  stuck,
  speed,
  drowned,
  mouth,
  asked,
  passes,
  ...PIPE_RULES,
  ...JOINING_RULES,
];
