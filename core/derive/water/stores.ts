// The stores works make, and the ways water takes between them.
import type { BoundWork, Link, Outlet, PlacedWork, Site, Store } from '../../contract/index.ts';
import { type Line, middleOf } from '../../geometry/index.ts';
import { grassedRating, tallerIndex } from '../../hydraulics/index.ts';
import { type Plan, conduitStore, linkOf } from '../../network/index.ts';
import { ENDS, type Option } from '../../project/index.ts';
import { type Graph, asItself, forAll, idsOf } from '../graph/graph.ts';
import { type Conditions, outletsUnder, storeUnder } from '../scenario/conditions.ts';

/** A work on its ground. */
export interface Placed {
  readonly bound: BoundWork;
  readonly placed: PlacedWork;
}

/** One work with its ground measured, on the host it hangs on and with the works it refers to, which stand already. */
export function placeOne(
  bound: BoundWork,
  on: { readonly host: Placed | null; readonly near: readonly Placed[]; readonly site: Site; readonly graph: Graph },
): Placed {
  const { host, near, site, graph } = on;
  const { id } = bound.work;
  const onto = host?.placed.host ?? null;
  // Of its host only the ground is read here, not its levels: a dragged crest moves no guest off its place.
  const { grid, surveyed } = site;
  const reads = [grid, bound.groundKey, host?.bound.groundKey ?? null, near.map((n) => n.placed)] as const;
  const { ground } = graph.step(`measure:${id}`, reads, () => {
    const placed = new Map(near.map((p) => [p.bound.work.id, p.placed]));
    return { ground: bound.measure({ grid, placed, ...(surveyed ? { surveyed } : {}) }, onto) };
  });
  return asItself({ bound, placed: asItself(bound.place(ground, onto)) });
}

/** The stores a work makes with the outlets of its guests, as a case has them; none where it makes none. `grass` is of the guests' outlets. */
export function storesFor(
  one: Placed,
  guests: readonly Placed[],
  { conditions, grass }: { readonly conditions: Conditions; readonly grass: Grass },
): readonly Store[] {
  const { placed: own } = one;
  const others = guests.map((g) => g.placed);
  const made = others.flatMap((g) => g.outlets).map((o, k) => heldUp(o, grass[k]));
  const stores = own.stores(outletsUnder(made, conditions));
  return [...stores, ...(own.conduits ?? []).map(conduitStore)].map((store) =>
    // Its own outlets are not among the guests: they are judged by the case with the store. A guest's was closed already.
    asItself(storeUnder(store, { ...conditions, blocked: ownOnly(conditions.blocked, others) })),
  );
}

/** What grows below each outlet of the guests of a store. */
export type Grass = readonly (number | null | undefined)[];

export const grassOf = (guests: readonly Placed[], site: Site): Grass =>
  guests.flatMap((g) => g.placed.outlets.map((o) => grassBelow(o, site)));

/** Curve index of what grows where an outlet's sheet runs on and is felt, at its tallest; null where nothing grows, nothing for others. */
function grassBelow({ exit }: Outlet, site: Site): number | null | undefined {
  const cover = exit?.isFelt === true && exit.slope !== null ? site.soilAt(exit.at)?.cover : undefined;
  return cover && tallerIndex(cover.strength.curveIndex);
}

/** An outlet whose sheet is held up by what grows below it. */
function heldUp(outlet: Outlet, curveIndex: number | null | undefined): Outlet {
  const { exit, levelM: crestM, flowAt } = outlet;
  if (curveIndex === undefined || !exit || exit.slope === null) return outlet;
  const perMetre = grassedRating({ slope: exit.slope, curveIndex });
  return { ...outlet, flowAt: (levelM, beyondM) => Math.min(flowAt(levelM, beyondM), exit.widthM * perMetre.flowAt(levelM - crestM)) };
}

/** Shares of works that are not guests. */
function ownOnly(blocked: Conditions['blocked'], guests: readonly PlacedWork[]): Map<string, number> {
  const theirs = new Set(guests.flatMap((g) => g.outlets.map((o) => o.work)));
  return new Map([...blocked].filter(([id]) => !theirs.has(id)));
}

/** A way laid down by the user or by a work's making: straight to the other store, or none. */
function givenLink(store: Store, outlet: Outlet, on: Given): Link {
  const { to, line } = on;
  const [x, y] = outlet.dischargeAt;
  const start = [x, y, outlet.levelM] as const;
  const end = line && line.length > 0 ? middleOf(line) : null;
  const path = end && outlet.kind !== 'joint' ? [start, [end[0], end[1], outlet.levelM] as const] : [start];
  if (outlet.returns?.to === to) {
    const { share, lagS } = outlet.returns;
    return { from: store.id, outlet: outlet.id, work: outlet.work, role: outlet.role, to, path, lengthM: 0, lagS, share };
  }
  return { from: store.id, outlet: outlet.id, work: outlet.work, role: outlet.role, to, path, lengthM: 0, lagS: 0 };
}

interface Traced {
  readonly option: Option;
  readonly standing: {
    readonly stores: readonly Store[];
    readonly works: readonly Placed[];
    readonly instead: ReadonlyMap<string, string>;
  };
  readonly plan: Plan;
  readonly graph: Graph;
}

/** Ways out by store, and those among them that do not run over the ground. */
export interface Ways {
  readonly links: ReadonlyMap<string, readonly Link[]>;
  readonly led: ReadonlySet<string>;
}

/** The store below each along the channel they stand in: what was measured says so, not the ground of the map. */
function nextAlong(stores: readonly Store[]): ReadonlyMap<string, string> {
  const by = new Map<string, { readonly id: string; readonly atM: number }[]>();
  for (const { id, along } of stores) if (along) by.set(along.channel, [...(by.get(along.channel) ?? []), { id, atM: along.atM }]);
  return new Map(
    [...by.values()].flatMap((list) => {
      const down = list.sort((a, b) => a.atM - b.atM);
      return down.slice(1).map((to, k) => [down[k].id, to.id] as const);
    }),
  );
}

/** Where every outlet leads: by the user's word, by its making, else downhill. */
export function tracedLinks({ option, standing: { stores, works, instead }, plan, graph }: Traced): Ways {
  const ids = new Set(stores.map((s) => s.id));
  const lines = new Map(works.map((w) => [w.bound.work.id, w.placed.host?.line]));
  const said = new Map(Object.entries(option.links ?? {}));
  const workOf = new Map(stores.map((s) => [s.id, s.work]));
  const next = nextAlong(stores);
  const givenTo = ({ id, to, returns, staysIn }: Outlet, store: string): string | undefined => {
    const asked = said.get(id) ?? returns?.to ?? to ?? (staysIn ? next.get(store) : undefined);
    const given = asked === undefined ? asked : (instead.get(asked) ?? asked);
    if (given !== undefined && (ids.has(given) || ENDS.some((end) => end === given))) return given;
    // A word about a work that is gone is passed over; what went into the ground stays there.
    return returns ? 'ground' : undefined;
  };
  const led = new Set<string>();
  const ways = stores.flatMap((store): Way[] =>
    store.outlets.map((outlet) => {
      const to = givenTo(outlet, store.id);
      if (to !== undefined) led.add(outlet.id);
      return { id: outlet.id, store: store.id, outlet, given: to === undefined ? null : { to, line: lines.get(workOf.get(to) ?? '') } };
    }),
  );
  const downhill = ways.filter((w) => w.given === null);
  // Where it comes out decides its way, not its level: that is dragged. It is one thing as long as it takes the same way.
  const traced = graph.each(
    'way',
    {
      ids: idsOf(downhill),
      columns: [
        forAll(plan),
        downhill.map((w) => w.outlet.dischargeAt),
        downhill.map((w) => w.store),
        downhill.map((w) => w.id),
        downhill.map((w) => w.outlet.work),
        downhill.map((w) => w.outlet.role),
      ],
      isSettled: true,
    },
    (...[on, dischargeAt, store, id, work, role]: WayReads) => linkOf(on, store, { id, work, role, dischargeAt }),
  ).by;
  let first = 0;
  const own = stores.map((store) => ways.slice(first, (first += store.outlets.length)));
  const links = graph.each(
    'links',
    {
      ids: idsOf(stores),
      columns: [stores, own.map((list) => list.map((w) => w.given)), own.map((list) => list.map((w) => traced.get(w.id) ?? null))],
    },
    linksFrom,
  ).by;
  return { links, led };
}

/** A way out of a store, and where it was said to lead. */
interface Way {
  readonly id: string;
  readonly store: string;
  readonly outlet: Outlet;
  readonly given: Given | null;
}

interface Given {
  readonly to: string;
  readonly line: Line | undefined;
}

type WayReads = [plan: Plan, dischargeAt: Outlet['dischargeAt'], store: string, id: string, work: string, role: Outlet['role']];

function linksFrom(store: Store, given: readonly (Given | null)[], traced: readonly (Link | null)[]): Link[] {
  return store.outlets.map((outlet, k) => {
    const [way, found] = [given[k], traced[k]];
    if (way) return asItself(givenLink(store, outlet, way));
    if (!found) throw new Error(`nobody knows where ${outlet.id} leads`);
    return asItself({ ...found, work: outlet.work, role: outlet.role });
  });
}
