// The techniques' interfaces: the twin of the list in core/works.
import { crossingUi } from './crossing/index.tsx';
import { cutSpillwayUi } from './cut-spillway/index.tsx';
import { diversionUi } from './diversion/index.tsx';
import { levelSillUi } from './level-sill/index.ts';
import { pipeOutletUi } from './pipe-outlet/index.tsx';
import { pondUi } from './pond/index.tsx';
import { pumpBackUi } from './pump-back/index.tsx';
import { stoneTrenchUi } from './stone-trench/index.tsx';
import { swaleUi } from './swale/index.ts';
import type { WorkUi } from './types.ts';

const LIST: readonly WorkUi[] = [
  swaleUi,
  levelSillUi,
  pondUi,
  cutSpillwayUi,
  stoneTrenchUi,
  pipeOutletUi,
  crossingUi,
  diversionUi,
  pumpBackUi,
];
const byKind = new Map(LIST.map((ui) => [ui.kind, ui]));

/** The interface of a kind of work. @throws RangeError for a kind without one. */
export function workUi(kind: string): WorkUi {
  const ui = byKind.get(kind);
  if (!ui) throw new RangeError(`no interface for "${kind}"`);
  return ui;
}
export type { WorkUi } from './types.ts';
