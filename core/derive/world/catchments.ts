import type { Catchment, Drained, Intake } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { Project } from '../../project/index.ts';
import {
  CellRoom,
  type CellSet,
  type Exit,
  NO_GROUND,
  catchingCells,
  catchingOn,
  cellAt,
  cellsInside,
  exitsOf,
  firstInterceptor,
  partedBy,
  shareOfCell,
  setOf,
  shapeIn,
  shapeOf,
  sizeIn,
  upstreamOf,
} from '../../terrain/index.ts';
import { type Graph, asItself, forAll } from '../graph/graph.ts';
import { type GroundModel, slopesIn } from './ground-model.ts';

/** Which store each cell's water meets first, and where those catch it. */
export interface Interception {
  /** Stores that take in water from the ground; number k of a cell belongs to stores[k - 1]. */
  readonly stores: readonly string[];
  readonly owner: Int16Array;
  readonly label: Int16Array;
  /** What stores take of the water that meets them, where their works are narrower than a cell. */
  readonly shares: ReadonlyMap<string, number>;
}

/** Stores take the share of each small intake, weighed by the ground that drains to it. */
function sharesOf({ grid, flow }: GroundModel, intakes: readonly Intake[]): ReadonlyMap<string, number> {
  const shares = intakes.map((intake) => shareOfCell(grid, intake));
  if (shares.every((share) => share === 1)) return new Map();
  const label = firstInterceptor(
    flow,
    catchingOn(
      grid,
      intakes.map((where, k) => ({ ...where, number: k + 1 })),
    ),
  );
  const cells = new Float64Array(intakes.length + 1);
  for (const number of label) cells[number]++;
  const sums = new Map<string, { whole: number; taken: number }>();
  intakes.forEach(({ store }, k) => {
    const { whole, taken } = sums.get(store) ?? { whole: 0, taken: 0 };
    sums.set(store, { whole: whole + cells[k + 1], taken: taken + shares[k] * cells[k + 1] });
  });
  return new Map([...sums].flatMap(([id, { whole, taken }]) => (taken < whole ? [[id, taken / whole] as const] : [])));
}

function intercepted(model: GroundModel, lists: readonly (readonly Intake[])[]): Interception {
  const intakes = lists.flat();
  const stores = [...new Set(intakes.map((i) => i.store))];
  const numbers = new Map(stores.map((id, k) => [id, k + 1]));
  const numbered = intakes.flatMap(({ store, ...where }) => {
    const number = numbers.get(store);
    return number === undefined ? [] : [{ ...where, number }];
  });
  const owner = catchingOn(model.grid, numbered);
  const label = firstInterceptor(model.flow, owner);
  // A roof keeps the rain on itself from what lies below; what runs over the ground there goes by.
  for (const { roof, number } of numbered) if (roof) for (const cell of cellsInside(model.grid, roof)) label[cell] = number;
  return { stores, owner, label, shares: sharesOf(model, intakes) };
}

/** What the intakes of all works catch. */
export const interception = (model: GroundModel, intakes: readonly (readonly Intake[])[], graph: Graph): Interception =>
  graph.step('interception', [model, intakes], intercepted);

/** Ground that drains to a place, with the cells it is made of. */
export interface Gathered<D extends Drained = Drained> {
  readonly catchment: D;
  readonly members: Int32Array;
}

/** Where cells are gathered. */
interface Gathering {
  readonly model: GroundModel;
  readonly graph: Graph;
  readonly room: CellRoom;
}

const roomOn = ({ flow }: GroundModel): CellRoom => new CellRoom(flow.receiver.length);

/** Ground of cells gathered for it alone: kept by `slot` while they stay the same. The room is clean after it. */
function gather(of: string, cells: CellSet, on: Gathering & { readonly slot: string }): Gathered {
  const { model, graph, room, slot } = on;
  const { members, mask } = cells;
  const gathered = graph.step(`${slot}:${of}`, [model, nameOf(members)], ({ grid, flow, edge }): Gathered => {
    const own = { members, label: mask, wanted: 1, edge, slopes: slopesIn(model, graph), lengths: room.lengths };
    return asItself({ catchment: { of, ...sizeIn(grid, flow, own) }, members: members.slice() });
  });
  room.clear(cells);
  return gathered;
}

/** How many cells, and two sums of them mixed: what is the same twice is the same catchment. */
function nameOf(members: Int32Array): string {
  // Whole numbers of 32 bits from the first: what begins as a larger one is never counted on as quickly.
  let a = 0x811c9dc5 | 0;
  let b = 0x9e3779b9 | 0;
  for (let k = 0; k < members.length; k++) {
    a = Math.imul(a ^ members[k], 0x01000193);
    b = (b + Math.imul(members[k] ^ (b >>> 15), 0x85ebca6b)) | 0;
  }
  return `${members.length}.${a >>> 0}.${b >>> 0}`;
}

/** What runs onto each store directly, its own cells included: all of them in one pass, each kept while its cells stay. */
export function storeCatchments(model: GroundModel, met: Interception, graph: Graph): readonly Gathered<Catchment>[] {
  return graph.step('catchments', [model, met], () => {
    const { grid, flow, edge } = model;
    const { label, stores } = met;
    const slopes = slopesIn(model, graph);
    const room = roomOn(model);
    return partedBy(flow, label, stores.length).map((members, k): Gathered<Catchment> => {
      const of = stores[k];
      return graph.step(`catchment:${of}`, [model, nameOf(members)], () => ({
        catchment: { of, ...shapeIn(grid, flow, { members, label, wanted: k + 1, edge, slopes, room }) },
        members: members.slice(),
      }));
    });
  });
}

/** All ground that would drain to the intakes of each list if nothing above caught water, under the store of its first. */
export function naturalCatchments(model: GroundModel, lists: readonly (readonly Intake[])[], graph: Graph): readonly Gathered[] {
  const ids = lists.map((intakes) => intakes[0].store);
  const on = { model, graph, room: roomOn(model) };
  return graph.each('natural', { ids, columns: [forAll(model), lists, ids] }, (_, intakes, store) =>
    gather(store, drainingTo(model, intakes, on.room), { ...on, slot: 'natural-shape' }),
  ).all;
}

function drainingTo({ grid, flow }: GroundModel, intakes: readonly Intake[], room: CellRoom): CellSet {
  const roofs = intakes.flatMap(({ roof }) => (roof ? cellsInside(grid, roof) : []));
  if (roofs.length > 0) return setOf(Int32Array.from(roofs), room.mask);
  return upstreamOf(
    flow,
    intakes.flatMap((i) => catchingCells(grid, i)),
    room,
  );
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
    if (line.length < 3) return inside.map((_, i) => (Number.isNaN(z[i]) ? 0 : 1));
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

/** Places where water leaves the property, or the map where no property line is known. */
export function exitGrounds(
  model: GroundModel,
  inside: Uint8Array,
  on: { readonly met: Interception; readonly graph: Graph },
): readonly ExitGround[] {
  const { met, graph } = on;
  const gathering = { model, graph, room: roomOn(model) };
  const exits = graph.step('exits', [model, inside], ({ grid, flow }, within) => exitsOf(grid, flow, within).map((exit) => asItself(exit)));
  const wholes = graph.step('exit-grounds', [model, exits], (_, all) =>
    all.map((exit, k) => {
      const id = exitId(exit, k);
      return { exit, id, own: gather(id, upstreamOf(model.flow, exit.cells, gathering.room), { ...gathering, slot: 'exit-all' }) };
    }),
  );
  return graph.step('exits-open', [model, wholes, met], (_, all, { label, stores }) =>
    all.map(({ exit, id, own }): ExitGround => {
      if (stores.length === 0) return { exit, id, whole: own, uncaught: own };
      const open = unlabelled(own.members, label);
      const uncaught = gather(id, setOf(open, gathering.room.mask), { ...gathering, slot: 'exit-open' });
      return { exit, id, whole: own, uncaught };
    }),
  );
}

/** Cells without a number, in their order. */
function unlabelled(members: Int32Array, label: Int16Array): Int32Array {
  const found = new Int32Array(members.length);
  let count = 0;
  for (let k = 0; k < members.length; k++) if (label[members[k]] === 0) found[count++] = members[k];
  return found.slice(0, count);
}

const exitId = (exit: Exit, k: number): string => (exit.isPlace ? `exit-${k + 1}` : 'exit-rest');
