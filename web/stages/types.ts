import type { LazyExoticComponent, ReactNode } from 'react';
import type { Derived, Stage } from '#core/derive';
import type { Project } from '#core/project';

/** A part of the page that comes when it is first shown. */
export type Lazy = LazyExoticComponent<(props: object) => ReactNode>;

/** Drawing tools a stage offers over the plan. */
export interface StageTools {
  /** Those that stand open, by name of web/plan/tools.ts. */
  readonly first: readonly string[];
  /** Groups of others, behind a button each. */
  readonly groups: readonly ('work' | 'draw' | 'seen' | 'ask' | 'suits')[];
}

/** One stage of the descent: everything the page knows about it. */
export interface StageUi {
  readonly id: Stage;
  readonly name: string;
  /** Width of the sheet on a wide screen [px]. */
  readonly width: number;
  readonly Sheet: Lazy;
  /** Its answer in a sentence, where that hangs on more than the storm; left out, what core says of the stage. */
  readonly Says?: Lazy;
  /** What is shown below the plan; it shows nothing where there is nothing to show. */
  readonly Strip?: Lazy;
  /** What is shown beside the plan. */
  readonly Side?: Lazy;
  readonly tools?: StageTools;
  /** Whether the plan shows what is pegged. */
  readonly showsPegs?: boolean;
  /** Whether it has got what it asks for. */
  readonly isDone: (project: Project) => boolean;
  /** How many findings to mend stand beside its name. */
  readonly toMend?: (derived: Derived) => number;
  /** Fetches its parts before they are shown. */
  readonly fetch: () => void;
}
