// Rules about where a swale lies: what stands near it.
import type { Company, Rule, StormFacts } from '../../contract/index.ts';
import { closed, contains, crossingsAlong, nearestBetween, pointAlong } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { gradeMin } from '../rules.ts';
import { setbackRules } from '../setbacks.ts';
import type { LipGround } from '../lip.ts';
import type { Swale } from './model.ts';

export interface SwaleFacts extends StormFacts {
  readonly swale: Swale;
  readonly ground: LipGround;
  readonly company: Company;
}

const BUILDING_SETBACK_M = 5;
const BUILDING_LEAST_M = 3;
const BOUNDARY_SETBACK_M = 3;

const buildings: Rule<SwaleFacts> = {
  id: 'swale.building-distance',
  title: 'Distance to the nearest building',
  why: 'Water that soaks in beside a footing softens it, and a wet cellar is hard to undo.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'foundations 3 m (10 ft) to 5 m from soaking water: verify locally' },
  find: ({ swale, site }) => {
    const rings = site.features.flatMap((f) => (f.kind === 'building' && f.ring ? [f.ring] : []));
    if (rings.length === 0) return null;
    let value = Infinity;
    let at = swale.line[0];
    for (const ring of rings) {
      const near = nearestBetween(swale.line, closed(ring));
      if (near.distanceM < value) [value, at] = [near.distanceM, near.point];
      if (contains(ring, swale.line[0])) [value, at] = [0, swale.line[0]];
    }
    return {
      value,
      limit: BUILDING_SETBACK_M,
      at,
      severity: gradeMin(value, BUILDING_LEAST_M, BUILDING_SETBACK_M),
      do:
        value < BUILDING_SETBACK_M
          ? say`Move it ${amount(BUILDING_SETBACK_M - value, 'distance')} further away, or end it sooner; ask what local rules require.`
          : 'Nothing.',
    };
  },
};

const boundary: Rule<SwaleFacts> = {
  id: 'swale.boundary-distance',
  title: 'Distance to the property line',
  why: 'A bank needs room for its outer side and for a machine, and what soaks here surfaces somewhere.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'common-practice', locator: 'property line 1.5 to 3 m: verify locally' },
  find: ({ swale, site }) => {
    if (site.outline.length < 3) return null;
    const near = nearestBetween(swale.line, closed(site.outline));
    const isOutside = !contains(site.outline, swale.line[0]);
    const value = isOutside ? 0 : near.distanceM;
    return {
      value,
      limit: BOUNDARY_SETBACK_M,
      severity: gradeMin(value, 1.5, BOUNDARY_SETBACK_M),
      at: isOutside ? swale.line[0] : near.point,
      do: value < BOUNDARY_SETBACK_M ? 'Draw it back from the boundary, or agree it in writing with your neighbour.' : 'Nothing.',
    };
  },
};

const trackCrossing: Rule<SwaleFacts> = {
  id: 'swale.track-crossing',
  title: 'A track crosses the bank',
  why: 'Wheels wear a bank down. The rut becomes the lowest place and so the spillway.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'common-practice', locator: 'any crossing is another way out until the crest is carried through' },
  find: ({ swale, site }) => {
    const places = site.features.flatMap((f) => (f.kind === 'track' && f.line ? crossingsAlong(swale.line, f.line) : []));
    if (places.length === 0) return null;
    return {
      value: places.length,
      limit: 0,
      severity: 'weigh',
      at: pointAlong(swale.line, places[0]).point,
      title: say`A track crosses the bank at ${amount(places[0], 'distance')}`,
      do: 'Carry the crest through as a hard hump, or stop the swale short of the track; survey it after the first season.',
    };
  },
};

/** Wells and septic fields; buildings have a rule of their own, by what soaks beside them. */
const receptors = setbackRules<SwaleFacts>('swale', ({ swale }) => swale.line).filter((r) => r.id !== 'swale.building-distance');

export const PLACE_RULES: readonly Rule<SwaleFacts>[] = [buildings, boundary, trackCrossing, ...receptors];
