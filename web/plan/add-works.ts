// Works drawn on the plan, with levels to begin with taken from the ground under them.
import type { WorkBase } from '#core/contract';
import { type Point, closed, contains, lineLength, nearestOnLine, pointAlong } from '#core/geometry';
import { optionOf } from '#core/project';
import { newPond } from '#core/works';
import { newId } from '../app/selectors.ts';
import { dispatch, notify, select, useApp } from '../app/store.ts';
import { hostLine } from '../works/shared/on-host.ts';
import { readGround } from './read.ts';

const round = (m: number): number => Math.round(m * 1000) / 1000;

/** Ground along a line, from end to end; null where some of it lies off the terrain. */
function groundAlong(line: readonly Point[]): number[] | null {
  const { terrain } = useApp.getState();
  if (!terrain) return null;
  const length = lineLength(line);
  const count = Math.max(8, Math.ceil(length / 2));
  const levels = Array.from({ length: count + 1 }, (_, k) => readGround(terrain, pointAlong(line, (length * k) / count).point)?.levelM);
  return levels.every((v): v is number => v !== undefined) ? levels : null;
}

function offTerrain(what: string): void {
  notify({
    tone: 'mend',
    title: `${what} could not be placed`,
    problems: [{ code: 'work.off-terrain', what: 'part of it lies off the terrain', where: {}, do: 'Draw it inside the terrain.' }],
  });
}

const worksNow = (): readonly WorkBase[] => {
  const project = useApp.getState().history?.project;
  return project ? optionOf(project).works : [];
};
const nameFor = (kind: string, title: string): string => `${title} ${worksNow().filter((w) => w.kind === kind).length + 1}`;

function add(works: readonly WorkBase[]): void {
  if (dispatch({ type: 'works.add', payload: { works } })) select(works[0].id);
}

/** Height of a first wall, and how far its crest stays under the lower end [m]: common practice for a small one. */
const [FIRST_HEIGHT_M, UNDER_END_M] = [2, 0.1];
/** First way out under the crest [m]. */
const UNDER_CREST_M = 0.6;

/** A pond behind a wall or in a pit, with a level sill: a wall that can hold water has a way out. */
export function addPond(on: { readonly wall?: readonly Point[]; readonly pit?: readonly Point[] }): void {
  const line = on.wall ?? closed(on.pit ?? []);
  const ground = groundAlong(line);
  if (!ground) {
    offTerrain('The pond');
    return;
  }
  const lowest = Math.min(...ground);
  const ids = { pond: newId('pond'), sill: newId('sill') };
  const name = nameFor('pond', 'Pond');
  if (!on.wall) {
    add([newPond(ids.pond, name, { ...on, crestM: lowest + 0.3, floorM: lowest - 2 })]);
    return;
  }
  const crestM = round(Math.min(lowest + FIRST_HEIGHT_M, Math.min(ground[0], ground[ground.length - 1]) - UNDER_END_M));
  const pond = newPond(ids.pond, name, { ...on, crestM: Math.max(lowest + 0.5, crestM), floorM: lowest });
  const sillM = round(Math.max(lowest + 0.2, pond.levels.crestM - UNDER_CREST_M));
  const step = lineLength(on.wall) / (ground.length - 1);
  const from = ground.findIndex((_, k) => ground.slice(k).every((g) => g >= sillM));
  const sill = {
    id: ids.sill,
    kind: 'level-sill',
    name: `${name} sill`,
    status: 'planned',
    host: ids.pond,
    atM: round((from < 0 ? ground.length - 1 : Math.min(ground.length - 1, from + 1)) * step),
    levels: { sillM },
    dimensions: { lengthM: 6, crestWidthM: 1.2 },
  } as const;
  add([pond, sill]);
}

/** A road across the water on one pipe. */
export function addCrossing(line: readonly Point[]): void {
  const ground = groundAlong(line);
  if (!ground) {
    offTerrain('The crossing');
    return;
  }
  const lowest = Math.min(...ground);
  add([
    {
      id: newId('crossing'),
      kind: 'crossing',
      name: nameFor('crossing', 'Crossing'),
      status: 'planned',
      form: 'culvert',
      line,
      inlet: 'corrugated-projecting',
      levels: { roadM: round(lowest + 1.3), inletM: round(lowest), outletM: round(lowest - 0.1), dipM: round(lowest + 1) },
      dimensions: { roadWidthM: 4, sideSlopeHV: 2, barrels: 1, diameterM: 0.45, overhangM: 0.5, dipLengthM: 0 },
      roughness: 0.024,
      blockedPercent: 0,
    } as WorkBase,
  ]);
}

/** Depth of a first drain's floor under the ground [m]. */
const DRAIN_UNDER_M = 0.4;

/** A graded drain along a line from its upper to its lower end. */
export function addDiversion(line: readonly Point[]): void {
  const ground = groundAlong(line);
  if (!ground) {
    offTerrain('The drain');
    return;
  }
  const isDown = ground[0] >= ground[ground.length - 1];
  const [high, low] = isDown ? [ground[0], ground[ground.length - 1]] : [ground[ground.length - 1], ground[0]];
  add([
    {
      id: newId('drain'),
      kind: 'diversion',
      name: nameFor('diversion', 'Drain'),
      status: 'planned',
      lining: 'grass',
      line: isDown ? line : [...line].reverse(),
      levels: { startM: round(high - DRAIN_UNDER_M), endM: round(low - DRAIN_UNDER_M) },
      dimensions: { floorWidthM: 1, sideSlopeHV: 3, depthM: 0.5, stoneM: 0.1 },
    } as WorkBase,
  ]);
}

/** The store whose line or water lies nearest to a place. */
function storeNear(at: Point): { readonly id: string; readonly floorM: number; readonly crestM: number } | null {
  const { result } = useApp.getState();
  const works = worksNow();
  let best: { id: string; floorM: number; crestM: number } | null = null;
  let least = Infinity;
  for (const { id, floorM, crestM } of result?.derived.stores ?? []) {
    const line = hostLine(works, id);
    const isIn = (result?.view.rings[id] ?? []).some((ring) => contains(ring, at));
    const d = isIn ? 0 : line ? nearestOnLine(at, line).distanceM : Infinity;
    if (d < least) [best, least] = [{ id, floorM, crestM }, d];
  }
  return best;
}

/** A pump between the stores nearest to two places. */
export function addPump(from: Point, to: Point): void {
  const [low, high] = [storeNear(from), storeNear(to)];
  if (!low || !high || low.id === high.id) {
    notify({
      tone: 'mend',
      title: 'The pump could not be placed',
      problems: [{ code: 'pump.stores', what: 'it needs two different stores', where: {}, do: 'Click one pond or swale, then another.' }],
    });
    return;
  }
  const works = worksNow();
  const [a, b] = [hostLine(works, low.id), hostLine(works, high.id)];
  const lengthM = a && b ? Math.max(5, nearestOnLine(a[0], b).distanceM) : 50;
  add([
    {
      id: newId('pump'),
      kind: 'pump-back',
      name: nameFor('pump-back', 'Pump'),
      status: 'planned',
      host: low.id,
      to: high.id,
      drive: 'sun',
      levels: { stopM: round(low.floorM + 0.5), deliveryM: round(high.crestM + 0.2) },
      flowM3s: 0.001,
      pipe: { lengthM: round(lengthM), diameterM: 0.05, wall: 'plastic' },
      efficiency: 0.4,
      sunHours: 5,
      panelShare: 0.75,
    } as WorkBase,
  ]);
}
