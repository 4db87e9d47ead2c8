// Options side by side: what each holds, lets go and takes, and how water stands in the hollows of the ground in each.
import { type Point, distance } from '../../geometry/index.ts';
import type { Project } from '../../project/index.ts';
import { deriveSlowly } from '../derive.ts';
import type { Slowly } from '../graph/slowly.ts';
import { liveWorks } from '../scenario/scenario.ts';
import type { RoomContext } from '../set/laid.ts';
import { type LabourRow, type LabourSum, labourRows, labourSum } from '../tell/labour.ts';
import type { Derived, DerivedStore, StoreSeries } from '../types.ts';

/** What one option comes to. */
export interface OptionTold {
  readonly option: string;
  readonly name: string;
  readonly works: number;
  readonly mend: number;
  readonly weigh: number;
  readonly unknown: number;
  /** Held up to the ways out of all its stores together [m3]. */
  readonly holdsM3: number;
  /** Least freeboard of all, in the worst storm as found, full and blocked; null without a storm or a store. */
  readonly least: { readonly store: string; readonly name: string; readonly leftM: number } | null;
  /** The greatest flow that leaves the property at one place [m3/s]; null where none is known. */
  readonly leavesM3s: number | null;
  /** By the hours of all works that tell them; null where none does. */
  readonly labour: LabourSum | null;
  readonly rows: readonly LabourRow[];
}

/** How water stands in a hollow in one option. */
export interface HollowStands {
  /** Over its lowest ground, in the storm in which it stands highest as found, and in the worst of all [m]. */
  readonly foundM: number;
  readonly worstM: number;
  /** How long more than wet feet come of it in that storm [h]; whether it still does when the storm has been followed to its end. */
  readonly standsH: number;
  readonly isStill: boolean;
}

/** One hollow of the ground; null for an option in which no work takes its water: nobody has followed it there. */
export interface HollowTold {
  readonly at: Point;
  readonly name: string;
  readonly stands: readonly (HollowStands | null)[];
}

export interface OptionsCompared {
  readonly options: readonly OptionTold[];
  readonly hollows: readonly HollowTold[];
}

/** What is worked out of an option is kept beside the document, and let go. */
const ASIDE = 'options';
/** Water a shoe keeps out [m]; hollows so near to one another, bottom by bottom, are one [m]. */
const [SHOE_M, SAME_M] = [0.05, 1];

const counted = ({ checks }: Derived, severity: 'mend' | 'weigh' | 'unknown'): number =>
  checks.filter((c) => c.severity === severity).length;

function leastOf({ stores }: Derived): OptionTold['least'] {
  const known = stores.flatMap(({ id, name, least }) => (least ? [{ store: id, name, leftM: least.value }] : []));
  return known.length === 0 ? null : known.reduce((a, b) => (b.leftM < a.leftM ? b : a));
}

function leavesOf({ exits }: Derived): number | null {
  const peaks = exits.flatMap((e) => (e.isPlace ? [e.worst.peakM3s?.value ?? e.with.peakM3s] : []));
  return peaks.length === 0 ? null : Math.max(...peaks);
}

interface InHollow {
  readonly at: Point;
  readonly name: string;
  readonly stands: HollowStands;
}

function hollowOf(store: DerivedStore, series: readonly StoreSeries[]): InHollow[] {
  const { hollow, peakLevelM, worst } = store;
  const own = series.find((s) => s.id === store.id);
  if (!hollow || peakLevelM === null || !own) return [];
  const wet = own.levelM.reduce((n, level) => (level > hollow.lowM + SHOE_M ? n + 1 : n), 0);
  return [
    {
      at: hollow.at,
      name: store.name,
      stands: {
        foundM: Math.max(0, peakLevelM - hollow.lowM),
        worstM: Math.max(0, Math.max(worst.peakLevelM?.value ?? peakLevelM, peakLevelM) - hollow.lowM),
        standsH: (wet * own.stepS) / 3600,
        isStill: own.levelM[own.levelM.length - 1] > hollow.lowM + SHOE_M,
      },
    },
  ];
}

/** Hollows of all options, each once, by where their lowest ground is. */
function hollowsOf(byOption: readonly (readonly InHollow[])[]): HollowTold[] {
  const found: Pick<InHollow, 'at'>[] = [];
  for (const one of byOption.flat()) if (!found.some((f) => distance(f.at, one.at) < SAME_M)) found.push(one);
  const shortest = (at: Point): string =>
    byOption.flat().flatMap((h) => (distance(h.at, at) < SAME_M ? [h.name] : [])).reduce((a, b) => (b.length < a.length ? b : a)); // prettier-ignore
  return found.map(({ at }) => ({
    at,
    name: shortest(at),
    stands: byOption.map((list) => list.find((h) => distance(h.at, at) < SAME_M)?.stands ?? null),
  }));
}

/** Every option of a project worked out, side by side. */
export function* optionsSlowly(project: Project, context: RoomContext): Slowly<OptionsCompared> {
  const told: OptionTold[] = [];
  const hollows: (readonly InHollow[])[] = [];
  try {
    for (const { id: option, name, works } of project.options) {
      const { derived, view } = yield* deriveSlowly(project, { ...context, option, aside: ASIDE });
      const rows = labourRows(works, view.figures);
      told.push({
        option,
        name,
        works: liveWorks(works).length,
        mend: counted(derived, 'mend'),
        weigh: counted(derived, 'weigh'),
        unknown: counted(derived, 'unknown'),
        holdsM3: derived.stores.reduce((sum, s) => sum + s.heldM3, 0),
        least: leastOf(derived),
        leavesM3s: leavesOf(derived),
        labour: labourSum(rows),
        rows,
      });
      hollows.push(derived.stores.flatMap((s) => hollowOf(s, view.series)));
      // One option after the other: no more than one is held beside the document.
      context.graph.forget(ASIDE);
    }
    return { options: told, hollows: hollowsOf(hollows) };
  } finally {
    context.graph.forget(ASIDE);
  }
}
