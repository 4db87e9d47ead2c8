// What begins where something is drawn: the first works of a kind, on the land and among the stores as they are.
import type { Channel, Land, StoreSeen, WaterSeen, WorkBase } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { type Project, UserError, fail, nextName, optionOf, problemOf } from '../../project/index.ts';
import type { Said } from '../../units/index.ts';
import { type RoomContext, laidOut } from '../set/laid.ts';
import { runsAt } from './place.ts';
import { runSet } from '../set/set.ts';
import { asDesigned } from '../scenario/scenario.ts';
import { storesOnly } from '../water/water.ts';
import { groundModel } from '../world/ground-model.ts';

export interface BeginAsked {
  readonly kind: string;
  readonly points: readonly Point[];
  /** The id of its way of drawing; left out, the first of its kind. */
  readonly how?: string;
  /** The work it is to let out. */
  readonly host?: string;
  /** Parts of ids nobody has used, one a work; left out, the next numbers are taken. */
  readonly fresh?: readonly string[];
}

export interface BegunWorks {
  readonly works: readonly WorkBase[];
  readonly said: Said | null;
}

/** Stores whose line guests can stand along, as those see them. */
function storesSeen(project: Project, context: RoomContext): StoreSeen[] {
  const ran = runSet(asDesigned(project), context);
  if (!ran) return [];
  const { water, worst } = ran;
  const placed = new Map(water.works.map((w) => [w.bound.work.id, w.placed]));
  return storesOnly(water.stores).flatMap((store): StoreSeen[] => {
    const own = placed.get(store.work);
    const host = own?.host;
    if (!own || !host) return [];
    const guests = water.works.filter((w) => w.bound.hostId === store.work).map((w) => w.bound.work);
    const isGuest = new Set(guests.map((g) => g.id));
    return [
      {
        id: store.id,
        name: store.name,
        line: host.line,
        rings: own.waterRings?.(store.wayOutM) ?? [],
        floorM: store.floorM,
        crestM: store.crestM,
        peakLevelM: worst.outcomes.get(store.id)?.storm.peakLevelM ?? null,
        sillsM: store.outlets.flatMap((o) => (isGuest.has(o.work) && o.kind !== 'joint' ? [o.levelM] : [])).sort((a, b) => a - b),
        guests,
        groundAt: host.groundAt,
      },
    ];
  });
}

/** Works that are one store each, as what draws from them or fills them sees them. */
function watersSeen(project: Project, context: RoomContext): WaterSeen[] {
  const water = laidOut(asDesigned(project), context)?.water;
  if (!water) return [];
  const lines = new Map(water.works.map(({ bound }) => [bound.work.id, bound.footprint]));
  const piped = water.works.flatMap(({ bound: { work, footprint }, placed: { conduits = [] } }): WaterSeen[] => {
    const [first] = conduits;
    if (!first) return [];
    const shafts = conduits.map(({ id, rimAt, upperM, diameterM }) => ({ at: rimAt, invertM: upperM, pipeM: diameterM, to: id }));
    return [{ id: work.id, name: work.name, lines: footprint, floorM: first.lowerM, fullM: first.rimM, roofM2: null, shafts }];
  });
  const isPiped = new Set(piped.map((p) => p.id));
  const stores = storesOnly(water.stores).flatMap((store): WaterSeen[] => {
    if (store.id !== store.work || isPiped.has(store.work)) return [];
    const { id, name, floorM, wayOutM: fullM, sheds, waterM2 = null } = store;
    return [{ id, name, lines: lines.get(id) ?? [], floorM, fullM, roofM2: sheds ? waterM2 : null }];
  });
  return [...stores, ...piped];
}

/** Channels as they were measured. */
const channelsSeen = (project: Project, context: RoomContext): Channel[] =>
  (laidOut(asDesigned(project), context)?.water.works ?? []).flatMap(({ placed }) => placed.channel ?? []);

/** Ids by what they are: with the parts given, else with the next number no work and no pin has. */
function idsFor(project: Project, fresh: readonly string[] | undefined): (what: string) => string {
  const taken = new Set([...project.options.flatMap((o) => o.works), ...project.pins].map((item) => item.id));
  let next = 0;
  return (what) => {
    const part = fresh?.[next++];
    let id = `${what}-${part ?? 1}`;
    for (let k = 2; taken.has(id); k++) id = `${what}-${part === undefined ? k : `${part}-${k}`}`;
    taken.add(id);
    return id;
  };
}

function requirePoints({ points }: BeginAsked): void {
  const isPoint = (p: unknown): boolean =>
    Array.isArray(p) && p.length === 2 && p.every((v) => typeof v === 'number' && Number.isFinite(v));
  if (!Array.isArray(points) || !points.every(isPoint))
    fail('begin.points', 'what was drawn is not a list of [x, y] points', { do: 'Give points in metres, [[x, y], ...].' });
}

/** The first works of a kind as drawn there, to be added as they are. @throws UserError saying why they cannot be placed. */
export function beginWorks(project: Project, context: RoomContext, asked: BeginAsked): BegunWorks {
  const { registry } = context;
  const { kind, points } = asked;
  if (!registry.has(kind))
    fail('work.unknown-kind', `there is no kind of work "${kind}"`, { do: `Use one of ${registry.kinds.join(', ')}.` });
  requirePoints(asked);
  const { title, draws } = registry.card(kind);
  const draw = asked.how === undefined ? draws[0] : draws.find((d) => d.id === asked.how);
  if (!draw)
    return fail('begin.how', `${title} is not drawn as "${asked.how ?? ''}"`, { do: `Use one of ${draws.map((d) => d.id).join(', ')}.` });
  if (points.length < draw.least)
    fail('begin.points', `${draw.name} needs ${draw.least} points, there ${points.length === 1 ? 'is' : 'are'} ${points.length}`, {
      do: draw.hint,
    });
  const model = groundModel(project, context);
  if (!model) return fail('terrain.missing', 'there is no ground yet', { do: 'Bring in a terrain grid or survey points first.' });
  const { works } = optionOf(project);
  const land: Land = {
    grid: model.grid,
    // Only what is set beside stores need know them: they cost a derive.
    stores: draw.what === 'on-host' || draw.what === 'between-stores' ? storesSeen(project, context) : [],
    ...(draw.seesStores ? { waters: watersSeen(project, context) } : {}),
    ...(draw.seesChannels ? { channels: channelsSeen(project, context) } : {}),
    buildings: project.features.flatMap((f) => (f.kind === 'building' && f.ring ? [f.ring] : [])),
    runsMm: (at) => runsAt(project, at),
    nameFor: (title) => nextName(title, works),
    idFor: idsFor(project, asked.fresh),
  };
  const made = registry.begin(kind, { how: draw.id, points, host: asked.host ?? null }, land);
  if (!made.ok) throw new UserError([problemOf(made.problem)]);
  return { works: made.works, said: made.said ?? null };
}
