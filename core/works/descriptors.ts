// What every kind of work is, without what works it out: all the page needs to know.
import { checkDamsDescriptor } from './check-dams/descriptor.ts';
import { crossingDescriptor } from './crossing/descriptor.ts';
import { cutSpillwayDescriptor } from './cut-spillway/descriptor.ts';
import { diversionDescriptor } from './diversion/descriptor.ts';
import { headcutDescriptor } from './headcut/descriptor.ts';
import { halfMoonsDescriptor } from './half-moons/descriptor.ts';
import { levelSillDescriptor } from './level-sill/descriptor.ts';
import { pipeOutletDescriptor } from './pipe-outlet/descriptor.ts';
import { pipedDrainDescriptor } from './piped-drain/descriptor.ts';
import { pondDescriptor } from './pond/descriptor.ts';
import { pumpBackDescriptor } from './pump-back/descriptor.ts';
import { rainGardenDescriptor } from './rain-garden/descriptor.ts';
import { createCatalogue } from './registry.ts';
import { reachDescriptor } from './reach/descriptor.ts';
import { regradeDescriptor } from './regrade/descriptor.ts';
import { sumpDescriptor } from './sump-pump/descriptor.ts';
import { rippingDescriptor } from './ripping/descriptor.ts';
import { roofDescriptor } from './roof/descriptor.ts';
import { seepDrainDescriptor } from './seep-drain/descriptor.ts';
import { soakawayDescriptor } from './soakaway/descriptor.ts';
import { stoneLinesDescriptor } from './stone-lines/descriptor.ts';
import { stoneTrenchDescriptor } from './stone-trench/descriptor.ts';
import { swaleDescriptor } from './swale/descriptor.ts';
import { tankDescriptor } from './tank/descriptor.ts';
import { terracesDescriptor } from './terraces/descriptor.ts';
import { swaleSetDescriptor } from './swale-set/descriptor.ts';
import { supplyLineDescriptor } from './supply-line/descriptor.ts';
import { weirDescriptor } from './weir/descriptor.ts';

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
  weirDescriptor,
  headcutDescriptor,
  stoneLinesDescriptor,
  halfMoonsDescriptor,
  rainGardenDescriptor,
  terracesDescriptor,
  soakawayDescriptor,
  rippingDescriptor,
  swaleSetDescriptor,
  roofDescriptor,
  tankDescriptor,
  supplyLineDescriptor,
  pipedDrainDescriptor,
  seepDrainDescriptor,
  reachDescriptor,
  regradeDescriptor,
  sumpDescriptor,
] as const;
export const catalogue = createCatalogue(DESCRIPTORS);
