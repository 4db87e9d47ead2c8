// The stages of the descent, in order. One line a stage: it appears when it works.
import type { ReactNode } from 'react';
import type { Stage } from '#core/derive';
import { GroundSheet } from './ground/GroundSheet.tsx';
import { LandSheet } from './land/LandSheet.tsx';
import { LevelsSheet } from './levels/LevelsSheet.tsx';
import { PegsSheet } from './pegs/PegsSheet.tsx';
import { RainSheet } from './rain/RainSheet.tsx';
import { StormSheet } from './storm/StormSheet.tsx';
import { WorksSheet } from './works/WorksSheet.tsx';

export interface StageUi {
  readonly id: Stage;
  readonly name: string;
  readonly Sheet: () => ReactNode;
  /** Width of the sheet on a wide screen [px]. */
  readonly width: number;
  readonly hasStack: boolean;
}

export const STAGE_UI: readonly StageUi[] = [
  { id: 'land', name: 'Land', Sheet: LandSheet, width: 330, hasStack: false },
  { id: 'rain', name: 'Rain', Sheet: RainSheet, width: 500, hasStack: false },
  { id: 'ground', name: 'Ground', Sheet: GroundSheet, width: 460, hasStack: false },
  { id: 'works', name: 'Works', Sheet: WorksSheet, width: 332, hasStack: true },
  { id: 'levels', name: 'Levels', Sheet: LevelsSheet, width: 332, hasStack: true },
  { id: 'storm', name: 'Storm', Sheet: StormSheet, width: 480, hasStack: false },
  { id: 'pegs', name: 'Pegs', Sheet: PegsSheet, width: 520, hasStack: false },
];
