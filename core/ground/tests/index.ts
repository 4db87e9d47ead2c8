// Field tests of the ground: rings, holes and pits.
export * from './types.ts';
export * from './formulas.ts';
export * from './kinds.ts';
export * from './reduce.ts';
export * from './problems.ts';
