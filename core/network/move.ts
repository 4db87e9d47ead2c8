// One step of one store: what comes, and how much of what leaves is taken at the end.

/** What moves through a pool in a step: one thing is written into again and again, since there are very many of them. */
export interface Move {
  stepS: number;
  /** Share of its own outflow that is taken at the end. */
  later: number;
  /** Mean of what comes [m3/s]. */
  meanIn: number;
  /** The level found for the end [m]. */
  levelM: number;
  /** What joints bring, and all there is with what comes and is held [m3]. */
  jointIn: number;
  thereM3: number;
}

/** A move not yet taken: fractions in every member, so that room for them is kept from the first. */
export const newMove = (): Move => ({ stepS: 0.5, later: 0.5, meanIn: 0.5, levelM: 0.5, jointIn: 0.5, thereM3: 0.5 });

/** Share of a step's flow that is taken at its end, by how much of what it moves the flow answers to within the step. */
export const shareAtEnd = (answer: number): number => (answer > 2 ? 1 - 1 / answer : 0.5);
