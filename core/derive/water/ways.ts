// Where water runs to from places on the ground. An edit moves what catches water at a few cells: only ways that come by these are followed again.
import type { Link, Outlet } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { type Plan, linkOf } from '../../network/index.ts';
import { type Grid, centreOf } from '../../terrain/index.ts';
import { saysTheSame } from '../graph/alike.ts';
import type { Graph } from '../graph/graph.ts';
import type { Interception } from '../world/interception.ts';

/** Where a way begins that runs downhill. */
export type Start = Pick<Outlet, 'id' | 'work' | 'role' | 'dischargeAt'>;
/** Ways from the starts of a store; null where none begins. */
export type WaysDown = readonly (Link | null)[];

/** West, south, east and north of what some ways come by. */
type Box = readonly [number, number, number, number];

/** What was followed last, in the order of the stores. */
interface Followed {
  /** Of the property. */
  readonly outline: Line;
  /** The interception it was followed on. */
  readonly mark: object;
  readonly starts: readonly (readonly (Start | null)[])[];
  readonly ways: readonly WaysDown[];
  readonly boxes: readonly Box[];
}

export interface FollowOn {
  readonly plan: Plan;
  readonly met: Interception;
  readonly graph: Graph;
}

/** The box of ways with the cells beside them: a way's places lie beside the middles of its cells. */
function boxOf(ways: WaysDown, { cellM }: Grid): Box {
  let [west, south, east, north] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const way of ways) {
    for (const [x, y] of way?.path ?? []) {
      west = Math.min(west, x);
      south = Math.min(south, y);
      east = Math.max(east, x);
      north = Math.max(north, y);
    }
  }
  const beside = 2 * cellM;
  return [west - beside, south - beside, east + beside, north + beside];
}

/** Whether any of some cells lies in a box. */
function isTouched(box: Box, cells: Int32Array, grid: Grid): boolean {
  const [west, south, east, north] = box;
  for (const cell of cells) {
    const [x, y] = centreOf(grid, cell);
    if (x >= west && x <= east && y >= south && y <= north) return true;
  }
  return false;
}

/** The ways from each store's starts to the next store that catches their water, or to where it leaves. */
export function waysDown(
  word: string,
  { ids, starts }: Pick<Followed, 'starts'> & { readonly ids: readonly string[] },
  { plan, met, graph }: FollowOn,
): readonly WaysDown[] {
  return graph.goingOn(word, [plan, met, ids, starts], (before: Followed | undefined): Followed => {
    const caughtAt = before?.outline === plan.outline ? caughtSince(before.mark, met) : null;
    const follow = (store: string, k: number): WaysDown => {
      const stays = before && caughtAt && before.starts[k] === starts[k] && !isTouched(before.boxes[k], caughtAt, plan.grid);
      if (stays) return before.ways[k];
      const now = starts[k].map((start) => start && linkOf(plan, store, start));
      return before && saysTheSame(before.ways[k], now) ? before.ways[k] : now;
    };
    const ways = ids.map(follow);
    const boxes = ways.map((own, k) => (before && own === before.ways[k] ? before.boxes[k] : boxOf(own, plan.grid)));
    return { outline: plan.outline, mark: met.mark, starts, ways, boxes };
  }).ways;
}

/** Cells at which another catches water than in the interception of a mark; null where nobody knows. */
const caughtSince = (before: object, { mark, since }: Interception): Int32Array | null =>
  before === mark ? NO_CELLS : since?.mark === before ? since.caughtAt : null;
const NO_CELLS = new Int32Array(0);
