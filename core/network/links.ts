import type { Destination, Link, Outlet } from '../contract/index.ts';
import { type Line, type Point, closed, contains, distance, nearestOnLine } from '../geometry/index.ts';
import { SHALLOW_FLOW } from '../hydraulics/index.ts';
import { type CellNumbers, type Flow, type Grid, centreOf, traceDown } from '../terrain/index.ts';

export interface Plan {
  readonly grid: Grid;
  readonly flow: Flow;
  /** Number of the store that catches water at each cell, 0 for none; number k belongs to stores[k - 1]. */
  readonly owner: CellNumbers;
  readonly stores: readonly string[];
  /** Empty when no property line is known: water then runs to the edge of the terrain. */
  readonly outline: Line;
}

/** Follows water from a place to the next store that catches it (`store`'s own line left out), the property line or the edge of the terrain. */
export function followWater(plan: Plan, from: Point, store: string | null): { readonly to: Destination; readonly path: Link['path'] } {
  const { grid, flow, stores, outline } = plan;
  const owner = plan.owner.read();
  const own = store === null ? -1 : stores.indexOf(store) + 1;
  const hasOutline = outline.length >= 3;
  let to: Destination = 'terrain-edge';
  const trace = traceDown({ grid, flow }, from, (cell) => {
    if (owner[cell] !== 0 && owner[cell] !== own) {
      to = stores[owner[cell] - 1];
      return true;
    }
    if (hasOutline && !contains(outline, centreOf(grid, cell))) {
      to = 'property-edge';
      return true;
    }
    return false;
  });
  const last = trace.path[trace.path.length - 1];
  if (hasOutline && trace.ended === 'terrain-edge' && last) {
    // A property line drawn along the edge of the terrain is crossed in the same step.
    if (nearestOnLine([last[0], last[1]], closed(outline)).distanceM <= 1.5 * grid.cellM) to = 'property-edge';
  }
  return { to, path: trace.path };
}

/** The way of an outlet's water, with its length and the time it takes. */
export function linkOf(plan: Plan, store: string, outlet: Pick<Outlet, 'id' | 'work' | 'role' | 'dischargeAt'>): Link {
  const { to, path } = followWater(plan, outlet.dischargeAt, store);
  let lengthM = 0;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1], path[i]];
    lengthM += distance([a[0], a[1]], [b[0], b[1]]);
  }
  const fall = path.length > 1 ? path[0][2] - path[path.length - 1][2] : 0;
  const slope = Math.max(0.001, lengthM > 0 ? fall / lengthM : 0);
  return {
    from: store,
    outlet: outlet.id,
    work: outlet.work,
    role: outlet.role,
    to,
    path,
    lengthM,
    lagS: lengthM / SHALLOW_FLOW.evaluate({ S: slope }),
  };
}
