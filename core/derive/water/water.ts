// The works on the land, and the water between them: stores, what each catches, and the ways out with where they lead.
import type { Below, Catchment, Link, Store } from '../../contract/index.ts';
import type { Plan } from '../../network/index.ts';
import type { Registry } from '../../works/index.ts';
import { type Graph, idsOf } from '../graph/graph.ts';
import { type Scenario, liveWorks } from '../scenario/scenario.ts';
import type { DerivedSpring } from '../types.ts';
import { type Gathered, naturalCatchments, pinCatchments, storeCatchments } from '../world/catchments.ts';
import { type Interception, interception } from '../world/interception.ts';
import { springsOf } from '../world/springs.ts';
import type { World } from '../world/world.ts';
import { belowOf } from './below.ts';
import { type IntakePlace, intakePlaces } from './intakes.ts';
import { type GroundUnder, groundUnder } from './soak.ts';
import { type Standing, standingOf } from './standing.ts';
import { type Ways, tracedLinks } from './stores.ts';

export interface Water extends Standing, Ways {
  readonly met: Interception;
  /** What each pin and each store catches. */
  readonly catchments: readonly Gathered<Catchment>[];
  /** All that would come to each store that catches water if nothing stood above it. */
  readonly natural: readonly Gathered[];
  /** Where stores take only part of what meets them. */
  readonly places: readonly IntakePlace[];
  readonly springs: readonly DerivedSpring[];
  /** The ground under each store; empty while nobody has described it. */
  readonly under: ReadonlyMap<string, GroundUnder>;
  /** Who lies below each store. */
  readonly below: ReadonlyMap<string, Below>;
}

/** All links in the order of their stores. */
export const linksOf = ({ links }: Pick<Water, 'links'>): Link[] => [...links.values()].flat();

/** Stores without pipes, which hold water only on its way. */
export const storesOnly = (stores: readonly Store[]): readonly Store[] =>
  stores.every((s) => s.soffitM === undefined) ? stores : stores.filter((s) => s.soffitM === undefined);

/** Ids of the pipes among stores. */
export const pipesAmong = (stores: readonly Store[]): ReadonlySet<string> =>
  new Set(stores.flatMap((s) => (s.soffitM === undefined ? [] : [s.id])));

/** Stores by id. */
export const storesById = (stores: readonly Store[]): ReadonlyMap<string, Store> => new Map(stores.map((s) => [s.id, s]));

export function waterOf(
  { project, option, conditions }: Scenario,
  { model, map, site }: World,
  { graph, registry }: { readonly graph: Graph; readonly registry: Registry },
): Water {
  // From here on nobody need ask what is retired.
  const { all } = graph.each('bind', { ids: idsOf(option.works), columns: [option.works] }, registry.bind);
  const current = new Set(liveWorks(option.works));
  const live = all.filter((_, k) => current.has(option.works[k]));
  const standing = standingOf(live, { site, graph, conditions, all });
  const { instead } = standing;
  const taking = standing.works.flatMap(({ bound, placed }) => {
    const { work } = bound;
    const own = placed.intakes ?? bound.intakes;
    // The same list as long as it shares no hollow: thousands of places are not written out at every edit.
    const isLed = instead.size > 0 && own.some((intake) => instead.has(intake.store));
    const led = isLed ? own.map((intake) => ({ ...intake, store: instead.get(intake.store) ?? intake.store })) : own;
    return own.length === 0 ? [] : [{ id: work.id, led }];
  });
  const intakes = graph.each('intakes', { ids: idsOf(taking), columns: [taking.map((t) => t.led)] }, (led) => led).all;
  const met = interception(model, intakes, graph);
  const catchments = [...pinCatchments(model, project, graph), ...storeCatchments(model, met, graph)];
  const natural = naturalCatchments(model, intakes, graph);
  const plan = graph.step(
    'plan',
    [model, met, graph.same('outline', project.site.outline)],
    ({ grid, flow }, { owner, stores }, outline): Plan => ({ grid, flow, owner, stores, outline }),
  );
  const workOf = new Map(standing.stores.map((s) => [s.id, s.work]));
  return {
    ...standing,
    places: intakePlaces(intakes, { met, plan, graph, workOf }),
    met,
    catchments,
    natural,
    ...tracedLinks({ option, standing, plan, met, graph }),
    springs: springsOf(project.features, plan, graph),
    under: map ? groundUnder(standing, map, graph) : new Map(),
    below: belowOf(standing, { model, features: project.features, option, graph }),
  };
}
