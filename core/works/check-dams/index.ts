// Check dams in series: they slow, hold and drop silt down a gully, each spilling onto the foot of the next.
import type { LevelMark, PegDraft, PlacedWork, Plot, Technique } from '../../contract/index.ts';
import { type Line, type Point, distance, pointAlong } from '../../geometry/index.ts';
import { runRules } from '../rules.ts';
import { beginDams } from './begin.ts';
import { type Bed, bedIn, lowered, measureBed } from '../bed.ts';
import { DAMS_RULES } from './checks.ts';
import { checkDamsDescriptor } from './descriptor.ts';
import { eachDam } from './each.ts';
import { figuresOf } from './figures.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import type { CheckDams } from './model.ts';
import { longSection } from './section.ts';
import { HEEDE_SPACING, SIGHT_SPACING, toeAbove } from './spacing.ts';
import { WOOD_FLOATS } from './forms.ts';
import { DAM_BODY, WEDGE_VOLUME, stoneOf } from './stone.ts';
import { type DamsGround, type Standing, standingDams, storesOf } from './store.ts';
import { suitsDams } from './suits.ts';

export * from './model.ts';
export * from './rows.ts';
export { DAMS_RULES } from './checks.ts';
export { HEEDE_SPACING, SIGHT_SPACING } from './spacing.ts';

function pegsOf(work: CheckDams, dams: readonly Standing[]): PegDraft[] {
  return dams.flatMap(({ dam, name, notchM, endsM, bedM, section }): PegDraft[] => {
    const { point, direction } = pointAlong(work.line, dam.atM);
    const half = section.topWidth(endsM - bedM) / 2;
    const side = (sign: 1 | -1): Point => [point[0] - sign * direction[1] * half, point[1] + sign * direction[0] * half];
    const end = (where: string, [x, y]: Point): PegDraft => ({
      name: `${name}, ${where} end`,
      role: 'crest',
      x,
      y,
      levelM: endsM,
      groundM: null,
    });
    return [
      { name: `${name}, notch`, role: 'sill', x: point[0], y: point[1], levelM: notchM, groundM: bedM },
      end('left', side(1)),
      end('right', side(-1)),
    ];
  });
}

const marksOf = (work: CheckDams, dams: readonly Standing[]): LevelMark[] => {
  const ends = dams.length > 1 ? [dams[0], dams[dams.length - 1]] : dams;
  const names = ends.length > 1 ? ['Highest notch', 'Lowest notch'] : ['Notch'];
  return ends.map(({ store, notchM }, k) => ({
    id: `${store}:notch`,
    work: work.id,
    name: names[k],
    role: 'sill',
    levelM: notchM,
    path: null,
  }));
};

/** The edge of the water behind each dam, full to its notch, as far as its pool reaches up the bed. */
function ringsOf(dams: readonly Standing[], bed: Bed): Line[] {
  const last = bed.points.length - 1;
  return dams.map((one): Line => {
    const { dam, section, notchM, bedM, fromM } = one;
    const toe = Math.max(fromM, toeAbove(bed, dam.atM, notchM) ?? fromM);
    const [from, to] = [Math.floor(toe / bed.stepM), Math.min(last, Math.ceil(dam.atM / bed.stepM))];
    const [left, right]: [Point[], Point[]] = [[], []];
    for (let k = from; k <= to; k++) {
      const a = bed.points[Math.max(0, k - 1)];
      const b = bed.points[Math.min(last, k + 1)];
      const length = distance(a, b);
      const half = section.topWidth(Math.max(0, Math.min(notchM - bedM, notchM - bed.bedM[k]))) / 2;
      const [away, along] = [((b[1] - a[1]) / length) * half, ((b[0] - a[0]) / length) * half];
      const [x, y] = bed.points[k];
      left.push([x - away, y + along]);
      right.push([x + away, y - along]);
    }
    return [...left, ...right.reverse(), left[0]];
  });
}

/** The bed a dam's water lies on, from where it ends upstream. */
function bedBehind(dams: readonly Standing[], bed: Bed, store: string): { readonly line: Line; readonly dugM: number } | null {
  const one = dams.find((d) => d.store === store);
  if (!one) return null;
  const toe = Math.max(one.fromM, toeAbove(bed, one.dam.atM, one.notchM) ?? one.fromM);
  const at = (away: number): Point => bed.points[Math.min(bed.points.length - 1, Math.round(away / bed.stepM))];
  return { line: [at(toe), at(one.dam.atM)], dugM: ON_THE_GROUND_M };
}

function placeDams(work: CheckDams, ground: DamsGround): PlacedWork {
  const { channel } = ground;
  // A bed that was measured is as deep as it is.
  const bed = channel ? ground.bed : lowered(ground.bed, work.dimensions.bedBelowM ?? ON_THE_GROUND_M);
  const dams = standingDams(work, bed);
  const series = { work, bed, dams };
  let rings: readonly Line[] | null = null;
  const needsM3 = (one: Standing): number => stoneOf(work, one).allM3;
  return {
    host: null,
    stores: () => storesOf(work, bed, ground),
    outlets: [],
    figures: (facts, sheet) => figuresOf(series, facts, sheet),
    checks: (facts) => runRules(DAMS_RULES, { ...facts, ...series, channel, needsM3 }, work.id),
    quantities: () => quantitiesOf(work, dams),
    each: (facts) => eachDam(series, facts),
    buildSteps: () => stepsOf(series),
    pegs: () => pegsOf(work, dams),
    marks: marksOf(work, dams),
    section: () => longSection(work, series),
    beds: (store) => bedBehind(dams, bed, store),
    // Each dam has a level of its own: what one level would wet says nothing of the others.
    waterRings: () => (rings ??= ringsOf(dams, bed)),
  };
}

/** Where nothing else is said the terrain shows the bed. */
const ON_THE_GROUND_M = 0;

/** The bed of its line: as measured where it stands in a channel. */
function measureDams(work: CheckDams, plot: Plot): DamsGround {
  const channel = (work.channel === undefined ? null : plot.placed?.get(work.channel)?.channel) ?? null;
  const bed = measureBed(work.line, plot);
  return { bed: channel ? bedIn(channel, bed) : bed, channel };
}

export const checkDams: Technique<CheckDams, DamsGround> = {
  ...checkDamsDescriptor,
  formulas: [SIGHT_SPACING, HEEDE_SPACING, WEDGE_VOLUME, DAM_BODY, WOOD_FLOATS],
  rules: DAMS_RULES,
  suits: suitsDams,
  begin: beginDams,
  measure: measureDams,
  place: placeDams,
};
