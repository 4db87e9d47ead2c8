// Breaches: the published laws by hand, and the water followed by another method.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { BREACH_FLOW, BREACH_PEAK, BREACH_TIME, BREACH_WIDTH, type Breach, type Breaching, breachOf } from './index.ts';

/** A pond whose water grows by the square of its depth above 100 m: so many cubic metres at a height. */
const pond = (volumeM3: number, tall = 2): Pick<Breaching, 'volumeAt' | 'levelOf'> => ({
  volumeAt: (level) => volumeM3 * (Math.max(0, level - 100) / tall) ** 2,
  levelOf: (volume) => 100 + tall * Math.sqrt(volume / volumeM3),
});

describe('a breach', () => {
  it('is as wide and as quick as the laws say, worked by hand', () => {
    // Froehlich (1995), from memory: 0.1803·1.4·V^0.32·h^0.19; 0.00254·V^0.53·h^-0.9; 0.607·V^0.295·h^1.24, for 2000 m³ and 2 m.
    expect(BREACH_WIDTH.evaluate({ V: 2000, h: 2 })).toBeCloseTo(0.25242 * Math.exp(0.32 * Math.log(2000)) * 2 ** 0.19, 9);
    expect(BREACH_WIDTH.evaluate({ V: 2000, h: 2 })).toBeCloseTo(3.28, 2);
    expect(60 * BREACH_TIME.evaluate({ V: 2000, h: 2 })).toBeCloseTo(4.6, 1);
    expect(BREACH_PEAK.evaluate({ V: 2000, h: 2 })).toBeCloseTo(13.5, 1);
    // Critical flow: two thirds of the head deep in a rectangle, four fifths in a triangle.
    const rectangle = 2 * 1 * Math.sqrt(9.81 * 1 ** 3);
    const triangle = 1.4 * 1.2 ** 2 * Math.sqrt((9.81 * 1.2) / 2);
    expect(BREACH_FLOW.evaluate({ b: 2, z: 0, H: 1.5 }) / rectangle).toBeCloseTo(1, 2);
    expect(BREACH_FLOW.evaluate({ b: 0, z: 1.4, H: 1.5 }) / triangle).toBeCloseTo(1, 2);
  });
  it('lets the water out as a level pool followed in small steps of its level does', () => {
    const found = breachOf({ topM: 102, bottomM: 100, ...pond(2000) })!;
    expect([found.volumeM3, found.heightM]).toEqual([2000, 2]);
    // By dy/dt = −Q/A with A = dV/dy, in steps of a twentieth of a second.
    const b = found.widthM - 1.4 * 2;
    let [level, most] = [2, 0];
    for (let t = 0; t < 3600; t += 0.05) {
      const share = Math.min(1, t / found.formsS);
      const head = Math.max(0, level - (2 - 2 * share));
      const flow = 1.7 * share * b * head ** 1.5 + 1.27 * 1.4 * head ** 2.5;
      most = Math.max(most, flow);
      level = Math.max(0, level - (0.05 * flow) / Math.max(1, 1000 * level));
    }
    expect(found.peakM3s / most).toBeCloseTo(1, 1);
    expect(Math.abs(found.peakM3s / most - 1)).toBeLessThan(0.03);
    // A small pond runs out before the breach is whole: less than what was seen at dams.
    expect(found.peakM3s).toBeLessThan(found.seenM3s);
    expect(found.peakAtS).toBeGreaterThan(0);
  });
  it('is no wider than a stretch meant to go, and lets less out', () => {
    const whole = breachOf({ topM: 102, bottomM: 100, ...pond(5000) })!;
    const fuse = breachOf({ topM: 102, bottomM: 100, ...pond(5000), mostM: 2 })!;
    expect(fuse.widthM).toBe(2);
    expect(fuse.peakM3s).toBeLessThan(whole.peakM3s);
  });
  it('is none where no water stands above the ground', () => {
    expect(breachOf({ topM: 100, bottomM: 100.2, ...pond(2000) })).toBeNull();
    expect(breachOf({ topM: 102, bottomM: 100, volumeAt: () => 0, levelOf: () => 100 })).toBeNull();
  });
  it('lets out more from more water and from a higher bank, and never more than there is', () => {
    const d = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(d(30, 20_000), d(0.3, 3), d(1.1, 2), (volume, height, more) => {
        const at = (v: number, tall: number): Breach => breachOf({ topM: 100 + tall, bottomM: 100, ...pond(v, tall) })!;
        const own = at(volume, height);
        expect(at(more * volume, height).peakM3s).toBeGreaterThan(own.peakM3s);
        expect(at(volume, more * height).peakM3s).toBeGreaterThan(own.peakM3s);
        expect(own.peakM3s * (own.formsS / 100)).toBeLessThanOrEqual(volume);
      }),
      { seed: 5, numRuns: 60 },
    );
  });
});
