// The techniques' interfaces: the twin of the list in core/works.
import { checkDamsUi } from './check-dams/index.ts';
import { crossingUi } from './crossing/index.tsx';
import { cutSpillwayUi } from './cut-spillway/index.ts';
import { diversionUi } from './diversion/index.ts';
import { headcutUi } from './headcut/index.tsx';
import { halfMoonsUi } from './half-moons/index.ts';
import { levelSillUi } from './level-sill/index.ts';
import { pipeOutletUi } from './pipe-outlet/index.ts';
import { pipedDrainUi } from './piped-drain/index.ts';
import { pondUi } from './pond/index.tsx';
import { pumpBackUi } from './pump-back/index.ts';
import { rainGardenUi } from './rain-garden/index.ts';
import { rippingUi } from './ripping/index.ts';
import { roofUi } from './roof/index.ts';
import { reachUi } from './reach/index.ts';
import { regradeUi } from './regrade/index.ts';
import { sumpUi } from './sump-pump/index.ts';
import { seepDrainUi } from './seep-drain/index.ts';
import { soakawayUi } from './soakaway/index.ts';
import { stoneLinesUi } from './stone-lines/index.ts';
import { stoneTrenchUi } from './stone-trench/index.ts';
import { swaleUi } from './swale/index.ts';
import { swaleSetUi } from './swale-set/index.ts';
import { tankUi } from './tank/index.ts';
import { terracesUi } from './terraces/index.ts';
import { supplyLineUi } from './supply-line/index.ts';
import { weirUi } from './weir/index.ts';
import { createWorkUis } from './list.ts';

/** All of them, one line each. */
export const WORK_UIS = [
  swaleUi,
  levelSillUi,
  pondUi,
  cutSpillwayUi,
  stoneTrenchUi,
  pipeOutletUi,
  crossingUi,
  diversionUi,
  pumpBackUi,
  checkDamsUi,
  weirUi,
  headcutUi,
  stoneLinesUi,
  halfMoonsUi,
  rainGardenUi,
  terracesUi,
  soakawayUi,
  rippingUi,
  swaleSetUi,
  roofUi,
  tankUi,
  supplyLineUi,
  pipedDrainUi,
  seepDrainUi,
  reachUi,
  regradeUi,
  sumpUi,
] as const;
export const { workUi } = createWorkUis(WORK_UIS);
