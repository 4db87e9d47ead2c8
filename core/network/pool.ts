// One store in a storm: a level pool solved implicitly by the storage-indication method (Chow, Maidment & Mays 1988,
// section 8.2). Volume is the state and fluxes move it, so water is neither made nor lost.
import type { Stage } from '../contract/index.ts';
import type { FlowLaw } from '../hydraulics/index.ts';
import { Curve } from './curve.ts';
import { type Move, shareAtEnd } from './move.ts';
import { mayBend } from './quiet.ts';
import { type OutletRun, type StoreRun, drawStraight, nothingRan, outletRun, spread, threeSeries } from './runs.ts';

export interface RoutedOutlet {
  readonly id: string;
  readonly to: string;
  readonly lagS: number;
  /** What of it arrives there; left out, all. The rest goes for good. */
  readonly share?: number;
  /** Flow by the level of its store and, for a joint, that of the store it leads to; a joint may run backwards (less than 0). */
  readonly flowAt: FlowLaw;
  /** Level under which its store lets nothing out through it, so that its law is not asked [m]; a joint's always is. */
  readonly fromM?: number;
  /** Whether it feels the level of the store it leads to: both are then solved together, and its lag is nothing. */
  readonly isJoint?: boolean;
}

export interface RoutedStore {
  readonly id: string;
  readonly stage: Stage;
  /** Inflow from its own catchment at the end of each step [m3/s]. */
  readonly inflow: ArrayLike<number>;
  readonly outlets: readonly RoutedOutlet[];
  /** Soakage through the wetted surface [m/s]; 0 takes no credit for it. */
  readonly soakMPerS?: number;
  /** What the soil under it has room for [m3]: then soakage ends; left out, it never does. */
  readonly soakRoomM3?: number;
  /** Level it stands at when the storm begins [m]; empty where none is given. */
  readonly startM?: number;
  /** It stores nothing and parts what comes: what its first way out takes of a flow [m3/s]; its second takes the rest. */
  readonly takes?: (arrivingM3s: number) => number;
}

/** Depth at which the whole floor is wet; soakage rises to its full rate over it, so that it has no jump at empty [m]. */
export const FULL_SOAK_M = 0.005;

/** Levels nearer than this are one. */
export const ONE_LEVEL_M = 1e-8;
/** Rise used to feel how fast outflow answers to level [m]. */
export const PROBE_M = 0.001;

/**
 * A store being routed: its tables, its laws, and what has happened to it so far. Members that hold numbers begin as fractions, so that
 * room for them is kept from the first: what begins as nothing is never read as quickly.
 */
export class Pool {
  readonly levelM: Float64Array;
  /** What comes is laid in here before it is routed: `comes` is the same without the first instant, step by step. */
  readonly inM3s: Float64Array;
  readonly comes: Float64Array;
  readonly outM3s: Float64Array;
  /** What its ways out let through in each step; null where one never has. */
  protected readonly flows: (Float64Array | null)[];
  readonly floorM: number = 0.5;
  /** Greatest flow of each of its own outlets at any instant, and the step it ended. */
  readonly peakM3s: Float64Array;
  readonly peakStep: Int32Array;
  inM3 = 0;
  soakedM3 = 0;
  outM3 = 0;
  /** Outlets that hang on this store alone; joints are solved with their neighbours. */
  readonly own: readonly number[];
  /** Flows of its own outlets, then soakage, as evaluated last and at the end of the step before. */
  protected readonly now: Float64Array;
  protected readonly before: Float64Array;
  protected sumBefore = 0;
  /** Where its outflow was evaluated last, and how much it was there. */
  protected seenM = NaN;
  private seenM3s = 0;
  /** What it held before the first step, and at most [m3]. */
  readonly startM3: number = 0.5;
  protected mostM3 = 0.5;
  /** Where it stands now, by level and by what it holds. */
  protected standsM = 0.5;
  protected holdsM3 = 0.5;
  /** How far its level went in each of the steps taken last [m]. */
  protected trend = 0;
  /** The laws of its own outlets, and from which level each gives anything. */
  protected readonly laws: readonly RoutedOutlet['flowAt'][];
  protected readonly fromM: Float64Array;
  protected readonly volumeOf: Curve;
  protected readonly levelOf: Curve;
  protected readonly wettedOf: Curve;
  protected soak = 0.5;
  protected readonly room: number = 0.5;

  constructor(
    readonly store: RoutedStore,
    protected readonly steps: number,
    isJoint: (outlet: RoutedOutlet) => boolean,
  ) {
    const { stage, outlets } = store;
    this.own = outlets.flatMap((o, k) => (isJoint(o) ? [] : [k]));
    this.laws = this.own.map((k) => outlets[k].flowAt);
    this.fromM = Float64Array.from(this.own, (k) => outlets[k].fromM ?? -Infinity);
    this.room = store.soakRoomM3 ?? Infinity;
    this.soak = this.room > 0 ? (store.soakMPerS ?? 0) : 0;
    this.volumeOf = new Curve(stage.levelM, stage.volumeM3);
    this.levelOf = new Curve(stage.volumeM3, stage.levelM);
    this.wettedOf = new Curve(stage.levelM, stage.wettedM2);
    this.floorM = stage.levelM[0];
    [this.levelM, this.inM3s, this.outM3s] = threeSeries(steps + 1);
    this.comes = this.inM3s.subarray(1);
    this.flows = outlets.map(() => null);
    this.peakM3s = new Float64Array(outlets.length);
    this.peakStep = new Int32Array(outlets.length);
    this.now = new Float64Array(this.own.length + 1);
    this.before = new Float64Array(this.own.length + 1);
    this.standsM = Math.max(this.floorM, store.startM ?? this.floorM);
    this.holdsM3 = Math.max(0, this.volumeOf.at(this.standsM));
    this.levelM[0] = this.standsM;
    this.startM3 = this.holdsM3;
    this.mostM3 = this.holdsM3;
    this.sumBefore = this.outflowAt(this.standsM);
    this.before.set(this.now);
  }

  /** Whether water leaves it by itself: not only over joints. */
  get letsOut(): boolean {
    return this.own.length > 0 || this.soak > 0 || this.sumBefore > 0;
  }

  /** What it holds now [m3]. */
  get nowM3(): number {
    return this.holdsM3;
  }

  /** Where it would stand so many steps on if it went on as it came, not under its floor [m]. */
  goingTo(n: number): number {
    return Math.max(this.floorM, this.standsM + n * this.trend);
  }

  /** What one of its ways out lets through in each step: most never do. */
  flowOf(outlet: number): Float64Array {
    return (this.flows[outlet] ??= new Float64Array(this.steps));
  }

  volumeAt(level: number): number {
    return this.volumeOf.at(level);
  }

  /** How fast volume grows with level [m2]. */
  surfaceAt(level: number): number {
    this.volumeOf.find(level);
    return this.surfaceThere;
  }

  /** The same where the volume was read last. */
  get surfaceThere(): number {
    return Math.max(1e-6, this.volumeOf.slopeThere);
  }

  /** All outflow through its own outlets and soakage at a level [m3/s]; leaves its parts in `now`. */
  outflowAt(level: number): number {
    // Asked again where it was evaluated last: its parts still stand in `now`.
    if (level !== this.seenM) {
      this.seenM = level;
      this.evaluate();
    }
    return this.seenM3s;
  }

  /** The same at the level that is asked for, by what stands in the pool: numbers handed over would be things of their own. */
  private evaluate(): void {
    const { own, now, soak, laws, fromM, seenM: level } = this;
    let sum = 0;
    for (let k = 0; k < own.length; k++) {
      const q = level <= fromM[k] ? 0 : laws[k](level);
      now[k] = q;
      sum += q;
    }
    if (soak > 0) {
      const wet = Math.min(1, Math.max(0, (level - this.floorM) / FULL_SOAK_M));
      const q = soak * wet * this.wettedOf.at(level);
      now[own.length] = q;
      sum += q;
    } else now[own.length] = 0;
    this.seenM3s = sum;
  }

  /**
   * Share of a step's outflow taken at its end: half (storage indication) while the step is short for the store, moving
   * towards all of it where outflow answers faster than the step, so that the level cannot swing about its true course.
   */
  laterShare(stepS: number): number {
    const level = this.standsM + PROBE_M;
    const rise = this.outflowAt(level) - this.sumBefore;
    return shareAtEnd((stepS * rise) / Math.max(1e-9, this.volumeOf.at(level) - this.holdsM3));
  }

  /** What leaves through its own outlets in the first part of a step, as they ran at its beginning [m3/s]. */
  get leftBefore(): number {
    return this.sumBefore;
  }

  /** Whether nothing comes and nothing leaves: water stands below its way out. */
  rests(meanIn: number): boolean {
    return meanIn === 0 && this.sumBefore === 0;
  }

  rest(i: number, n: number): void {
    this.levelM.fill(this.standsM, i + 1, i + n + 1);
    this.trend = 0;
  }

  /** How far a level at the end of several steps taken as one is from where it was going, as a share of what it may be. */
  stirs({ levelM, stepS }: Move, n: number): number {
    if (n > 1 && (this.begins() || this.fillsItsSoil(n * stepS))) return Infinity;
    const bent = Math.abs(levelM - this.standsM - n * this.trend);
    return bent === 0 ? 0 : bent / mayBend(this.standsM - this.floorM);
  }

  /** Whether a way out that was dry runs at the level looked at last: when it began is found step by step. */
  protected begins(): boolean {
    const { now, before, own } = this;
    return own.some((_, k) => before[k] === 0 && now[k] > 0);
  }

  /** Whether the soil under it might be full before so long a time is over: when, is found step by step. */
  private fillsItsSoil(stepS: number): boolean {
    const { now, before, own } = this;
    return this.soak > 0 && stepS * Math.max(now[own.length], before[own.length]) > this.room - this.soakedM3;
  }

  /**
   * Moves the water of `n` steps, taken as one, through the pool's own outlets, by a level found for their end.
   */
  settle(i: number, n: number, on: Move): void {
    const stepS = n * on.stepS;
    const end = i + n;
    const held = this.holdsM3;
    on.thereM3 = held + on.meanIn * stepS + on.jointIn;
    this.inM3 += on.meanIn * stepS;
    if (on.jointIn > 0) for (let k = i + 1; k <= end; k++) this.inM3s[k] += on.jointIn / stepS;
    // Most pipes and yards let nothing out but over joints.
    const isLet = this.letsOut;
    const goesM3 = isLet ? this.letOut(i, n, on) : 0;
    this.holdsM3 = Math.max(0, on.thereM3 - goesM3);
    const levelM = this.levelOf.at(this.holdsM3);
    this.trend = (levelM - this.standsM) / n;
    this.standsM = levelM;
    if (this.holdsM3 > this.mostM3) this.mostM3 = this.holdsM3;
    this.levelM[end] = levelM;
    if (isLet) this.tellOut(end, on);
    if (n === 1) return;
    if (goesM3 === 0 && on.jointIn >= 0) this.fillThrough(i, n, { fromM3: held, stepS: on.stepS });
    else this.drawThrough(i, n);
  }

  /** What leaves over its own outlets and into the soil, by how it runs at the level found for the end [m3]. */
  private letOut(i: number, n: number, { later, levelM, thereM3, stepS: oneS }: Move): number {
    const { own, now, before } = this;
    const stepS = n * oneS;
    const first = 1 - later;
    const sumNow = this.outflowAt(levelM);
    // More cannot leave than there is: an emptying store scales all its outlets.
    const wanted = stepS * (first * this.sumBefore + later * sumNow);
    const scale = wanted > thereM3 && wanted > 0 ? Math.max(0, thereM3) / wanted : 1;
    // Of what ran over several steps the mean is known; half from either end, it went straight from one to the other.
    const isEven = scale === 1 && later === 0.5;
    let left = 0;
    for (let k = 0; k < own.length; k++) {
      const moved = scale * stepS * (first * before[k] + later * now[k]);
      if (moved === 0) continue;
      left += moved;
      if (n === 1) this.flowOf(own[k])[i] = moved / stepS;
      else spread(this.flowOf(own[k]), i, { n, mean: moved / stepS, rise: isEven ? now[k] - before[k] : 0 });
    }
    const soaked = Math.min(scale * stepS * (first * before[own.length] + later * now[own.length]), this.room - this.soakedM3);
    this.outM3 += left;
    this.soakedM3 += soaked;
    return left + soaked;
  }

  /** How its ways out run where it stands at the end of a step. */
  private tellOut(end: number, { levelM: foundM }: Move): void {
    const { own, now, before } = this;
    if (this.soakedM3 >= this.room) {
      // The soil is full: what was evaluated with soakage holds no more.
      this.soak = 0;
      this.seenM = NaN;
    }
    // The level found and that of the water left there are one, but for rounding: what was evaluated there still stands.
    this.sumBefore = Math.abs(this.standsM - foundM) < ONE_LEVEL_M ? this.seenM3s : this.outflowAt(this.standsM);
    // Written out: they are few, and a call for them costs more.
    for (let k = 0; k <= own.length; k++) before[k] = now[k];
    this.outM3s[end] = this.sumBefore - now[own.length];
    for (let k = 0; k < own.length; k++) {
      if (now[k] > this.peakM3s[own[k]]) {
        this.peakM3s[own[k]] = now[k];
        this.peakStep[own[k]] = end;
      }
    }
  }

  /** Levels and flows within several steps taken as one, straight between their ends. */
  protected drawThrough(i: number, n: number): void {
    drawStraight(this.levelM, i, n);
    drawStraight(this.outM3s, i, n);
  }

  /** Levels within several steps in which it only fills, whatever its shape: what comes in each of them is known. */
  protected fillThrough(i: number, n: number, { fromM3, stepS }: { readonly fromM3: number; readonly stepS: number }): void {
    let holdsM3 = fromM3;
    for (let k = 1; k < n; k++) {
      holdsM3 += this.comes[i + k - 1] * stepS;
      this.levelM[i + k] = this.levelOf.at(holdsM3);
    }
  }

  run(): StoreRun {
    const { levelM, inM3s, outM3s, inM3, soakedM3, outM3, mostM3, holdsM3: endM3 } = this;
    return { id: this.store.id, levelM, inM3s, outM3s, inM3, soakedM3, outM3, mostM3, endM3 };
  }

  outletRuns(stepS: number): OutletRun[] {
    return this.store.outlets.map((outlet, k) => {
      const isJoint = !this.own.includes(k);
      const flow = this.flows[k];
      if (!flow) return nothingRan(outlet.id, this.steps, isJoint);
      const peak = { m3s: this.peakM3s[k], atS: this.peakStep[k] * stepS };
      return outletRun(outlet.id, flow, isJoint ? { stepS, isJoint } : { stepS, isJoint, peak });
    });
  }
}
