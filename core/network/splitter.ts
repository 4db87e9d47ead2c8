// A place where water that runs over the ground is parted: some of it is taken in, the rest runs on. It holds nothing.
import type { RoutedStore } from './pool.ts';
import { type OutletRun, type StoreRun, outletRun } from './runs.ts';
import type { Steps } from './steps.ts';

/** A node that stores nothing: its first way out takes what its law says of the flow that comes, the last takes the rest. */
export class Splitter {
  readonly own: readonly number[];
  private readonly flows: readonly Float64Array[];
  readonly volumeM3: Float64Array;
  readonly soakedM3 = 0;
  private readonly inM3s: Float64Array;
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
    this.volumeM3 = new Float64Array(steps + 1);
    this.inM3s = new Float64Array(steps + 1);
  }

  flowOf(outlet: number): Float64Array {
    return this.flows[outlet];
  }

  /** `n` steps in which as much comes. */
  step(i: number, n: number, { meanIn }: { readonly meanIn: number }): number {
    const taken = Math.min(meanIn, Math.max(0, this.takes(meanIn)));
    this.flows[0].fill(taken, i, i + n);
    this.flows[1].fill(meanIn - taken, i, i + n);
    this.inM3s.fill(meanIn, i + 1, i + n + 1);
    return 0;
  }

  run(): StoreRun {
    const sum = this.over.stepS * this.inM3s.reduce((a, q) => a + q, 0);
    const floorM = this.store.stage.levelM[0];
    return {
      id: this.store.id,
      levelM: new Float64Array(this.over.steps + 1).fill(floorM),
      volumeM3: this.volumeM3,
      inM3s: this.inM3s,
      outM3s: this.inM3s,
      inM3: sum,
      soakedM3: 0,
      outM3: sum,
    };
  }

  outletRuns(stepS: number): OutletRun[] {
    return this.store.outlets.map(({ id }, k) => ({ ...outletRun(id, this.flows[k], stepS), isJoint: false }));
  }
}
