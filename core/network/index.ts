// Stores and outlets coupled: where overflow goes and what a storm does to every store on the way.
export * from './links.ts';
export * from './pool.ts';
export * from './runs.ts';
export * from './joint.ts';
export * from './joined.ts';
export * from './arrivals.ts';
export * from './near.ts';
export * from './order.ts';
export * from './route.ts';
export * from './empty.ts';
export * from './level-pool.ts';
export type * from './steps.ts';
export * from './conduit.ts';
