// Spatially varied flow: how the water line tilts along a channel that gathers water all the way to where it leaves.
import { type ChannelSection, criticalDepth } from './channel.ts';
import { rootOf } from './root.ts';
import { GRAVITY } from './orifice.ts';
import { type Reach, frictionSlope } from './profile.ts';

const STEPS = 16;

/** First moment of a section's area about its water surface: what its water presses with over its unit weight [m3]. */
function pressure(section: ChannelSection, depthM: number): number {
  // The area below each level, summed up to the surface; by Simpson's rule, which is exact for a trapezoid.
  return (depthM * (section.area(0) + 4 * section.area(depthM / 2) + section.area(depthM))) / 6;
}

/**
 * Depths along a reach that gathers its flow evenly on its way, from its lower end, where all of it passes, up to its upper end,
 * where none does: a sixteenth of the length apart. By the balance of momentum from step to step, what comes in from the side
 * bringing none along the channel (Chow 1959, section 12-4). Where the depth given is less than critical the lower end controls
 * at critical depth.
 */
export function gatheredLine({ section, lengthM, slope, n }: Reach, flowM3s: number, lowerDepthM: number): Float64Array {
  const depths = new Float64Array(STEPS + 1);
  const Q = Math.abs(flowM3s);
  if (Q === 0 || lengthM <= 0) return depths.map((_, k) => Math.max(0, lowerDepthM - (slope * lengthM * k) / STEPS));
  const dx = lengthM / STEPS;
  const force = (q: number, y: number): number => q ** 2 / (GRAVITY * section.area(y)) + pressure(section, y);
  depths[0] = Math.max(lowerDepthM, criticalDepth(section, Q));
  for (let k = 1; k <= STEPS; k++) {
    const below = depths[k - 1];
    const [q1, q0] = [Q * (1 - k / STEPS), Q * (1 - (k - 1) / STEPS)];
    const drag = (y: number, q: number): number => section.area(y) * (frictionSlope({ section, n }, q, y) - slope);
    const downstream = force(q0, below) + (dx * drag(below, q0)) / 2;
    const over = (y: number): number => force(q1, y) - (dx * drag(y, q1)) / 2 - downstream;
    // On the tranquil side the force less half the step's drag rises with depth.
    const least = q1 > 0 ? criticalDepth(section, q1) : 1e-6;
    depths[k] = rootOf(over, least, Math.max(least, below) + 0.02);
  }
  return depths;
}
