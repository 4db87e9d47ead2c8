// Rules across works: in what order they spill, whether each has a way out, who lies below, and what leaves the property.
import {
  NEEDS_STORM,
  type Check,
  type Feature,
  type LinkFlow,
  type Missing,
  type Outlet,
  type Rule,
  type Store,
  type StoreStorm,
  type Traits,
  type WorkBase,
} from '../contract/index.ts';
import { volumeAt } from '../network/index.ts';
import { type Amount, amount, say } from '../units/index.ts';
import { lowestCrest, setLevel } from './crest.ts';
import { COMMON_PRACTICE, cureBy, downToMm, gradeMax, gradeMin, runRules, upToMm } from '../works/rules.ts';
import { BELOW_M, firstBeside, nearestOf } from './near.ts';

export interface StoreFacts {
  readonly missing: readonly Missing[];
  readonly store: Store;
  readonly work: { readonly status: WorkBase['status']; readonly traits: Traits };
  /** All works by id, for what their state is and what they are to others. */
  readonly works: ReadonlyMap<string, { readonly status: WorkBase['status']; readonly traits: Traits }>;
  readonly stores: ReadonlyMap<string, Store>;
  readonly storm: StoreStorm | null;
  readonly designPeakM3s: number | null;
  readonly links: readonly LinkFlow[];
  readonly features: readonly Feature[];
  /** Hours after its peak until it stands at its lowest way out again; null while it never rose above it. */
  readonly readyH: number | null;
}

const step = (m: number): Amount => amount(m, 'difference');
/** What seeps through a dam, or has found its way round one, is no way out that was made: it closes in time, or is mended. */
const NOT_MADE: ReadonlySet<Outlet['role']> = new Set(['through', 'round']);
const isChosen = (o: Outlet): boolean => (o.kind === 'sill' || o.kind === 'rated') && !NOT_MADE.has(o.role);

/** Ways out that were made, lowest first; equal levels by id. */
export const chosenOutlets = ({ outlets }: Pick<Store, 'outlets'>): Outlet[] =>
  outlets.filter(isChosen).sort((a, b) => a.levelM - b.levelM || (a.id < b.id ? -1 : 1));

/** Levelling tolerance of a finished sill [m] and the least step between two: common practice. */
const [TOLERANCE_M, LEAST_STEP_M] = [0.025, 0.05];

/** Water above an outlet when it passes a flow alone [m], up to two metres. */
export function headAlone({ levelM, flowAt }: Pick<Outlet, 'levelM' | 'flowAt'>, flowM3s: number): number {
  let [lo, hi] = [0, 2];
  for (let k = 0; k < 50; k++) {
    const mid = (lo + hi) / 2;
    if (flowAt(levelM + mid) < flowM3s) lo = mid;
    else hi = mid;
  }
  return (lo + hi) / 2;
}

/** Step a second way out should stand above the first: its head in the design storm, 50 mm, twice the tolerance. */
export const stepAbove = (lower: Pick<Outlet, 'levelM' | 'flowAt'>, peakM3s: number): number =>
  Math.max(LEAST_STEP_M, 2 * TOLERANCE_M, headAlone(lower, peakM3s));

/** Pairs of ways out, one above the other, whose step is judged here. */
function stepsUp(store: Store): (readonly [under: Outlet, over: Outlet])[] {
  const ways = chosenOutlets(store);
  // Two level sills are judged by their own rule; a pipe under a sill runs first by intent, whatever its head.
  return ways
    .slice(1)
    .map((over, k) => [ways[k], over] as const)
    .filter(([under, over]) => !(under.kind === 'sill' && over.kind === 'sill') && under.exit?.shape !== 'pipe');
}

const spillOrder: Rule<StoreFacts> = {
  id: 'network.spill-order',
  isOfLevels: true,
  title: 'Step up from one way out to the next',
  why: 'The second way out must stay dry while the first does its work: grass that is seldom wet is what saves the wall.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: {
    key: 'common-practice',
    locator: 'at least the head on the first in its design storm, 50 mm, and twice the levelling tolerance',
  },
  needs: NEEDS_STORM,
  applies: ({ store }) => stepsUp(store).length > 0,
  find: ({ store, storm }) => {
    if (!storm) return null;
    let worst: { value: number; limit: number; over: Outlet; under: Outlet } | null = null;
    for (const [under, over] of stepsUp(store)) {
      const found = { value: over.levelM - under.levelM, limit: stepAbove(under, storm.peakOutM3s), over, under };
      if (!worst || found.value - found.limit < worst.value - worst.limit) worst = found;
    }
    if (!worst) return null;
    const { value, limit, over, under } = worst;
    return {
      value,
      limit,
      severity: gradeMin(value, LEAST_STEP_M, limit),
      do: value < limit ? say`Set ${over.name} ${step(limit - value)} higher than it is, or ${under.name} as much lower.` : 'Nothing.',
      ...cureBy(value < limit && over.role === 'way', {
        work: over.work,
        set: { [over.levelBy ?? 'levels.sillM']: upToMm(over.levelM + limit - value) },
        says: say`Set ${over.name} ${step(limit - value)} higher`,
      }),
    };
  },
};

const READY: ReadonlySet<string> = new Set(['built', 'existing']);

const wayOutBuilt: Rule<StoreFacts> = {
  id: 'network.way-out-built',
  title: 'A way out before the crew leaves',
  why: 'A wall that can hold water tonight must have somewhere for it to go tonight, whatever the forecast says.',
  unit: '',
  kind: 'count',
  sense: 'min',
  source: { key: 'common-practice', locator: 'the way out is built first; rough tonight, finished tomorrow' },
  find: ({ store, stores, work, works }) => {
    if (!READY.has(work.status)) return null;
    // A hollow of the ground holds water whether anybody builds or not.
    if (store.hollow) return null;
    // Over a grate with its pipe below water has its way out.
    if (store.outlets.some((o) => o.to !== undefined && stores.get(o.to)?.soffitM !== undefined)) return null;
    const value = chosenOutlets(store).filter((o) => READY.has(works.get(o.work)?.status ?? '')).length;
    return {
      value,
      limit: 1,
      severity: value < 1 ? 'mend' : 'fine',
      do: value < 1 ? 'Cut a rough level way out on natural ground today; finish it tomorrow.' : 'Nothing.',
    };
  },
};

const bankBeforeWall: Rule<StoreFacts> = {
  id: 'network.bank-before-wall',
  isOfLevels: true,
  title: 'Bank of a joined swale under the crest of the wall',
  why: 'The order of failure is designed: sills first, then the swale’s fuse on natural ground, the wall last of all.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice', locator: 'sill, second sill, swale bank, wall' },
  find: ({ store, stores }) => {
    // A hollow of the ground has no bank, and what lies under its grates no wall.
    if (store.hollow) return null;
    const joint = store.outlets.find((o) => o.kind === 'joint' && o.drownsM !== undefined && o.to !== undefined);
    const wall = joint?.to === undefined ? undefined : stores.get(joint.to);
    // A pipe under a grate is no wall.
    if (!wall || wall.soffitM !== undefined) return null;
    const value = wall.crestM - store.crestM;
    return {
      value,
      limit: 0.05,
      severity: value <= 0 ? 'mend' : gradeMin(value, 0.02, 0.05),
      do: value < 0.05 ? say`Lower this bank’s fuse by ${step(0.05 - value)}, or raise the crest of ${wall.name} as much.` : 'Nothing.',
      ...setLevel(value < 0.05 ? lowestCrest(store) : null, {
        toM: downToMm(wall.crestM - 0.05),
        says: say`Lower it by ${step(0.05 - value)}`,
      }),
    };
  },
};

const readyAgain: Rule<StoreFacts> = {
  id: 'network.ready-again',
  title: 'Back down at its way out before the next storm',
  why: 'Storms come in strings. What still stands above the way out takes the freeboard of the next one.',
  unit: 'h',
  kind: 'hours',
  sense: 'max',
  source: { key: 'common-practice', locator: 'surcharge gone within a day' },
  needs: NEEDS_STORM,
  applies: ({ store }) => store.outlets.some((o) => o.kind !== 'bank'),
  find: ({ readyH: value }) => {
    if (value === null) return null;
    return {
      value,
      limit: 24,
      severity: gradeMax(value, 24, 72),
      do: value > 24 ? 'Widen its lowest way out, or give it a low pipe that runs after the storm.' : 'Nothing.',
    };
  },
};

/** Water held above ground that can hurt someone [m3]: common practice. */
const HARMFUL_M3 = 50;

const houseBelow: Rule<StoreFacts> = {
  id: 'network.house-below',
  title: 'A building below the wall',
  why: 'If the wall goes, all its water comes down at once, wider and faster than any spillway’s.',
  unit: 'm',
  kind: 'distance',
  sense: 'min',
  source: { key: 'common-practice', locator: 'a house downstream: an engineer, always' },
  find: ({ store, work, links, features }) => {
    if (work.traits.retains !== 'wall' || store.heldM3 < HARMFUL_M3) return null;
    const rings = features.flatMap((f) => (f.kind === 'building' && f.ring ? [f.ring] : []));
    const first = nearestOf(links.flatMap((link) => rings.flatMap((ring) => firstBeside(link.path, ring) ?? [])));
    if (rings.length === 0 || links.length === 0) return null;
    return {
      value: first?.distanceM ?? BELOW_M,
      limit: BELOW_M,
      at: first?.at ?? null,
      severity: first ? 'mend' : 'fine',
      do: first
        ? 'Have a licensed engineer look at it before it holds water; ask who must be told.'
        : 'Nothing within the map: look beyond it.',
    };
  },
};

const wallBelow: Rule<StoreFacts> = {
  id: 'network.wall-below',
  title: 'Another wall below this one',
  why: 'A wall that fails takes those below it: its flood is more than any of their spillways was made for.',
  unit: 'm³',
  kind: 'volume',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ store, work, links, stores, works }) => {
    if (work.traits.retains !== 'wall') return null;
    const workOf = (to: string): string => stores.get(to)?.work ?? to;
    const below = links.map((l) => l.to).find((to) => workOf(to) !== store.work && works.get(workOf(to))?.traits.retains === 'wall');
    const lower = below === undefined ? undefined : stores.get(below);
    if (!lower || lower.floorM >= store.floorM) return null;
    const value = store.heldM3;
    const limit = Math.max(0, room(lower));
    return {
      value,
      limit,
      severity: value > limit ? 'weigh' : 'fine',
      do:
        value > limit
          ? say`${lower.name} has room for ${amount(limit, 'volume')} between its way out and its crest. Build this one so that it goes last.`
          : 'Nothing.',
    };
  },
};

/** Fall that is lost in a pipe of some length [m]: common practice. */
const LOST_M = 0.1;

const ledUphill: Rule<StoreFacts> = {
  id: 'network.led-uphill',
  isOfLevels: true,
  title: 'Fall to where its water is led',
  why: 'Water that is led by a word still runs by its fall: into a store that stands higher it runs back.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'its way out over that of the store it comes to, and 0.1 m for the pipe' },
  find: ({ store, links, stores }) => {
    const falls = links.flatMap(({ outlet, to, lengthM }): number[] => {
      const [from, below] = [store.outlets.find((o) => o.id === outlet), stores.get(to)];
      // What runs over the ground has found its way there; what is lifted has a pump.
      const isLed = from && below && lengthM === 0 && to !== store.id && from.kind !== 'joint' && from.role !== 'lift' && !from.returns;
      return isLed ? [from.levelM - below.wayOutM] : [];
    });
    if (falls.length === 0) return null;
    const value = Math.min(...falls);
    return {
      value,
      limit: LOST_M,
      severity: gradeMin(value, 0, LOST_M),
      do:
        value < 0
          ? say`It would have to rise ${step(-value)}: set the lower store deeper, its overflow lower, or lead it elsewhere.`
          : value < LOST_M
            ? 'Keep the pipe short and wide: there is hardly any fall for it.'
            : 'Nothing.',
    };
  },
};

/** Volume between a store's lowest way out and its crest [m3]. */
const room = ({ stage, wayOutM, crestM }: Store): number => volumeAt(stage, crestM) - volumeAt(stage, wayOutM);

export const NETWORK_RULES: readonly Rule<StoreFacts>[] = [
  spillOrder,
  wayOutBuilt,
  bankBeforeWall,
  readyAgain,
  houseBelow,
  wallBelow,
  ledUphill,
];

/** Checks of one store among all others. */
export const checkStore = (facts: StoreFacts): Check[] => runRules(NETWORK_RULES, facts, facts.store.work);

export interface ExitFacts {
  readonly id: string;
  readonly at: readonly [number, number];
  readonly withoutM3s: number;
  readonly withM3s: number;
}

const exitPeak: Rule<ExitFacts> = {
  id: 'network.exit-peak',
  title: 'Peak where water leaves, against before',
  why: 'What leaves faster than it did is damage done to whoever is below, and your answer to them.',
  unit: 'm³/s',
  kind: 'flow',
  sense: 'max',
  source: { key: 'common-practice', locator: 'no rise of peak at the property line' },
  find: ({ at, withoutM3s: limit, withM3s: value }) => ({
    value,
    limit,
    at,
    severity: gradeMax(value, 1.01 * limit + 1e-4, 1.1 * limit + 1e-3),
    ...(value > 1.1 * limit + 1e-3 ? { title: say`${amount(value, 'flow')} leaves where ${amount(limit, 'flow')} did` } : {}),
    do:
      value > 1.01 * limit + 1e-4
        ? say`${amount(value - limit, 'flow')} more than with nothing built: hold more above it, or let it out more slowly.`
        : 'Nothing.',
  }),
};

export const EXIT_RULES: readonly Rule<ExitFacts>[] = [exitPeak];

export const checkExit = (facts: ExitFacts): Check[] => runRules(EXIT_RULES, facts, facts.id);
