import type { BoundWork, Catchment } from '../contract/index.ts';
import type { Line } from '../geometry/index.ts';
import type { Project } from '../project/index.ts';
import { NO_GROUND, cellAt, cellsUnder, firstInterceptor, interceptorCells, membersOf, shapeOf, upstreamOf } from '../terrain/index.ts';
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

/** What runs onto each work directly, its own cells included. */
export function workCatchments(model: GroundModel, met: Interception, memo: Memo): Catchment[] {
  return met.works.map((id, k) =>
    memo.step(`catchment:${id}`, `${met.key}|${k}`, () => {
      const members = membersOf(model.flow, met.label, k + 1);
      const mask = new Uint8Array(met.label.length);
      for (const i of members) mask[i] = 1;
      return { of: id, ...shapeOf(model.grid, model.flow, { mask, members, edge: model.edge, slopes: slopesIn(model, memo) }) };
    }),
  );
}

/** All ground that would drain across a work's line if nothing above it caught water. */
export function naturalCatchment(model: GroundModel, work: BoundWork & { readonly interceptor: Line }, memo: Memo): Catchment {
  const { id } = work.work;
  return memo.step(`natural:${id}`, `${model.key}|${JSON.stringify(work.interceptor)}`, () => {
    const set = upstreamOf(model.flow, cellsUnder(model.grid, work.interceptor));
    return { of: id, ...shapeOf(model.grid, model.flow, { ...set, edge: model.edge, slopes: slopesIn(model, memo) }) };
  });
}

/** Catchment of each pin: the cells that drain through the pin's cell. A pin off the terrain has none. */
export function pinCatchments(model: GroundModel, project: Project, memo: Memo): Catchment[] {
  return project.pins.flatMap((pin) => {
    const cell = cellAt(model.grid, pin.at);
    if (cell < 0 || model.flow.receiver[cell] === NO_GROUND) return [];
    return [
      memo.step(`pin:${pin.id}`, `${model.key}|${cell}`, () => {
        const set = upstreamOf(model.flow, [cell]);
        return { of: pin.id, ...shapeOf(model.grid, model.flow, { ...set, edge: model.edge, slopes: slopesIn(model, memo) }) };
      }),
    ];
  });
}
