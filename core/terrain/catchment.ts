import type { Point } from '../geometry/index.ts';
import type { Flow } from './kernels/flow.ts';
import { JUMPS, NO_GROUND, facetLength, receiverOf, sourcesOf, stepLength, stepsOf } from './kernels/flow.ts';
import { type Grid, STEP_COL, STEP_ROW, centreOf } from './grid.ts';
import { type Labelled, outlineIn } from './outline.ts';

export interface CellSet {
  /** 1 in the set, with one entry a cell of the grid. */
  readonly mask: Uint8Array;
  /** Indices of the set, downstream before upstream. */
  readonly members: Int32Array;
}

/** Room to gather cells of one grid again and again: made as it is needed. A set gathered in it is there until it is cleared for the next. */
export class CellRoom {
  private marks: Uint8Array | null = null;
  private list: Int32Array | null = null;
  private waiting: Int32Array | null = null;
  private paths: Float64Array | null = null;
  private edges: Uint8Array | null = null;

  constructor(private readonly cells: number) {}

  /** One entry a cell of the grid, as all that follow. */
  get mask(): Uint8Array {
    return (this.marks ??= new Uint8Array(this.cells));
  }

  /** As the last set left them. */
  get members(): Int32Array {
    return (this.list ??= new Int32Array(this.cells));
  }

  get stack(): Int32Array {
    return (this.waiting ??= new Int32Array(this.cells));
  }

  get lengths(): Float64Array {
    return (this.paths ??= new Float64Array(this.cells));
  }

  /** Clean between outlines. */
  get sides(): Uint8Array {
    return (this.edges ??= new Uint8Array(this.cells));
  }

  clear({ members }: Pick<CellSet, 'members'>): void {
    const { mask } = this;
    for (let k = 0; k < members.length; k++) mask[members[k]] = 0;
  }
}

/** Cells as a set on a grid of so many, or with the clean marks given for it. */
export function setOf(members: Int32Array, on: number | Uint8Array): CellSet {
  const mask = typeof on === 'number' ? new Uint8Array(on) : on;
  for (let k = 0; k < members.length; k++) mask[members[k]] = 1;
  return { mask, members };
}

const NONE_LED: readonly number[] = [];

/** All cells whose water passes the given cells, these included; walks upstream only. */
export function upstreamOf(flow: Flow, outlets: ArrayLike<number>, room: CellRoom = new CellRoom(flow.receiver.length)): CellSet {
  const { ncols, receiver } = flow;
  const n = receiver.length;
  const { mask, members, stack } = room;
  let count = 0;
  let held = 0;
  for (let k = 0; k < outlets.length; k++) {
    const i = outlets[k];
    if (receiver[i] <= NO_GROUND || mask[i] === 1) continue;
    mask[i] = 1;
    stack[held++] = i;
  }
  // What is led here from elsewhere comes too.
  const led = sourcesOf(flow.jumps);
  const first = ncols + 1;
  const last = n - ncols - 2;
  while (held > 0) {
    const i = stack[--held];
    members[count++] = i;
    for (const from of led?.get(i) ?? NONE_LED) {
      if (mask[from] === 1) continue;
      mask[from] = 1;
      stack[held++] = from;
    }
    // A receiver never points off the grid, so a neighbour wrapped round a row's end never matches.
    // Written out with state in locals: this runs for every cell above.
    if (i >= first && i <= last) {
      let k = i + 1;
      if (receiver[k] === 4 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
      k = i + ncols + 1;
      if (receiver[k] === 5 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
      k = i + ncols;
      if (receiver[k] === 6 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
      k = i + ncols - 1;
      if (receiver[k] === 7 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
      k = i - 1;
      if (receiver[k] === 0 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
      k = i - ncols - 1;
      if (receiver[k] === 1 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
      k = i - ncols;
      if (receiver[k] === 2 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
      k = i - ncols + 1;
      if (receiver[k] === 3 && mask[k] === 0) {
        mask[k] = 1;
        stack[held++] = k;
      }
    } else {
      for (let d = 0; d < 8; d++) {
        const k = i + STEP_ROW[d] * ncols + STEP_COL[d];
        if (k < 0 || k >= n || receiver[k] !== ((d + 4) & 7) || mask[k] === 1) continue;
        mask[k] = 1;
        stack[held++] = k;
      }
    }
  }
  return { mask, members: members.subarray(0, count) };
}

const [ASKED, LEADS, PASSES] = [1, 2, 3];

/** Of some cells those whose water comes by no other of them, by their numbers: what drains to these is what drains to all. The room is clean before and after. */
export function lowestAmong(flow: Flow, cells: readonly number[], { mask }: CellRoom): number[] {
  const asked = [...new Set(cells)].filter((i) => flow.receiver[i] > NO_GROUND).sort((a, b) => a - b);
  for (const i of asked) mask[i] = ASKED;
  const passed: number[] = [];
  const lowest = asked.filter((from) => {
    const way: number[] = [];
    let i = receiverOf(flow, from);
    for (; i >= 0 && mask[i] === 0; i = receiverOf(flow, i)) {
      mask[i] = PASSES;
      way.push(i);
    }
    const isAbove = i >= 0 && mask[i] !== PASSES;
    if (isAbove) for (const k of way) mask[k] = LEADS;
    passed.push(...way);
    return !isAbove;
  });
  for (const i of asked) mask[i] = 0;
  for (const i of passed) mask[i] = 0;
  return lowest;
}

export interface CatchmentSize {
  readonly areaM2: number;
  /** Mean over its cells of the steepest slope of the ground [m/m]. */
  readonly meanSlope: number;
  /** Longest way water runs inside it to its outlet [m]. */
  readonly longestPathM: number;
  /** Where that way begins. */
  readonly farthest: Point;
  readonly touchesTerrainEdge: boolean;
}

export interface CatchmentShape extends CatchmentSize {
  /** Outline through cell corners, counter-clockwise, not repeating its start. */
  readonly ring: readonly Point[];
}

/** Rise per cell at a cell with eight neighbours (Horn 1981). */
function innerRise(z: Float32Array, i: number, ncols: number): number {
  // The corners above and below, at either side: written out, since this runs for every cell.
  const above = i - ncols;
  const below = i + ncols;
  const a = z[above - 1];
  const c = z[above + 1];
  const g = z[below - 1];
  const k = z[below + 1];
  const dx = c + 2 * z[i + 1] + k - a - 2 * z[i - 1] - g;
  const dy = g + 2 * z[below] + k - a - 2 * z[above] - c;
  return Math.sqrt(dx * dx + dy * dy) / 8;
}

/** Rise per cell at the border or beside no data, one-sided where a neighbour is missing. */
function edgeRise({ ncols, nrows, z }: Grid, i: number): number {
  const col = i % ncols;
  const row = (i - col) / ncols;
  const side = (forward: number, back: number): number => {
    if (!Number.isNaN(forward - back)) return (forward - back) / 2;
    if (!Number.isNaN(forward)) return forward - z[i];
    return Number.isNaN(back) ? 0 : z[i] - back;
  };
  const dx = side(col < ncols - 1 ? z[i + 1] : NaN, col > 0 ? z[i - 1] : NaN);
  const dy = side(row < nrows - 1 ? z[i + ncols] : NaN, row > 0 ? z[i - ncols] : NaN);
  return Math.hypot(dx, dy);
}

/** Steepest slope of the ground at each cell [m/m]; kept, it makes every later catchment cheaper. */
export function slopesOf(grid: Grid, edge: Uint8Array): Float32Array {
  const { z, ncols, cellM } = grid;
  const slopes = new Float32Array(z.length);
  for (let i = 0; i < z.length; i++) {
    if (z[i] === z[i]) slopes[i] = (edge[i] === 1 ? edgeRise(grid, i) : innerRise(z, i, ncols)) / cellM;
  }
  return slopes;
}

/** What is known of each cell of a grid. */
interface OnCells {
  readonly edge: Uint8Array;
  readonly slopes: Float32Array;
}

/** Area, slope, longest path and outline of a set from upstreamOf, whose members stand downstream first. */
export const shapeOf = (grid: Grid, flow: Flow, set: CellSet & OnCells): CatchmentShape =>
  shapeIn(grid, flow, { ...set, label: set.mask, wanted: 1, room: new CellRoom(grid.z.length) });

/**
 * The same of cells that bear a number among others: `members` are these, downstream first, of all that were parted by one list of
 * numbers. All parts may share one room.
 */
export function shapeIn(
  grid: Grid,
  flow: Flow,
  { room, ...set }: Labelled & OnCells & { readonly room: Pick<CellRoom, 'lengths' | 'sides'> },
): CatchmentShape {
  return { ...sizeIn(grid, flow, { ...set, lengths: room.lengths }), ring: outlineIn(grid, set, room.sides) };
}

/** The same without an outline. `lengths`, one a cell of the grid, holds path length to the outlet, in cells, of the members done so far. */
export function sizeIn(grid: Grid, flow: Flow, set: Labelled & OnCells & { readonly lengths: Float64Array }): CatchmentSize {
  const { members, label, wanted, edge, slopes, lengths } = set;
  const { receiver, facet, jumps, ncols } = flow;
  const off = stepsOf(ncols);
  let steepness = 0;
  let longest = 0;
  let head = -1;
  let touches = false;
  for (let k = 0; k < members.length; k++) {
    const i = members[k];
    steepness += slopes[i];
    touches ||= edge[i] === 1;
    const d = receiver[i];
    let length = 0.5;
    if (d >= 0) {
      const below = d === JUMPS ? (jumps.get(i) ?? -1) : i + off[d];
      const rest = below >= 0 && label[below] === wanted ? lengths[below] : 0;
      if (rest > 0) length = rest + (d === JUMPS ? stepLength(flow, i) : facetLength(facet[i], d));
    }
    lengths[i] = length;
    if (length > longest) {
      longest = length;
      head = i;
    }
  }
  const count = members.length;
  return {
    areaM2: count * grid.cellM ** 2,
    meanSlope: count === 0 ? 0 : steepness / count,
    // Half a cell at either end: from the top edge of the highest cell to the bottom edge of the lowest.
    longestPathM: count === 0 ? 0 : (longest + 0.5) * grid.cellM,
    farthest: head < 0 ? [0, 0] : centreOf(grid, head),
    touchesTerrainEdge: touches,
  };
}

/** Cells of each number from 1 to `count`, downstream first, sorted out in one pass over the grid. */
export function partedBy(flow: Flow, label: ArrayLike<number>, count: number): Int32Array[] {
  const { order } = flow;
  const ends = new Int32Array(count + 2);
  for (let k = 0; k < order.length; k++) ends[label[order[k]] + 1]++;
  for (let n = 1; n < ends.length; n++) ends[n] += ends[n - 1];
  const starts = ends.slice();
  const members = new Int32Array(order.length);
  for (let k = order.length - 1; k >= 0; k--) members[ends[label[order[k]]]++] = order[k];
  return Array.from({ length: count }, (_, n) => members.subarray(starts[n + 1], starts[n + 2]));
}

/** Outline of a set through cell corners; of its largest piece when it falls apart. */
export const outlineOf = (grid: Grid, { mask, members }: CellSet): Point[] => outlineIn(grid, { label: mask, wanted: 1, members });
