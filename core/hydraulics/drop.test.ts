// Water over a straight drop.
import { describe, expect, it } from '@jest/globals';
import { CRITICAL_DEPTH, DROP_DEPTH, DROP_LENGTH, DROP_TAIL, GRAVITY, HYDRAULIC_JUMP, SCOUR_SCHOKLITSCH, SCOUR_VERONESE } from './index.ts';

describe('a straight drop (Rand 1955, by hand from its drop number)', () => {
  // q 1.2 m2/s over 1.5 m: D = 1.44 / 33.109 = 0.043493.
  const on = { q: 1.2, h: 1.5 };
  it('throws water so far, runs off so thin, asks so deep', () => {
    const D = 1.44 / (9.81 * 3.375);
    expect(D).toBeCloseTo(0.043493, 6);
    expect(DROP_LENGTH.evaluate(on)).toBeCloseTo(2.7665, 3);
    expect(DROP_DEPTH.evaluate(on)).toBeCloseTo(0.2137, 4);
    expect(DROP_TAIL.evaluate(on)).toBeCloseTo(1.068, 3);
  });
  it('agrees with the jump that follows from momentum within a tenth', () => {
    for (const [q, h] of [
      [0.3, 1],
      [1.2, 1.5],
      [0.8, 2],
    ] as const) {
      // prettier-ignore
      const y1 = DROP_DEPTH.evaluate({ q, h });
      const Fr = q / y1 / Math.sqrt(GRAVITY * y1);
      const y2 = y1 * HYDRAULIC_JUMP.evaluate({ Fr });
      expect(Math.abs(DROP_TAIL.evaluate({ q, h }) / y2 - 1)).toBeLessThan(0.1);
      // Falling free it runs off faster than at its critical depth.
      expect(y1).toBeLessThan(CRITICAL_DEPTH.evaluate({ Q: q, b: 1, z: 0, alpha: 1 }));
    }
  });
});

describe('the hole under a fall', () => {
  it('by two laws that differ (by hand: H 1.5 m, q 1.2 m2/s)', () => {
    expect(SCOUR_VERONESE.evaluate({ H: 1.5, q: 1.2 })).toBeCloseTo(1.9 * 1.0955 * 1.1035, 3);
    expect(SCOUR_SCHOKLITSCH.evaluate({ H: 1.5, q: 1.2, d90: 20 })).toBeCloseTo(2.189, 2);
  });
  it('grows with flow and fall, and lessens with the grain', () => {
    const at = (H: number, q: number, d90: number): number => SCOUR_SCHOKLITSCH.evaluate({ H, q, d90 });
    expect(at(2, 1, 20)).toBeGreaterThan(at(1, 1, 20));
    expect(at(1, 2, 20)).toBeGreaterThan(at(1, 1, 20));
    expect(at(1, 1, 40)).toBeLessThan(at(1, 1, 20));
  });
});
