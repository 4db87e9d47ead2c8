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

/** Depth over which a store's joints come to their full flow, so that an empty one gives nothing [m]. */
const FULL_JOINT_M = 0.01;

/** A joint's law as it is solved: straight where levels are nearly equal, and taking nothing from the store on either side that has nothing. */
export function solvable(law: Joint['flowAt'], [floorA, floorB]: readonly [aM: number, bM: number]): Joint['flowAt'] {
  /** Where levels are nearly equal. */
  const straight = (upM: number, downM: number): number => {
    const high = Math.max(upM, downM);
    const whole = upM >= downM ? law(high, high - STRAIGHT_M) : law(high - STRAIGHT_M, high);
    return (whole * Math.abs(upM - downM)) / STRAIGHT_M;
  };
  return (upM, downM) => {
    const difference = upM - downM;
    const q = difference >= STRAIGHT_M || difference <= -STRAIGHT_M ? law(upM, downM) : straight(upM, downM);
    const depth = q >= 0 ? upM - floorA : downM - floorB;
    return depth >= FULL_JOINT_M ? q : (q * Math.max(0, depth)) / FULL_JOINT_M;
  };
}
