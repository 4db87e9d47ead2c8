// The channel as it stands: its sections with what is to be cleared gone, and the water line in it by how much comes down.
import type { Channel, StormFacts } from '../../contract/index.ts';
import { type ChannelSection, backwater, criticalDepth, froude, normalDepth, uniformFlow } from '../../hydraulics/index.ts';
import type { Bed } from '../bed.ts';
import { peakAt, storeIdOf } from '../series.ts';
import { FOLLOWED_BY, type Reach, type ReachSection, inOrder, mixed, roughnessOf } from './model.ts';

/** Water runs on as if it fell by so much at the least [m/m]. */
const LEAST_SLOPE = 1e-4;

/** One place of it, cleared. */
export interface Cut {
  readonly section: ReachSection;
  readonly channel: ChannelSection;
  /** To the top of its lower bank [m]. */
  readonly bankM: number;
}

/** From one section to the next. */
export interface Stretch {
  readonly store: string;
  readonly name: string;
  readonly upper: Cut;
  readonly lower: Cut;
  readonly lengthM: number;
  readonly slope: number;
  /** As it is half-way. */
  readonly middle: ChannelSection;
  readonly n: number;
}

export interface Standing {
  readonly reach: Reach;
  readonly ground: Bed;
  readonly cuts: readonly Cut[];
  readonly stretches: readonly Stretch[];
}

export interface ReachFacts extends StormFacts {
  readonly standing: Standing;
}

/** A flat bed with a bank of its own slope on either side. */
export function channelOf({ bedWidthM: b, leftOutM, leftHighM, rightOutM, rightHighM }: ReachSection): ChannelSection {
  const [left, right] = [leftOutM / leftHighM, rightOutM / rightHighM];
  const slants = Math.hypot(1, left) + Math.hypot(1, right);
  const both = left + right;
  return { area: (y) => (b + (both * y) / 2) * y, perimeter: (y) => b + slants * y, topWidth: (y) => b + both * y };
}

/** Silt dug off the bed: it lies lower, its banks stay where they are. */
function cleared(section: ReachSection, clearM: number): ReachSection {
  const { bedM, leftHighM, rightHighM } = section;
  return { ...section, bedM: bedM - clearM, leftHighM: leftHighM + clearM, rightHighM: rightHighM + clearM };
}

const cutOf = (section: ReachSection): Cut => ({
  section,
  channel: channelOf(section),
  bankM: Math.min(section.leftHighM, section.rightHighM),
});

export function standingReach(reach: Reach, ground: Bed): Standing {
  const sections = inOrder(reach).map((s) => (reach.clearM === undefined ? s : cleared(s, reach.clearM)));
  const cuts = sections.map(cutOf);
  const stretches = cuts.slice(1).map((lower, k): Stretch => {
    const upper = cuts[k];
    const lengthM = lower.section.atM - upper.section.atM;
    return {
      store: storeIdOf(reach.id, k),
      name: cuts.length === 2 ? reach.name : `${reach.name}, stretch ${k + 1}`,
      upper,
      lower,
      lengthM,
      slope: (upper.section.bedM - lower.section.bedM) / lengthM,
      middle: channelOf(mixed(upper.section, lower.section, 0.5)),
      n: roughnessOf(reach) ?? FOLLOWED_BY,
    };
  });
  return { reach, ground, cuts, stretches };
}

/** Mean fall from its first to its last section [m/m]. */
export function fallOf({ cuts }: Pick<Standing, 'cuts'>): number {
  const [first, last] = [cuts[0].section, cuts[cuts.length - 1].section];
  return (first.bedM - last.bedM) / (last.atM - first.atM);
}

/** The water line by what runs in each stretch. */
export interface Profile {
  /** Depth over the bed at each section [m]. */
  readonly depthsM: readonly number[];
  /** On average along each stretch [m]. */
  readonly meansM: readonly number[];
}

const mean = (list: Float64Array): number => list.reduce((a, v) => a + v, 0) / list.length;

/** By standard step from its lower end up, where it runs on as evenly as it does there. */
export function profileOf(standing: Pick<Standing, 'cuts' | 'stretches'>, flowOf: (stretch: number) => number): Profile {
  const { cuts, stretches } = standing;
  const last = stretches.length - 1;
  const slope = Math.max(LEAST_SLOPE, stretches[last].slope > LEAST_SLOPE ? stretches[last].slope : fallOf(standing));
  const end = cuts[last + 1].channel;
  const depthsM = new Array<number>(cuts.length).fill(normalDepth(end, { slope, n: stretches[last].n }, flowOf(last)));
  depthsM[last + 1] = Math.max(depthsM[last + 1], criticalDepth(end, flowOf(last)));
  const meansM = new Array<number>(stretches.length).fill(0);
  for (let k = last; k >= 0; k--) {
    const { middle: section, lengthM, slope: S, n } = stretches[k];
    const along = backwater({ section, lengthM, slope: S, n }, flowOf(k), depthsM[k + 1]);
    depthsM[k] = along[along.length - 1];
    meansM[k] = mean(along);
  }
  return { depthsM, meansM };
}

/** Greatest flow of a storm in each stretch [m3/s]; null where no storm tells. */
export function peaksOf(facts: ReachFacts): readonly number[] | null {
  const peaks = facts.standing.stretches.map(({ store }) => peakAt(facts, store));
  return peaks.every((p) => p !== null) ? peaks : null;
}

export interface AtSection {
  readonly cut: Cut;
  readonly peakM3s: number;
  readonly depthM: number;
  readonly leftM: number;
  readonly velocityMs: number;
  readonly froude: number;
}

/** What storms did, found once for all rules and figures. */
const found = new WeakMap<ReachFacts, readonly AtSection[] | null>();

/** What a storm’s peak does at each section; null where no storm tells, or nobody has said how rough it is. */
export function atPeak(facts: ReachFacts): readonly AtSection[] | null {
  const known = found.get(facts);
  if (known !== undefined) return known;
  const all = sectionsAtPeak(facts);
  found.set(facts, all);
  return all;
}

function sectionsAtPeak(facts: ReachFacts): readonly AtSection[] | null {
  const peaks = roughnessOf(facts.standing.reach) === null ? null : peaksOf(facts);
  if (!peaks) return null;
  const { standing } = facts;
  const { depthsM } = profileOf(standing, (k) => peaks[k]);
  return standing.cuts.map((cut, k): AtSection => {
    // A section stands at the head of the stretch below it, but the last, and has the flow of the one that ends there.
    const { slope, n } = standing.stretches[Math.min(k, standing.stretches.length - 1)];
    const peakM3s = peaks[Math.max(0, k - 1)];
    const even = normalDepth(cut.channel, { slope: Math.max(LEAST_SLOPE, slope), n }, peakM3s);
    // Where it shoots it runs shallower than the line that can stand there.
    const runsM = Math.min(depthsM[k], even < criticalDepth(cut.channel, peakM3s) ? even : depthsM[k]);
    const isDry = peakM3s <= 0 || runsM <= 0;
    return {
      cut,
      peakM3s,
      depthM: depthsM[k],
      leftM: cut.bankM - depthsM[k],
      velocityMs: isDry ? 0 : peakM3s / cut.channel.area(runsM),
      froude: isDry ? 0 : froude(cut.channel, peakM3s, runsM),
    };
  });
}

/** How much it could carry at the most, for tables [m3/s]: half as deep again as its deepest bank. */
export const mostFlow = ({ stretches }: Standing): number =>
  Math.max(
    ...stretches.map(({ upper, lower, middle, slope, n }) =>
      uniformFlow(middle, { slope: Math.max(LEAST_SLOPE, slope), n }, 1.5 * Math.max(upper.bankM, lower.bankM)),
    ),
  );

const HALVINGS = 40;

export interface Carried {
  readonly flowM3s: number;
  /** At which section water then stands at a bank, and how deep at each. */
  readonly k: number;
  readonly depthsM: readonly number[];
}
const carried = new WeakMap<Standing, Carried>();

/** What it carries from end to end until water stands at a bank somewhere; null while nobody has said how rough it is [m3/s]. */
export function carriesOf(standing: Standing): Carried | null {
  if (roughnessOf(standing.reach) === null) return null;
  const known = carried.get(standing);
  if (known) return known;
  const made = halved(standing);
  carried.set(standing, made);
  return made;
}

function halved(standing: Standing): Carried {
  const depthsAt = (q: number): readonly number[] => profileOf(standing, () => q).depthsM;
  const left = (depthsM: readonly number[]): number[] => standing.cuts.map(({ bankM }, k) => bankM - depthsM[k]);
  let [low, high] = [0, mostFlow(standing)];
  for (let k = 0; k < HALVINGS && high - low > 1e-4 * high; k++) {
    const middle = (low + high) / 2;
    if (left(depthsAt(middle)).every((m) => m >= 0)) low = middle;
    else high = middle;
  }
  const lefts = left(depthsAt(high));
  return { flowM3s: low, k: lefts.indexOf(Math.min(...lefts)), depthsM: depthsAt(low) };
}

/** The channel for what stands in it. */
export function channelFor({ reach, cuts }: Standing): Channel {
  const [first, last] = [cuts[0].section, cuts[cuts.length - 1].section];
  const sectionAt = (atM: number): ReachSection => {
    const to = cuts.findIndex(({ section }) => section.atM >= atM);
    if (to <= 0) return to < 0 ? last : first;
    const [a, b] = [cuts[to - 1].section, cuts[to].section];
    return mixed(a, b, (atM - a.atM) / (b.atM - a.atM));
  };
  return {
    work: reach.id,
    line: reach.line,
    fromM: first.atM,
    toM: last.atM,
    isMeasured: reach.known !== 'terrain',
    bedAt: (atM) => sectionAt(atM).bedM,
    acrossAt: (atM) => {
      const { bedWidthM, leftOutM, leftHighM, rightOutM, rightHighM } = sectionAt(atM);
      return { bedWidthM, bankWidthM: bedWidthM + leftOutM + rightOutM, depthM: Math.min(leftHighM, rightHighM) };
    },
  };
}
