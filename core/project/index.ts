// The document: what the user decided and observed, and how it is read from a file.
export * from './model.ts';
export * from './problem.ts';
export * from './ids.ts';
export * from './limits.ts';
export * from './asset.ts';
export * from './gauge-asset.ts';
export * from './picture.ts';
export * from './rain-problems.ts';
export * from './canonical.ts';
export * from './cases.ts';
export * from './work-problems.ts';
