import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyCommand } from '../commands/index.ts';
import type { Command } from '../commands/index.ts';
import type { FieldTest } from '../ground/index.ts';
import { type Project, UserError } from '../project/index.ts';
import { readProject } from '../project/guard.ts';
import { LOSS_METHODS } from '../runoff/index.ts';
import { ABOVE, GROUND, ask, box, zone } from '../testing/ground.ts';
import { FULL_GROUND, LIP_M, SILL, SWALE, derived, planeProject } from '../testing/projects.ts';
import { type Tree, pathsIn, replacedAt, withFaults } from '../testing/trees.ts';
import { type Swale, registry } from '../works/index.ts';

describe('commands on the ground', () => {
  const run = (project: Project, command: Command): Project => applyCommand(project, command, registry).project;
  const code = (project: Project, command: Command): string => {
    try {
      run(project, command);
    } catch (error) {
      if (error instanceof UserError) return error.problems[0].code;
      throw error;
    }
    return 'accepted';
  };
  const RING: FieldTest = { id: 't1', kind: 'double-ring', name: 'Ring', zone: 'z1', sizes: {}, readings: [] };
  const z1 = zone('z1', ABOVE);
  it('draw a zone, test it, take it away: the test stays, for the whole property', () => {
    let p = run(planeProject(), { type: 'zone.add', payload: { zone: z1 } });
    p = run(p, { type: 'test.add', payload: { test: RING } });
    p = run(p, {
      type: 'test.change',
      payload: {
        id: 't1',
        set: {
          readings: [
            { min: 0, mm: 100 },
            { min: 10, mm: 95 },
          ],
          safety: 3,
        },
      },
    });
    p = run(p, { type: 'zone.change', payload: { id: 'z1', set: { cover: 'bare', curveNumber: 90, rateFrom: 't1' } } });
    expect(p.ground?.zones?.[0]).toMatchObject({ cover: 'bare', curveNumber: 90, rateFrom: 't1' });
    p = run(p, { type: 'zone.change', payload: { id: 'z1', set: { curveNumber: null, rateFrom: null } } });
    expect(p.ground?.zones?.[0].curveNumber).toBeNull();
    expect(p.ground?.zones?.[0]).not.toHaveProperty('rateFrom');
    p = run(p, { type: 'zone.remove', payload: { id: 'z1' } });
    expect(p.ground?.tests?.[0]).toMatchObject({ zone: null, safety: 3 });
    expect(readProject(JSON.parse(JSON.stringify(p)), registry).ground?.tests).toHaveLength(1);
  });
  it('take a test away: the rate it gave stays, no longer called tested', () => {
    const tested = { ...z1, rateFrom: 't1', infiltrationMmPerHour: 17 };
    const project = planeProject({ ground: { ...GROUND, rateFrom: 't1', zones: [tested], tests: [RING] } });
    const { ground } = run(project, { type: 'test.remove', payload: { id: 't1' } });
    expect(ground?.tests).toEqual([]);
    for (const soil of [ground, ground?.zones?.[0]]) expect(soil).not.toHaveProperty('rateFrom');
    expect(ground?.zones?.[0].infiltrationMmPerHour).toBe(17);
  });
  it.each<[string, Command]>([
    ['id.taken', { type: 'zone.add', payload: { zone: z1 } }],
    ['project.isRing', { type: 'zone.add', payload: { zone: zone('z2', box(0, 0, [9, 9]).slice(0, 2)) } }],
    ['project.isIn', { type: 'zone.change', payload: { id: 'z1', set: { cover: 'concrete-jungle' } } }],
    ['project.min', { type: 'zone.change', payload: { id: 'z1', set: { infiltrationMmPerHour: -5 } } }],
    ['project.max', { type: 'zone.change', payload: { id: 'z1', set: { infiltrationMmPerHour: 1e9 } } }],
    ['ground.range', { type: 'zone.change', payload: { id: 'z1', set: { infiltrationRange: [1, 2] } } }],
    ['project.isLimits', { type: 'zone.change', payload: { id: 'z1', set: { infiltrationRange: [30, 2] } } }],
    [
      'ground.shares',
      {
        type: 'ground.set',
        payload: { ground: { ...GROUND, texture: { id: 'loam', by: 'shares', shares: { sand: 90, silt: 90, clay: 5 } } } },
      },
    ],
    ['ground.twice', { type: 'ground.set', payload: { ground: { ...GROUND, zones: [z1, z1] } } }],
    ['ground.rate-from', { type: 'zone.change', payload: { id: 'z1', set: { rateFrom: 'nowhere' } } }],
    ['test.zone', { type: 'test.add', payload: { test: { ...RING, zone: 'nowhere' } } }],
    ['test.kind', { type: 'test.add', payload: { test: { ...RING, kind: 'spade' } } }],
    ['id.missing', { type: 'test.change', payload: { id: 't9', set: {} } }],
    ['project.isIn', { type: 'runoff.set', payload: { runoff: { loss: 'magic' } as never } }],
    ['project.isIn', { type: 'runoff.set', payload: { runoff: { of: { w1: { peak: 'guess' } } } as never } }],
    ['project.isObject', { type: 'runoff.set', payload: { runoff: { of: { w1: 7 } } as never } }],
    [
      'project.arrayMaxSize',
      { type: 'ground.set', payload: { ground: { ...GROUND, zones: Array.from({ length: 201 }, (_, k) => zone(`z${k}`, ABOVE)) } } },
    ],
  ])('%s is refused and changes nothing', (expected, command) => {
    const project = run(planeProject(), { type: 'zone.add', payload: { zone: z1 } });
    const before = JSON.stringify(project);
    expect(code(project, command)).toBe(expected);
    expect(JSON.stringify(project)).toBe(before);
  });
  it('are refused while there is no ground to have zones in', () => {
    expect(code(planeProject({ ground: null }), { type: 'zone.add', payload: { zone: z1 } })).toBe('ground.missing');
  });
});

describe('a file with one thing in its ground or runoff replaced', () => {
  const whole = JSON.parse(JSON.stringify({ ...planeProject(), ...FULL_GROUND })) as Tree;
  const paths = ['ground', 'runoff'].flatMap((key) => [key, ...pathsIn(whole[key] as Tree, key)]);
  it('is refused in words, or can be computed and asked about without a fault', () => {
    const odd = fc.constantFrom<unknown>(0, -1, 1e-9, 0.5, 7, 99, 1e9, null, '', 'x', 'bare', [], {}, [1, 2], [[1, 2]], [2, 'x'], true);
    let taken = 0;
    fc.assert(
      fc.property(fc.constantFrom(...paths), odd, (path, value) => {
        let project: Project;
        try {
          project = readProject(replacedAt(whole, path, value), registry);
        } catch (error) {
          if (!(error instanceof UserError)) throw error;
          expect(error.problems[0].do.length).toBeGreaterThan(5);
          return;
        }
        taken++;
        const { derived: d } = derived(project);
        const answers = project.ground
          ? [ask('tests', project, {}), ask('picture', project, { rain: null }), ask('methods', project, { of: 'w1' })]
          : [];
        expect(withFaults([d, answers])).not.toContain('NOT FINITE');
      }),
      { seed: 5, numRuns: 260 },
    );
    expect(taken).toBeGreaterThan(12);
  });
});

describe('any ground that is accepted', () => {
  const deeper: Swale = { ...SWALE, levels: { floorM: LIP_M - 0.4, bankCrestM: LIP_M + 0.4 } };
  const soils = fc.record({
    soilGroup: fc.constantFrom('A' as const, 'B' as const, 'C' as const, 'D' as const),
    cover: fc.constantFrom('bare', 'paved', 'pasture-good', 'woods-fair', 'gravel', 'water'),
    infiltrationMmPerHour: fc.constantFrom(0, 0.01, 12, 900),
    soilDepthM: fc.constantFrom(0, 0.4, 30),
    curveNumber: fc.constantFrom(null, 1, 55, 100),
    compaction: fc.constantFrom('none' as const, 'severe' as const),
    healing: fc.constantFrom({ treatment: 'rest' as const, cover: 'woods-good' }, { treatment: 'rip' as const }),
  });
  it('can be computed, with finite figures and water kept', () => {
    fc.assert(
      fc.property(
        soils,
        soils,
        fc.constantFrom(...LOSS_METHODS),
        fc.constantFrom('path' as const, 'kerby' as const, 'lag' as const),
        (...[a, b, loss, time]) => {
          const project = planeProject(
            { ground: { ...GROUND, ...a, as: 'healed', erosion: { annualMm: 500 }, zones: [zone('z', ABOVE, b)] }, runoff: { loss, time } },
            [deeper, SILL],
          );
          const { derived: d } = derived(project);
          const now = derived({ ...project, ground: { ...GROUND, ...project.ground, as: 'now' } }).derived;
          // Steps follow the quickest catchment, so peaks agree to their own sampling.
          d.runoff.forEach((r, k) => {
            expect(r.runoffMm).toBeLessThanOrEqual(now.runoff[k].runoffMm + 1e-9);
            expect(r.tcMin).toBeGreaterThanOrEqual(now.runoff[k].tcMin - 1e-9);
            expect(r.chosenPeakM3s).toBeLessThanOrEqual(1.02 * now.runoff[k].chosenPeakM3s + 1e-9);
          });
          expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
          expect(withFaults(d)).not.toContain('NOT FINITE');
        },
      ),
      { seed: 51, numRuns: 25 },
    );
  });
});
