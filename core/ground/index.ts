// What the ground is covered with and how much it takes in.
export * from './cover.ts';
