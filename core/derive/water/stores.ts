// The stores works make, and the ways water takes between them.
import type { BoundWork, Link, Outlet, PlacedWork, Site, Store } from '../../contract/index.ts';
import { type Line, middleOf } from '../../geometry/index.ts';
import { grassedRating, tallerIndex } from '../../hydraulics/index.ts';
import { type Plan, conduitStore } from '../../network/index.ts';
import { ENDS, type Option } from '../../project/index.ts';
import { type Graph, asItself, byIds, forAll, idsOf, isAmong } from '../graph/graph.ts';
import { type Conditions, outletsUnder, storeUnder } from '../scenario/conditions.ts';
import type { Interception } from '../world/interception.ts';
import { type Start, type WaysDown, waysDown } from './ways.ts';

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
  // Its own outlets are not among the guests: they are judged by the case with the store. A guest's was closed already.
  const asCased = { ...conditions, blocked: ownOnly(conditions.blocked, others) };
  return [...stores, ...(own.conduits ?? []).map(conduitStore)].map((store) => asItself(storeUnder(store, asCased)));
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
function givenLink(store: Store, outlet: Outlet, on: { readonly to: string; readonly line: Line | null }): Link {
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
  readonly met: Interception;
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
export function tracedLinks({ option, standing: { stores, works, instead }, plan, met, graph }: Traced): Ways {
  const ids = idsOf(stores);
  const next = nextAlong(stores);
  const said = option.links ?? NOTHING_SAID;
  const given = graph.each(
    'given',
    { ids, columns: [stores, ids.map((id) => next.get(id) ?? null), forAll(said), forAll(instead), forAll(ids)], isSettled: true },
    givenTo,
  ).all;
  const byId = byIds(ids, stores);
  const lines = new Map(works.map((w) => [w.bound.work.id, w.placed.host?.line]));
  const lineTo = (to: string | null): Line | null => (to === null ? null : (lines.get(byId.get(to)?.work ?? '') ?? null));
  const along = given.map((own) => (own.some(isGiven) ? own.map(lineTo) : NO_LINES));
  // Where it comes out decides its way, not its level: that is dragged. It is one thing as long as it takes the same way.
  const starts = graph.each('starts', { ids, columns: [stores, given], isSettled: true }, startsOf).all;
  const traced = waysDown('ways', { ids, starts }, { plan, met, graph });
  const links = graph.each('links', { ids, columns: [stores, given, along, traced] }, linksFrom).by;
  const led = new Set<string>();
  given.forEach((own, k) => own.forEach((to, j) => to === null || led.add(stores[k].outlets[j].id)));
  return { links, led };
}
const NOTHING_SAID: Readonly<Record<string, string>> = {};
const NO_LINES: readonly never[] = [];
const isGiven = (to: string | null): boolean => to !== null;

/** Where the ways out of a store were said to lead; null of one that runs downhill. */
function givenTo(
  ...[store, next, said, instead, ids]: [
    Store,
    string | null,
    Readonly<Record<string, string>>,
    ReadonlyMap<string, string>,
    readonly string[],
  ]
): readonly (string | null)[] {
  return store.outlets.map(({ id, to, returns, staysIn }) => {
    const word = Object.hasOwn(said, id) ? said[id] : undefined;
    const asked = word ?? returns?.to ?? to ?? (staysIn ? next : null);
    const given = asked === null ? null : (instead.get(asked) ?? asked);
    if (given !== null && (isAmong(given, ids) || ENDS.some((end) => end === given))) return given;
    // A word about a work that is gone is passed over; what went into the ground stays there.
    return returns ? 'ground' : null;
  });
}

const startsOf = ({ outlets }: Store, given: readonly (string | null)[]): (Start | null)[] =>
  outlets.map(({ id, work, role, dischargeAt }, k) => (given[k] === null ? { id, work, role, dischargeAt } : null));

function linksFrom(...[store, given, lines, traced]: [Store, readonly (string | null)[], readonly (Line | null)[], WaysDown]): Link[] {
  return store.outlets.map((outlet, k) => {
    const [to, found] = [given[k], traced[k]];
    if (to !== null) return asItself(givenLink(store, outlet, { to, line: lines[k] }));
    if (!found) throw new Error(`nobody knows where ${outlet.id} leads`);
    return asItself({ ...found, work: outlet.work, role: outlet.role });
  });
}
