// What works each kind of work out. One folder each; this list, that of their descriptors and its twin in web/works are all
// that names them.
import { checkDams } from './check-dams/index.ts';
import { crossing } from './crossing/index.ts';
import { cutSpillway } from './cut-spillway/index.ts';
import { diversion } from './diversion/index.ts';
import { halfMoons } from './half-moons/index.ts';
import { headcut } from './headcut/index.ts';
import { levelSill } from './level-sill/index.ts';
import { pipeOutlet } from './pipe-outlet/index.ts';
import { pond } from './pond/index.ts';
import { pumpBack } from './pump-back/index.ts';
import { rainGarden } from './rain-garden/index.ts';
import { createRegistry } from './registry.ts';
import { pipedDrain } from './piped-drain/index.ts';
import { reach } from './reach/index.ts';
import { regrade } from './regrade/index.ts';
import { sump } from './sump-pump/index.ts';
import { ripping } from './ripping/index.ts';
import { roof } from './roof/index.ts';
import { seepDrain } from './seep-drain/index.ts';
import { soakaway } from './soakaway/index.ts';
import { stoneLines } from './stone-lines/index.ts';
import { stoneTrench } from './stone-trench/index.ts';
import { swale } from './swale/index.ts';
import { swaleSet } from './swale-set/index.ts';
import { tank } from './tank/index.ts';
import { terraces } from './terraces/index.ts';
import { supplyLine } from './supply-line/index.ts';
import { weir } from './weir/index.ts';

/** All of them; a new technique is one line here. */
export const TECHNIQUES = [
  swale,
  levelSill,
  pond,
  cutSpillway,
  stoneTrench,
  pipeOutlet,
  crossing,
  diversion,
  pumpBack,
  checkDams,
  weir,
  headcut,
  stoneLines,
  halfMoons,
  rainGarden,
  terraces,
  soakaway,
  ripping,
  swaleSet,
  roof,
  tank,
  supplyLine,
  pipedDrain,
  seepDrain,
  reach,
  regrade,
  sump,
] as const;
export const registry = createRegistry(TECHNIQUES);
export type AnyWork = ReturnType<(typeof registry)['workType']>;
