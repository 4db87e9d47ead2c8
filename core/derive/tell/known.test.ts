import { describe, expect, it } from '@jest/globals';
import type { Check } from '../../contract/index.ts';
import type { Project, SurveyPart } from '../../project/index.ts';
import type { Peg } from '../../survey/index.ts';
import { writePegs } from '../../formats/index.ts';
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

  it('carried to the pegs: how near the ground is known where each stands, and nothing while nobody has said', () => {
    const pegsOf = (surveys?: readonly SurveyPart[]): readonly Peg[] =>
      derive(on(surveys), { registry, grids: noGrid, graph: new Graph() }).derived.pegs;
    const [silent, said] = [pegsOf(), pegsOf(near)];
    expect(silent.some((p) => 'groundKnownM' in p)).toBe(false);
    expect(said.map(({ groundKnownM: _, ...peg }) => peg)).toEqual(silent);
    for (const peg of said) expect(peg.groundKnownM).toBe(peg.groundM === null ? null : 0.01);
    expect(said.filter((p) => p.groundKnownM === 0.01).length).toBeGreaterThan(4);
    // Laid over by a survey of which nobody has said.
    expect(pegsOf([...near, { name: 'hill' }]).every((p) => p.groundKnownM === null)).toBe(true);
    const csv = (pegs: readonly Peg[]): string => writePegs(pegs, 'csv', { crs: null, workNames: new Map() });
    expect([csv(silent).includes('ground_known_m'), /,ground_m,ground_known_m,[\s\S]*,0\.010,/.test(csv(said))]).toEqual([false, true]);
  });

  it('with what was worked out before at hand as without it', () => {
    const graph = new Graph();
    for (const surveys of [near, [{ name: 'phone', levelsM: 5 }], undefined, near])
      expect(checksOf(on(surveys), graph)).toEqual(checksOf(on(surveys)));
  });
});
