// Weirs, holes, channels, culverts, pipes, stone and waves.
export * from './weir.ts';
export * from './grassed.ts';
export * from './manning.ts';
export * from './sheet.ts';
export * from './orifice.ts';
export * from './channel.ts';
export * from './profile.ts';
export * from './gathering.ts';
export * from './rating.ts';
export * from './culvert.ts';
export * from './pipe.ts';
export * from './inlets.ts';
export * from './sections.ts';
export * from './rock.ts';
export * from './drop.ts';
export * from './waves.ts';
export * from './breach.ts';
