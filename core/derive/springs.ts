import { followWater } from '../network/index.ts';
import { type Project } from '../project/index.ts';
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
    const plan = { grid: model.grid, flow: model.flow, owner: on.met.owner, works: on.met.works, outline };
    const found = on.memo.step(`spring:${f.id}`, key, () => followWater(plan, at, null));
    return [{ id: f.id, flowM3s: f.flowM3s ?? 0, ...found }];
  });
}

/** Steady inflow of each work from springs [m3/s]. */
export function baseFlows(springs: readonly DerivedSpring[]): Map<string, number> {
  const flows = new Map<string, number>();
  for (const { to, flowM3s } of springs) flows.set(to, (flows.get(to) ?? 0) + flowM3s);
  return flows;
}
