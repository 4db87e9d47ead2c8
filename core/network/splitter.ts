// A place where water that runs over the ground is parted: some of it is taken in, the rest runs on. It holds nothing.
import type { RoutedStore } from './pool.ts';
import { type OutletRun, type StoreRun, outletRun } from './runs.ts';
import type { Steps } from './steps.ts';

/** A node that stores nothing: its first way out takes what its law says of the flow that comes, the last takes the rest. */
export class Splitter {
  readonly own: readonly number[];
  private readonly flows: readonly Float64Array[];
  readonly soakedM3 = 0;
  readonly startM3 = 0;
  readonly nowM3 = 0;
  private readonly inM3s: Float64Array;
  /** What comes in each step. */
  readonly comes: Float64Array;
  private readonly takes: (arrivingM3s: number) => number;

  constructor(
    readonly store: RoutedStore,
    private readonly over: Steps,
  ) {
    const { steps } = over;
    const { outlets, takes } = store;
    if (!takes || outlets.length !== 2) throw new Error(`${store.id} parts its water in two by a law`);
    this.takes = takes;
    this.own = [0, 1];
    this.flows = outlets.map(() => new Float64Array(steps));
    this.inM3s = new Float64Array(steps + 1);
    this.comes = this.inM3s.subarray(1);
  }

  flowOf(outlet: number): Float64Array {
    return this.flows[outlet];
  }

  /** `n` steps in which as much comes. */
  step(i: number, n: number, meanIn: number): number {
    const taken = Math.min(meanIn, Math.max(0, this.takes(meanIn)));
    this.flows[0].fill(taken, i, i + n);
    this.flows[1].fill(meanIn - taken, i, i + n);
    return 0;
  }

  run(): StoreRun {
    const sum = this.over.stepS * this.inM3s.reduce((a, q) => a + q, 0);
    const floorM = this.store.stage.levelM[0];
    return {
      id: this.store.id,
      levelM: new Float64Array(this.over.steps + 1).fill(floorM),
      inM3s: this.inM3s,
      outM3s: this.inM3s,
      inM3: sum,
      soakedM3: 0,
      outM3: sum,
      mostM3: 0,
      endM3: 0,
    };
  }

  outletRuns(stepS: number): OutletRun[] {
    return this.store.outlets.map(({ id }, k) => outletRun(id, this.flows[k], { stepS, isJoint: false }));
  }
}
