// Reading and writing open formats. Every reader either understands a file or says what is wrong, where, and what to do.
export * from './imported.ts';
export * from './import-file.ts';
export { canBeGround, groundOfShapes } from './shape-ground.ts';
export * from './crs.ts';
export * from './project-file.ts';
export * from './pegs.ts';
export * from './drawing.ts';
export * from './write-drawing.ts';
export * from './rain-csv.ts';
export { readRows, readTable } from './columns.ts';
export type { DecimalMark } from './decimals.ts';
export * from './readings.ts';
export { LEVEL_UNITS, type LevelUnit } from './grid-limits.ts';
export { levelBookCsv, readBook } from './level-book.ts';
export { type FoundSystem, findSystems } from './find-system.ts';
export * from './write-ground.ts';
export * from './tables.ts';
