import { checkKnown } from '../../checks/index.ts';
import type { Check } from '../../contract/index.ts';
import type { Peg } from '../../survey/index.ts';
import { knownAt, knownUnder } from '../../terrain/index.ts';
import { type Graph, columnOf, forAll, idsOf } from '../graph/graph.ts';
import type { DerivedStore } from '../types.ts';
import type { Water } from '../water/water.ts';
import type { World } from '../world/world.ts';

/** What each work has least left under its crests, all its stores together [m]. */
function leftIn(stores: readonly DerivedStore[]): ReadonlyMap<string, number> {
  const left = new Map<string, number>();
  for (const { work, alsoOf = [], least } of stores)
    if (least) for (const id of [work, ...alsoOf]) left.set(id, Math.min(left.get(id) ?? Infinity, least.value));
  return left;
}

/** How near the ground under each work is known, judged once somebody has said how near any of it is. */
export function knownChecks({ known, model }: World, water: Water, on: { readonly stores: readonly DerivedStore[]; readonly graph: Graph }): readonly Check[] {
  const { stores, graph } = on;
  if (!isSaid(known)) return [];
  const works = water.works.map(({ bound }) => ({ id: bound.work.id, footprint: bound.footprint }));
  const ids = idsOf(works);
  const under = graph.each('known-under', { ids, columns: [forAll(known), forAll(model.grid.cellM), works.map((w) => w.footprint)] }, knownUnderLines).all;
  return graph.each('known-checks', { ids, columns: [ids, under, columnOf(ids, leftIn(stores), null)] }, knownJudged).all.flat();
} // prettier-ignore

/** Pegs of each work with how near the ground is known where they stand, once somebody has said how near any of it is. */
export const pegsKnown = (pegs: readonly Peg[], { known }: World): readonly Peg[] =>
  isSaid(known) ? pegs.map((peg) => ({ ...peg, groundKnownM: peg.groundM === null ? null : knownAt(known, [peg.x, peg.y]) })) : pegs;

const isSaid = (known: World['known']): boolean => known.some(({ levelsM }) => levelsM !== null);

const knownUnderLines = (known: World['known'], cellM: number, footprint: Water['works'][number]['bound']['footprint']): number | null =>
  knownUnder(known, footprint, cellM);

const knownJudged = (work: string, knownM: number | null, leftM: number | null): readonly Check[] => checkKnown(work, { knownM, leftM });
