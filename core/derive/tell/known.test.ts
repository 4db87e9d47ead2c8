import { describe, expect, it } from '@jest/globals';
import type { Check } from '../../contract/index.ts';
import type { Project, SurveyPart } from '../../project/index.ts';
import { SILL, SWALE, noGrid, planeProject } from '../../testing/projects.ts';
import { registry } from '../../works/index.ts';
import { Graph } from '../graph/graph.ts';
import { derive } from '../derive.ts';

const on = (surveys?: readonly SurveyPart[]): Project => {
  const project = planeProject({}, [SWALE, SILL]);
  return surveys && project.terrain ? { ...project, terrain: { ...project.terrain, surveys } } : project;
};
const checksOf = (project: Project, graph = new Graph()): readonly Check[] =>
  derive(project, { registry, grids: noGrid, graph }).derived.checks.filter((c) => c.id === 'ground.known');
const severities = (checks: readonly Check[]): readonly string[] => checks.map((c) => `${c.on} ${c.severity}`);

describe('works held against how near the ground is known', () => {
  const near = [{ name: 'staff', levelsM: 0.01 }];
  it('only once somebody has said, and by what is said last', () => {
    expect(checksOf(on())).toEqual([]);
    expect(checksOf(on([{ name: 'hill' }]))).toEqual([]);
    expect(severities(checksOf(on(near)))).toEqual([`${SWALE.id} fine`]);
    expect(severities(checksOf(on([{ name: 'phone', levelsM: 5 }])))).toEqual([`${SWALE.id} weigh`]);
    // Said of a survey that was laid over it, not of the one that is under the work now.
    expect(severities(checksOf(on([...near, { name: 'hill' }])))).toEqual([`${SWALE.id} unknown`]);
  });

  it('with what was worked out before at hand as without it', () => {
    const graph = new Graph();
    for (const surveys of [near, [{ name: 'phone', levelsM: 5 }], undefined, near])
      expect(checksOf(on(surveys), graph)).toEqual(checksOf(on(surveys)));
  });
});
