// Works drawn on the plan: what begins there is the technique's word, worked out by the worker.
import type { Point } from '#core/geometry';
import { newPart } from '../app/selectors.ts';
import { ask } from '../app/land.ts';
import { dispatch, notify, select } from '../app/store.ts';

/** Ids enough for the works of one drawing. */
const MOST_WORKS = 4;

/** Adds the first works of a kind as drawn, and selects the one that was meant. */
export async function beginWork(
  kind: string,
  drawn: { readonly how?: string; readonly points: readonly Point[]; readonly host?: string },
): Promise<void> {
  const fresh = Array.from({ length: MOST_WORKS }, newPart);
  const begun = await ask('begin', { kind, fresh, ...drawn });
  if (!begun || !dispatch({ type: 'works.add', payload: { works: begun.works } })) return;
  select(begun.works[0].id);
  // What was said of a work drawn before is of no use beside this one.
  notify(begun.said === null ? null : { tone: 'fine', title: begun.said, problems: [] });
}
