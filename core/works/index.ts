// The techniques. One folder each; this list and its twin in web/works are all that names them.
import { crossing } from './crossing/index.ts';
import { cutSpillway } from './cut-spillway/index.ts';
import { diversion } from './diversion/index.ts';
import { levelSill } from './level-sill/index.ts';
import { pipeOutlet } from './pipe-outlet/index.ts';
import { pond } from './pond/index.ts';
import { pumpBack } from './pump-back/index.ts';
import { createRegistry } from './registry.ts';
import { stoneTrench } from './stone-trench/index.ts';
import { swale } from './swale/index.ts';

export type { LevelSill } from './level-sill/index.ts';
export type { Swale, SwalePurpose } from './swale/index.ts';
export { sizeSill, type SillSize } from './level-sill/index.ts';
export { newSwale, sectionOutline, SWALE_PURPOSES, SWALE_BANK, SWALE_CUT, SWALE_WATER } from './swale/index.ts';
export type { Pond } from './pond/index.ts';
export { CREST_WIDTH, PIT_VOLUME, POND_VOLUME, VALLEY_VOLUME, WALL_QUICK, WALL_SECTION, newPond } from './pond/index.ts';
export { CUT_CONTROL, type CutSpillway } from './cut-spillway/index.ts';
export type { StoneTrench } from './stone-trench/index.ts';
export type { PipeOutlet } from './pipe-outlet/index.ts';
export { type Crossing, pipeLength } from './crossing/index.ts';
export type { Diversion } from './diversion/index.ts';
export type { PumpBack } from './pump-back/index.ts';
export { type ExitFlow, exitFlow } from './exit.ts';
export { UnknownGround, footingOf, unknownUnder } from './unknown-ground.ts';
export { checkFields, checkLine, isShown, valueAt } from './fields.ts';
export type { Registry } from './registry.ts';
export { kindsOf } from './kinds.ts';

/** All of them; a new technique is one line here, and one in web/works. */
export const TECHNIQUES = [swale, levelSill, pond, cutSpillway, stoneTrench, pipeOutlet, crossing, diversion, pumpBack] as const;
export const registry = createRegistry(TECHNIQUES);
export { createRegistry };
export type AnyWork = ReturnType<(typeof registry)['workType']>;
