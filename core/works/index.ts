// The techniques, one folder each, named by their lists.

export type { LevelSill } from './level-sill/index.ts';
export type { Swale, SwalePurpose } from './swale/index.ts';
export { sizeSill, type SillSize } from './level-sill/index.ts';
export { SWALE_BANK, SWALE_CUT, SWALE_WATER } from './swale/index.ts';
export { newSwale } from './swale/create.ts';
export { SWALE_PURPOSES } from './swale/model.ts';
export { sectionOutline } from './swale/section.ts';
export type { Pond } from './pond/index.ts';
export { CREST_WIDTH, PIT_VOLUME, POND_VOLUME, VALLEY_VOLUME, WALL_QUICK, WALL_SECTION, newPond } from './pond/index.ts';
export { CUT_CONTROL, type CutSpillway } from './cut-spillway/index.ts';
export type { StoneTrench } from './stone-trench/index.ts';
export type { PipeOutlet } from './pipe-outlet/index.ts';
export { type Crossing, pipeLength } from './crossing/index.ts';
export type { Diversion } from './diversion/index.ts';
export { type CheckDams, type Dam, DAM_FIELDS, ROW_COLUMNS, across, damsFromRows, inOrder } from './check-dams/index.ts';
export type { PumpBack } from './pump-back/index.ts';
export { type ExitFlow, exitFlow } from './exit.ts';
export { UnknownGround, footingOf, unknownUnder } from './unknown-ground.ts';
export { checkFields, checkLine, isShown, valueAt } from './fields.ts';
export type { Registry } from './registry.ts';
export { kindsOf } from './kinds.ts';
export { type Catalogue, createCatalogue, createRegistry } from './registry.ts';
export { type AnyWork, TECHNIQUES, registry } from './techniques.ts';
export { DESCRIPTORS, catalogue } from './descriptors.ts';
