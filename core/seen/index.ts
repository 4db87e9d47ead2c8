// What was seen in the field, and what it does to the way water runs.
export * from './kinds.ts';
export * from './effects.ts';
export * from './validate.ts';
export * from './things.ts';
