// The body of a wall that stands by its weight, cut across: slabs one on the other, measured from the toe inwards.
import type { Point } from '../../geometry/index.ts';

export interface Slab {
  readonly bottomM: number;
  readonly topM: number;
  /** Its outer and inner edge at its bottom and at its top, from the toe [m]. */
  readonly outer: readonly [bottom: number, top: number];
  readonly inner: readonly [bottom: number, top: number];
}

/** How a wall narrows from its base to its top. */
export interface BodyShape {
  readonly heightM: number;
  readonly baseM: number;
  readonly topM: number;
  /** Height of a course; null where its faces are plane. */
  readonly courseM: number | null;
  /** The face that is stepped or leans: below, away from what pushes, or above. */
  readonly steps: 'below' | 'above';
}

const course = ({ baseM, steps }: BodyShape, levels: readonly [number, number], widths: readonly [number, number]): Slab => {
  const [bottomM, topM] = levels;
  return steps === 'below'
    ? { bottomM, topM, outer: [baseM - widths[0], baseM - widths[1]], inner: [baseM, baseM] }
    : { bottomM, topM, outer: [0, 0], inner: [widths[0], widths[1]] };
};

/** Its slabs from the base up: courses of one width each, narrowing evenly; or one with plane faces. */
export function slabsOf(shape: BodyShape): readonly Slab[] {
  const { heightM, baseM, topM, courseM } = shape;
  if (courseM === null) return [course(shape, [0, heightM], [baseM, topM])];
  const count = Math.max(1, Math.ceil(heightM / courseM - 1e-9));
  return Array.from({ length: count }, (_, k) => {
    const width = count === 1 ? baseM : baseM - ((baseM - topM) * k) / (count - 1);
    return course(shape, [k * courseM, Math.min(heightM, (k + 1) * courseM)], [width, width]);
  });
}

/** Area of a slab, and where its middle lies from the toe [m2, m]. */
export function slabArea({ bottomM, topM, outer, inner }: Slab): { readonly areaM2: number; readonly armM: number } {
  const [b, t] = [inner[0] - outer[0], inner[1] - outer[1]];
  const height = topM - bottomM;
  const areaM2 = (height * (b + t)) / 2;
  // Edges are straight: the middle of a width times that width is of the second power, which three places tell.
  const moment = (o: number, i: number): number => ((i - o) * (i + o)) / 2;
  const middle = moment((outer[0] + outer[1]) / 2, (inner[0] + inner[1]) / 2);
  const about = (height * (moment(outer[0], inner[0]) + 4 * middle + moment(outer[1], inner[1]))) / 6;
  return { areaM2, armM: areaM2 > 0 ? about / areaM2 : 0 };
}

/** Its outline to scale: `toeAt` is where its toe lies, `baseAt` the level of its base, and inwards is up along x. */
export function outlineOf(slabs: readonly Slab[], { toeAt, baseAt }: { readonly toeAt: number; readonly baseAt: number }): Point[] {
  const place = (x: number, y: number): Point => [toeAt + x, baseAt + y];
  const up = slabs.flatMap(({ bottomM, topM, outer }) => [place(outer[0], bottomM), place(outer[1], topM)]);
  const down = [...slabs].reverse().flatMap(({ bottomM, topM, inner }) => [place(inner[1], topM), place(inner[0], bottomM)]);
  return [...up, ...down];
}
