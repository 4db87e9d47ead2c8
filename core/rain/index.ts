// Rain depth, duration and frequency: tables, records, fits, and the storms made from them.
export * from './table.ts';
export * from './fit.ts';
export * from './depth.ts';
export * from './edit.ts';
export * from './frequency.ts';
export * from './record.ts';
export * from './bootstrap.ts';
export * from './analysis.ts';
export * from './seasons.ts';
export * from './storm.ts';
export * from './design.ts';
export * from './set.ts';
export * from './problems.ts';
export * from './events.ts';
export * from './which.ts';
export * from './memory.ts';
export * from './purposes.ts';
