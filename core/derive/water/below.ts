// Who lies below a store: what stands in the way its flood would take, past all works that might catch some of it.
import { BELOW_M, BESIDE_M, awayFrom, canFail } from '../../checks/index.ts';
import type { Below, Feature, Hazard, SeenBelow, Store } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { Option } from '../../project/index.ts';
import { cellAt, traceDown } from '../../terrain/index.ts';
import { type Graph, forAll, idsOf } from '../graph/graph.ts';
import type { GroundModel } from '../world/ground-model.ts';
import type { Standing } from './standing.ts';

/** Who a drawn thing stands for; whether people sleep in a building the map does not say. */
const STANDS_FOR: Readonly<Record<string, Hazard>> = { track: 'track', road: 'building', building: 'building' };
const GRAVEST_FIRST: readonly Hazard[] = ['homes', 'building', 'track'];

/** The way of a drop from a place as far as people are looked for, and whether the map goes as far. */
function wayDown(
  { grid, flow }: GroundModel,
  from: Point,
): { readonly way: readonly { readonly at: Point; readonly alongM: number }[]; readonly isWhole: boolean } {
  if (cellAt(grid, from) < 0) return { way: [], isWhole: false };
  const most = Math.ceil((2 * BELOW_M) / grid.cellM);
  let cells = 0;
  const { path, ended } = traceDown({ grid, flow }, from, () => ++cells > most);
  let alongM = 0;
  const way = path.flatMap(([x, y], k) => {
    if (k > 0) alongM += Math.hypot(x - path[k - 1][0], y - path[k - 1][1]);
    return alongM <= BELOW_M ? [{ at: [x, y] as Point, alongM }] : [];
  });
  return { way, isWhole: ended === 'stopped' || alongM > BELOW_M };
}

/**
 * The gravest of what stands in the ways of a flood from some places, the nearest of those as grave; nobody where the map goes far
 * enough to show that. Null where nothing is drawn to tell, or a way runs off the map before anybody was met.
 */
function seenFrom(model: GroundModel, starts: readonly Point[], features: readonly Feature[]): SeenBelow | null {
  if (features.length === 0) return null;
  const ways = starts.map((from) => wayDown(model, from));
  const met = ways.flatMap(({ way }) =>
    features.flatMap((feature): SeenBelow[] => {
      const first = way.find(({ at }) => awayFrom(feature, at) <= BESIDE_M);
      if (!first) return [];
      const { id, kind, name } = feature;
      return [{ hazard: STANDS_FOR[kind], feature: id, name: name ?? `a ${kind}`, alongM: first.alongM, at: first.at }];
    }),
  );
  const order = (s: SeenBelow): number => GRAVEST_FIRST.indexOf(s.hazard);
  const [gravest] = met.sort((a, b) => order(a) - order(b) || a.alongM - b.alongM);
  if (gravest) return gravest;
  return ways.every((w) => w.isWhole) ? { hazard: 'nobody', feature: null, name: '', alongM: 0, at: null } : null;
}

/** Who lies below each store that can fail, by its id. */
export function belowOf(
  { stores, works }: Pick<Standing, 'stores' | 'works'>,
  on: { readonly model: GroundModel; readonly features: readonly Feature[]; readonly option: Option; readonly graph: Graph },
): ReadonlyMap<string, Below> {
  const { model, features, option, graph } = on;
  const people = graph.same(
    'people',
    features.filter((f) => Object.hasOwn(STANDS_FOR, f.kind)),
  );
  const failing = new Set(works.flatMap(({ bound: { work, traits } }) => (canFail(traits) ? [work.id] : [])));
  const held = stores.filter(({ work }) => failing.has(work));
  const ids = idsOf(held);
  const starts = graph.each('flood-from', { ids, columns: [held], isSettled: true }, floodFrom).all;
  const seen = graph.each('below', { ids, columns: [forAll(model), starts, forAll(people)] }, seenFrom).all;
  return graph.each('hazard', { ids, columns: [seen, ids.map((id) => option.hazards?.[id] ?? null)] }, hazardBy).by;
}

/** Water that runs through a joint stays between stores; what a failed bank lets go leaves where any way out does. */
const floodFrom = ({ outlets }: Store): Point[] =>
  outlets.flatMap((o): Point[] => (o.kind === 'joint' ? [] : [[o.dischargeAt[0], o.dischargeAt[1]]]));

const hazardBy = (seen: SeenBelow | null, said: Hazard | null): Below => ({ said, seen });
