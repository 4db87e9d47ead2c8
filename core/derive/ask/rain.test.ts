import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { applyCommand } from '../../commands/index.ts';
import {
  type Project,
  type Rain,
  UserError,
  assetName,
  assetsOf,
  gridFromBytes,
  isRecord,
  recordFromBytes,
  recordToBytes,
} from '../../project/index.ts';
import type { DesignStorm, RainRecord } from '../../rain/index.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { registry } from '../../works/index.ts';
import { RAIN_QUESTIONS, ask as askByName, verdict } from '../index.ts';
import { context as afresh } from '../../testing/ground.ts';

const RAIN = planeProject().rain as Rain;
const withStorm = (change: Partial<DesignStorm>, rain: Partial<Rain> = {}): Project =>
  planeProject({ rain: { ...RAIN, ...rain, storm: { ...RAIN.storm, ...change } } });
const told = (project: Project): string =>
  verdict('rain', project, { derived: derived(project).derived, system: 'metric', selected: null })
    .map((p) => p.text)
    .join('')
    .replace(/\s/g, ' ');
const runoff = (change: Partial<DesignStorm>) => derived(withStorm(change)).derived.runoff[0];

describe('what a storm brings', () => {
  it('keeps its volume and loses its peak when it falls evenly, and gains both by an addition', () => {
    const [blocks, even, more] = [runoff({}), runoff({ shape: { kind: 'uniform' } }), runoff({ upliftPercent: 25 })];
    expect(even.volumeM3).toBeCloseTo(blocks.volumeM3, 6);
    expect(even.hydrographPeakM3s).toBeLessThan(blocks.hydrographPeakM3s);
    // The rational peak is the table's own and does not care how the storm falls.
    expect(even.rationalPeakM3s).toBe(blocks.rationalPeakM3s);
    expect(more.rainMm).toBeCloseTo(1.25 * blocks.rainMm, 9);
    expect(more.rationalPeakM3s).toBeCloseTo(1.25 * blocks.rationalPeakM3s, 9);
  });
  it('is worse the second time: the ground is wet', () => {
    const [once, twice] = [runoff({}), runoff({ againAfterH: 6 })];
    expect(twice.rainMm).toBeCloseTo(2 * once.rainMm, 9);
    expect(twice.volumeM3).toBeGreaterThan(2 * once.volumeM3);
  });
  it('takes its peak from itself where it is the user’s own', () => {
    const own = runoff({ shape: { kind: 'own', name: 'mine', stepMin: 30, stepsMm: [4, 30, 4] } });
    expect(own.rainMm).toBeCloseTo(38, 9);
    // Over a time of concentration within the wettest step: 60 mm/h.
    expect(own.tcMin).toBeLessThan(30);
    expect(own.intensityMmPerHour).toBeCloseTo(60, 6);
  });
  it('is balanced, and a bigger storm never leaves less, whatever its shape', () => {
    const shapes = fc.constantFrom<DesignStorm['shape']>(
      { kind: 'blocks' },
      { kind: 'uniform' },
      { kind: 'own', name: '', stepMin: 20, stepsMm: [3, 9, 1, 0, 14] },
    );
    fc.assert(
      fc.property(
        shapes,
        fc.integer({ min: 0, max: 60 }),
        fc.option(fc.integer({ min: 0, max: 20 }), { nil: undefined }),
        (shape, u, gap) => {
          const storm = { ...(shape ? { shape } : {}), ...(gap === undefined ? {} : { againAfterH: gap }) };
          const [less, more] = [u, u + 30].map((upliftPercent) => derived(withStorm({ ...storm, upliftPercent })).derived);
          for (const d of [less, more]) expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
          expect(more.stores[0].inM3 ?? 0).toBeGreaterThan(less.stores[0].inM3 ?? 0);
          expect(more.stores[0].spilledM3 ?? 0).toBeGreaterThanOrEqual((less.stores[0].spilledM3 ?? 0) - 1e-9);
          expect(more.stores[0].peakLevelM ?? 0).toBeGreaterThanOrEqual((less.stores[0].peakLevelM ?? 0) - 1e-9);
        },
      ),
      { seed: 51, numRuns: 25 },
    );
  });
});

describe('the verdict on rain', () => {
  it('says what is designed for, how often it is passed, and what was added', () => {
    expect(told(withStorm({}))).toBe(
      'You design for the 1 in 20 year storm of 2 h: 58 mm of rain. It is passed in a given year with a chance of 5 %, in 25 years with 72 %.',
    );
    expect(told(withStorm({ upliftPercent: 20, againAfterH: 8 }))).toMatch(/70 mm of rain, 20 % added\. .* It falls twice, 8 h apart\.$/);
    expect(told(withStorm({ shape: { kind: 'own', name: 'the cloudburst', stepMin: 30, stepsMm: [20, 20] } }))).toBe(
      'You design for the cloudburst: 40 mm of rain in 60 min; by your table about 1 in 20 years.',
    );
    expect(told(withStorm({}, { basis: 'memory' }))).toMatch(/The table is a guess from memory\.$/);
  });
});

const record: RainRecord = {
  startMin: 0,
  stepMin: 1440,
  steps: 400,
  wet: Uint32Array.of(3, 4, 200),
  mm: Float32Array.of(20, 31, 12),
  missing: Uint32Array.of(50, 60),
};

describe('a gauge’s record beside the document', () => {
  it('is kept bit for bit, told from terrain, and refused when damaged', () => {
    const bytes = recordToBytes(record);
    expect(recordFromBytes(bytes)).toEqual(record);
    expect(isRecord(bytes)).toBe(true);
    expect(() => gridFromBytes(bytes)).toThrow('not a terrain asset');
    expect(() => recordFromBytes(bytes.slice(0, 60))).toThrow('cut short or damaged');
    expect(() => recordFromBytes(new Uint8Array(80))).toThrow('not a gauge asset');
    const unsound = recordToBytes({ ...record, wet: Uint32Array.of(3, 3, 200) });
    expect(() => recordFromBytes(unsound)).toThrow('not sound');
    fc.assert(
      fc.property(fc.nat(bytes.length - 1), fc.nat(255), (at, value) => {
        const spoilt = bytes.slice();
        spoilt[at] = value;
        try {
          const read = recordFromBytes(spoilt);
          expect(read.mm.every((v) => v > 0 && Number.isFinite(v))).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(UserError);
        }
      }),
      { seed: 52, numRuns: 300 },
    );
  });
  it('answers every question, or says in words why not', () => {
    const sha256 = assetName(recordToBytes(record));
    const project = applyCommand(planeProject(), { type: 'gauge.set', payload: { gauge: { sha256, source: 'g.csv' } } }, registry).project;
    expect(assetsOf(project)).toEqual([sha256]);
    const context = { ...afresh(), records: () => record };
    const ask = (name: string, args: unknown = {}): unknown => askByName(name, { project, context, args });
    expect(ask('quality')).toMatchObject({ wholeYears: 1, gapCount: 1, gaps: [{ fromMin: 50 * 1440, durationMin: 10 * 1440 }] });
    expect(ask('frequency')).toMatchObject({ tooShort: true });
    expect([ask('table', { kind: 'gev' }), ask('curve', { durationMin: 1440, kind: 'gumbel' })]).toEqual([null, null]);
    expect(ask('events')).toMatchObject([
      { depthMm: 51, durationMin: 2880, storm: { stepsMm: [20, 31] }, returned: { beyond: 'commoner' } },
      { depthMm: 12, durationMin: 1440 },
    ]);
    expect(ask('seasons')).toMatchObject({ yearsKnown: 1, wettestDay: { day: 4, mm: 31 } });
    for (const name of Object.keys(RAIN_QUESTIONS).filter((n) => n !== 'which')) {
      expect(() => askByName(name, { project: planeProject(), context, args: {} })).toThrow('there is no gauge record yet');
    }
    expect(() => ask('snow')).toThrow('no question "snow"');
  });
  it.each([
    ['rain.limits', { limits: { lowMm: [[1]], highMm: [[2]] } }],
    ['rain.basis', { basis: 'hearsay' }],
    ['rain.storm-shape', { storm: { returnYears: 20, durationMin: 120, shape: { kind: 'pattern', pattern: 'II' } } }],
  ])('%s is refused and changes nothing', (code, change) => {
    const before = planeProject();
    try {
      applyCommand(before, { type: 'rain.set', payload: { rain: { ...RAIN, ...change } as Rain } }, registry);
      throw new Error('it was taken');
    } catch (error) {
      if (!(error instanceof UserError)) throw error;
      expect(error.problems.map((p) => p.code)).toEqual([code]);
      expect(before).toEqual(planeProject());
    }
  });
});
