// Ways between stores whose levels hang on each other, and what their laws become to be solved.

/** A way between two pools of one group: flow by both levels, positive from `a` to `b`. */
export interface Joint {
  readonly a: number;
  readonly b: number;
  /** Its place among the outlets of `a`. */
  readonly outlet: number;
  readonly flowAt: (aM: number, bM: number) => number;
}

/** Difference of levels under which a joint's flow falls off in a straight line: root laws are infinitely steep at nothing [m]. */
const STRAIGHT_M = 0.005;

/** A joint's law made straight where levels are nearly equal. */
export function straightened(law: (upM: number, downM: number) => number): (upM: number, downM: number) => number {
  return (upM, downM) => {
    const difference = upM - downM;
    if (difference >= STRAIGHT_M || difference <= -STRAIGHT_M) return law(upM, downM);
    const high = Math.max(upM, downM);
    const whole = difference >= 0 ? law(high, high - STRAIGHT_M) : law(high - STRAIGHT_M, high);
    return (whole * Math.abs(difference)) / STRAIGHT_M;
  };
}

/** Depth over which a store's joints come to their full flow, so that an empty one gives nothing [m]. */
const FULL_JOINT_M = 0.01;

/** A joint's law that takes nothing from the store on either side that has nothing. */
export function fromWater(
  law: (upM: number, downM: number) => number,
  floors: readonly [aM: number, bM: number],
): (upM: number, downM: number) => number {
  return (upM, downM) => {
    const q = law(upM, downM);
    const depth = q >= 0 ? upM - floors[0] : downM - floors[1];
    return depth >= FULL_JOINT_M ? q : (q * Math.max(0, depth)) / FULL_JOINT_M;
  };
}
