import type { BoundWork, Catchment } from '../contract/index.ts';
import type { Line } from '../geometry/index.ts';
import type { Project } from '../project/index.ts';
import { cellsInside } from '../seen/index.ts';
import {
  type CellSet,
  type Exit,
  NO_GROUND,
  cellAt,
  cellsUnder,
  exitsOf,
  firstInterceptor,
  interceptorCells,
  membersOf,
  setOf,
  shapeOf,
  upstreamOf,
} from '../terrain/index.ts';
import type { Memo } from './memo.ts';
import { type GroundModel, slopesIn } from './terrain-steps.ts';

export interface Interception {
  readonly key: string;
  readonly works: readonly string[];
  readonly owner: Int16Array;
  readonly label: Int16Array;
}

/** Which work each cell's water meets first. */
export function interception(model: GroundModel, works: readonly BoundWork[], memo: Memo): Interception {
  const catching = works.filter((w): w is BoundWork & { interceptor: Line } => w.interceptor !== null);
  const ids = catching.map((w) => w.work.id);
  const key = `${model.key}|${JSON.stringify(catching.map((w) => [w.work.id, w.interceptor]))}`;
  const made = memo.step('interception', key, () => {
    const owner = interceptorCells(
      model.grid,
      catching.map((w) => w.interceptor),
    );
    return { works: ids, owner, label: firstInterceptor(model.flow, owner) };
  });
  return { ...made, key: memo.stamp('interception') };
}

/** A catchment with the cells it is made of. */
export interface Gathered {
  readonly key: string;
  readonly catchment: Catchment;
  readonly members: Int32Array;
}

/** Gathers a catchment once as long as its key stands. */
function gather(
  of: string,
  step: { readonly name: string; readonly key: string },
  on: { model: GroundModel; memo: Memo; cells: () => CellSet },
): Gathered {
  const { model, memo, cells } = on;
  const made = memo.step(step.name, step.key, () => {
    const set = cells();
    const shape = shapeOf(model.grid, model.flow, { ...set, edge: model.edge, slopes: slopesIn(model, memo) });
    return { catchment: { of, ...shape }, members: set.members.slice() };
  });
  return { ...made, key: memo.stamp(step.name) };
}

/** What runs onto each work directly, its own cells included. */
export function workCatchments(model: GroundModel, met: Interception, memo: Memo): Gathered[] {
  return met.works.map((id, k) =>
    gather(
      id,
      { name: `catchment:${id}`, key: `${met.key}|${k}` },
      { model, memo, cells: () => setOf(membersOf(model.flow, met.label, k + 1), met.label.length) },
    ),
  );
}

/** All ground that would drain across a work's line if nothing above it caught water. */
export function naturalCatchment(model: GroundModel, work: BoundWork & { readonly interceptor: Line }, memo: Memo): Gathered {
  const { id } = work.work;
  const step = { name: `natural:${id}`, key: `${model.key}|${JSON.stringify(work.interceptor)}` };
  return gather(id, step, { model, memo, cells: () => upstreamOf(model.flow, cellsUnder(model.grid, work.interceptor)) });
}

/** Catchment of each pin: the cells that drain through the pin's cell. A pin off the terrain has none. */
export function pinCatchments(model: GroundModel, project: Project, memo: Memo): Gathered[] {
  return project.pins.flatMap((pin) => {
    const cell = cellAt(model.grid, pin.at);
    if (cell < 0 || model.flow.receiver[cell] === NO_GROUND) return [];
    const step = { name: `pin:${pin.id}`, key: `${model.key}|${cell}` };
    return [gather(pin.id, step, { model, memo, cells: () => upstreamOf(model.flow, [cell]) })];
  });
}

/** 1 for cells within the property line, or for all ground without one. */
export function insideOf(model: GroundModel, project: Project, memo: Memo): Uint8Array {
  const { outline } = project.site;
  return memo.step('inside', `${model.ground}|${JSON.stringify(outline)}`, () => {
    const { z } = model.grid;
    const inside = new Uint8Array(z.length);
    if (outline.length < 3) return inside.map((_, i) => (Number.isNaN(z[i]) ? 0 : 1));
    for (const cell of cellsInside(model.grid, outline)) if (!Number.isNaN(z[cell])) inside[cell] = 1;
    return inside;
  });
}

export interface ExitGround {
  readonly exit: Exit;
  readonly id: string;
  /** All ground whose water leaves here when nothing is built. */
  readonly whole: Gathered;
  /** The part of it no work catches. */
  readonly uncaught: Gathered;
}

/** Places where water leaves the property, or the map where no property line is known. */
export function exitGrounds(model: GroundModel, project: Project, on: { readonly met: Interception; readonly memo: Memo }): ExitGround[] {
  const { met, memo } = on;
  const { grid, flow } = model;
  const inside = insideOf(model, project, memo);
  const key = `${model.key}|${memo.stamp('inside')}`;
  const exits = memo.step('exits', key, () => exitsOf(grid, flow, inside));
  return exits.map((exit, k) => {
    const id = exit.isPlace ? `exit-${k + 1}` : 'exit-rest';
    const cells = (): CellSet => upstreamOf(flow, exit.cells);
    const whole = gather(id, { name: `exit:${k}`, key }, { model, memo, cells });
    if (met.works.length === 0) return { exit, id, whole, uncaught: whole };
    const open = (): CellSet =>
      setOf(
        whole.members.filter((i) => met.label[i] === 0),
        grid.z.length,
      );
    return { exit, id, whole, uncaught: gather(id, { name: `exit-open:${k}`, key: `${key}|${met.key}` }, { model, memo, cells: open }) };
  });
}
