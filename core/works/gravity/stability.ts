// Whether a wall that stands by its weight stands: what water and earth do to a metre of it.
import { type Use, plainly } from '../../formula/index.ts';
import { type BodyShape, slabArea, slabsOf } from './body.ts';
import {
  BASE_PRESSURE,
  EARTH_THRUST,
  ECCENTRICITY,
  LIFT_TILT,
  RANKINE_PUSH,
  SAFE_SLIDING,
  SAFE_TURNING,
  WATER_LIFT,
  WATER_THRUST,
  WATER_TILT,
} from './formulas.ts';

export interface Load {
  readonly body: BodyShape;
  /** Weight of the body with its gaps [kN/m3]. */
  readonly weightKnM3: number;
  /** Weight of the water in its gaps, which are full where water lifts it [kN/m3]. */
  readonly poreKnM3: number;
  /** Water over its top; and over its base on the lower side [m]. */
  readonly headM: number;
  readonly tailM: number;
  /** Earth or silt behind it, over its base; its weight less what water carries, and its angle of friction. */
  readonly earthM: number;
  readonly earthKnM3: number;
  readonly frictionDeg: number;
  /** Share of the full lift under its base. */
  readonly lift: number;
  /** Friction between base and ground. */
  readonly mu: number;
}

export interface Stability {
  readonly overturning: number;
  readonly sliding: number;
  /** How far from the middle of its base it presses, and the third that is kept [m]. */
  readonly eccentricityM: number;
  readonly sixthM: number;
  /** Greatest pressure under it; Infinity where it tips or floats [kPa]. */
  readonly pressureKpa: number;
}

/** All of it about the toe, per metre of the wall. */
export function stabilityOf(load: Load, use: Use = plainly): Stability {
  const { body, poreKnM3, headM: h, tailM, earthM, earthKnM3, frictionDeg, lift: s, mu } = load;
  const [H, B] = [body.heightM, body.baseM];
  const weightKnM3 = load.weightKnM3 + s * poreKnM3;
  let [W, Mr] = [0, 0];
  for (const slab of slabsOf(body)) {
    const { areaM2, armM } = slabArea(slab);
    W += weightKnM3 * areaM2;
    Mr += weightKnM3 * areaM2 * armM;
  }
  const tail = Math.min(H, tailM);
  const held = { H: tail, h: tailM - tail };
  const earth = earthM > 0 ? use(EARTH_THRUST, { Ka: use(RANKINE_PUSH, { phi: frictionDeg }), g: earthKnM3, H: earthM }) : 0;
  const P = use(WATER_THRUST, { H, h }) - WATER_THRUST.evaluate(held) + earth;
  const under = { B, u1: H + h, u2: tailM, s };
  const U = use(WATER_LIFT, under);
  const Mo = use(WATER_TILT, { H, h }) - WATER_TILT.evaluate(held) + (earth * earthM) / 3 + use(LIFT_TILT, under);
  const N = W - U;
  const sliding = P > 0 ? use(SAFE_SLIDING, { mu, W, U, P }) : Infinity;
  const overturning = Mo > 0 ? use(SAFE_TURNING, { Mr, Mo }) : Infinity;
  const eccentricityM = N > 0 ? use(ECCENTRICITY, { B, Mr, Mo, N }) : Infinity;
  const stands = Math.abs(eccentricityM) < B / 2;
  return {
    overturning,
    sliding,
    eccentricityM,
    sixthM: B / 6,
    pressureKpa: stands ? use(BASE_PRESSURE, { N, B, e: eccentricityM }) : Infinity,
  };
}
