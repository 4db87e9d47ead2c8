// What every work speaks. Types, and lists of names: techniques implement them, the network, checks and interface read them.
export * from './work.ts';
export * from './water.ts';
export * from './built.ts';
export * from './hazard.ts';
export * from './channel.ts';
export * from './check.ts';
export * from './technique.ts';
export * from './traits.ts';
export * from './begin.ts';
export * from './make.ts';
export * from './suits.ts';
