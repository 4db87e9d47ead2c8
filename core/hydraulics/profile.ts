// Gradually varied flow: how the water line tilts along a channel of one section.
import { type ChannelSection, criticalDepth } from './channel.ts';
import { rootOf } from './root.ts';
import { GRAVITY } from './orifice.ts';

export interface Reach {
  readonly section: ChannelSection;
  readonly lengthM: number;
  /** Fall of the bed along the flow [m/m]; 0 is level. */
  readonly slope: number;
  readonly n: number;
}

/** Fall of the energy line by Manning [m/m]. */
export function frictionSlope({ section, n }: Pick<Reach, 'section' | 'n'>, flowM3s: number, depthM: number): number {
  const area = section.area(depthM);
  const velocity = (flowM3s * n) / area;
  return (velocity * velocity) / Math.cbrt(area / section.perimeter(depthM)) ** 4;
}

const energy = (section: ChannelSection, flowM3s: number, depthM: number): number =>
  depthM + (flowM3s / section.area(depthM)) ** 2 / (2 * GRAVITY);

const STEPS = 12;
/** A step over which water deepens by more than this share is halved, so often at most: its friction is no longer that of its ends. */
const [MOST_DEEPENING, HALVINGS] = [0.25, 7];

/**
 * Depths along a reach of tranquil flow, from its lower end upwards (standard step; Chow 1959, section 10-4), each
 * a twelfth of the length apart. Where the depth given is less than critical the lower end controls at critical depth; where the
 * flow would shoot, critical depth is what can stand there.
 */
export function backwater(reach: Reach, flowM3s: number, lowerDepthM: number): Float64Array {
  const { section, lengthM, slope } = reach;
  const depths = new Float64Array(STEPS + 1);
  const q = Math.abs(flowM3s);
  if (q === 0) return depths.map((_, k) => Math.max(0, lowerDepthM - (slope * lengthM * k) / STEPS));
  const critical = criticalDepth(section, q);
  depths[0] = Math.max(lowerDepthM, critical);
  const above = (below: number, dx: number, halvings: number): number => {
    const target = energy(section, q, below) - slope * dx + (frictionSlope(reach, q, below) * dx) / 2;
    // On the tranquil side energy less half the step's friction rises with depth.
    const over = (y: number): number => energy(section, q, y) - (frictionSlope(reach, q, y) * dx) / 2 - target;
    const depth = rootOf(over, critical, Math.max(critical, below) + 0.02);
    if (halvings === 0 || depth - below <= MOST_DEEPENING * below) return depth;
    return above(above(below, dx / 2, halvings - 1), dx / 2, halvings - 1);
  };
  for (let k = 1; k <= STEPS; k++) depths[k] = above(depths[k - 1], lengthM / STEPS, HALVINGS);
  return depths;
}

/** Depth at the upper end of a reach, by the depth at its lower end [m]. */
export function upperDepth(reach: Reach, flowM3s: number, lowerDepthM: number): number {
  return backwater(reach, flowM3s, lowerDepthM)[STEPS];
}
