import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { GRASSED_SILL_C, MANNING, SILL_LENGTH } from '../hydraulics/index.ts';
import { soilFacts } from '../ground/index.ts';
import {
  DETENTION,
  DETENTION_SHARE,
  type DoubtfulPart,
  GRAPHICAL_PEAK,
  GRAPHICAL_UNIT_PEAK,
  KIRPICH,
  NRCS_LAG,
  SHALLOW_VELOCITY,
  SHEET_TIME,
  TRAVEL_TIME,
  USUAL_LOSS,
  convolve,
  hydrograph,
  longestSheet,
  partCatchment,
  runoffBands,
  unitPeakOf,
} from './index.ts';

const [FT, IN, MI2, CFS] = [0.3048, 25.4, 2.58999, 0.0283168];

describe('travel along the flow path: TR-55 Example 3-1', () => {
  const sheet = SHEET_TIME.evaluate({ n: 0.24, L: 100 * FT, P2: 3.6 * IN, s: 0.01 }) / 60;
  const shallow = SHALLOW_VELOCITY.evaluate({ k: 4.918, s: 0.01 });
  const channel = MANNING.evaluate({ R: (27 / 28.2) * FT, S: 0.005, n: 0.05 });
  const hours = (feet: number, V: number): number => TRAVEL_TIME.evaluate({ L: feet * FT, V }) / 60;
  it('100 ft of sheet at n 0.24: 0.30 h (handbook row 32, P)', () => {
    expect(Math.abs(sheet - 0.296)).toBeLessThan(0.01);
  });
  it('1400 ft of shallow flow: 1.6 ft/s, 0.24 h (row 33, P)', () => {
    expect(Math.abs(shallow / FT - 1.6)).toBeLessThan(0.02);
    expect(Math.abs(hours(1400, shallow) - 0.24)).toBeLessThan(0.01);
  });
  it('7300 ft of channel, R 0.957 ft: 2.05 ft/s, 0.99 h (row 34, P)', () => {
    expect(Math.abs(channel / FT - 2.05)).toBeLessThan(0.01);
    expect(Math.abs(hours(7300, channel) - 0.99)).toBeLessThan(0.01);
  });
  it('1.53 h together (row 35, P)', () => {
    expect(Math.abs(sheet + hours(1400, shallow) + hours(7300, channel) - 1.53)).toBeLessThan(0.01);
  });
  it('a sheet is 100 ft at most, and 100·√s/n ft', () => {
    expect(longestSheet(0.1, 0.24)).toBe(100 * FT);
    expect(longestSheet(0.01, 0.24)).toBeCloseTo((100 * FT * 0.1) / 0.24, 9);
  });
  it('falls as the slope rises, by every method', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.002, max: 0.4, noNaN: true }), fc.double({ min: 20, max: 2000, noNaN: true }), (S, L) => {
        expect(KIRPICH.evaluate({ L, S: 1.2 * S })).toBeLessThan(KIRPICH.evaluate({ L, S }));
        expect(NRCS_LAG.evaluate({ l: L, CN: 75, Y: 120 * S })).toBeLessThan(NRCS_LAG.evaluate({ l: L, CN: 75, Y: 100 * S }));
        expect(SHEET_TIME.evaluate({ n: 0.15, L, P2: 60, s: 1.2 * S })).toBeLessThan(SHEET_TIME.evaluate({ n: 0.15, L, P2: 60, s: S }));
      }),
      { seed: 41 },
    );
  });
});

describe('graphical peak', () => {
  it.each([
    [0.1, 1010],
    [0.5, 529],
    [1, 357.5],
    [2, 225.5],
    [10, 59.4],
  ])('type II, Ia/P 0.10, tc %d h: %d csm/in (TR-55 appendix F; handbook row 41, C)', (tc, qu) => {
    expect(Math.abs(unitPeakOf('II', 0.1, tc) / qu - 1)).toBeLessThan(0.002);
  });
  it('types I, IA and III at one hour (row 42, C)', () => {
    for (const [region, qu] of [
      ['I', 202.1],
      ['IA', 107.8],
      ['III', 297.3],
    ] as const)
      expect(Math.abs(unitPeakOf(region, 0.1, 1) / qu - 1)).toBeLessThan(0.002);
  });
  it('0.39 mi², tc 1.53 h, 6 in on CN 75: 270 csm/in and 345 cfs (TR-55 Example 4-1; row 43, P)', () => {
    const qu = unitPeakOf('II', 0.11, 1.53);
    expect(Math.abs(qu / 270 - 1)).toBeLessThan(0.02);
    const q = GRAPHICAL_PEAK.evaluate({ qu: 270, A: 0.39 * MI2, Q: 3.28 * IN, Fp: 1 });
    expect(Math.abs(q / CFS / 345 - 1)).toBeLessThan(0.02);
  });
  it('holds Ia/P to 0.10 to 0.50 and goes between rows in the logarithm', () => {
    expect(unitPeakOf('II', 0.02, 1)).toBe(unitPeakOf('II', 0.1, 1));
    expect(unitPeakOf('III', 0.7, 1)).toBe(unitPeakOf('III', 0.5, 1));
    const half = Math.sqrt(unitPeakOf('II', 0.1, 1) * unitPeakOf('II', 0.3, 1));
    expect(unitPeakOf('II', 0.2, 1)).toBeCloseTo(half, 9);
    expect(GRAPHICAL_UNIT_PEAK.evaluate({ C0: 2.20282, C1: -0.51599, C2: -0.01259, tc: 1 })).toBeCloseTo(unitPeakOf('II', 0.5, 1), 9);
  });
  it('storage for half the peak is 0.2765 or 0.1788 of the runoff; 5.9 ac-ft of 3.4 in on 75 ac (Figure 6-1, Example 6-1; rows 46, 47)', () => {
    expect(Math.abs(DETENTION_SHARE.evaluate({ r: 0.5, ...DETENTION.II }) - 0.2765)).toBeLessThan(0.001);
    expect(Math.abs(DETENTION_SHARE.evaluate({ r: 0.5, ...DETENTION.I }) - 0.1788)).toBeLessThan(0.001);
    const share = DETENTION_SHARE.evaluate({ r: 180 / 360, ...DETENTION.II });
    expect(Math.abs(share * ((3.4 * 75) / 12) - 5.9)).toBeLessThan(0.1);
  });
  it('its outlet: a weir of 4.1 ft passes 180 cfs at 5.7 ft with C 3.2 (TR-55 Example 6-1; row 48, P)', () => {
    const L = SILL_LENGTH.evaluate({ Q: 180 * CFS, C: 3.2 * Math.sqrt(FT), H: 5.7 * FT });
    expect(Math.abs(L / FT - 4.1)).toBeLessThan(0.05);
    expect(GRASSED_SILL_C).toBeLessThan(3.2 * Math.sqrt(FT));
  });
});

describe('convolution', () => {
  it('2, 3 and 1 in through a nine-step unit hydrograph (CMM Example 7.5.1; handbook row 52, P)', () => {
    const unit = Float64Array.of(404, 1079, 2343, 2506, 1460, 453, 381, 274, 173);
    expect([...convolve(Float64Array.of(2, 3, 1), unit)]).toEqual([808, 3370, 8327, 13120, 12781, 7792, 3581, 2144, 1549, 793, 173]);
  });
});

describe('bands', () => {
  const soil = soilFacts({
    soilGroup: 'C',
    cover: 'pasture-fair',
    curveNumber: null,
    runoffC: null,
    infiltrationMmPerHour: 10,
    soilDepthM: 1,
  });
  const part = (spread: number, number: number): DoubtfulPart => ({
    soil,
    areaM2: 20_000,
    infiltration: [10 / spread, 10 * spread],
    curveNumber: [79 - number, 79 + number],
  });
  const storm = Float64Array.from({ length: 48 }, (_, i) => 4 * Math.exp(-Math.abs(i - 20) / 6));
  const bands = (parts: readonly DoubtfulPart[], choice = USUAL_LOSS, samples = 800) =>
    runoffBands({ parts, choice, stepsMm: storm, stepS: 150, concentrationMin: 20, samples, seed: 7 });
  it('close on what is computed without doubt as the limits close, for volume and peak', () => {
    for (const loss of ['curve-number', 'green-ampt', 'horton', 'constant'] as const) {
      const choice = { ...USUAL_LOSS, loss };
      const { runoffMm, peakM3s } = bands([part(1.0000001, 0.00001)], choice, 50);
      const parted = partCatchment(storm, 150 / 3600, { parts: [part(1, 0)], choice });
      const flow = hydrograph({ areaM2: 20_000, concentrationMin: 20, runoffMm: parted.runsMm, stepS: 150 });
      for (const v of [runoffMm.low, runoffMm.high]) expect(v).toBeCloseTo(parted.runoffMm, 3);
      for (const v of [peakM3s.low, peakM3s.high]) expect(v).toBeCloseTo(Math.max(...flow), 5);
    }
  });
  it('are the same to a hundredth where a long storm has its outer steps taken together', () => {
    const day = Float64Array.from({ length: 1440 }, (_, i) => 0.02 + 1.4 * Math.exp(-Math.abs(i - 700) / 25));
    for (const loss of ['curve-number', 'green-ampt', 'horton', 'constant'] as const) {
      const choice = { ...USUAL_LOSS, loss };
      const told = runoffBands({
        parts: [part(1.0000001, 0.00001)],
        choice,
        stepsMm: day,
        stepS: 60,
        concentrationMin: 8,
        samples: 20,
        seed: 3,
      });
      const parted = partCatchment(day, 1 / 60, { parts: [part(1, 0)], choice });
      const flow = hydrograph({ areaM2: 20_000, concentrationMin: 8, runoffMm: parted.runsMm, stepS: 60 });
      expect(Math.abs(told.runoffMm.middle / parted.runoffMm - 1)).toBeLessThan(0.01);
      expect(Math.abs(told.peakM3s.middle / Math.max(...flow) - 1)).toBeLessThan(0.01);
    }
  });
  it('hold what the limits of the curve number give, nine times in ten', () => {
    const { runoffMm } = bands([part(2, 6)], USUAL_LOSS, 6000);
    const at = (CN: number): number =>
      partCatchment(storm, 150 / 3600, { parts: [{ soil: { ...soil, curveNumber: CN }, areaM2: 1 }], choice: USUAL_LOSS }).runoffMm;
    // The law rises with the number, so its fifth and ninety-fifth of a hundred are those of the number.
    expect(Math.abs(runoffMm.low / at(73) - 1)).toBeLessThan(0.04);
    expect(Math.abs(runoffMm.high / at(85) - 1)).toBeLessThan(0.04);
    expect(Math.abs(runoffMm.middle / at(79) - 1)).toBeLessThan(0.03);
  });
  it('widen with the doubt, narrow when several zones share the ground, and come out the same each time', () => {
    const width = ({ runoffMm }: ReturnType<typeof bands>): number => runoffMm.high - runoffMm.low;
    const one = bands([part(2, 6)]);
    expect(width(bands([part(2, 10)]))).toBeGreaterThan(width(one));
    expect(width(bands([part(2, 6), part(2, 6), part(2, 6), part(2, 6)]))).toBeLessThan(0.7 * width(one));
    expect(bands([part(2, 6)])).toEqual(one);
  });
});
