// Level-pool routing against a second computation: the level itself as a differential equation, by Runge and Kutta with steps
// that halve until they agree. Other unknown, other form, other steps.
import { describe, expect, it } from '@jest/globals';
import { DRAIN_DOWN_FED, type RoutedStore, SOIL_SHORT, leftAfter, levelAt, route } from './index.ts';

/** A repeatable sequence of numbers from 0 to 1. */
function randomFrom(seed: number): () => number {
  let s = seed;
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return s / 2 ** 32;
  };
}

interface Case {
  /** Water surface at a depth: a pit with sloping sides [m2]. */
  readonly areaAt: (h: number) => number;
  readonly volumeAt: (h: number) => number;
  readonly flowAt: (h: number) => number;
  readonly inflow: Float64Array;
  readonly startM: number;
}

const [STEP_S, STEPS] = [60, 480];

function someCase(random: () => number): Case {
  const [a, b] = [50 + 2000 * random(), 400 * random()];
  const sillM = 0.3 + random();
  const [lengthM, holeM2] = [1 + 10 * random(), 0.02 * random()];
  const [peak, at, wide] = [0.05 + random(), 60 + 120 * random(), 10 + 40 * random()];
  return {
    areaAt: (h) => a + b * h,
    volumeAt: (h) => a * h + (b * h * h) / 2,
    flowAt: (h) => (h > sillM ? 1.5 * lengthM * (h - sillM) ** 1.5 : 0) + holeM2 * 0.6 * Math.sqrt(2 * 9.81 * Math.max(0, h)),
    inflow: Float64Array.from({ length: STEPS }, (_, i) => peak * Math.exp(-(((i + 1 - at) / wide) ** 2))),
    startM: random() < 0.5 ? 0 : sillM * random(),
  };
}

/** What comes at a time, straight between the instants it is told for. */
function comesAt(inflow: Float64Array, t: number): number {
  const x = t / STEP_S;
  const k = Math.min(STEPS - 1, Math.floor(x));
  const before = k === 0 ? 0 : inflow[k - 1];
  return before + (x - k) * (inflow[k] - before);
}

/** Levels at the end of each step by the second computation: by how fast they rise, all together. */
function levelsBy(start: readonly number[], rise: (t: number, h: readonly number[]) => readonly number[]): number[][] {
  const moved = (h: readonly number[], by: readonly number[], dt: number): number[] => h.map((v, j) => v + dt * by[j]);
  const once = (t: number, h: readonly number[], dt: number): number[] => {
    const k1 = rise(t, h);
    const k2 = rise(t + dt / 2, moved(h, k1, dt / 2));
    const k3 = rise(t + dt / 2, moved(h, k2, dt / 2));
    const k4 = rise(t + dt, moved(h, k3, dt));
    return h.map((v, j) => Math.max(0, v + (dt / 6) * (k1[j] + 2 * k2[j] + 2 * k3[j] + k4[j])));
  };
  const surely = (t: number, h: readonly number[], dt: number): number[] => {
    const whole = once(t, h, dt);
    const halves = once(t + dt / 2, once(t, h, dt / 2), dt / 2);
    const isNear = whole.every((v, j) => Math.abs(v - halves[j]) < 1e-7);
    return isNear || dt < 0.05 ? halves : surely(t + dt / 2, surely(t, h, dt / 2), dt / 2);
  };
  const levels: number[][] = [];
  let h: number[] = [...start];
  for (let i = 0; i < STEPS; i++) levels.push((h = surely(i * STEP_S, h, STEP_S)));
  return levels;
}

const levelsOf = ({ areaAt, flowAt, inflow, startM }: Case): number[] =>
  levelsBy([startM], (t, [h]) => [(comesAt(inflow, t) - flowAt(h)) / areaAt(Math.max(0, h))]).map(([h]) => h);

const STAGE_M = Float64Array.from({ length: 801 }, (_, k) => k / 200);
const stageOf = ({ volumeAt, areaAt }: Case) => ({ levelM: STAGE_M, volumeM3: STAGE_M.map(volumeAt), wettedM2: STAGE_M.map(areaAt) });

/** How far levels are from those of the second computation, but for a tenth of what they move in a step: a few seconds early or late. */
const offBy = (here: Float64Array, second: readonly number[], startM: number): number =>
  Math.max(...second.map((h, i) => Math.abs(here[i + 1] - h) - 0.1 * Math.abs(h - (i === 0 ? startM : second[i - 1]))));

describe('fifty stores', () => {
  it('stand at every step within a millimetre of a second computation', () => {
    const random = randomFrom(20_261_129);
    for (let n = 0; n < 50; n++) {
      const one = someCase(random);
      const outlets = [{ id: 'o', to: 'ground', lagS: 0, flowAt: one.flowAt }];
      const store = { id: 'a', stage: stageOf(one), inflow: one.inflow, startM: one.startM, outlets };
      const here = route({ stepS: STEP_S, steps: STEPS, stores: [store] }).stores.get('a')!.levelM;
      const second = levelsOf(one);
      expect(Math.abs(Math.max(...here) - Math.max(one.startM, ...second))).toBeLessThan(1e-3);
      expect([n, offBy(here, second, one.startM) < 1e-3]).toEqual([n, true]);
    }
  });
});

describe('thirty pools over a cleft that holds next to nothing', () => {
  it('stand at every step within a millimetre of a second computation, by what they hold', () => {
    const random = randomFrom(20_261_201);
    for (let n = 0; n < 30; n++) {
      const one = someCase(random);
      const [cleftM, cleftM2] = [0.05 + 0.5 * random(), 10 ** (-6 + 4 * random())];
      const sillM = cleftM + 0.1 + 0.6 * random();
      const volumeAt = (h: number): number => cleftM2 * Math.min(h, cleftM) + one.volumeAt(Math.max(0, h - cleftM));
      const flowAt = (h: number): number => (h > sillM ? 6 * (h - sillM) ** 1.5 : 0);
      const stage = { levelM: STAGE_M, volumeM3: STAGE_M.map(volumeAt), wettedM2: STAGE_M.map(() => 1) };
      const outlets = [{ id: 'o', to: 'ground', lagS: 0, flowAt, fromM: sillM }];
      const run = route({ stepS: STEP_S, steps: STEPS, stores: [{ id: 'a', stage, inflow: one.inflow, outlets }] });
      const levelOf = (v: number): number => levelAt(stage, v);
      const second = levelsBy([0], (t, [v]) => [comesAt(one.inflow, t) - flowAt(levelOf(Math.max(0, v)))]).map(([v]) => levelOf(v));
      const here = run.stores.get('a')!.levelM;
      expect([n, offBy(here, second, 0) < 1e-3]).toEqual([n, true]);
    }
  });
});

describe('thirty pairs joined by a pipe that runs either way', () => {
  it('stand at every step within a millimetre of a second computation that solves both at once', () => {
    const random = randomFrom(20_261_130);
    for (let n = 0; n < 30; n++) {
      const [a, b] = [someCase(random), someCase(random)];
      const k = 0.02 + 0.6 * random() ** 2;
      // Straight where they stand nearly level, and nothing from where nothing is, as a pipe does at last.
      const law = (up: number, down: number): number => {
        const d = up - down;
        const q = k * (Math.abs(d) < 0.005 ? d / Math.sqrt(0.005) : Math.sign(d) * Math.sqrt(Math.abs(d)));
        return q * Math.min(1, Math.max(0, q >= 0 ? up : down) / 0.01);
      };
      const joint = {
        id: 'j',
        to: 'b',
        lagS: 0,
        isJoint: true,
        flowAt: (up: number, down = 0) => k * Math.sign(up - down) * Math.sqrt(Math.abs(up - down)),
      };
      const stores = [a, b].map((one, j) => ({
        id: 'ab'[j],
        stage: stageOf(one),
        inflow: one.inflow,
        startM: one.startM,
        outlets: [{ id: `o${j}`, to: 'ground', lagS: 0, flowAt: one.flowAt }, ...(j === 0 ? [joint] : [])],
      }));
      const run = route({ stepS: STEP_S, steps: STEPS, stores });
      const second = levelsBy([a.startM, b.startM], (t, [up, down]) => {
        const q = law(up, down);
        return [
          (comesAt(a.inflow, t) - a.flowAt(up) - q) / a.areaAt(Math.max(0, up)),
          (comesAt(b.inflow, t) - b.flowAt(down) + q) / b.areaAt(Math.max(0, down)),
        ];
      });
      const off = [a, b].map((one, j) =>
        offBy(
          run.stores.get('ab'[j])!.levelM,
          second.map((h) => h[j]),
          one.startM,
        ),
      );
      expect([n, Math.max(...off) < 1e-3]).toEqual([n, true]);
      expect(run.balance.errorFraction).toBeCloseTo(0, 9);
    }
  });
});

describe('twenty pairs of pools over clefts, joined by a pipe over both', () => {
  it('stand at every step within two millimetres of a second computation, by what they hold', () => {
    const random = randomFrom(20_261_202);
    for (let n = 0; n < 20; n++) {
      const pair = [someCase(random), someCase(random)].map((one) => {
        const [cleftM, cleftM2] = [0.05 + 0.5 * random(), 10 ** (-6 + 4 * random())];
        const sillM = cleftM + 0.3 + 0.6 * random();
        const volumeAt = (h: number): number => cleftM2 * Math.min(h, cleftM) + one.volumeAt(Math.max(0, h - cleftM));
        const flowAt = (h: number): number => (h > sillM ? 6 * (h - sillM) ** 1.5 : 0);
        return {
          ...one,
          cleftM,
          sillM,
          flowAt,
          stage: { levelM: STAGE_M, volumeM3: STAGE_M.map(volumeAt), wettedM2: STAGE_M.map(() => 1) },
        };
      });
      const [k, invertM] = [0.02 + 0.6 * random() ** 2, Math.max(...pair.map((p) => p.cleftM)) + 0.05];
      const through = (up: number, down: number): number => k * Math.sqrt(Math.max(0, Math.max(up, invertM) - Math.max(down, invertM)));
      const law = (up: number, down: number): number => (up >= down ? through(up, down) : -through(down, up));
      // Straight where they stand nearly level.
      const straight = (up: number, down: number): number => {
        const high = Math.max(up, down);
        return (Math.sign(up - down) * through(high, high - 0.005) * Math.abs(up - down)) / 0.005;
      };
      const joint = { id: 'j', to: 'b', lagS: 0, isJoint: true, flowAt: (up: number, down = 0) => law(up, down) };
      const stores = pair.map(({ stage, inflow, flowAt, sillM }, j) => {
        const over = { id: `o${j}`, to: 'ground', lagS: 0, flowAt, fromM: sillM };
        return { id: 'ab'[j], stage, inflow, outlets: j === 0 ? [over, joint] : [over] };
      });
      const run = route({ stepS: STEP_S, steps: STEPS, stores });
      const [a, b] = pair;
      const second = levelsBy([0, 0], (t, held) => {
        const [up, down] = pair.map(({ stage }, j) => levelAt(stage, Math.max(0, held[j])));
        const q = Math.abs(up - down) < 0.005 ? straight(up, down) : law(up, down);
        return [comesAt(a.inflow, t) - a.flowAt(up) - q, comesAt(b.inflow, t) - b.flowAt(down) + q];
      });
      const off = pair.map(({ stage }, j) =>
        offBy(
          run.stores.get('ab'[j])!.levelM,
          second.map((held) => levelAt(stage, held[j])),
          0,
        ),
      );
      // A pipe that begins to run within a step is taken as beginning with it: two millimetres where there is little water below.
      expect([n, Math.max(...off) < 2e-3]).toEqual([n, true]);
      expect(run.balance.errorFraction).toBeCloseTo(0, 9);
    }
  });
});

describe('what is left of standing water', () => {
  /** A trough whose sides rise at one to one: as wide as twice its depth, a metre long. */
  const levelM = Float64Array.from({ length: 201 }, (_, k) => k / 200);
  const trough = { levelM, volumeM3: levelM.map((h) => h * h), wettedM2: levelM.map((h) => 2 * h) };
  it('falls by the rate itself where the wetted plan is the surface: 24 h at 10 mm/h take 240 mm, by no mean area', () => {
    const left = leftAfter(trough, 0.25, { hours: 24, mmPerHour: 10 });
    expect(levelAt(trough, left)).toBeCloseTo(0.5 - 0.24, 2);
    expect(leftAfter(trough, 0.25, { hours: 60, mmPerHour: 10 })).toBeCloseTo(0, 9);
    expect(leftAfter(trough, 0.25, { hours: 24, mmPerHour: 0 })).toBe(0.25);
  });
  it('stays where the soil below is full, but for what dries: the room is taken from the volume, whatever the rate', () => {
    expect(leftAfter(trough, 0.25, { hours: 500, mmPerHour: 10, roomM3: 0.1 })).toBeCloseTo(0.15, 9);
    expect(leftAfter(trough, 0.25, { hours: 500, mmPerHour: 10, roomM3: 0.25 })).toBeCloseTo(0, 9);
    // What dries goes on from sqrt(0.15) m at 1 mm/h.
    const dried = leftAfter(trough, 0.25, { hours: 100, mmPerHour: 1000, roomM3: 0.1, driesMmPerHour: 1 });
    expect(levelAt(trough, dried)).toBeCloseTo(Math.sqrt(0.15) - 0.1, 2);
    expect(SOIL_SHORT.evaluate({ V: 0.25, s: 0.02, w: 100, A: 1 })).toBeCloseTo(0.17, 12);
    expect(SOIL_SHORT.evaluate({ V: 0.25, s: 0.02, w: 300, A: 1 })).toBe(0);
  });
  it('stays where a spring brings as much as soaks away, and rises no higher than it stood', () => {
    // At 0.3 m 0.6 m2 lose 6 L/h.
    const steadyM3s = 0.006 / 3600;
    expect(levelAt(trough, leftAfter(trough, 0.25, { hours: 2000, mmPerHour: 10, steadyM3s }))).toBeCloseTo(0.3, 2);
    expect(leftAfter(trough, 0.01, { hours: 100, mmPerHour: 10, steadyM3s })).toBe(0.01);
    // Nor does it stay dry once it was, though it swings about what little stays.
    const swings = [24, 24.1].map((hours) => leftAfter(trough, 0.25, { hours, mmPerHour: 5000, steadyM3s: 1e-5 }));
    expect(Math.max(...swings)).toBeGreaterThan(0);
  });
  it('takes longer while a spring runs in: twice as long where it brings half of what soaks away', () => {
    const alone = DRAIN_DOWN_FED.evaluate({ V: 10, f: 20, A: 50, q: 0 });
    expect(alone).toBeCloseTo(10, 9);
    expect(DRAIN_DOWN_FED.evaluate({ V: 10, f: 20, A: 50, q: 0.5 / 3600 })).toBeCloseTo(20, 9);
  });
});

describe('two joined stores, one over soil that fills', () => {
  it('stand still and level once it is full: what soaked in before is asked of neither any more', () => {
    const levelM = Float64Array.of(0, 2);
    const tank = (id: string, more: Partial<RoutedStore>): RoutedStore => ({
      id,
      stage: { levelM, volumeM3: levelM.map((h) => 100 * h), wettedM2: Float64Array.of(100, 100) },
      inflow: [],
      startM: 1,
      outlets: [],
      ...more,
    });
    const pipe = {
      id: 'j',
      to: 'b',
      lagS: 0,
      isJoint: true,
      flowAt: (up: number, down = 0) => 0.3 * Math.sign(up - down) * Math.sqrt(Math.abs(up - down)),
    };
    const a = tank('a', { soakMPerS: 1e-5, soakRoomM3: 5, outlets: [pipe] });
    const { stores, balance } = route({ stepS: 60, steps: 300, stores: [a, tank('b', {})] });
    const [up, down] = ['a', 'b'].map((id) => stores.get(id)!.levelM);
    expect(stores.get('a')!.soakedM3).toBeCloseTo(5, 12);
    // 1 L/s fills 5 m3 in 83 minutes; then both stand at 1 - 5 / 200.
    for (let i = 90; i <= 300; i++) {
      expect(Math.abs(up[i] - 0.975)).toBeLessThan(2e-6);
      expect(Math.abs(down[i] - 0.975)).toBeLessThan(2e-6);
    }
    expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-12);
  });
});

describe('a joint that opens all at once', () => {
  it('holds its upper store at the level it opens at, and lets on what comes', () => {
    const levelM = Float64Array.of(0, 3);
    const opensM = 1.2;
    const steps = 240;
    const tank = (id: string, more: Partial<RoutedStore>): RoutedStore => ({
      id,
      stage: { levelM, volumeM3: levelM.map((h) => 50 * h), wettedM2: levelM.map(() => 50) },
      inflow: [],
      outlets: [],
      ...more,
    });
    // Shut below its level; over the next hundredth of a millimetre it passes four times what comes.
    const valve = {
      id: 'j',
      to: 'b',
      lagS: 0,
      isJoint: true,
      flowAt: (up: number) => 0.08 * Math.min(1, Math.max(0, (up - opensM) / 1e-5)),
    };
    const inflow = new Float64Array(steps).fill(0.02);
    const { stores, outlets, balance } = route({
      stepS: 30,
      steps,
      stores: [tank('a', { inflow, startM: 1, outlets: [valve] }), tank('b', {})],
    });
    const [up, down] = ['a', 'b'].map((id) => stores.get(id)!);
    // 10 m3 at 20 L/s fill it to that level in 500 s; from then on all that comes goes on.
    const full = Math.ceil(500 / 30) + 1;
    const passes = outlets.get('j')!.flowM3s;
    for (let i = full; i <= steps; i++) expect([i, Math.abs(up.levelM[i] - opensM) < 2e-5]).toEqual([i, true]);
    for (let i = full; i < steps; i++) expect([i, Math.abs(passes[i] - 0.02) < 1e-4]).toEqual([i, true]);
    expect(down.endM3).toBeCloseTo(0.02 * (30 * steps - 15) - 10, 1);
    expect(Math.abs(balance.errorFraction)).toBeLessThan(1e-9);
  });
});
