// Rain depth, duration and frequency, and the storms made from them.
export * from './table.ts';
export * from './storm.ts';
