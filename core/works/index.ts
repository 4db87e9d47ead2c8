// The techniques. One folder each; this list and its twin in web/works are all that names them.
import { levelSill } from './level-sill/index.ts';
import { createRegistry } from './registry.ts';
import { swale } from './swale/index.ts';

export type { LevelSill } from './level-sill/index.ts';
export type { Swale, SwalePurpose } from './swale/index.ts';
export { sizeSill, type SillSize } from './level-sill/index.ts';
export { newSwale, sectionOutline, SWALE_PURPOSES, SWALE_BANK, SWALE_CUT, SWALE_WATER } from './swale/index.ts';
export { checkFields, checkLine } from './fields.ts';
export type { Registry } from './registry.ts';

export const registry = createRegistry([swale, levelSill] as const);
export type AnyWork = ReturnType<(typeof registry)['workType']>;
