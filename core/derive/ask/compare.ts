// Side by side: the land with and without one thing that was seen, and what it would take to open it again.
import type { Feature } from '../../contract/index.ts';
import { type Point, lineLength, nearestOnLine, pointAlong } from '../../geometry/index.ts';
import { type Project, fail, optionOf } from '../../project/index.ts';
import { seenKind } from '../../seen/index.ts';
import { type Flow, catchingOn, cellAt, cellsUnder, centreOf, entering, firstInterceptor, upstreamOf } from '../../terrain/index.ts';
import type { Registry } from '../../works/index.ts';
import type { RoomContext } from '../set/laid.ts';
import { liveWorks } from '../scenario/scenario.ts';
import { type GroundModel, groundModel } from '../world/ground-model.ts';

/** A pin or a work, with the area it drains with and without the thing in question [m2]. */
export interface Compared {
  readonly id: string;
  readonly name: string;
  readonly withM2: number;
  readonly withoutM2: number;
}

interface Target {
  readonly id: string;
  readonly name: string;
  /** 1 for cells whose water comes to it first. */
  readonly cellsIn: (flow: Flow) => Uint8Array;
}

/** Pins, and works that catch water, each with the cells it drains on a given flow. */
function targetsOf(project: Project, model: GroundModel, registry: Registry): Target[] {
  const works = liveWorks(optionOf(project).works)
    .map((work) => registry.bind(work))
    .filter(({ intakes }) => intakes.length > 0);
  const owner = catchingOn(
    model.grid,
    works.flatMap(({ intakes }, k) => intakes.map((where) => ({ ...where, number: k + 1 }))),
  );
  const pins = project.pins.flatMap((pin): Target[] => {
    const cell = cellAt(model.grid, pin.at);
    return cell < 0 ? [] : [{ id: pin.id, name: pin.name ?? 'Pin', cellsIn: (flow) => upstreamOf(flow, [cell]).mask }];
  });
  return [
    ...works.map(({ work }, k): Target => ({
      id: work.id,
      name: work.name,
      cellsIn: (flow) => Uint8Array.from(firstInterceptor(flow, owner), (v) => (v === k + 1 ? 1 : 0)),
    })),
    ...pins,
  ];
}

const count = (mask: Uint8Array): number => mask.reduce((sum, v) => sum + v, 0);

function featureOf(project: Project, id: string): Feature {
  return (
    project.features.find((f) => f.id === id) ??
    fail('feature.missing', `there is nothing with the id "${id}"`, { do: 'It may have been removed: choose another.' })
  );
}

interface Pair {
  readonly feature: Feature;
  readonly now: GroundModel;
  readonly without: GroundModel;
}

/** The land as it is and without one feature; null while there is no terrain. */
function pairOf(project: Project, context: RoomContext, id: string): Pair | null {
  const feature = featureOf(project, id);
  const now = groundModel(project, context);
  const without = groundModel({ ...project, features: project.features.filter((f) => f.id !== id) }, context);
  return now && without ? { feature, now, without } : null;
}

/** Area of every pin and work with and without a feature. */
export function compareWithout(project: Project, context: RoomContext, { id }: { readonly id: string }): Compared[] {
  const pair = pairOf(project, context, id);
  if (!pair) return [];
  const cellM2 = pair.now.grid.cellM ** 2;
  return targetsOf(project, pair.now, context.registry).map(({ cellsIn, ...target }) => ({
    ...target,
    withM2: count(cellsIn(pair.now.flow)) * cellM2,
    withoutM2: count(cellsIn(pair.without.flow)) * cellM2,
  }));
}

export interface Opening {
  readonly fromM: number;
  readonly toM: number;
  readonly at: Point;
}

export interface Reopening {
  readonly target: string;
  /** What the target drains now, and without the bank [m2]. */
  readonly nowM2: number;
  readonly withoutM2: number;
  /** Where to open it, the most useful first; empty when it takes nothing from the target. */
  readonly openings: readonly Opening[];
  /** How deep to cut: down to the ground beside it [m]. */
  readonly cutM: number;
  readonly lengthM: number;
  /** What the target drains once it is opened: worked out on the opened surface, not estimated [m2]. */
  readonly openedM2: number;
}

/** Share of what was lost that an opening should bring back before no more are added. */
const ENOUGH = 0.9;
const MOST_OPENINGS = 3;

/** Where along a bank the lost water met it, as stretches with the cells that came there, most first. */
function crossings({ feature, now, without }: Pair, lost: Uint8Array): { fromM: number; toM: number; cells: number }[] {
  const line = feature.line ?? [];
  const { grid } = now;
  const own = new Set(cellsUnder(grid, line));
  const stepM = Math.max(2, 1.5 * grid.cellM);
  const bins = new Float64Array(Math.max(1, Math.ceil(lineLength(line) / stepM)));
  // Only what was lost counts: water that reaches the target anyway needs no opening.
  for (const [cell, cells] of entering(without.flow, (i) => own.has(i), lost)) {
    const bin = Math.min(bins.length - 1, Math.floor(nearestOnLine(centreOf(grid, cell), line).atM / stepM));
    bins[bin] += cells;
  }
  return Array.from(bins, (cells, k) => ({ fromM: k * stepM, toM: Math.min(lineLength(line), (k + 1) * stepM), cells }))
    .filter((b) => b.cells > 0)
    .sort((a, b) => b.cells - a.cells);
}

/**
 * How many millimetres and metres of a bank to open so that a pin or work drains again what the bank takes from it. Openings
 * are added where most of the lost water used to cross, and the land is worked out anew with each, until nine tenths are back.
 */
export function reopen(
  project: Project,
  context: RoomContext,
  { id, target }: { readonly id: string; readonly target: string },
): Reopening | null {
  const pair = pairOf(project, context, id);
  if (!pair || seenKind(pair.feature.kind)?.effect !== 'bank' || !pair.feature.line) return null;
  const { feature, now, without } = pair;
  const { line } = pair.feature;
  const wanted = targetsOf(project, now, context.registry).find((t) => t.id === target);
  if (!wanted) return null;
  const cellM2 = now.grid.cellM ** 2;
  const mine = wanted.cellsIn(now.flow);
  const could = wanted.cellsIn(without.flow);
  const lost = Uint8Array.from(could, (v, i) => (v === 1 && mine[i] === 0 ? 1 : 0));
  const [nowCells, couldCells] = [count(mine), count(could)];
  let openings: Opening[] = [];
  let opened = nowCells;
  const candidates = couldCells > nowCells ? crossings(pair, lost).slice(0, 8) : [];
  for (const { fromM, toM } of candidates) {
    const tried = [...openings, { fromM, toM, at: pointAlong(line, (fromM + toM) / 2).point }];
    const open = [...(feature.open ?? []), ...tried.map((o) => [o.fromM, o.toM] as const)];
    const features = project.features.map((f) => (f.id === id ? { ...f, open } : f));
    const model = groundModel({ ...project, features }, context);
    const cells = model ? count(wanted.cellsIn(model.flow)) : 0;
    if (cells <= opened) continue;
    [openings, opened] = [tried, cells];
    if (opened - nowCells >= ENOUGH * (couldCells - nowCells) || openings.length === MOST_OPENINGS) break;
  }
  return {
    target,
    nowM2: nowCells * cellM2,
    withoutM2: couldCells * cellM2,
    openings,
    cutM: feature.heightM ?? 0,
    lengthM: openings.reduce((sum, o) => sum + o.toM - o.fromM, 0),
    openedM2: opened * cellM2,
  };
}
