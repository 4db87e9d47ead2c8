// Rules that look across works: where water goes after it has left one.
export * from './ways.ts';
export * from './seen.ts';
export * from './rain.ts';
export * from './ground.ts';
export * from './near.ts';
export * from './network.ts';
export * from './hazard.ts';
export * from './standing.ts';
export * from './known.ts';
