// What is drawn of each work: its section, where its water stands, its levels, its pegs.
import type { Host, SectionShape } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { DEFAULT_SURVEY } from '../../project/index.ts';
import { type Peg, finishPegs } from '../../survey/index.ts';
import type { View } from '../types.ts';
import { type Attempt, attempt } from '../water/standing.ts';
import type { Placed } from '../water/stores.ts';
import type { Told } from './facts.ts';

export interface Pictures {
  readonly id: string;
  readonly section: Attempt<SectionShape | null>;
  readonly rings: Attempt<readonly Line[]>;
  readonly pegs: Attempt<readonly Peg[]>;
  readonly lip: View['sections'][string] | null;
}

/** What a drawing of a work reads of the water. */
interface Seen {
  readonly one: Placed;
  /** Highest water of the storm in its store, or in the store it lets out; null where it is not known. */
  readonly peakM: number | null;
  /** Lowest ways out of its stores, its first store first. */
  readonly wayOutsM: readonly number[];
  readonly survey: typeof DEFAULT_SURVEY;
}

function picturesOf({ one, peakM, wayOutsM, survey }: Seen): Pictures {
  const { placed, bound } = one;
  const { work } = bound;
  const drafts = attempt(work, () => placed.pegs(survey.pegIntervalM, wayOutsM[0] ?? null), []);
  return {
    id: work.id,
    section: attempt(work, () => placed.section?.(peakM) ?? null, null),
    rings: attempt(work, () => wayOutsM.flatMap((level) => placed.waterRings?.(level) ?? []), []),
    pegs: { ...drafts, value: finishPegs(work.id, drafts.value, survey.heightOfCollimationM) },
    lip: lipOf(one),
  };
}

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
export const picturesFor = ({ project, water, stores, facts, graph }: Told): readonly Pictures[] =>
  water.works.map((one) => {
    const { work, hostId } = one.bound;
    const storm = facts.get(work.id)?.storm ?? (hostId === null ? null : facts.get(hostId)?.storm);
    const seen: Seen = {
      one,
      peakM: storm?.peakLevelM ?? null,
      wayOutsM: (stores.get(work.id) ?? []).map((s) => s.wayOutM),
      survey: project.survey ?? DEFAULT_SURVEY,
    };
    return graph.step(`pictures:${work.id}`, [seen], picturesOf);
  });
