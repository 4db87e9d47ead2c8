// The pipeline from document to everything computed.
export * from './derive.ts';
export * from './graph/graph.ts';
export * from './scenario/scenario.ts';
export * from './world/ground-model.ts';
export * from './world/surfaces.ts';
export * from './tell/verdict.ts';
export * from './tell/formulas.ts';
export * from './tell/place-words.ts';
export type * from './types.ts';
export * from './ask/compare.ts';
export * from './ask/begin.ts';
export * from './ask/land.ts';
export * from './ask/gauge.ts';
export * from './ask/ground-questions.ts';
export * from './ask/network-questions.ts';
