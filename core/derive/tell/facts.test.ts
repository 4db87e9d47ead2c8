// What works are told of their water, held against all flows of a run looked through one by one.
import { describe, expect, it } from '@jest/globals';
import { noGrid } from '../../testing/projects.ts';
import { EVERY_KIND, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph } from '../graph/graph.ts';
import { designPeakOf } from '../run/outcomes.ts';
import { asDesigned } from '../scenario/scenario.ts';
import { runSet } from '../set/set.ts';
import { toldOf } from './facts.ts';

describe('what is known of works', () => {
  const project = valleyProject(EVERY_KIND);
  const graph = new Graph();
  const set = runSet(asDesigned(project), { registry, grids: noGrid, graph })!;
  const { durationsMin, world, water } = set;
  // What runs past some rows comes to a drain, which it does not by itself in this valley.
  const [drain] = water.stores.filter((s) => set.worst.conduits.has(s.id));
  const led = [...set.worst.flows].map(
    ([key, list]) => [key, key.endsWith('#past') ? list.map((l) => ({ ...l, to: drain.id })) : list] as const,
  );
  const run = { ...set.worst, flows: new Map(led) };
  const told = toldOf(project, { isAside: false, durationsMin, crests: new Map(), world, water, run, graph });
  const flows = [...run.flows.values()].flat();
  const workOf = (store: string): string | undefined => water.stores.find((s) => s.id === store)?.work;

  it('are all flows out of their stores, what runs past these, and what they let out of others', () => {
    for (const { id } of told.works) {
      const own = flows.filter((l) => workOf(l.from) === id);
      const guests = flows.filter((l) => l.work === id && workOf(l.from) !== id);
      expect({ id, links: told.facts.get(id)?.links }).toEqual({ id, links: [...own, ...guests] });
    }
    expect(flows.some((l) => l.role === 'past' && l.to === drain.id)).toBe(true);
    expect(flows.some((l) => l.work !== workOf(l.from))).toBe(true);
  });
  it('and of a drain the shafts to which other works send theirs', () => {
    for (const { id } of told.works) {
      const isLaid = water.stores.some((s) => s.work === id && run.conduits.has(s.id));
      const from = flows.filter((l) => workOf(l.to) === id && workOf(l.from) !== id);
      expect({ id, to: told.facts.get(id)?.ledTo ?? null }).toEqual({ id, to: isLaid ? [...new Set(from.map((l) => l.to))] : null });
    }
    expect(told.facts.get(drain.work)?.ledTo).toContain(drain.id);
  });
  it('and of each store the peak its ways out must pass, with what spills in from above', () => {
    const joints = water.stores.flatMap((s) => s.outlets.flatMap((o) => (o.kind === 'joint' ? [o.id] : [])));
    for (const { id } of water.stores) {
      const above = flows.filter((l) => l.to === id && !joints.includes(l.outlet));
      const fromAboveM3s = above.reduce((sum, { peakM3s, share = 1 }) => sum + share * (peakM3s ?? 0), 0);
      const hasCatchment = water.catchments.some((g) => g.catchment.of === id);
      const known = { runoff: run.hydrology.runoff.get(id) ?? null, hasCatchment, fromAboveM3s };
      expect({ id, peak: told.designPeaks.get(id) }).toEqual({ id, peak: designPeakOf(run.outcomes.get(id)?.storm ?? null, known) });
    }
    expect([...told.designPeaks.values()].filter((p) => p !== null && p > 0).length).toBeGreaterThan(5);
  });
});
