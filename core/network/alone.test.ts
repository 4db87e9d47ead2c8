// A store run by itself against the same store settled step by step as joined ones are, and with its laws asked instead of worked out in place.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type FlowLaw, Rating, crestLaw, ratedLaw } from '../hydraulics/index.ts';
import { LonePool } from './alone.ts';
import { JoinedGroup } from './joined.ts';
import type { RoutedOutlet, RoutedStore } from './pool.ts';
import { Quiet } from './quiet.ts';

const [STEP_S, STEPS] = [60, 300];
const part = (min: number, max: number): fc.Arbitrary<number> => fc.double({ min, max, noNaN: true });

/** A pit with sloping sides, holed stone from its floor up (a table), a sill over it (a crest), and a bank whose law says nothing of itself. */
const someStore = fc
  .record({
    floorM2: part(5, 400),
    sides: part(0, 60),
    stone: part(0, 0.2),
    sillM: part(0.3, 1),
    sillWidthM: part(0.3, 6),
    start: part(-0.2, 1),
    soakMmPerHour: fc.constantFrom(0, 0, 30, 400),
    soakRoomM3: fc.constantFrom(Infinity, 3, 40),
    peakM3s: part(0.001, 1.5),
    peakStep: fc.integer({ min: 10, max: 120 }),
    wideSteps: part(3, 40),
  })
  .map((v): RoutedStore => {
    const levelM = Float64Array.from({ length: 41 }, (_, k) => 10 + k / 20);
    const depths = levelM.map((h) => h - 10);
    const stone = Rating.by(6, (share) => [1.2 * share, v.stone * share ** 1.5]);
    const sillM = 10 + v.sillM;
    const outlets: RoutedOutlet[] = [
      { id: 'stone', to: 'ground', lagS: 0, fromM: 10, flowAt: ratedLaw(stone, 10) },
      { id: 'sill', to: 'ground', lagS: 0, fromM: sillM, flowAt: crestLaw({ C: 1.6, lengthM: v.sillWidthM, levelM: sillM }) },
      { id: 'bank', to: 'ground', lagS: 0, fromM: sillM + 0.3, flowAt: (h) => 8 * Math.max(0, h - sillM - 0.3) ** 1.5 },
    ];
    return {
      id: 'pit',
      stage: {
        levelM,
        volumeM3: depths.map((d) => d * v.floorM2 + (v.sides * d * d) / 2),
        wettedM2: depths.map((d) => v.floorM2 + v.sides * d),
      },
      inflow: Float64Array.from({ length: STEPS }, (_, i) => v.peakM3s * Math.exp(-(((i - v.peakStep) / v.wideSteps) ** 2))),
      outlets,
      soakMPerS: v.soakMmPerHour / 3.6e6,
      soakRoomM3: v.soakRoomM3,
      startM: 10 + v.sillM * Math.max(0, v.start),
    };
  });

const poolOf = (store: RoutedStore): LonePool => {
  const pool = new LonePool(store, STEPS, () => false);
  pool.comes.set(Float64Array.from(store.inflow));
  return pool;
};
const runBy = (store: RoutedStore, quiet: boolean): LonePool => {
  const pool = poolOf(store);
  pool.runThrough({ from: 0, end: STEPS, stepS: STEP_S, quiet: quiet ? new Quiet([pool.comes]) : null });
  return pool;
};
const hidden = ({ flowAt, ...rest }: RoutedOutlet): RoutedOutlet => ({ ...rest, flowAt: ((h) => flowAt(h)) satisfies FlowLaw });
/** What runs out at a level by the laws themselves. */
const lawsAt = ({ outlets }: RoutedStore, level: number): number =>
  outlets.reduce((sum, { flowAt, fromM = -Infinity }) => sum + (level > fromM ? flowAt(level) : 0), 0);
const furthest = (a: ArrayLike<number>, b: ArrayLike<number>): number => Math.max(...Array.from(a, (v, i) => Math.abs(v - b[i])));

describe('a store by itself', () => {
  it('does the same whether its laws say their form or are asked', () => {
    fc.assert(
      fc.property(someStore, (store) => {
        const [said, asked] = [store, { ...store, outlets: store.outlets.map(hidden) }].map((one) => runBy(one, true));
        expect(furthest(said.levelM, asked.levelM)).toBeLessThan(1e-7);
        expect(furthest(said.outM3s, asked.outM3s)).toBeLessThan(1e-6);
        const [a, b] = [said, asked].map((pool) => pool.outletRuns(STEP_S));
        expect(a.map((o) => o.runsS)).toEqual(b.map((o) => o.runsS));
        a.forEach((o, k) => expect(o.volumeM3).toBeCloseTo(b[k].volumeM3, 3));
        expect(furthest(a.map((o) => o.peakM3s), b.map((o) => o.peakM3s))).toBeLessThan(1e-6); // prettier-ignore
      }),
      { seed: 11, numRuns: 150 },
    );
  });
  it('stands where it stands as one of a group, one step after the other, and keeps all its water', () => {
    fc.assert(
      fc.property(someStore, (store) => {
        const alone = runBy(store, false);
        const member = poolOf(store);
        const group = new JoinedGroup([member], []);
        for (let i = 0; i < STEPS; i++) group.step(i, 1, { meanIn: member.comes.subarray(i, i + 1), stepS: STEP_S });
        expect(furthest(alone.levelM, member.levelM)).toBeLessThan(2e-5);
        const [a, b] = [alone.run(), member.run()];
        expect(a.mostM3).toBeCloseTo(b.mostM3, 2);
        expect(a.soakedM3).toBeCloseTo(b.soakedM3, 2);
        expect(a.outM3).toBeCloseTo(b.outM3, 2);
        const left = alone.startM3 + a.inM3 - a.outM3 - a.soakedM3 - a.endM3;
        expect(Math.abs(left)).toBeLessThan(1e-9 * Math.max(1, alone.startM3 + a.inM3));
        const ways = alone.outletRuns(STEP_S);
        expect(
          furthest(
            a.outM3s.subarray(1),
            Array.from(alone.levelM.subarray(1), (level) => lawsAt(store, level)),
          ),
        ).toBeLessThan(1e-6);
        ways.forEach(({ peakM3s, peakAtS }, k) => {
          if (peakM3s === 0) return;
          expect(Math.abs(store.outlets[k].flowAt(alone.levelM[peakAtS / STEP_S]) - peakM3s)).toBeLessThan(1e-6);
          expect(peakM3s).toBeGreaterThanOrEqual(
            Math.max(...Array.from(alone.levelM.subarray(1), (h) => store.outlets[k].flowAt(h))) - 1e-6,
          );
        });
        expect(Math.abs(ways.reduce((sum, o) => sum + o.volumeM3, 0) - a.outM3)).toBeLessThan(1e-9 * Math.max(1, a.outM3));
      }),
      { seed: 12, numRuns: 150 },
    );
  });
  it('lets flows run straight through steps that are taken as one', () => {
    fc.assert(
      fc.property(someStore, (store) => {
        const [together, single] = [true, false].map((quiet) => runBy(store, quiet).outletRuns(STEP_S));
        together.forEach((way, k) => expect(furthest(way.flowM3s, single[k].flowM3s)).toBeLessThan(Math.max(1e-5, 0.01 * way.peakM3s)));
      }),
      { seed: 13, numRuns: 150 },
    );
  });
  it('lets nothing out by a way below where it gives from, whatever its law says there', () => {
    const levelM = Float64Array.from([0, 2]);
    const store = (fromM: number): RoutedStore => ({
      id: 'box',
      stage: { levelM, volumeM3: Float64Array.from([0, 200]), wettedM2: Float64Array.from([100, 100]) },
      inflow: new Float64Array(STEPS).fill(0.001),
      outlets: [
        { id: 'crest', to: 'ground', lagS: 0, fromM, flowAt: crestLaw({ C: 1.5, lengthM: 1, levelM: 0 }) },
        {
          id: 'table',
          to: 'ground',
          lagS: 0,
          fromM,
          flowAt: ratedLaw(
            Rating.by(4, (share) => [share, share]),
            0,
          ),
        },
      ],
    });
    const inM3 = 0.001 * STEP_S * STEPS;
    expect(runBy(store(1), true).run().endM3).toBeCloseTo(inM3, 9);
    expect(runBy(store(0.1), true).run().endM3).toBeLessThan(0.6 * inM3);
  });
});
