import type { Feature } from '../../contract/index.ts';
import { type Plan, followWater } from '../../network/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { DerivedSpring } from '../types.ts';

/** Where the water of each spring goes: the first store it meets, or where it leaves. */
export const springsOf = (features: readonly Feature[], plan: Plan, graph: Graph): DerivedSpring[] =>
  features.flatMap((f): DerivedSpring[] => {
    const { id, kind, at, flowM3s = 0 } = f;
    if (kind !== 'spring' || !at) return [];
    return [
      graph.settled(`spring:${id}`, [plan, at, flowM3s], (by, from, flow) => ({ id, flowM3s: flow, ...followWater(by, from, null) })),
    ];
  });

/** Steady inflow of each store from springs [m3/s]. */
export function baseFlows(springs: readonly DerivedSpring[]): Map<string, number> {
  const flows = new Map<string, number>();
  for (const { to, flowM3s } of springs) flows.set(to, (flows.get(to) ?? 0) + flowM3s);
  return flows;
}
