import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '../contract/index.ts';
import { applyCommand } from '../commands/index.ts';
import type { Project } from '../project/index.ts';
import { derived } from '../testing/projects.ts';
import { CUT, DRAIN, POND, POND_SILL, ROAD, valleyProject } from '../testing/valley.ts';
import { registry } from '../works/index.ts';

const storm = (times: number): Partial<Project> => ({
  rain: {
    table: { durationsMin: [10, 60, 120], returnYears: [20], depthMm: [[16, 40, 58].map((d) => d * times)] },
    storm: { returnYears: 20, durationMin: 120 },
  },
});

/** The project with a work set to every figure it needs, as often as that changes what it needs. */
function settled(project: Project, id: string): Project {
  let at = project;
  for (let k = 0; k < 6; k++) {
    const set = Object.fromEntries(
      (derived(at).view.figures[id] ?? []).flatMap((f) => (f.sets === undefined || f.value === null ? [] : [[f.sets, f.value] as const])),
    );
    at = applyCommand(at, { type: 'works.change', payload: { changes: [{ id, set }] } }, registry).project;
  }
  return at;
}

/** How grave a check is as found, full and blocked, which is what a size is for; on wet and bare ground more is only weighed. */
function severity(project: Project, id: string): string | undefined {
  const check = derived(project).derived.checks.find((c) => c.id === id);
  if (check?.condition !== 'wet' && check?.condition !== 'bare') return check?.severity;
  expect(check.severity).toBe('weigh');
  return 'fine';
}

describe('a work set to what it needs', () => {
  it.each<[string, readonly WorkBase[], string, string]>([
    ['a crossing', [{ ...ROAD, dimensions: { ...ROAD.dimensions, diameterM: 0.3 } } as WorkBase], 'road', 'crossing.headwater'],
    ['a drain', [{ ...DRAIN, dimensions: { ...DRAIN.dimensions, depthM: 0.1 } } as WorkBase], 'drain', 'diversion.freeboard'],
    ['a pond', [{ ...POND, levels: { ...POND.levels, crestM: 105.95 } } as WorkBase, POND_SILL, CUT], 'pond', 'pond.freeboard'],
  ])('%s passes the check it was sized by, in any storm', (...[, works, id, check]) => {
    for (const times of [1, 2, 3]) {
      const project = settled(valleyProject(works, storm(times)), id);
      expect(severity(project, check)).toBe('fine');
    }
    expect(severity(valleyProject(works, storm(3)), check)).not.toBe('fine');
  });
  it('a cut spillway is as wide as the peak asks, wider for more rain, and its grass stands', () => {
    const narrow = { ...CUT, levels: { sillM: 105.4 }, dimensions: { ...CUT.dimensions, bottomWidthM: 0.5 } };
    const widths = [1, 2, 3].map((times) => {
      const project = settled(valleyProject([POND, narrow], storm(times)), 'cut');
      expect(severity(project, 'cut-spillway.exit-velocity')).toBe('fine');
      return (project.options[0].works[1] as typeof CUT).dimensions.bottomWidthM;
    });
    expect(widths[1]).toBeGreaterThanOrEqual(widths[0]);
    expect(widths[2]).toBeGreaterThan(widths[0]);
  });
});
