import { contains } from '../geometry/index.ts';
import { type Project } from '../project/index.ts';
import { centreOf, traceDown } from '../terrain/index.ts';
import type { Interception } from './catchments.ts';
import type { Memo } from './memo.ts';
import type { GroundModel } from './terrain-steps.ts';
import type { DerivedSpring } from './types.ts';

/** Where the water of each spring goes: the first work it meets, or where it leaves. */
export function springsOf(project: Project, model: GroundModel, on: { met: Interception; memo: Memo }): DerivedSpring[] {
  const { outline } = project.site;
  return project.features.flatMap((f): DerivedSpring[] => {
    const { at } = f;
    if (f.kind !== 'spring' || !at) return [];
    const key = `${on.met.key}|${at.join()}|${JSON.stringify(outline)}`;
    const found = on.memo.step(`spring:${f.id}`, key, () => {
      let to = 'terrain-edge';
      const { path } = traceDown({ grid: model.grid, flow: model.flow }, at, (cell) => {
        const owner = on.met.owner[cell];
        if (owner !== 0) to = on.met.works[owner - 1];
        else if (outline.length >= 3 && !contains(outline, centreOf(model.grid, cell))) to = 'property-edge';
        else return false;
        return true;
      });
      return { to, path };
    });
    return [{ id: f.id, flowM3s: f.flowM3s ?? 0, ...found }];
  });
}

/** Steady inflow of each work from springs [m3/s]. */
export function baseFlows(springs: readonly DerivedSpring[]): Map<string, number> {
  const flows = new Map<string, number>();
  for (const { to, flowM3s } of springs) flows.set(to, (flows.get(to) ?? 0) + flowM3s);
  return flows;
}
