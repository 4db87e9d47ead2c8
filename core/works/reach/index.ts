// A channel as it is: measured by its sections, what it carries, what its bed stands; and the bed of what stands in it.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { type Bed, bedAt, measureBed } from '../bed.ts';
import { runRules } from '../rules.ts';
import { beginReach } from './begin.ts';
import { REACH_RULES } from './checks.ts';
import { reachDescriptor } from './descriptor.ts';
import { CONVEYANCE, SECTION_CARRIES, SECTION_SPEED } from './formulas.ts';
import { clearedM3, quantitiesOf, stepsOf } from './making.ts';
import { BED_STANDS_MS, type Reach, inOrder } from './model.ts';
import { sectionOf } from './section.ts';
import { type Cut, type ReachFacts, type Standing, atPeak, carriesOf, channelFor, fallOf, standingReach } from './standing.ts';
import { storesOf } from './store.ts';

export * from './model.ts';
export * from './rows.ts';
export { newReach } from './create.ts';
export { REACH_RULES } from './checks.ts';

const symbolsOf = ({ section: s }: Cut) => ({ b: s.bedWidthM, zl: s.leftOutM / s.leftHighM, zr: s.rightOutM / s.rightHighM });

/** Its tightest section worked by hand: as much as it carries evenly to its lower bank. */
function workThrough(facts: ReachFacts, tight: number, sheet: Worksheet): void {
  const { cuts, stretches } = facts.standing;
  const { slope, n } = stretches[Math.min(tight, stretches.length - 1)];
  const of = { ...symbolsOf(cuts[tight]), y: cuts[tight].bankM };
  sheet.use(CONVEYANCE, { ...of, n });
  if (slope > 0) sheet.use(SECTION_CARRIES, { ...of, S: slope, n });
  const there = atPeak(facts)?.[tight];
  if (there && there.depthM > 0) sheet.use(SECTION_SPEED, { Q: there.peakM3s, ...symbolsOf(there.cut), y: there.depthM });
}

function figuresOf(facts: ReachFacts, sheet: Worksheet): Figure[] {
  const { standing } = facts;
  const { reach, cuts } = standing;
  const carried = carriesOf(standing);
  const all = atPeak(facts);
  if (carried) workThrough(facts, carried.k, sheet);
  const most = (of: 'peakM3s' | 'velocityMs'): number | null => all && Math.max(...all.map((at) => at[of]));
  const stands = reach.bedIs === 'unknown' ? null : BED_STANDS_MS[reach.bedIs];
  return [
    { id: 'lengthM', label: 'Measured', value: cuts[cuts.length - 1].section.atM - cuts[0].section.atM, kind: 'distance' },
    { id: 'fall', label: 'Falls', value: fallOf(standing), kind: 'slope' },
    { id: 'carriesM3s', label: carried ? `Carries to its bank at section ${carried.k + 1}` : 'Carries to its bank', value: carried?.flowM3s ?? null, kind: 'flow' },
    { id: 'peakM3s', label: 'Comes at most', value: most('peakM3s'), kind: 'flow' },
    { id: 'velocityMs', label: 'Fastest', value: most('velocityMs'), kind: 'velocity' },
    ...(stands === null || Number.isFinite(stands) ? [{ id: 'standsMs', label: 'Its bed stands', value: stands, kind: 'velocity' as const }] : []),
    ...cuts.map((_, at): Figure => ({ id: `left${at + 1}M`, label: `Section ${at + 1}: bank left`, value: all ? all[at].leftM : null, kind: 'difference' })),
    ...(reach.clearM === undefined ? [] : [{ id: 'cutM3', label: 'Silt to dig out', value: clearedM3(standing), kind: 'volume' as const }]),
  ];
} // prettier-ignore

function pegsOf({ reach, cuts, ground }: Standing): PegDraft[] {
  return cuts.flatMap(({ section }, k): PegDraft[] => {
    const { point, direction } = pointAlong(reach.line, section.atM);
    const beside = (away: number): Point => [point[0] - direction[1] * away, point[1] + direction[0] * away];
    const peg = (where: string, role: PegDraft['role'], [x, y]: Point): Omit<PegDraft, 'levelM'> => ({
      name: `${reach.name}, section ${k + 1}${where}`,
      role,
      x,
      y,
      groundM: role === 'floor' ? bedAt(ground, section.atM) : null,
    });
    const half = section.bedWidthM / 2;
    return [
      { ...peg('', 'floor', point), levelM: section.bedM },
      { ...peg(', left bank', 'crest', beside(half + section.leftOutM)), levelM: section.bedM + section.leftHighM },
      { ...peg(', right bank', 'crest', beside(-half - section.rightOutM)), levelM: section.bedM + section.rightHighM },
    ];
  });
}

/** The bed at its first and last section, as they were read. */
function marksOf(reach: Reach): LevelMark[] {
  const sorted = inOrder(reach);
  return ([[sorted[0], 'upper'], [sorted[sorted.length - 1], 'lower']] as const).map(([section, end]) => ({
    id: `${reach.id}:${end}`,
    work: reach.id,
    name: `Bed, ${end} end`,
    role: 'floor',
    levelM: section.bedM,
    path: `sections.${reach.sections.indexOf(section)}.bedM`,
  }));
} // prettier-ignore

function placeReach(reach: Reach, ground: Bed): PlacedWork {
  const standing = standingReach(reach, ground);
  return {
    host: null,
    channel: channelFor(standing),
    stores: () => storesOf(standing),
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, standing }, sheet),
    checks: (facts) => runRules(REACH_RULES, { ...facts, standing }, reach.id),
    quantities: () => quantitiesOf(standing),
    buildSteps: () => stepsOf(standing),
    pegs: () => pegsOf(standing),
    marks: marksOf(reach),
    section: () => sectionOf(standing),
  };
}

export const reach: Technique<Reach, Bed> = {
  ...reachDescriptor,
  formulas: [CONVEYANCE, SECTION_CARRIES, SECTION_SPEED],
  rules: REACH_RULES,
  begin: beginReach,
  measure: (work, plot) => measureBed(work.line, plot),
  place: placeReach,
};
