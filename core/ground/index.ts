// What the ground is made of and covered with, how much it takes in, and how that changes.
export * from './groups.ts';
export * from './texture.ts';
export * from './cover.ts';
export * from './seen.ts';
export * from './healing.ts';
export * from './room.ts';
export * from './laws.ts';
export * from './soil.ts';
export * from './tests/index.ts';
