// Seen things as changes of the surface and as water led elsewhere.
import type { Feature } from '../contract/index.ts';
import { type Point, distanceToRing } from '../geometry/index.ts';
import { type Grid, type LineEdit, STEP_COL, STEP_ROW, cellAt, cellsInside, centreOf, withEdits } from '../terrain/index.ts';
import { seenKind } from './kinds.ts';

/** Banks and ditches among the features, as edits of the surface. */
export function lineEdits(features: readonly Feature[]): LineEdit[] {
  return features.flatMap((f): LineEdit[] => {
    const effect = seenKind(f.kind)?.effect;
    if (!f.line || f.line.length < 2 || (effect !== 'bank' && effect !== 'ditch')) return [];
    const heightM = effect === 'bank' ? (f.heightM ?? 0) : -(f.depthM ?? 0);
    return [{ line: f.line, heightM, ...(f.open ? { open: f.open } : {}) }];
  });
}

/** A downspout further than this from every building takes no roof [m]. */
const ROOF_REACH_M = 10;
/** How far a roof stands above the ground round it: only so that its water can fall to its downspouts [m]. */
const ROOF_ABOVE_M = 4;

export interface Roof {
  readonly building: string;
  readonly cells: readonly number[];
  readonly spouts: readonly { readonly id: string; readonly cell: number; readonly at: Point }[];
}

/** Buildings that have downspouts, with the cells of their roofs and where each spout lets its water out. */
export function roofsOf(grid: Grid, features: readonly Feature[]): Roof[] {
  const buildings = features.filter((f) => f.kind === 'building' && f.ring && f.ring.length >= 3);
  const spouts = features.filter((f) => seenKind(f.kind)?.effect === 'downspout' && f.at);
  const byBuilding = new Map<string, Feature[]>();
  for (const spout of spouts) {
    const near = buildings
      .map((b) => ({ b, d: distanceToRing(b.ring ?? [], spout.at ?? [0, 0]) }))
      .filter(({ d }) => d <= ROOF_REACH_M)
      .sort((p, q) => p.d - q.d)[0];
    if (near) byBuilding.set(near.b.id, [...(byBuilding.get(near.b.id) ?? []), spout]);
  }
  return [...byBuilding].map(([id, own]): Roof => {
    const cells = cellsInside(grid, buildings.find((b) => b.id === id)?.ring ?? []);
    const roof = new Set(cells);
    return {
      building: id,
      cells,
      spouts: own.map((s) => ({ id: s.id, at: s.at ?? [0, 0], cell: outside(grid, roof, s.at ?? [0, 0]) })).filter((s) => s.cell >= 0),
    };
  });
}

/** The cell of a place, or the lowest one beside the roof it stands on. */
function outside(grid: Grid, roof: ReadonlySet<number>, at: Point): number {
  const start = cellAt(grid, at);
  if (start < 0 || !roof.has(start)) return start;
  let ring = [start];
  const seen = new Set(ring);
  for (let reach = 0; reach < 40 && ring.length > 0; reach++) {
    const next: number[] = [];
    for (const i of ring) {
      for (let d = 0; d < 8; d++) {
        const k = i + STEP_ROW[d] * grid.ncols + STEP_COL[d];
        if (seen.has(k) || k < 0 || k >= grid.z.length || Number.isNaN(grid.z[k])) continue;
        seen.add(k);
        next.push(k);
      }
    }
    const free = next.filter((k) => !roof.has(k)).sort((a, b) => grid.z[a] - grid.z[b]);
    if (free.length > 0) return free[0];
    ring = next;
  }
  return -1;
}

/** The surface as water meets it: banks, ditches and roofs with downspouts set upon the ground. The grid itself when none is. */
export function surfaceOf(grid: Grid, features: readonly Feature[], roofs: readonly Roof[]): Grid {
  const edited = withEdits(grid, lineEdits(features));
  if (roofs.length === 0) return edited;
  const z = Float32Array.from(edited.z);
  for (const { cells } of roofs) {
    const top = cells.reduce((high, i) => Math.max(high, edited.z[i]), -Infinity) + ROOF_ABOVE_M;
    for (const i of cells) z[i] = top;
  }
  return { ...edited, z };
}

/** Cells whose water is led elsewhere: inlets of culverts and pipes to their outlets, roofs to the nearest downspout. */
export function ledWater(grid: Grid, features: readonly Feature[], roofs: readonly Roof[]): Map<number, number> {
  const led = new Map<number, number>();
  for (const f of features) {
    if (seenKind(f.kind)?.effect !== 'led' || !f.line || f.line.length < 2) continue;
    const [from, to] = [cellAt(grid, f.line[0]), cellAt(grid, f.line[f.line.length - 1])];
    if (from >= 0 && to >= 0 && from !== to && !Number.isNaN(grid.z[from] + grid.z[to])) led.set(from, to);
  }
  for (const { cells, spouts } of roofs) {
    if (spouts.length === 0) continue;
    for (const i of cells) {
      const [x, y] = centreOf(grid, i);
      const nearest = spouts.reduce((a, s) => (Math.hypot(s.at[0] - x, s.at[1] - y) < Math.hypot(a.at[0] - x, a.at[1] - y) ? s : a));
      led.set(i, nearest.cell);
    }
  }
  return led;
}

/** The part of the features that decides how water runs: what a kept surface is known by. */
export function effectKey(features: readonly Feature[]): string {
  const hasSpouts = features.some((f) => seenKind(f.kind)?.effect === 'downspout');
  return JSON.stringify(
    features
      .filter((f) => {
        const effect = seenKind(f.kind)?.effect;
        return (effect !== undefined && effect !== 'note' && effect !== 'spring') || (hasSpouts && f.kind === 'building');
      })
      .map(({ kind, line, at, ring, heightM, depthM, open }) => [kind, line, at, ring, heightM, depthM, open]),
  );
}
