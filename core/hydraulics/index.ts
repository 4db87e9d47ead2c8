// Weirs, sheets of water on a slope and uniform flow.
export * from './weir.ts';
export * from './manning.ts';
export * from './sheet.ts';
