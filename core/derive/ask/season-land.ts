// The stores of a project as they are followed day by day: what comes to each, what it loses, where it spills.
import type { Link, Outlet, Store } from '../../contract/index.ts';
import { volumeAt } from '../../network/index.ts';
import { type Project, optionOf } from '../../project/index.ts';
import {
  type DayGround,
  type DayLift,
  type DayStore,
  type DayWay,
  type Days,
  growsIn,
  roofDays,
  shedDays,
  wetnessDays,
} from '../../season/index.ts';
import { nearestExit } from '../../terrain/index.ts';
import { asDesigned } from '../scenario/scenario.ts';
import { type Laid, type RoomContext, laidOut } from '../set/laid.ts';
import { type Water, pipesAmong } from '../water/water.ts';
import { type ExitGround, type Gathered, exitGrounds, insideOf } from '../world/catchments.ts';
import { baseFlows } from '../world/springs.ts';
import { type SurfaceMap, sharesOf } from '../world/surfaces.ts';

/** What is not known that a store's days hang on. */
export type Lacks = 'ground' | 'evaporation';

export interface SeasonLand {
  readonly laid: Laid;
  /** In the order of `places`: stores, and before some the place where their water is parted. */
  readonly stores: readonly DayStore[];
  readonly lacks: ReadonlyMap<string, readonly Lacks[]>;
  readonly exits: readonly ExitGround[];
  /** What leaves at each exit over the ground, with the works and with nothing built [m3 on each day]. */
  readonly openM3: readonly Float64Array[];
  readonly wholeM3: readonly Float64Array[];
  /** No terrain is known: only what hangs on none is there. */
  readonly isApart: boolean;
}

/** Cells of that ground along a side, at the most. */
const MOST_CELLS = 400;

/** Level ground under what hangs on none, so that it can be placed at all: only volumes are read of it. */
function apart(project: Project, { registry }: RoomContext): Project | null {
  const option = optionOf(project);
  const works = option.works.filter((w) => registry.bind(w).traits.standsAlone === true);
  const points = works.flatMap((w) => registry.bind(w).footprint.flat());
  if (points.length === 0) return null;
  const [xs, ys] = [0, 1].map((k) => points.map((p) => p[k]));
  const [west, south] = [Math.min(...xs) - 4, Math.min(...ys) - 4];
  const wideM = Math.max(Math.max(...xs) - west, Math.max(...ys) - south) + 4;
  const cellM = Math.max(2, wideM / MOST_CELLS);
  const cells = Math.ceil(wideM / cellM);
  const z = Array<number>(cells * cells).fill(0);
  const terrain = { kind: 'grid', ncols: cells, nrows: cells, west, south, cellM, rows: 'north-first', z } as const;
  const options = project.options.map((o) => (o.id === option.id ? { ...o, works } : o));
  return { ...project, terrain, options, features: [], ground: null, pins: [], site: { ...project.site, outline: [] } };
}

function landFor(project: Project, context: RoomContext): { readonly laid: Laid; readonly isApart: boolean } | null {
  const laid = laidOut(asDesigned(project), context);
  if (laid) return { laid, isApart: false };
  const only = apart(project, context);
  const own = only && laidOut({ ...asDesigned(only), id: 'apart' }, context);
  return own ? { laid: own, isApart: true } : null;
}

/** The way water takes first: of those that are no mere opening between stores, the lowest; a grate is one, and a pump that stands in the store itself. */
function firstWay(
  { outlets, work, hollow }: Store,
  links: readonly Link[],
  pipes: ReadonlySet<string>,
): { readonly outlet: Outlet; readonly link: Link } | null {
  let best: { outlet: Outlet; link: Link } | null = null;
  outlets.forEach((outlet, k) => {
    const link = links[k];
    if ((outlet.role === 'lift' && outlet.work !== work) || outlet.returns || link === undefined) return;
    if (outlet.kind === 'joint' && !hollow && !pipes.has(link.to)) return;
    if (!best || outlet.levelM < best.outlet.levelM) best = { outlet, link };
  });
  return best;
}

/** What a place lets by, told as one share: by what it takes of a flow of a litre a second. */
const USUAL_M3S = 0.001;

interface On {
  readonly laid: Laid;
  readonly days: Days;
  readonly asks: ReadonlyMap<string, Float64Array>;
}

/** Kinds of ground under some cells, a share of them left out for open water. */
function groundsOf({ members }: Gathered, on: { readonly laid: Laid; readonly map: SurfaceMap; readonly share: number }): DayGround[] {
  const { laid, map, share } = on;
  return sharesOf(map, members, laid.world.model.grid).flatMap((areaM2, k): DayGround[] => {
    const { curveNumber, cover } = map.surfaces[k].facts;
    return areaM2 > 0 ? [{ curveNumber, isSealed: cover.isSealed, areaM2: areaM2 * share }] : [];
  });
}

/** Rain runs off kinds of ground by how wet they are. */
class Sheds {
  private readonly wetness: Uint8Array;
  constructor(
    private readonly laid: Laid,
    private readonly days: Days,
  ) {
    this.wetness = wetnessDays(days, growsIn(laid.scenario.project.climate?.evaporationMm));
  }

  /** On each day [m3]; null while nobody has described the ground. */
  of(gathered: Gathered, share = 1): Float64Array | null {
    const { map } = this.laid.world;
    return map && shedDays(this.days.rainMm, this.wetness, groundsOf(gathered, { laid: this.laid, map, share }));
  }
}

/** Where ways lead among the stores, or out of them by an exit. */
function waysIn(places: readonly string[], exits: readonly ExitGround[], { laid }: On): (link: Link, share?: number) => DayWay {
  const at = new Map(places.map((id, k) => [id, k]));
  const { grid } = laid.world.model;
  const led = laid.water.led;
  const before = new Map(laid.water.places.map((p) => [p.store, p.id]));
  return ({ to, path, outlet, lagS, share: part = 1 }, share = 1) => {
    const own = at.get(led.has(outlet) ? to : (before.get(to) ?? to)) ?? at.get(to);
    const days = Math.round(lagS / 86_400);
    if (own !== undefined) return { to: own, share: share * part, lagDays: days };
    const end = path[path.length - 1] as Link['path'][number] | undefined;
    const leaves = end && (to === 'property-edge' || to === 'terrain-edge');
    const exit = leaves && exits.length > 0 ? nearestExit(grid, exits.map((e) => e.exit), [end[0], end[1]]) : null; // prettier-ignore
    return { to: exit === null ? -1 : -2 - exit, share: share * part, lagDays: 0 };
  };
}

/** Soil or vessel under its water takes so much in a day [mm]; null while nobody has described the ground. */
function soaksOf({ id, seepsMmPerHour, soffitM }: Store, { under }: Water, hasGround: boolean): number | null {
  if (soffitM !== undefined) return 0;
  if (seepsMmPerHour !== undefined) return 24 * seepsMmPerHour;
  // What lies on no bed of earth loses nothing into it.
  return hasGround ? 24 * (under.get(id)?.rateMmPerHour ?? 0) : null;
}
const NONE = new Float64Array(0);

/** Where what soaks in comes out again: as its owner thinks, or by a way out into the ground. */
function returnOf(
  { comesBack, outlets }: Store,
  on: { readonly links: readonly Link[]; readonly wayOf: (link: Link) => DayWay; readonly places: readonly string[] },
): DayWay | null {
  const { links, wayOf, places } = on;
  if (comesBack) {
    const { share, lagDays, to } = comesBack;
    return { to: to === null ? -1 : Math.max(-1, places.indexOf(to)), share, lagDays };
  }
  const back = outlets.findIndex((o) => o.returns);
  return back >= 0 && links[back] ? wayOf(links[back]) : null;
}

/** One store with what comes to it by itself, and what of that is not known. */
function dayStore(
  store: Store,
  on: On & { readonly sheds: Sheds; readonly gathered: Gathered | undefined; readonly steadyM3s: number; readonly wayOf: (link: Link) => DayWay; readonly isParted: boolean; readonly places: readonly string[]; readonly pipes: ReadonlySet<string> }, // prettier-ignore
): { readonly made: DayStore; readonly lacks: readonly Lacks[] } {
  const { laid, days, asks, sheds, gathered, steadyM3s, wayOf, isParted } = on;
  const { id, stage, heldM3, waterM2 = 0, isCovered = false } = store;
  const n = days.rainMm.length;
  const links = laid.water.links.get(id) ?? [];
  const way = firstWay(store, links, on.pipes);
  const runs = !store.sheds && gathered && !isParted ? sheds.of(gathered, shareLeft(gathered, waterM2)) : NONE;
  const soaks = soaksOf(store, laid.water, laid.world.map !== null);
  // Parted on its way or not, what ground sheds is not known while nobody has described it.
  const isUnshed = gathered !== undefined && !store.sheds && laid.world.map === null;
  const isOpen = !isCovered && !store.sheds && stage.wettedM2.some((a) => a > 0);
  const lacks: Lacks[] = [
    ...(isUnshed || soaks === null ? (['ground'] as const) : []),
    ...(isOpen && !days.evaporationMm ? (['evaporation'] as const) : []),
  ];
  const roof = store.sheds && roofDays(days.rainMm, store.sheds);
  const comesM3 = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    comesM3[i] = steadyM3s * 86_400;
    if (roof) comesM3[i] += (roof[i] * waterM2) / 1000;
    if (runs && runs.length > 0) comesM3[i] += runs[i];
  }
  const roomM3 = store.soffitM === undefined ? heldM3 : 0;
  const [topUp] = (laid.scenario.project.supply?.topUps ?? []).filter((t) => t.store === id);
  const made: DayStore = {
    id,
    roomM3,
    deadM3: Math.min(roomM3, store.deadM3 ?? 0),
    startM3: 0,
    volumeM3: stage.volumeM3,
    areaM2: stage.wettedM2,
    isCovered: isCovered || store.sheds !== undefined,
    rainedM2: store.sheds ? 0 : waterM2,
    soaksMmPerDay: soaks ?? 0,
    comesM3,
    asksM3: asks.get(id) ?? new Float64Array(n),
    topUp: topUp ? { toM3: Math.min(roomM3, topUp.toM3), mostM3PerDay: topUp.mostM3PerDay } : null,
    spills: [way ? wayOf(way.link) : { to: -1, share: 1, lagDays: 0 }],
    returns: returnOf(store, { links, wayOf, places: on.places }),
  };
  return { made, lacks };
}

const shareLeft = ({ catchment: { areaM2 } }: Gathered, waterM2: number): number => (areaM2 > 0 ? Math.max(0, 1 - waterM2 / areaM2) : 1);

/** What leads on from each store each evening, by the works that do. */
function liftsIn({ stores, works }: Water, places: readonly string[]): ReadonlyMap<string, readonly DayLift[]> {
  const byId = new Map(stores.map((s) => [s.id, s]));
  const lifts = new Map<string, DayLift[]>();
  for (const { placed } of works) {
    const { lifts: own } = placed;
    const from = own && byId.get(own.from);
    if (!from || !byId.has(own.to)) continue;
    const downToM3 = Math.max(0, volumeAt(from.stage, own.stopM));
    lifts.set(own.from, [...(lifts.get(own.from) ?? []), { to: places.indexOf(own.to), mostM3PerDay: own.mostM3PerDay, downToM3 }]);
  }
  return lifts;
}

/** Vessels joined at their feet, by what each is joined with: water in soil soaks as it did, and is followed by itself. */
function joinsIn({ stores }: Water, places: readonly string[]): ReadonlyMap<string, Pick<DayStore, 'levelM' | 'joins'>> {
  const vessels = new Map(stores.flatMap((s) => (s.seepsMmPerHour === 0 && !s.sheds ? [[s.id, s] as const] : [])));
  const joined = new Map<string, number[]>();
  for (const { id, outlets } of vessels.values())
    for (const { kind, to } of outlets) {
      if (kind !== 'joint' || to === undefined || !vessels.has(to)) continue;
      joined.set(id, [...(joined.get(id) ?? []), places.indexOf(to)]);
      joined.set(to, [...(joined.get(to) ?? []), places.indexOf(id)]);
    }
  return new Map([...joined].map(([id, joins]) => [id, { joins, levelM: vessels.get(id)?.stage.levelM ?? new Float64Array(0) }]));
}

/** A place before a store where its water is parted: it holds nothing. */
function dayPlace(
  place: Water['places'][number],
  comesM3: Float64Array,
  on: { readonly at: number; readonly wayOf: (link: Link, share?: number) => DayWay },
): DayStore {
  const share = Math.min(1, Math.max(0, place.takes(USUAL_M3S) / USUAL_M3S));
  return {
    id: place.id,
    roomM3: 0,
    deadM3: 0,
    startM3: 0,
    volumeM3: Float64Array.of(0, 1),
    areaM2: Float64Array.of(0, 0),
    isCovered: true,
    rainedM2: 0,
    soaksMmPerDay: 0,
    comesM3,
    asksM3: new Float64Array(comesM3.length),
    topUp: null,
    spills: [{ to: on.at, share, lagDays: 0 }, on.wayOf(place.past, 1 - share)],
    returns: null,
  };
}

/** What is lacking of a store is lacking of all it spills into, leads on to, or feeds through the ground. */
function spread(stores: readonly DayStore[], lacks: Map<string, readonly Lacks[]>): ReadonlyMap<string, readonly Lacks[]> {
  for (let grew = true; grew;) {
    grew = false;
    for (const { id, spills, lifts = [], returns, joins = [] } of stores)
      for (const to of [...[...spills, ...lifts, ...(returns ? [returns] : [])].map((w) => w.to), ...joins]) {
        const below = to >= 0 ? stores[to].id : null;
        if (below === null) continue;
        const both = [...new Set([...(lacks.get(below) ?? []), ...(lacks.get(id) ?? [])])];
        if (both.length === (lacks.get(below) ?? []).length) continue;
        lacks.set(below, both);
        grew = true;
      }
  }
  return lacks;
}

/** Everything that is followed day by day; null where there is neither ground nor anything that stands without. */
export function seasonLand(
  project: Project,
  context: RoomContext,
  on: { readonly days: Days; readonly asks: ReadonlyMap<string, Float64Array> },
): SeasonLand | null {
  const land = landFor(project, context);
  if (!land) return null;
  const { laid, isApart } = land;
  const { graph } = context;
  const { water, world } = laid;
  const { days, asks } = on;
  const sheds = new Sheds(laid, days);
  const inside = insideOf(world.model, laid.scenario.project.site.outline, graph);
  const exits = world.map ? exitGrounds(world.model, inside, { met: water.met, graph }) : [];
  const places = [...water.stores.map((s) => s.id), ...water.places.map((p) => p.id)];
  const own: On = { laid, days, asks };
  const wayOf = waysIn(places, exits, own);
  const gathered = new Map(water.catchments.map((g) => [g.catchment.of, g]));
  const base = baseFlows(water.springs);
  const pipes = pipesAmong(water.stores);
  const parted = new Set(water.places.map((p) => p.store));
  const lacks = new Map<string, readonly Lacks[]>();
  const [lifts, joined] = [liftsIn(water, places), joinsIn(water, places)];
  const stores = water.stores.map((store) => {
    const { id } = store;
    const one = dayStore(store, { ...own, sheds, gathered: gathered.get(id), steadyM3s: base.get(id) ?? 0, wayOf, isParted: parted.has(id), places, pipes });
    if (one.lacks.length > 0) lacks.set(id, one.lacks);
    const leads = lifts.get(id);
    return { ...one.made, ...(leads ? { lifts: leads } : {}), ...joined.get(id) };
  }); // prettier-ignore
  const before = water.places.map((place) => {
    const at = places.indexOf(place.store);
    const all = gathered.get(place.store);
    const comes = (all && sheds.of(all)) ?? new Float64Array(days.rainMm.length);
    return dayPlace(place, comes, { at, wayOf });
  });
  const dry = (): Float64Array => new Float64Array(days.rainMm.length);
  return {
    laid,
    stores: [...stores, ...before],
    lacks: spread([...stores, ...before], lacks),
    exits,
    openM3: exits.map((e) => sheds.of(e.uncaught) ?? dry()),
    wholeM3: exits.map((e) => sheds.of(e.whole) ?? dry()),
    isApart,
  };
}
