// What a change would bring, held against both documents worked out by themselves.
import { describe, expect, it } from '@jest/globals';
import { applyCommand } from '../../commands/index.ts';
import type { Check, WorkBase } from '../../contract/index.ts';
import type { Project } from '../../project/index.ts';
import { cured } from '../../testing/checks.ts';
import { LIP_M, SILL, SWALE, noGrid, planeProject } from '../../testing/projects.ts';
import { PIPE, POND, POND_SILL, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph, ask, derive } from '../index.ts';
import type { Derived } from '../types.ts';
import type { Price } from './price.ts';

const RAIN = { table: { durationsMin: [60, 1440], returnYears: [20], depthMm: [[33, 92]] }, storm: { returnYears: 20 } };
const memory = new Graph();
const alone = (project: Project): Derived => derive(project, { registry, grids: noGrid, graph: memory }).derived;
const priceOf = (project: Project, [work, set]: readonly [work: string, set: Record<string, number>], graph = new Graph()): Price =>
  ask('price', { project, context: { registry, grids: noGrid, graph } as never, args: { work, set } }) as Price;
const changed = (project: Project, work: string, set: Record<string, number>): Project =>
  applyCommand(project, { type: 'works.change', payload: { changes: [{ id: work, set }] } }, registry).project;
const plain = (says: string): string => says.replace(/[\u00a0\u202f]/g, ' ');

const SHORT: WorkBase = { ...SILL, dimensions: { lengthM: 2, crestWidthM: 1 } } as WorkBase;
const LOW: WorkBase = { ...SWALE, levels: { floorM: LIP_M - 0.35, bankCrestM: LIP_M + 0.16 } } as WorkBase;
const PLANE = planeProject({ rain: RAIN }, [LOW, SHORT]);

describe('the price of a change', () => {
  it('is what both documents differ by', () => {
    const set = { 'levels.sillM': LIP_M - 0.1 };
    const price = priceOf(PLANE, ['s1', set]);
    const [before, after] = [alone(PLANE), alone(changed(PLANE, 's1', set))];
    const [a, b] = [before.stores[0], after.stores[0]];
    expect(price.stores).toEqual([{ store: 'w1', heldM3: b.heldM3 - a.heldM3, leftM: b.least!.value - a.least!.value }]);
    const count = (d: Derived, severity: Check['severity']): number => d.checks.filter((c) => c.severity === severity).length;
    expect(price.mends).toBe(count(after, 'mend') - count(before, 'mend'));
    expect(price.weighs).toBe(count(after, 'weigh') - count(before, 'weigh'));
    expect(plain(price.says)).toMatch(/^holds \d+ m³ less, \d+ mm more freeboard/);
  });
  it('leaves what is kept of the document as it was', () => {
    const graph = new Graph();
    const context = { registry, grids: noGrid, graph };
    const before = derive(PLANE, context);
    const size = graph.size;
    priceOf(PLANE, ['s1', { 'levels.sillM': LIP_M - 0.1 }], graph);
    expect(graph.size).toBeLessThanOrEqual(1.3 * size);
    expect(derive(PLANE, context).derived).toEqual(before.derived);
  });
  it('tells of other stores it changes, and says so when it changes nothing', () => {
    const upper: WorkBase = { ...POND, id: 'up', name: 'Upper', wall: [[88, 141], [114, 141]], levels: { floorM: 107, crestM: 108.6 } } as WorkBase; // prettier-ignore
    const sill: WorkBase = { ...POND_SILL, id: 'us', name: 'Upper sill', host: 'up', atM: 22, levels: { sillM: 108.1 } } as WorkBase;
    const chain = valleyProject([POND, POND_SILL, PIPE, upper, sill], { rain: RAIN });
    expect(plain(priceOf(chain, ['us', { 'levels.sillM': 107.4 }]).says)).toMatch(/^holds \d+ m³ less, \d+ mm more freeboard/);
    expect(priceOf(PLANE, ['s1', { 'levels.sillM': (SHORT as unknown as typeof SILL).levels.sillM }]).says).toBe(
      'changes nothing that is judged',
    );
  });
  it('is refused where the document does not take it', () => {
    expect(() => priceOf(PLANE, ['s1', { 'dimensions.lengthM': -3 }])).toThrow();
    for (const path of ['levels.', 'nothing.here', '__proto__.x'])
      expect(() => priceOf(PLANE, ['s1', { [path]: 1 }])).toThrow(/there is no/);
    expect(() => priceOf(PLANE, ['nobody', { 'dimensions.lengthM': 3 }])).toThrow(/nobody/);
  });
});

describe('cures', () => {
  const projects: readonly Project[] = [
    PLANE,
    planeProject({ rain: RAIN }, [
      { ...SWALE, levels: { floorM: LIP_M - 0.35, bankCrestM: LIP_M + 0.1 } } as WorkBase,
      SHORT,
      { ...SHORT, id: 's2', name: 'Second', atM: 60, levels: { sillM: LIP_M + 0.02 } } as WorkBase,
    ]),
    valleyProject([{ ...POND, levels: { ...POND.levels, crestM: 106.3 } } as WorkBase, POND_SILL, { ...PIPE, levels: { sillM: 105.85, outletM: 105.2 } } as WorkBase], { rain: RAIN }), // prettier-ignore
  ];
  const offered = projects.flatMap((project) => alone(project).checks.flatMap((check) => (check.cure ? [{ project, check }] : [])));
  it('come with what is to mend or to weigh alone, and there are several', () => {
    expect(new Set(offered.map((c) => c.check.id)).size).toBeGreaterThanOrEqual(6);
    for (const { check } of offered) expect(['mend', 'weigh']).toContain(check.severity);
  });
  // Widening a sill lowers the water, raising a crest changes what comes: each is done once more where it was not enough.
  it('do what they say: followed, nothing is to mend or to weigh in it', () => {
    // Who lies below may still be unknown.
    for (const { project, check } of offered)
      expect([check.id, ['fine', 'unknown'].includes(cured(project, check))]).toEqual([check.id, true]);
  });
});
