// Water held by earth: a wall across a valley or a pit, whatever technique makes it.
export * from './built.ts';
export * from './earthwork.ts';
export * from './ground.ts';
export * from './wall.ts';
export * from './store.ts';
