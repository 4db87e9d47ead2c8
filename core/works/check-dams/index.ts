// Check dams in series: they slow, hold and drop silt down a gully, each spilling onto the foot of the next.
import type { LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { runRules } from '../rules.ts';
import { beginDams } from './begin.ts';
import { type Bed, lowered, measureBed } from './bed.ts';
import { DAMS_RULES } from './checks.ts';
import { checkDamsDescriptor } from './descriptor.ts';
import { figuresOf } from './figures.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import type { CheckDams } from './model.ts';
import { longSection } from './section.ts';
import { HEEDE_SPACING, SIGHT_SPACING, toeAbove } from './spacing.ts';
import { DAM_BODY, WEDGE_VOLUME, stoneOf } from './stone.ts';
import { type Standing, standingDams, storesOf } from './store.ts';

export * from './model.ts';
export * from './rows.ts';
export { DAMS_RULES } from './checks.ts';
export { across } from './descriptor.ts';
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
  return ends.map(({ store, name, notchM }) => ({
    id: `${store}:notch`,
    work: work.id,
    name: `${name}: notch`,
    role: 'sill',
    levelM: notchM,
    path: null,
  }));
};

/** The edge of the water behind each dam at a level, as far as its pool reaches up the bed. */
function ringsOf(dams: readonly Standing[], { work, bed }: { readonly work: CheckDams; readonly bed: Bed }): Line[] {
  return dams.map((one): Line => {
    const toe = Math.max(one.fromM, toeAbove(bed, one.dam.atM, one.notchM) ?? one.fromM);
    const count = 6;
    const places = Array.from({ length: count + 1 }, (_, k) => one.dam.atM - ((one.dam.atM - toe) * k) / count);
    const edge =
      (sign: 1 | -1) =>
      (atM: number, k: number): Point => {
        const { point, direction } = pointAlong(work.line, atM);
        const half = (one.section.topWidth(((one.notchM - one.bedM) * (count - k)) / count) / 2) * sign;
        return [point[0] - direction[1] * half, point[1] + direction[0] * half];
      };
    const left = places.map(edge(1));
    return [...left, ...places.map(edge(-1)).reverse(), left[0]];
  });
}

function placeDams(work: CheckDams, measured: Bed): PlacedWork {
  const bed = lowered(measured, work.dimensions.bedBelowM ?? ON_THE_GROUND_M);
  const dams = standingDams(work, bed);
  const series = { work, bed, dams };
  const needsM3 = (one: Standing): number => stoneOf(work, one).allM3;
  return {
    host: null,
    stores: () => storesOf(work, bed),
    outlets: [],
    figures: (facts, sheet) => figuresOf(series, facts, sheet),
    checks: (facts) => runRules(DAMS_RULES, { ...facts, ...series, needsM3 }, work.id),
    quantities: () => quantitiesOf(work, dams),
    buildSteps: () => stepsOf(work, dams),
    pegs: () => pegsOf(work, dams),
    marks: marksOf(work, dams),
    section: () => longSection(work, series),
    waterRings: () => ringsOf(dams, series),
  };
}

/** Where nothing else is said the terrain shows the bed. */
const ON_THE_GROUND_M = 0;

export const checkDams: Technique<CheckDams, Bed> = {
  ...checkDamsDescriptor,
  formulas: [SIGHT_SPACING, HEEDE_SPACING, WEDGE_VOLUME, DAM_BODY],
  rules: DAMS_RULES,
  begin: beginDams,
  measure: (work, plot) => measureBed(work.line, plot),
  place: placeDams,
};
