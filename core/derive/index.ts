// The pipeline from document to everything computed.
export * from './derive.ts';
export * from './memo.ts';
export * from './terrain-steps.ts';
export * from './verdict.ts';
export * from './formulas.ts';
export type * from './types.ts';
export * from './compare.ts';
export * from './begin.ts';
export * from './land.ts';
export * from './gauge.ts';
export * from './place-words.ts';
export * from './ground-questions.ts';
export * from './surfaces.ts';
export * from './network-questions.ts';
