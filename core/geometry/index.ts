// Planar geometry on coordinate pairs in metres. Lines are arrays of points; rings are not closed by repetition.
export * from './laying.ts';
export * from './line.ts';
export * from './polygon.ts';
export * from './surface.ts';
export * from './breaklines.ts';
