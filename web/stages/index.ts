// The stages of the descent, in order. One line a stage: it appears when it works.
import { groundStage } from './ground/index.ts';
import { landStage } from './land/index.ts';
import { levelsStage } from './levels/index.ts';
import { pegsStage } from './pegs/index.ts';
import { rainStage } from './rain/index.ts';
import { stormStage } from './storm/index.ts';
import { supplyStage } from './supply/index.ts';
import type { StageUi } from './types.ts';
import { worksStage } from './works/index.ts';

export type { StageTools, StageUi } from './types.ts';

export const STAGE_UI: readonly StageUi[] = [
  landStage,
  rainStage,
  groundStage,
  worksStage,
  levelsStage,
  stormStage,
  supplyStage,
  pegsStage,
];
