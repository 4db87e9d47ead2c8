// Rules about where a pond lies: what stands near it, and what lies below it.
import type { Company, Rule, StormFacts } from '../../contract/index.ts';
import { closed, contains, nearestBetween } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { gradeMin } from '../rules.ts';
import { nearestFeature, setbackRules } from '../setbacks.ts';
import type { Basin, BasinGround, WallEarth } from '../basin/index.ts';
import type { Pond } from './model.ts';

export interface PondFacts extends StormFacts {
  readonly pond: Pond;
  readonly ground: BasinGround;
  readonly basin: Basin;
  readonly earth: WallEarth | null;
  readonly company: Company;
}

const outlineOf = ({ pond }: PondFacts): NonNullable<PondFacts['pond']['wall']> => pond.wall ?? closed(pond.pit ?? []);

const boundary: Rule<PondFacts> = {
  id: 'pond.boundary-distance',
  title: 'Distance to the property line',
  why: 'A wall needs room for its outer side, and its water must not stand on a neighbour’s land.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'property line 1.5 to 3 m: verify locally' },
  find: (facts) => {
    const { site, pond } = facts;
    if (site.outline.length < 3) return null;
    const outline = outlineOf(facts);
    const near = nearestBetween(outline, closed(site.outline));
    const isOutside = outline.some((p) => !contains(site.outline, p)) || (pond.pit ?? []).some((p) => !contains(site.outline, p));
    const value = isOutside ? 0 : near.distanceM;
    return {
      value,
      limit: 3,
      severity: gradeMin(value, 1.5, 3),
      at: near.point,
      do: value < 3 ? 'Draw it back from the boundary, or agree it in writing with your neighbour.' : 'Nothing.',
    };
  },
};

/** Kinds of things drawn that send roots into a wall. */
const ROOTED: ReadonlySet<string> = new Set(['tree', 'wood']);

const trees: Rule<PondFacts> = {
  id: 'pond.tree-distance',
  title: 'Distance from the wall to the nearest tree',
  why: 'Roots lead water into a wall, a dead root is a pipe through it, and a tree blown over takes a bite of it along.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'no trees on a wall nor within about 5 m of it; grass only' },
  find: ({ pond, site }) => {
    const near =
      pond.wall &&
      nearestFeature(
        pond.wall,
        site.features.filter((f) => ROOTED.has(f.kind)),
      );
    if (!near) return null;
    const { distanceM: value, at } = near;
    return {
      value,
      limit: 5,
      severity: gradeMin(value, 2, 5),
      at,
      do:
        value < 5
          ? say`${amount(5 - value, 'distance')} too near. Fell what is young; ask somebody who builds dams before an old tree is taken off a wall, and dig its roots out and ram the hole.`
          : 'Nothing.',
    };
  },
};

export const PLACE_RULES: readonly Rule<PondFacts>[] = [boundary, trees, ...setbackRules<PondFacts>('pond', outlineOf)];
