import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  BROAD_CREST,
  GRASS_ROUGHNESS,
  MANNING,
  SHEET_VELOCITY,
  SILL_HEAD,
  SILL_LENGTH,
  flowPerMetreWithin,
  sheetRoughness,
} from './index.ts';

const FT = 0.3048;

describe('Manning', () => {
  it('gives 400 ft³/s at the 3.36 ft of Chow 1959 Example 6-2 (handbook row 69, P)', () => {
    const [b, z, y] = [20 * FT, 2, 3.36 * FT];
    const area = (b + z * y) * y;
    const R = area / (b + 2 * y * Math.hypot(1, z));
    const Q = area * MANNING.evaluate({ R, S: 0.0016, n: 0.025 });
    // The depth is printed to 0.01 ft (0.27 % of flow) and the book uses 1.49 for 1.486 (0.27 %).
    expect(Math.abs(Q / (400 * FT ** 3) - 1)).toBeLessThan(0.0054);
  });
  it('gives 4.87 ft/s for CMM Example 2.5.1 (handbook row 72, P, with 1.49)', () => {
    const V = MANNING.evaluate({ R: (1000 / 210) * FT, S: 0.0003, n: 0.015 });
    expect(Math.abs(V / FT - (4.87 * 1.486) / 1.49)).toBeLessThan(0.01);
  });
  it.each([
    [{ R: 0, S: 1, n: 1 }, 'R'],
    [{ R: 1, S: -1, n: 1 }, 'S'],
    [{ R: 1, S: 1, n: NaN }, 'n'],
  ])('refuses %j, naming the symbol', (inputs, symbol) => {
    expect(() => MANNING.evaluate(inputs)).toThrow(`hydraulics.manning: ${symbol} must be`);
  });
});

describe('weirs', () => {
  it('passes the flows per metre of the handbook, section 4.3 at C = 1.5 (C)', () => {
    for (const [H, q] of [
      [0.1, 0.047],
      [0.15, 0.087],
      [0.2, 0.134],
      [0.3, 0.246],
    ]) {
      expect(Math.abs(BROAD_CREST.evaluate({ C: 1.5, L: 1, H }) - q)).toBeLessThan(0.0006);
    }
  });
  it('needs 4.1 ft for 180 cfs at 5.7 ft with C = 3.2 ft units (TR-55 Example 6-1; handbook row 48, P)', () => {
    expect(Math.abs(SILL_LENGTH.evaluate({ Q: 180 * FT ** 3, C: 3.2 * Math.sqrt(FT), H: 5.7 * FT }) / FT - 4.1)).toBeLessThan(0.05);
  });
  it('flow, head and length undo each other', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 5, noNaN: true }), fc.double({ min: 0.5, max: 50, noNaN: true }), (Q, L) => {
        const H = SILL_HEAD.evaluate({ Q, C: 1.5, L });
        expect(BROAD_CREST.evaluate({ C: 1.5, L, H })).toBeCloseTo(Q, 9);
        expect(SILL_LENGTH.evaluate({ Q, C: 1.5, H })).toBeCloseTo(L, 6);
      }),
      { seed: 4 },
    );
  });
});

describe('a sheet on a slope', () => {
  it.each([
    [0.1, 0.079],
    [0.3, 0.049],
    [1, 0.035],
  ])('grass class C at VR %d m²/s has n %d (AH-667; handbook row 77, C)', (VR, n) => {
    expect(Math.abs(GRASS_ROUGHNESS.evaluate({ CI: 5.6, VR }) - n)).toBeLessThan(0.001);
  });
  it('satisfies Manning at its own depth', () => {
    const [q, S, n] = [0.04, 0.1, 0.06];
    const V = SHEET_VELOCITY.evaluate({ q, S, n });
    expect(MANNING.evaluate({ R: q / V, S, n })).toBeCloseTo(V, 10);
  });
  it('finds the flow per metre at which a cover just stands', () => {
    const q = flowPerMetreWithin(0.9, 0.12, 4.44);
    expect(SHEET_VELOCITY.evaluate({ q, S: 0.12, n: sheetRoughness(4.44, q) })).toBeCloseTo(0.9, 4);
    expect(flowPerMetreWithin(0.9, 0.2, 4.44)).toBeLessThan(q);
    expect(flowPerMetreWithin(0.9, 0.12, null)).toBeLessThan(q);
  });
});
