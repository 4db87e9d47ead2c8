import type { Catchment, Drained, Intake } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { Project } from '../../project/index.ts';
import {
  type CellRoom,
  type CellSet,
  type Exit,
  type Flow,
  NO_GROUND,
  catchingCells,
  cellAt,
  cellsInside,
  exitsOf,
  lowestAmong,
  partedBy,
  setOf,
  shapeIn,
  shapeOf,
  sizeIn,
  upstreamOf,
} from '../../terrain/index.ts';
import { type Graph, asItself, forAll } from '../graph/graph.ts';
import { type GroundModel, slopesIn } from './ground-model.ts';
import type { Interception, Since } from './interception.ts';
import { inRoomOf } from './room.ts';

/** Ground that drains to a place, with the cells it is made of. */
export interface Gathered<D extends Drained = Drained> {
  readonly catchment: D;
  readonly members: Int32Array;
}

/** Ground of cells gathered for it alone. */
function gathered(of: string, on: { readonly model: GroundModel; readonly graph: Graph }, find: (room: CellRoom) => CellSet): Gathered {
  const { model, graph } = on;
  const { grid, flow, edge } = model;
  return inRoomOf(model, (room) => {
    const cells = find(room);
    const own = { ...cells, label: cells.mask, wanted: 1, edge, slopes: slopesIn(model, graph), lengths: room.lengths };
    const made = asItself({ catchment: { of, ...sizeIn(grid, flow, own) }, members: cells.members.slice() });
    room.clear(cells);
    return made;
  });
}

/** What runs onto each store directly, as it was worked out last. */
interface Parted {
  readonly model: GroundModel;
  /** The interception it was worked out from. */
  readonly mark: object;
  readonly all: readonly Gathered<Catchment>[];
}

/** What runs onto each store directly, its own cells included: parted in one pass, or where an edit moved cells from one to another. */
export function storeCatchments(model: GroundModel, met: Interception, graph: Graph): readonly Gathered<Catchment>[] {
  return graph.goingOn('catchments', [model, met], (last: Parted | undefined, on, { stores, since, mark, label: states }): Parted => {
    const label = states.read();
    const { grid, flow, edge } = on;
    const slopes = slopesIn(on, graph);
    const before = new Map(last?.model === on ? last.all.map((one) => [one.catchment.of, one]) : []);
    return inRoomOf(on, (room) => {
      const shaped = (members: Int32Array, k: number): Gathered<Catchment> => {
        const known = before.get(stores[k]);
        if (known && areSameCells(known.members, members)) return known;
        const shape = shapeIn(grid, flow, { members, label, wanted: k + 1, edge, slopes, room });
        return asItself({ catchment: { of: stores[k], ...shape }, members: members.slice() });
      };
      if (!last || last.model !== on || since?.mark !== last.mark)
        return { model: on, mark, all: partedBy(flow, label, stores.length).map(shaped) };
      const moved = membersMoved(last.all, { since, label, flow, ranks: ranksIn(on, graph) });
      const shapedNow = (one: Gathered<Catchment>, k: number): Gathered<Catchment> => {
        const members = moved.get(k);
        return members ? shaped(members, k) : one;
      };
      return { model: on, mark, all: last.all.map(shapedNow) };
    });
  }).all;
}

function areSameCells(a: Int32Array, b: Int32Array): boolean {
  if (a.length !== b.length) return false;
  for (let k = 0; k < a.length; k++) if (a[k] !== b[k]) return false;
  return true;
}

/** The place of each cell from the highest to the lowest. */
const ranksIn = (model: GroundModel, graph: Graph): Int32Array =>
  graph.step('ranks', [model], ({ flow: { order, receiver } }) => {
    const ranks = new Int32Array(receiver.length);
    for (let k = 0; k < order.length; k++) ranks[order[k]] = k;
    return ranks;
  });

/** Cells of each number some cells were taken from or given to, downstream first, by the number less one. */
function membersMoved(
  all: readonly Gathered[],
  on: { readonly since: Since; readonly label: Int16Array; readonly flow: Flow; readonly ranks: Int32Array },
): ReadonlyMap<number, Int32Array> {
  const { since, label, flow, ranks } = on;
  const gained = new Map<number, number[]>();
  const of = (number: number): number[] => {
    const known = gained.get(number);
    if (known) return known;
    const made: number[] = [];
    gained.set(number, made);
    return made;
  };
  since.changed.forEach((cell, k) => {
    of(since.were[k]);
    of(label[cell]).push(ranks[cell]);
  });
  gained.delete(0);
  // The order of the ground is from the highest down; members stand the other way round.
  const downFirst = (come: readonly number[]): Int32Array => Int32Array.from(come).sort().reverse();
  return new Map(
    [...gained].map(([number, come]) => {
      const stay = all[number - 1].members.filter((cell) => label[cell] === number);
      const added = downFirst(come).map((rank) => flow.order[rank]);
      return [number - 1, mergedBy(ranks, stay, added)];
    }),
  );
}

/** Two lists of cells, each downstream first, as one. */
function mergedBy(ranks: Int32Array, a: Int32Array, b: Int32Array): Int32Array {
  const merged = new Int32Array(a.length + b.length);
  for (let i = 0, j = 0; i + j < merged.length;) {
    const isOfA = j === b.length || (i < a.length && ranks[a[i]] > ranks[b[j]]);
    const at = i + j;
    merged[at] = isOfA ? a[i++] : b[j++];
  }
  return merged;
}

/** All ground that would drain to the intakes of each list if nothing above caught water, under the store of its first. */
export function naturalCatchments(model: GroundModel, lists: readonly (readonly Intake[])[], graph: Graph): readonly Gathered[] {
  const ids = lists.map((intakes) => intakes[0].store);
  return graph.each('natural', { ids, columns: [forAll(model), lists, ids] }, (on, intakes, store) => {
    const { grid, flow } = on;
    const roofs = intakes.flatMap(({ roof }) => (roof ? cellsInside(grid, roof) : []));
    const caughtAt = roofs.length > 0 ? [] : intakes.flatMap((i) => catchingCells(grid, i));
    // What drains to those lowest down drains to all: cells further up may move as they will.
    const lowest = inRoomOf(on, (room) => lowestAmong(flow, caughtAt, room));
    return graph.step(`natural-shape:${store}`, [on, lowest, roofs], (_, down, under) =>
      gathered(store, { model: on, graph }, (room) =>
        under.length > 0 ? setOf(Int32Array.from(under), room.mask) : upstreamOf(flow, down, room),
      ),
    );
  }).all;
}

/** Catchment of each pin: the cells that drain through the pin's cell. A pin off the terrain has none. */
export function pinCatchments(model: GroundModel, { pins }: Pick<Project, 'pins'>, graph: Graph): Gathered<Catchment>[] {
  const { grid, flow, edge } = model;
  return pins.flatMap((pin) => {
    const cell = cellAt(grid, pin.at);
    if (cell < 0 || flow.receiver[cell] === NO_GROUND) return [];
    return [
      graph.step(`pin:${pin.id}`, [model, cell], (_, at): Gathered<Catchment> => {
        const cells = upstreamOf(flow, [at]);
        const shape = shapeOf(grid, flow, { ...cells, edge, slopes: slopesIn(model, graph) });
        return asItself({ catchment: { of: pin.id, ...shape }, members: cells.members.slice() });
      }),
    ];
  });
}

/** 1 for cells within the property line, or for all ground without one. */
export const insideOf = (model: GroundModel, outline: Line, graph: Graph): Uint8Array =>
  graph.step('inside', [model.grid, outline], (grid, line) => {
    const { z } = grid;
    const inside = new Uint8Array(z.length);
    if (line.length < 3) {
      for (let i = 0; i < z.length; i++) inside[i] = Number.isNaN(z[i]) ? 0 : 1;
      return inside;
    }
    for (const cell of cellsInside(grid, line)) if (!Number.isNaN(z[cell])) inside[cell] = 1;
    return inside;
  });

export interface ExitGround {
  readonly exit: Exit;
  readonly id: string;
  /** All ground whose water leaves here when nothing is built. */
  readonly whole: Gathered;
  /** The part of it no work catches. */
  readonly uncaught: Gathered;
}

/** Places where water leaves, as what no work catches was worked out last. */
interface Opened {
  readonly wholes: readonly ExitWhole[];
  readonly mark: object;
  readonly all: readonly ExitGround[];
}
type ExitWhole = Pick<ExitGround, 'exit' | 'id' | 'whole'>;

/** Places where water leaves the property, or the map where no property line is known. */
export function exitGrounds(
  model: GroundModel,
  inside: Uint8Array,
  on: { readonly met: Interception; readonly graph: Graph },
): readonly ExitGround[] {
  const { met, graph } = on;
  const { stores, since, mark } = met;
  const wholes = graph.step('exit-grounds', [model, inside], ({ grid, flow }, within) =>
    exitsOf(grid, flow, within).map((found, k): ExitWhole => {
      const [exit, id] = [asItself(found), exitId(found, k)];
      return { exit, id, whole: gathered(id, { model, graph }, (room) => upstreamOf(flow, exit.cells, room)) };
    }),
  );
  return graph.goingOn('exits-open', [model, wholes, met], (last: Opened | undefined, _, all): Opened => {
    const label = met.label.read();
    if (stores.length === 0) return { wholes: all, mark, all: all.map((one) => ({ ...one, uncaught: one.whole })) };
    const opened = last?.wholes === all && last.mark === since?.mark ? openedAt(since, label, exitsIn(model, all, graph)) : null;
    return {
      wholes: all,
      mark,
      all: all.map((one, k): ExitGround => {
        if (last && opened && !opened.has(k + 1)) return last.all[k];
        const open = unlabelled(one.whole.members, label);
        return { ...one, uncaught: gathered(one.id, { model, graph }, (room) => setOf(open, room.mask)) };
      }),
    };
  }).all;
}

/** Number of the exit each cell drains to, from 1 up. */
const exitsIn = (model: GroundModel, wholes: readonly ExitWhole[], graph: Graph): Int16Array =>
  graph.step('exits-in', [model, wholes], ({ flow }, all) => {
    const numbers = new Int16Array(flow.receiver.length);
    all.forEach(({ whole: { members } }, n) => members.forEach((cell) => (numbers[cell] = n + 1)));
    return numbers;
  });

/** Exits whose open ground is another. */
function openedAt({ changed, were }: Since, label: Int16Array, exits: Int16Array): ReadonlySet<number> {
  const opened = new Set<number>();
  changed.forEach((cell, k) => {
    if ((were[k] === 0) !== (label[cell] === 0)) opened.add(exits[cell]);
  });
  return opened;
}

/** Cells without a number, in their order. */
function unlabelled(members: Int32Array, label: Int16Array): Int32Array {
  const found = new Int32Array(members.length);
  let count = 0;
  for (let k = 0; k < members.length; k++) if (label[members[k]] === 0) found[count++] = members[k];
  return found.slice(0, count);
}

const exitId = (exit: Exit, k: number): string => (exit.isPlace ? `exit-${k + 1}` : 'exit-rest');
