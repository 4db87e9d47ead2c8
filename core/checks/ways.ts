import { NEEDS_STORM, type Check, type Feature, type LinkFlow, type Missing, type Rule } from '../contract/index.ts';
import { gradeMin, runRules } from '../works/rules.ts';
import { type OnWay, nearestOf, nearestOnWay } from './near.ts';

export interface WayFacts {
  readonly missing: readonly Missing[];
  readonly link: LinkFlow;
  readonly name: string;
  readonly features: readonly Feature[];
  /** Peak the same catchment sheds without the work [m3/s]; null when it is not known. */
  readonly peakWithoutM3s: number | null;
}

const BUILDING_CLEAR_M = 5;

const spillsOntoNeighbour: Rule<WayFacts> = {
  id: 'way.neighbour',
  title: 'Water leaves onto a neighbour',
  why: 'You answer for water you gather and let go over the line, even where it always ran in some form.',
  unit: 'm³/s',
  kind: 'flow',
  sense: 'max',
  source: { key: 'common-practice', locator: 'send it to the original watercourse, spread it, and agree it' },
  needs: NEEDS_STORM,
  applies: ({ link }) => link.to === 'property-edge',
  find: ({ link, peakWithoutM3s }) => {
    const end = link.path[link.path.length - 1];
    const { peakM3s: value } = link;
    const limit = peakWithoutM3s;
    if (value === null) return null;
    return {
      value,
      limit,
      at: end ? [end[0], end[1]] : null,
      severity: value <= 0 ? 'fine' : 'weigh',
      do:
        value <= 0
          ? 'Nothing in this storm; in a greater one it leaves here.'
          : limit === null
            ? 'What ran here before is not known: hold it against what the same ground shed before.'
            : value <= limit
              ? 'Less than before, but now over one sill: check that a watercourse takes it, and agree it in writing.'
              : 'More than before: hold more, or lead it to the watercourse, and agree it in writing.',
    };
  },
};

/** Ways that begin at a wall by their nature: what leads there says itself how far they must be led. */
const AT_A_WALL: ReadonlySet<string> = new Set(['down', 'eaves', 'over']);

/** Where the way of a link comes nearest to any feature of some kinds; null where there are none. */
const nearestAmong = ({ link, features }: WayFacts, isAmong: (feature: Feature) => boolean): OnWay | null =>
  nearestOf(features.filter(isAmong).flatMap((f) => nearestOnWay(link.path, f) ?? []));

const buildingInTheWay: Rule<WayFacts> = {
  id: 'way.building',
  title: 'A building in the way of the overflow',
  why: 'Overflow comes on the worst night of the year, and it finds the door.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'follow the water all the way to the outlet' },
  applies: ({ link }) => !AT_A_WALL.has(link.role),
  find: (facts) => {
    const near = nearestAmong(facts, (f) => f.kind === 'building' && f.ring !== undefined);
    if (!near) return null;
    const { distanceM: value, at } = near;
    return {
      value,
      limit: BUILDING_CLEAR_M,
      at,
      severity: value < 2 ? 'mend' : value < BUILDING_CLEAR_M ? 'weigh' : 'fine',
      do:
        value < BUILDING_CLEAR_M
          ? 'Move where it lets go so that its water passes clear of the building, or guide it with a bank.'
          : 'Nothing.',
    };
  },
};

const beyondTheMap: Rule<WayFacts> = {
  id: 'way.terrain-edge',
  title: 'Overflow runs off the terrain',
  why: 'What happens beyond the map is not known here: who lives there, and what the ground takes.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'common-practice' },
  find: ({ link }) => {
    if (link.to !== 'terrain-edge') return null;
    const end = link.path[link.path.length - 1];
    return {
      value: 1,
      limit: 0,
      at: end ? [end[0], end[1]] : null,
      severity: 'weigh',
      do: 'Draw the property outline, and bring in terrain as far as the next watercourse.',
    };
  },
};

interface Receptor {
  readonly id: string;
  readonly kinds: readonly string[];
  readonly title: string;
  readonly why: string;
  readonly mendM: number;
  readonly weighM: number;
  readonly do: string;
}

/** What overflow must not reach (handbook 8: verify locally), beside buildings. */
const RECEPTORS: readonly Receptor[] = [
  {
    id: 'well',
    kinds: ['well'],
    title: 'A well in the way of the overflow',
    why: 'Flood water over a well head is in the drinking water the same night.',
    mendM: 5,
    weighM: 15,
    do: 'Turn the water with a bank well above it, and raise and seal the well head.',
  },
  {
    id: 'septic',
    kinds: ['septic'],
    title: 'A septic field in the way of the overflow',
    why: 'A flooded field backs up into the house and comes up on the grass.',
    mendM: 5,
    weighM: 15,
    do: 'Move the sill along, or turn the water above the field.',
  },
  {
    id: 'road',
    kinds: ['road', 'track'],
    title: 'The overflow crosses a road or track',
    why: 'A thin sheet over a drive is ice in winter, slips under wheels and cuts its lower edge.',
    mendM: -1,
    weighM: 2,
    do: 'Lead it under by a pipe or over a hard dip, and say who keeps it clear.',
  },
  {
    id: 'pool',
    kinds: ['pool'],
    title: 'A pool in the way of the overflow',
    why: 'One storm of muddy water costs a pool its season.',
    mendM: 1,
    weighM: 5,
    do: 'Turn the water above it with a low bank.',
  },
];

const receptorRule = ({ id, kinds, title, why, mendM, weighM, do: advice }: Receptor): Rule<WayFacts> => ({
  id: `way.${id}`,
  title,
  why,
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'follow the water all the way to the outlet' },
  applies: ({ link }) => !AT_A_WALL.has(link.role),
  find: (facts) => {
    const near = nearestAmong(facts, (f) => kinds.includes(f.kind));
    if (!near) return null;
    const { distanceM: value, at } = near;
    return { value, limit: weighM, at, severity: gradeMin(value, mendM, weighM), do: value < weighM ? advice : 'Nothing.' };
  },
});

export const WAY_RULES: readonly Rule<WayFacts>[] = [spillsOntoNeighbour, buildingInTheWay, beyondTheMap, ...RECEPTORS.map(receptorRule)];

/** Checks on one overflow, filed under the work it leaves. What seeps through a dam goes where its notch lets go, and is judged there. */
export function checkWay(facts: WayFacts): Check[] {
  return facts.link.role === 'through' ? [] : runRules(WAY_RULES, facts, facts.link.work);
}
