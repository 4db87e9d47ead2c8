// The shape of the ground and how water runs over it. Cells are areas; rows run north to south.
export * from './grid.ts';
export * from './sample.ts';
export * from './kernels/fill.ts';
export * from './kernels/flow.ts';
export * from './kernels/spread.ts';
export * from './kernels/contour.ts';
export * from './catchment.ts';
export * from './intercept.ts';
export * from './trace.ts';
export * from './settle.ts';
export * from './shade.ts';
export * from './stats.ts';
