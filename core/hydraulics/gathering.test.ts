// Water lines of channels that gather their flow, held against the differential equation followed by another hand, and a closed form.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Reach, criticalDepth, gatheredLine, trapezoid } from './index.ts';

const G = 9.81;

/**
 * The upper depth by dy/dx = (S0 − Sf − 2·Q·q/(g·A²)) / (1 − Q²·T/(g·A³)), from the lower end up in many small steps of Runge and
 * Kutta; the section written out anew.
 */
function byEquation(on: { b: number; z: number; L: number; S0: number; n: number; Q: number; y: number }): number {
  const { b, z, L, S0, n, Q, y: lower } = on;
  const q = Q / L;
  const slope = (x: number, y: number): number => {
    const A = b * y + z * y * y;
    const P = b + 2 * y * Math.sqrt(1 + z * z);
    const T = b + 2 * z * y;
    const flow = q * (L - x);
    const Sf = (n * n * flow * flow * P ** (4 / 3)) / A ** (10 / 3);
    // Up the channel, against the flow.
    return -(S0 - Sf - (2 * flow * q) / (G * A * A)) / (1 - (flow * flow * T) / (G * A ** 3));
  };
  const steps = 4000;
  const h = L / steps;
  let y = lower;
  for (let k = 0; k < steps; k++) {
    const x = k * h;
    const k1 = slope(x, y);
    const k2 = slope(x + h / 2, y + (h * k1) / 2);
    const k3 = slope(x + h / 2, y + (h * k2) / 2);
    const k4 = slope(x + h, y + h * k3);
    y += (h * (k1 + 2 * k2 + 2 * k3 + k4)) / 6;
  }
  return y;
}

/** How much higher its water stands at the upper end of a level reach than at the lower. */
const riseOf = (reach: Reach, flowM3s: number, depthM: number): number => gatheredLine(reach, flowM3s, depthM)[16] - depthM;

describe('a channel that gathers its flow', () => {
  it.each([
    { b: 1.5, z: 1.5, L: 276, S0: 0, n: 0.03, Q: 0.41, y: 0.6 },
    { b: 1, z: 2, L: 120, S0: 0, n: 0.03, Q: 0.15, y: 0.4 },
    { b: 0.6, z: 1, L: 60, S0: 0.002, n: 0.025, Q: 0.08, y: 0.35 },
    { b: 2, z: 0, L: 400, S0: 0, n: 0.035, Q: 0.9, y: 0.8 },
    { b: 0.5, z: 1.5, L: 30, S0: 0, n: 0.03, Q: 0.02, y: 0.3 },
  ])('of $b m, $L m long, with $Q m³/s stands as the equation has it to 3 mm', (on) => {
    const { b, z, L, S0, n, Q, y } = on;
    const upper = gatheredLine({ section: trapezoid(b, z), lengthM: L, slope: S0, n }, Q, y);
    expect(Math.abs(upper[upper.length - 1] - byEquation(on))).toBeLessThan(0.003);
  });
  it('without friction stands √3 of critical depth at the closed end of a level trough that falls free', () => {
    const section = trapezoid(1, 0);
    const critical = criticalDepth(section, 0.3);
    const depths = gatheredLine({ section, lengthM: 10, slope: 0, n: 1e-6 }, 0.3, 0);
    expect(depths[0]).toBeCloseTo(critical, 9);
    expect(depths[depths.length - 1] / critical).toBeCloseTo(Math.sqrt(3), 3);
  });
  it('is level with no flow, over a level bed and a falling one', () => {
    const level = { section: trapezoid(1, 1), lengthM: 50, slope: 0, n: 0.03 };
    expect([...gatheredLine(level, 0, 0.4)].every((y) => y === 0.4)).toBe(true);
    expect(gatheredLine({ ...level, slope: 0.002 }, 0, 0.4)[16]).toBeCloseTo(0.3, 12);
    expect(riseOf(level, 0, 0.4)).toBe(0);
  });
  it('rises more by more flow, a longer way, a rougher bed and a narrower one, and less where it stands deeper', () => {
    const d = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(d(0.4, 3), d(20, 300), d(0.01, 0.5), d(0.3, 0.9), d(1.05, 1.6)), ([b, L, Q, y, more]) => {
        const rise = (change: { b?: number; L?: number; Q?: number; y?: number; n?: number } = {}): number =>
          riseOf(
            { section: trapezoid(change.b ?? b, 1.5), lengthM: change.L ?? L, slope: 0, n: change.n ?? 0.03 },
            change.Q ?? Q,
            change.y ?? y,
          );
        // Only where the lower end is held up: at critical depth another law decides.
        fc.pre(y > 1.2 * criticalDepth(trapezoid(b, 1.5), more * Q));
        const own = rise();
        expect(own).toBeGreaterThanOrEqual(0);
        expect(rise({ Q: more * Q })).toBeGreaterThan(own);
        expect(rise({ L: more * L })).toBeGreaterThan(own);
        expect(rise({ n: 0.03 * more })).toBeGreaterThan(own);
        expect(rise({ b: b / more })).toBeGreaterThan(own);
        expect(rise({ y: y * more })).toBeLessThan(own);
      }),
      { seed: 11, numRuns: 120 },
    );
  });
});
