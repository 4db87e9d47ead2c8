// Walls that stand by their weight, whatever technique builds them.
export * from './formulas.ts';
export * from './body.ts';
export * from './stability.ts';
export * from './footing.ts';
