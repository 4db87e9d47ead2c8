// A second entry to this folder, kept apart so that compute workers never load the validation classes.
export * from './read.ts';
export * from './judge.ts';
export * from './classes.ts';
export * from './ground-problems.ts';
