// What every kind of work is, without what works it out: all the page needs to know.
import { checkDamsDescriptor } from './check-dams/descriptor.ts';
import { crossingDescriptor } from './crossing/descriptor.ts';
import { cutSpillwayDescriptor } from './cut-spillway/descriptor.ts';
import { diversionDescriptor } from './diversion/descriptor.ts';
import { levelSillDescriptor } from './level-sill/descriptor.ts';
import { pipeOutletDescriptor } from './pipe-outlet/descriptor.ts';
import { pondDescriptor } from './pond/descriptor.ts';
import { pumpBackDescriptor } from './pump-back/descriptor.ts';
import { createCatalogue } from './registry.ts';
import { stoneTrenchDescriptor } from './stone-trench/descriptor.ts';
import { swaleDescriptor } from './swale/descriptor.ts';

/** All of them, in the order of the techniques; a new one is one line here. */
export const DESCRIPTORS = [
  swaleDescriptor,
  levelSillDescriptor,
  pondDescriptor,
  cutSpillwayDescriptor,
  stoneTrenchDescriptor,
  pipeOutletDescriptor,
  crossingDescriptor,
  diversionDescriptor,
  pumpBackDescriptor,
  checkDamsDescriptor,
] as const;
export const catalogue = createCatalogue(DESCRIPTORS);
