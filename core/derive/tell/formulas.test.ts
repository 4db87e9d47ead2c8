import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { LawResult } from '../../formula/index.ts';
import { FORMULAS } from './formulas.ts';

const [IN, FT, MI2] = [25.4, 0.3048, 2.58999];
const CFS = FT ** 3;

/** A formula by its id, as the command line runs it. */
function calc(id: string, inputs: Readonly<Record<string, unknown>>): LawResult {
  const formula = FORMULAS.find((f) => f.id === id);
  if (!formula) throw new Error(`no formula ${id}`);
  return formula.evaluate(inputs as never);
}
const one = (id: string, inputs: Readonly<Record<string, unknown>>): number => calc(id, inputs) as number;
const list = (id: string, inputs: Readonly<Record<string, unknown>>): readonly number[] => calc(id, inputs) as readonly number[];
const refused = (id: string, inputs: Readonly<Record<string, unknown>>): string => {
  try {
    calc(id, inputs);
  } catch (error) {
    return (error as Error).message;
  }
  return '';
};

/** Chicago's greatest ten minutes of each year, 1913 to 1947 [in] (Chow, Maidment & Mays 1988, Table 12.2.1; P). */
const CHICAGO = [
  0.49, 0.66, 0.36, 0.58, 0.41, 0.47, 0.74, 0.53, 0.76, 0.57, 0.8, 0.66, 0.68, 0.68, 0.61, 0.88, 0.49, 0.33, 0.96, 0.94, 0.8, 0.62, 0.71,
  1.11, 0.64, 0.52, 0.64, 0.34, 0.7, 0.57, 0.92, 0.66, 0.65, 0.63, 0.6,
];
const TEN = [38, 52, 61, 45, 70, 49, 83, 57, 41, 66];

type Row = readonly [what: string, id: string, inputs: Readonly<Record<string, unknown>>, expected: number, within: number, unit?: number];

describe('published values by formula', () => {
  it.each<Row>([
    ['mean of 35 years (CMM Example 12.2.1, P)', 'rain.sample-mean', { x: CHICAGO }, 0.649, 0.0006],
    ['and their deviation', 'rain.sample-deviation', { x: CHICAGO }, 0.177, 0.0006],
    [
      'drains 5 m over a tight layer (ILRI 16, Hooghoudt: about 65 m; by hand 65.5)',
      'hydraulics.drain-spacing',
      { K1: 0.14, K2: 0.14, q: 0.001, h: 1, D: 5, r: 0.1 },
      65.5,
      0.1,
    ],
    [
      'drains in quick soil, 7 mm a day (by hand)',
      'hydraulics.drain-spacing',
      { K1: 0.8, K2: 0.8, q: 0.007, h: 0.6, D: 3, r: 0.05 },
      34.4,
      0.1,
    ],
    ['equivalent depth, 5 m at 75 m (Moody 1966)', 'hydraulics.equivalent-depth', { D: 5, L: 75, r: 0.1 }, 3.48, 0.01],
    ['at 50 m (Moody 1966)', 'hydraulics.equivalent-depth', { D: 5, L: 50, r: 0.1 }, 3.02, 0.01],
    ['1 m at 10 m (Moody 1966)', 'hydraulics.equivalent-depth', { D: 1, L: 10, r: 0.1 }, 0.8, 0.01],
    [
      'ditches to the tight layer, the same soil without bending (by hand)',
      'hydraulics.ditch-spacing',
      { K: 0.8, H: 3.6, D: 3, q: 0.007 },
      42.5,
      0.1,
    ],
    ['a hectare at 10 mm a day: 1.157 L/s (by hand)', 'hydraulics.drained-flow', { q: 10, A: 10_000 }, 0.001157, 1e-6],
    ['a roof of 100 m2 under 600 mm at 0.85 (by hand)', 'hydraulics.roof-yield', { C: 0.85, P: 600, A: 100 }, 51, 1e-9],
    ['its first millimetre from 150 m2: 150 L (by hand)', 'hydraulics.roof-yield', { C: 1, P: 1, A: 150 }, 0.15, 1e-9],
    ['120 days of five people at 20 L (by hand)', 'hydraulics.dry-store', { t: 120, n: 5, u: 20, s: 0 }, 12, 1e-9],
    ['the same with a tenth under the tap (by hand)', 'hydraulics.dry-store', { t: 120, n: 5, u: 20, s: 0.1 }, 13.33, 0.01],
    [
      'sequent peak of nine steps, 3.5 drawn (Loucks & van Beek 2005; P)',
      'hydraulics.sequent-peak',
      { Q: [1, 3, 3, 5, 8, 6, 7, 2, 1], D: Array.from({ length: 9 }, () => 3.5) },
      7.5,
      1e-9,
    ],
    ['two pegs: the sight reads 40 mm high (by hand)', 'survey.two-peg-error', { a1: 1.5, b1: 1.2, a2: 1.65, b2: 1.39 }, -0.04, 1e-9],
    ['and should read 1.350 (by hand)', 'survey.two-peg-true', { a1: 1.5, b1: 1.2, a2: 1.65 }, 1.35, 1e-9],
    ['water at 1.10 behind and 1.40 ahead: 300 mm lower (by hand)', 'survey.tube-level', { P: 100, b: 1.1, a: 1.4 }, 99.7, 1e-9],
    ['nine set-ups by level: 15 mm (by hand)', 'survey.misclosure-allowed', { k: 0.005, n: 9 }, 0.015, 1e-12],
    ['tapes of 6 and 8 on 10: a right angle, 3.6 along (by hand)', 'survey.two-tapes-along', { a: 6, b: 8, c: 10 }, 3.6, 1e-9],
    ['and 4.8 beside (by hand)', 'survey.two-tapes-beside', { a: 6, u: 3.6 }, 4.8, 1e-9],
    ['10 m at 30 degrees: 8.660 along (by hand)', 'survey.angle-along', { d: 10, phi: 30 }, 8.660254, 1e-6],
    ['and 5 to the right (by hand)', 'survey.angle-beside', { d: 10, phi: 30 }, 5, 1e-9],
    ['retention of 80: 2.5 in (TR-55 eq. 2-4, P)', 'runoff.retention', { CN: 80 }, 2.5, 1e-9, IN],
    [
      '75, 100 and 75 acres of 70, 80 and 74 (TR-55 Example 2-2, P)',
      'runoff.weighed-number',
      { A: [75, 100, 75], CN: [70, 80, 74] },
      75.2,
      0.05,
    ],
    ['75 dry (NEH-630 Table 10-1, P)', 'runoff.curve-number-when', { CN: 75, wetness: 'dry' }, 57, 1e-9],
    ['75 wet (NEH-630 Table 10-1, P)', 'runoff.curve-number-when', { CN: 75, wetness: 'wet' }, 88, 1e-9],
    ['75 dry by Hawkins 1985, near the table', 'runoff.curve-number-dry-1985', { CN: 75 }, 57, 1.5],
    ['75 wet by Hawkins 1985, near the table', 'runoff.curve-number-wet-1985', { CN: 75 }, 88, 1.5],
    ['three stretches (TR-55 Example 3-1, P)', 'runoff.travel-sum', { t: [0.3, 0.24, 0.99] }, 1.53, 1e-9],
    ['Type II, tc 2 h (TR-55 appendix F, C)', 'runoff.graphical-unit-peak-of', { type: 'II', r: 0.1, tc: 2 }, 225.5, 0.5],
    ['Type IA, tc 1 h (TR-55 appendix F, C)', 'runoff.graphical-unit-peak-of', { type: 'IA', r: 0.1, tc: 1 }, 107.8, 0.3],
    ['Type II at half the peak (TR-55 Figure 6-1, C)', 'runoff.detention-share-of', { type: 'II', r: 0.5 }, 0.2765, 0.001],
    ['Type I at half the peak (TR-55 Figure 6-1, C)', 'runoff.detention-share-of', { type: 'I', r: 0.5 }, 0.1788, 0.001],
    ['a day of Type II at noon (TR-55 appendix B, P)', 'rain.day-share', { type: 'II', t: 12 }, 0.663, 1e-9],
    ['a day of Type IA at eight (TR-55 appendix B, P)', 'rain.day-share', { type: 'IA', t: 8 }, 0.425, 1e-9],
    [
      'water 2.7 m wide in a gutter (HEC-22 Example 4-1, P)',
      'hydraulics.gutter-spread',
      { n: 0.016, Sx: 0.02, SL: 0.01, Q: 0.05 },
      2.7,
      0.05,
    ],
    ['a gutter with 2.5 m of water (HEC-22, C)', 'hydraulics.gutter-flow', { n: 0.016, Sx: 0.02, SL: 0.01, T: 2.5 }, 0.0395, 0.001],
    ['downpipe of 50 mm (EN 12056-3 Table 8, P)', 'hydraulics.downpipe', { D: 50, f: 0.33, kb: 0.25 }, 1.7, 0.1],
    ['downpipe of 100 mm (EN 12056-3 Table 8, P)', 'hydraulics.downpipe', { D: 100, f: 0.33, kb: 0.25 }, 10.7, 0.1],
    ['downpipe of 150 mm (EN 12056-3 Table 8, P)', 'hydraulics.downpipe', { D: 150, f: 0.33, kb: 0.25 }, 31.6, 0.1],
    ['half-round gutter of 125 mm (EN 12056-3, C)', 'hydraulics.half-round-gutter', { A: 6136 }, 1.36, 0.01],
    ['parabola twice as wide as 3/2 of its area (Chow 1959 Table 2-1)', 'hydraulics.parabola-area', { T: 3, d: 0.5 }, 1, 1e-12],
  ])('%s', (...[, id, inputs, expected, within, unit = 1]) => {
    expect(Math.abs(one(id, inputs) / unit - expected)).toBeLessThanOrEqual(within);
  });
  it('L-moments and fits of both samples (Hosking 1990; computed from his formulas, C)', () => {
    const close = (got: readonly number[], want: readonly number[], within: number): void =>
      want.forEach((v, k) => expect(Math.abs(got[k] - v)).toBeLessThanOrEqual(within));
    close(list('rain.l-moments', { x: CHICAGO }), [0.64886, 0.09948, 0.07125], 1e-5);
    close(list('rain.gumbel-fit', { x: CHICAGO }), [0.56602, 0.14352], 1e-5);
    close(list('rain.l-moments', { x: TEN }), [56.2, 8.3778, 0.14125], 1e-4);
    const [u, alpha] = list('rain.gumbel-fit', { x: TEN });
    expect(one('rain.gumbel-depth', { u, alpha, T: 100 })).toBeCloseTo(104.82, 1);
    const [xi, scale, k] = list('rain.gev-fit', { x: TEN });
    expect(k).toBeCloseTo(0.0454, 3);
    expect(one('rain.gev-depth', { xi, alpha: scale, k, T: 100 })).toBeCloseTo(101.72, 1);
  });
  it('ten minutes to two hours of Denver fall as printed (CMM Example 14.4.1, P)', () => {
    const t = Array.from({ length: 12 }, (_, n) => 10 * (n + 1));
    const depths = t.map((minutes) => (one('rain.intensity-wenzel', { c: 96.6, e: 0.97, f: 13.9, t: minutes }) * minutes) / 60);
    const steps = list('rain.alternating-blocks', { P: depths });
    const printed = [0.024, 0.033, 0.05, 0.084, 0.178, 0.693, 0.308, 0.117, 0.063, 0.04, 0.028, 0.021];
    printed.forEach((v, n) => expect(Math.abs(steps[n] - v)).toBeLessThanOrEqual(0.001));
  });
  it('a unit hydrograph under 2, 3 and 1 inches (CMM Example 7.5.1, P)', () => {
    const U = [404, 1079, 2343, 2506, 1460, 453, 381, 274, 173];
    const flow = list('runoff.convolution', { P: [2, 3, 1], U });
    expect(flow.map(Math.round)).toEqual([808, 3370, 8327, 13120, 12781, 7792, 3581, 2144, 1549, 793, 173]);
  });
  it('the dimensionless hydrograph has an area of 1.336, a factor of 483 (NEH-630 Table 16-1, C)', () => {
    const t = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.3, 1.4, 1.5, 1.6, 1.7, 1.8, 1.9, 2, 2.2, 2.4, 2.6, 2.8, 3, 3.2, 3.4, 3.6, 3.8, 4, 4.5, 5]; // prettier-ignore
    const q = [0, 0.03, 0.1, 0.19, 0.31, 0.47, 0.66, 0.82, 0.93, 0.99, 1, 0.99, 0.93, 0.86, 0.78, 0.68, 0.56, 0.46, 0.39, 0.33, 0.28, 0.207, 0.147, 0.107, 0.077, 0.055, 0.04, 0.029, 0.021, 0.015, 0.011, 0.005, 0]; // prettier-ignore
    expect(Math.abs(one('runoff.peak-factor-of', { t, q }) - 483)).toBeLessThan(1);
  });
  it('an acre with upright sides and a pipe (CMM Examples 8.2.1 and 8.2.2, P)', () => {
    const O = [0, 3, 8, 17, 30, 43, 60, 78, 97, 117, 137, 156, 173, 190, 205, 218, 231, 242, 253, 264, 275];
    const h = O.map((_, k) => k / 2);
    const I = [60, 120, 180, 240, 300, 360, 320, 280, 240, 200, 160, 120, 80, 40, 0, 0, 0, 0, 0];
    const out = list('network.level-pool', { dt: 600, I, h, S: h.map((v) => 43560 * v), O });
    const printed: readonly (readonly [number, number])[] = [[1, 2.4], [2, 17.1], [3, 61.1], [5, 182.2], [7, 259.3], [8, 270], [9, 267.4], [12, 206.9], [15, 79.8], [19, 16.2]]; // prettier-ignore
    // The book's own columns are rounded.
    for (const [step, flow] of printed) expect(Math.abs(out[step - 1] - flow)).toBeLessThan(0.7);
  });
  it('silt loam under 5 cm an hour has taken 3.02 cm after one (CMM Example 4.4.2, P)', () => {
    const F = list('runoff.green-ampt-storm', { K: 6.5, s: 56.8, dt: 0.1, P: Array.from({ length: 10 }, () => 5) });
    expect(Math.abs(F[9] - 30.2)).toBeLessThan(0.1);
    // Until 8.5 mm are in, after ten minutes, all soaks (CMM Example 4.4.1, P).
    expect(F[0]).toBe(5);
    expect(F[1]).toBeLessThan(10);
  });
  it('soil groups change at 1.417, 0.567 and 0.057 in/h (NEH-630 Table 7-1, P)', () => {
    const group = (inches: number, D = 2): LawResult => calc('ground.soil-group', { K: inches * IN, D, W: 10 });
    expect([1.418, 1.416, 0.568, 0.566, 0.058, 0.056].map((v) => group(v))).toEqual(['A', 'B', 'B', 'C', 'C', 'D']);
    expect(group(5, 0.4)).toBe('D');
    expect(calc('ground.texture-class', { sand: 40, silt: 40, clay: 20 })).toBe('loam');
    expect(calc('ground.texture-class', { sand: 10, silt: 30, clay: 60 })).toBe('clay');
  });
  it('peaks of the graphical method by type go through to the peak: 345 cfs (TR-55 Example 4-1, P)', () => {
    const qu = one('runoff.graphical-unit-peak-of', { type: 'II', r: 0.11, tc: 1.53 });
    expect(Math.abs(qu / 270 - 1)).toBeLessThan(0.02);
    const peak = one('runoff.graphical-peak', { qu, A: 0.39 * MI2, Q: 3.28 * IN, Fp: 1 });
    expect(Math.abs(peak / CFS / 345 - 1)).toBeLessThan(0.02);
  });
});

describe('laws worked a second way', () => {
  it('a round pipe is critical where its energy is least', () => {
    for (const [Q, D] of [
      [0.02, 0.3],
      [0.1, 0.45],
      [0.6, 0.9],
    ] as const) {
      // prettier-ignore
      const energy = (y: number): number => {
        const angle = 2 * Math.acos(1 - (2 * y) / D);
        return y + (Q / ((D * D * (angle - Math.sin(angle))) / 8)) ** 2 / (2 * 9.81);
      };
      const y = one('hydraulics.critical-depth-round', { Q, D });
      expect(Math.min(energy(y - 0.002), energy(y + 0.002))).toBeGreaterThan(energy(y));
    }
  });
  it('the wall of a parabola is as long as the sum of its chords, and near the flat rule where it is wide', () => {
    const [T, d] = [4, 0.6];
    const y = (x: number): number => d * ((2 * x) / T) ** 2;
    let chords = 0;
    for (let k = 0; k < 4000; k++) {
      const [a, b] = [-T / 2 + (k * T) / 4000, -T / 2 + ((k + 1) * T) / 4000];
      chords += Math.hypot(b - a, y(b) - y(a));
    }
    expect(one('hydraulics.parabola-perimeter', { T, d })).toBeCloseTo(chords, 5);
    expect(one('hydraulics.parabola-perimeter', { T, d })).toBeCloseTo(T + (8 * d * d) / (3 * T), 1);
    const R = one('hydraulics.parabola-radius', { T, d });
    expect(R).toBeCloseTo((2 * T * d) / 3 / chords, 6);
    expect(Math.abs(R / ((T * T * d) / (1.5 * T * T + 4 * d * d)) - 1)).toBeLessThan(0.01);
  });
  it('a grate lets in as a weir while shallow, as a hole when deep, the same where the two meet, and half of it half clogged', () => {
    const of = (d: number, c = 0): number => one('hydraulics.grate', { P: 1.8, A: 0.14, d, c });
    const meet = (0.67 * 0.14 * Math.sqrt(2 * 9.81)) / (1.66 * 1.8);
    expect(of(meet / 2)).toBeCloseTo(1.66 * 1.8 * (meet / 2) ** 1.5, 9);
    expect(of(2 * meet)).toBeCloseTo(0.67 * 0.14 * Math.sqrt(2 * 9.81 * 2 * meet), 4);
    expect(of(0.9 * meet)).toBeLessThan(of(1.1 * meet));
    expect(of(meet, 0.5)).toBeCloseTo(of(meet) / 2, 9);
  });
  it('a smooth pipe loses about the same by both laws of friction', () => {
    const pipe = { Q: 0.003, D: 0.063, L: 200 };
    const [byC, byE] = [one('hydraulics.hazen-williams', { ...pipe, C: 150 }), one('hydraulics.darcy-loss', { ...pipe, e: 5e-6 })];
    expect(Math.abs(byC / byE - 1)).toBeLessThan(0.06);
  });
  it('storage of the modified rational method is that of the worst duration, by trying each', () => {
    const t = [10, 20, 30, 60, 120];
    const i = [90, 65, 50, 32, 19];
    const at = (Q: number): number => one('runoff.modified-rational', { C: 0.6, A: 2, Q, t, i });
    // 0.6 · 32 · 2 / 360 = 0.1067 m3/s for an hour, 0.02 let go: 312 m3; two hours bring less over it.
    expect(at(0.02)).toBeCloseTo(((0.6 * 32 * 2) / 360 - 0.02) * 3600, 9);
    expect(at(1)).toBe(0);
    expect(at(0.01)).toBeGreaterThan(at(0.02));
  });
  it('a hydrograph keeps its volume, and soaking never passes the rain', () => {
    const depths = fc.array(fc.double({ min: 0, max: 20, noNaN: true }), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(depths, depths, (P, U) => {
        const sum = (l: readonly number[]): number => l.reduce((a, v) => a + v, 0);
        const volume = sum(P) * sum(U);
        expect(Math.abs(sum(list('runoff.convolution', { P, U })) - volume)).toBeLessThanOrEqual(1e-9 * Math.max(1, volume));
        const F = list('runoff.green-ampt-storm', { K: 5, s: 40, dt: 0.2, P });
        F.forEach((v, k) => expect(v).toBeLessThanOrEqual(sum(P.slice(0, k + 1)) + 1e-9));
      }),
      { seed: 51, numRuns: 100 },
    );
  });
});

describe('what a law cannot take', () => {
  it.each<readonly [id: string, inputs: Readonly<Record<string, unknown>>, words: RegExp]>([
    ['rain.sample-mean', { x: 3 }, /x must be a list, each of it a finite number, got 3/],
    ['rain.sample-mean', { x: [] }, /x must be a list/],
    ['rain.sample-mean', { x: [1, 'two'] }, /x must be a list/],
    ['rain.sample-deviation', { x: [1] }, /at least 2 values/],
    ['rain.l-moments', { x: [1, 2] }, /at least 3 values/],
    ['rain.alternating-blocks', { P: [3, 2] }, /must not fall/],
    ['rain.day-share', { type: 'V', t: 3 }, /type must be one of I, IA, II, III, got V/],
    ['runoff.weighed-number', { A: [1, 2], CN: [70] }, /as long as each other, got 2 and 1/],
    ['runoff.modified-rational', { C: 0.5, A: 1, Q: 0, t: [10], i: [50, 60] }, /as long as each other/],
    ['ground.texture-class', { sand: 50, silt: 50, clay: 50 }, /add up to 150 %/],
    ['network.level-pool', { dt: 60, I: [1], h: [0, 1], S: [0, 0], O: [0, 1] }, /S must rise/],
    ['network.level-pool', { dt: 60, I: [1], h: [0], S: [0], O: [0] }, /at least two levels/],
    ['runoff.retention', { CN: [80] }, /CN must be a finite number > 0/],
  ])('%s refuses %j', (id, inputs, words) => {
    expect(refused(id, inputs)).toMatch(words);
  });
  it('says where one of a list lies outside the range', () => {
    const law = FORMULAS.find((f) => f.id === 'runoff.weighed-number');
    expect(law?.cautions({ A: [1, 1], CN: [70, 12] } as never)).toEqual([expect.stringMatching(/CN = 12.*outside 30 to 100/)]);
    expect(law?.cautions({ A: [1, 1], CN: [70, 80] } as never)).toEqual([]);
  });
});
