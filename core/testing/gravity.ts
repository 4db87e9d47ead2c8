// A second computation of walls that stand by their weight: cut into thin slices, each with what presses on it.
import type { Load } from '../works/gravity/index.ts';

const SLICES = 1200;
const WATER = 9.81;

/** How wide the body is at a height, and how far in its middle lies from the toe [m]. */
function across({ body: { heightM, baseM, topM, courseM, steps } }: Load, y: number): readonly [widthM: number, middleM: number] {
  const count = courseM === null ? 1 : Math.ceil(heightM / courseM - 1e-9);
  const share = courseM === null ? y / heightM : count === 1 ? 0 : Math.min(count - 1, Math.floor(y / courseM)) / (count - 1);
  const width = baseM + (topM - baseM) * share;
  return [width, steps === 'below' ? baseM - width / 2 : width / 2];
}

/** Safeties and where it presses, by summing slices. */
export function slicedStability(load: Load): { readonly overturning: number; readonly sliding: number; readonly eccentricityM: number } {
  const { body, headM, tailM, earthM, earthKnM3, frictionDeg, lift, mu } = load;
  const { heightM, baseM } = body;
  const weightKnM3 = load.weightKnM3 + lift * load.poreKnM3;
  const push = (1 - Math.sin((frictionDeg * Math.PI) / 180)) / (1 + Math.sin((frictionDeg * Math.PI) / 180));
  let [weight, holds, thrust, turns, up] = [0, 0, 0, 0, 0];
  for (let k = 0; k < SLICES; k++) {
    const dy = heightM / SLICES;
    const y = (k + 0.5) * dy;
    const [width, middle] = across(load, y);
    weight += weightKnM3 * width * dy;
    holds += weightKnM3 * width * middle * dy;
    const water = WATER * (heightM + headM - y) - WATER * Math.max(0, tailM - y);
    const earth = push * earthKnM3 * Math.max(0, earthM - y);
    thrust += (water + earth) * dy;
    turns += (water + earth) * y * dy;
    const dx = baseM / SLICES;
    const x = (k + 0.5) * dx;
    const below = lift * WATER * (tailM + ((heightM + headM - tailM) * x) / baseM) * dx;
    up += below;
    turns += below * x;
  }
  // Earth higher than the wall presses no more than the wall is high.
  const left = weight - up;
  return {
    overturning: turns > 0 ? holds / turns : Infinity,
    sliding: thrust > 0 ? (mu * Math.max(0, left)) / thrust : Infinity,
    eccentricityM: left > 0 ? baseM / 2 - (holds - turns) / left : Infinity,
  };
}
