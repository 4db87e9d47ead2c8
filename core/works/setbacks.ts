// What must keep its distance from standing water: rules a technique takes with its own outline.
import type { Feature, Rule, Site } from '../contract/index.ts';
import { type Line, type Point, closed, contains, nearestBetween } from '../geometry/index.ts';
import { amount, say } from '../units/index.ts';
import { gradeMin } from './rules.ts';

export interface Near {
  readonly distanceM: number;
  readonly at: Point;
}

/** Nearest of some features to an outline or a line; 0 where one lies in the other. Null when there are none. */
export function nearestFeature(outline: Line, features: readonly Feature[]): Near | null {
  let best: Near | null = null;
  // A line that does not come back to where it begins has nothing inside it.
  const [first, last] = [outline[0], outline[outline.length - 1]];
  const isRing = outline.length > 3 && first[0] === last[0] && first[1] === last[1];
  for (const feature of features) {
    const shape = feature.ring ? closed(feature.ring) : (feature.line ?? (feature.at ? [feature.at, feature.at] : null));
    if (!shape || shape.length < 2) continue;
    const near = nearestBetween(outline, shape);
    const isWithin = (isRing && contains(outline, shape[0])) || (feature.ring !== undefined && contains(feature.ring, outline[0]));
    const found = { distanceM: isWithin ? 0 : near.distanceM, at: near.point };
    if (!best || found.distanceM < best.distanceM) best = found;
  }
  return best;
}

export interface Setback {
  readonly id: string;
  readonly kinds: readonly string[];
  readonly title: string;
  readonly why: string;
  readonly mendM: number;
  readonly weighM: number;
  readonly locator: string;
  readonly do: string;
}

/** Distances kept from standing water (handbook 8: verify locally). */
export const SETBACKS: readonly Setback[] = [
  {
    id: 'building',
    kinds: ['building'],
    title: 'Distance to the nearest building',
    why: 'Water held beside a footing softens it, and a wet cellar is hard to undo.',
    mendM: 3,
    weighM: 5,
    locator: 'foundations 3 m (10 ft) to 5 m: verify locally',
    do: 'Move it further away; ask what local rules require.',
  },
  {
    id: 'well',
    kinds: ['well'],
    title: 'Distance to the nearest well',
    why: 'What runs into a pond runs into the well beside it.',
    mendM: 15,
    weighM: 30,
    locator: 'private well 30 m from standing or soaking water, 15 m at the least: verify locally',
    do: 'Move it away from the well, downhill of it if you can.',
  },
  {
    id: 'septic',
    kinds: ['septic'],
    title: 'Distance to the septic field',
    why: 'A field that stands in water stops working, and what it holds comes up.',
    mendM: 10,
    weighM: 15,
    locator: 'septic field 15 m from a pond: verify locally',
    do: 'Keep standing water away from the field, and never uphill of it.',
  },
];

/** The rules of a technique on what stands near it. */
export function setbackRules<F extends { readonly site: Site }>(kind: string, outlineOf: (facts: F) => Line): Rule<F>[] {
  return SETBACKS.map(({ id, kinds, title, why, mendM, weighM, locator, do: advice }) => ({
    id: `${kind}.${id}-distance`,
    title,
    why,
    unit: 'm',
    kind: 'length',
    sense: 'min',
    source: { key: 'common-practice', locator },
    find: (facts) => {
      const near = nearestFeature(
        outlineOf(facts),
        facts.site.features.filter((f) => kinds.includes(f.kind)),
      );
      if (!near) return null;
      const lacking = weighM - near.distanceM;
      return {
        value: near.distanceM,
        limit: weighM,
        at: near.at,
        severity: gradeMin(near.distanceM, mendM, weighM),
        do: lacking > 0 ? say`${amount(lacking, 'distance')} too near. ${advice}` : 'Nothing.',
      };
    },
  }));
}
