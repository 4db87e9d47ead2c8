// The techniques' interfaces: the twin of the list in core/works.
import { levelSillUi } from './level-sill/index.ts';
import { swaleUi } from './swale/index.ts';
import type { WorkUi } from './types.ts';

const LIST: readonly WorkUi[] = [swaleUi, levelSillUi];
const byKind = new Map(LIST.map((ui) => [ui.kind, ui]));

/** The interface of a kind of work. @throws RangeError for a kind without one. */
export function workUi(kind: string): WorkUi {
  const ui = byKind.get(kind);
  if (!ui) throw new RangeError(`no interface for "${kind}"`);
  return ui;
}
export type { WorkUi } from './types.ts';
