// What is drawn of each work: its section, where its water stands, its levels, its pegs.
import type { Host, SectionShape, Store } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { DEFAULT_SURVEY } from '../../project/index.ts';
import { type Peg, finishPegs } from '../../survey/index.ts';
import type { View } from '../types.ts';
import { type Attempt, attempt } from '../water/standing.ts';
import type { Placed } from '../water/stores.ts';
import { columnOf, forAll, idsOf } from '../graph/graph.ts';
import type { Told } from './facts.ts';

export interface Pictures {
  readonly id: string;
  readonly section: Attempt<SectionShape | null>;
  readonly rings: Attempt<readonly Line[]>;
  readonly pegs: Attempt<readonly Peg[]>;
  readonly lip: View['sections'][string] | null;
}

/**
 * Drawings of a work by the highest water of the storm in its store, or in the store it lets out, where that is known, and by the
 * lowest ways out of its stores, its first store first.
 */
function picturesOf(...[one, peakM, wayOutsM, survey]: [Placed, number | null, readonly number[], typeof DEFAULT_SURVEY]): Pictures {
  const { placed, bound } = one;
  const { work } = bound;
  const drafts = attempt(work, () => placed.pegs(survey.pegIntervalM, wayOutsM[0] ?? null), []);
  return {
    id: work.id,
    section: attempt(work, () => placed.section?.(peakM) ?? null, null),
    rings: attempt(work, () => ringsAt(placed, wayOutsM), []),
    pegs: { ...drafts, value: finishPegs(work.id, drafts.value, survey.heightOfCollimationM) },
    lip: lipOf(one),
  };
}

/** Where its water ends at each of its levels; a work that has one answer for all its stores is heard once. */
const ringsAt = ({ waterRings }: Placed['placed'], levelsM: readonly number[]): readonly Line[] =>
  waterRings ? [...new Set(levelsM.map((level) => waterRings(level)))].flat() : [];

/** Mean lip and cross slope of a hosting work, read off its figures' own ground. */
function lipOf({ placed }: Placed): Pictures['lip'] {
  const lip = placed.marks.find((m) => m.role === 'ground');
  const { host } = placed;
  if (!lip || !host || host.line.length < 2) return null;
  return { lipM: lip.levelM, crossSlope: host.crossSlope, downhill: downhillSide(host) };
}

function downhillSide(host: Host): 1 | -1 {
  const [a, b] = host.line;
  const [nx, ny] = host.downhillAt(0);
  // Right of the direction is (dy, -dx).
  return nx * (b[1] - a[1]) - ny * (b[0] - a[0]) > 0 ? 1 : -1;
}

/** Drawings of every work that stands. */
export function picturesFor({ project, works, stores, facts, graph }: Told): readonly Pictures[] {
  const ids = idsOf(works);
  const peaks = works.map(({ id, one: { bound } }) => (facts.get(id)?.storm ?? facts.get(bound.hostId ?? '')?.storm)?.peakLevelM ?? null);
  const wayOuts = columnOf(ids, stores, NO_STORES).map((list) => list.map((s) => s.wayOutM));
  const survey = forAll(project.survey ?? DEFAULT_SURVEY);
  return graph.each('pictures', { ids, columns: [works.map((w) => w.one), peaks, wayOuts, survey] }, picturesOf).all;
}
const NO_STORES: readonly Store[] = [];
