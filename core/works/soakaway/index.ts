// Soakaways: they take water in, keep it in their gaps for a day, and let it into the ground below.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { lineLength, pointAlong } from '../../geometry/index.ts';
import { type LipGround, groundAlong } from '../lip.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { runRules } from '../rules.ts';
import { beginSoakaway } from './begin.ts';
import { SOAKAWAY_RULES } from './checks.ts';
import { soakawayDescriptor } from './descriptor.ts';
import { RING_VOIDS, SOAK_FALL, SOAK_HALF, SOAK_SIDES, TRENCH_AREA, TRENCH_DEPTH } from './formulas.ts';
import { partsOf, quantitiesOf, stepsOf } from './making.ts';
import type { Soakaway } from './model.ts';
import { sectionOf } from './section.ts';
import { AS_EMPTY, type Hole, type SoakawayFacts, holeOf, hoursDownTo, measureSoakaway, openOf, rateOf, storeOf } from './standing.ts';
import { suitsSoak } from './suits.ts';

export * from './model.ts';
export { SOAKAWAY_RULES } from './checks.ts';

/** It fills in about so long, and is to be empty within so long [h]. */
const [FILLS_H, EMPTY_H] = [2, 72];

/** Hours until half of its water is gone: by what is wet as it falls, and as if all that is wet when full stayed so. */
function halfHours({ work, hole }: SoakawayFacts, rate: number | null, sheet: Worksheet): readonly [number | null, number | null] {
  const { widthM: D, surroundM: t, voids: v, depthM: d } = work.dimensions;
  if (work.fill === 'rings') sheet.use(RING_VOIDS, { D, t, v });
  const sides = work.soaksBy === 'base' ? 0 : sheet.use(SOAK_SIDES, { P: hole.roundM, d });
  if (rate === null || rate <= 0) return [null, null];
  const a = sides + (work.soaksBy === 'sides' ? 0 : hole.areaM2);
  const same = sheet.use(SOAK_HALF, { S: openOf(work, hole), a, f: rate });
  const [half] = [0.5, AS_EMPTY].map((share) => hoursDownTo(work, hole, { share, rateMmPerHour: rate, use: sheet.use.bind(sheet) }));
  return [half, same];
}

function figuresOf(facts: SoakawayFacts, sheet: Worksheet): Figure[] {
  const { work, hole, runoff } = facts;
  const rate = rateOf(facts);
  const [halfH, sameH] = halfHours(facts, rate, sheet);
  const parts = partsOf(work, hole);
  const open = openOf(work, hole);
  const { depthM: d } = work.dimensions;
  const needs = runoff && rate !== null ? sheet.use(TRENCH_AREA, { V: runoff.volumeM3, n: hole.fills, d, f: rate, T: FILLS_H }) : null;
  const { fillsAYear, comesBackPercent, comesBackDays } = work;
  const aYear = fillsAYear === undefined ? null : fillsAYear * open;
  return [
    { id: 'openM3', label: 'Holds to its rim', value: open, kind: 'volume' },
    { id: 'areaM2', label: 'Floor', value: hole.areaM2, kind: 'area' },
    { id: 'areaNeededM2', label: 'Floor that takes in all this storm brings', value: needs, kind: 'area' },
    { id: 'rate', label: 'Rate counted on', value: rate, kind: 'intensity' },
    { id: 'halfH', label: 'Half empty in', value: halfH, kind: 'hours' },
    { id: 'halfSameH', label: 'The same, if it stayed wet to its rim', value: sameH, kind: 'hours' },
    {
      id: 'deepM',
      label: 'Deepest that its base empties in three days',
      value: rate === null ? null : sheet.use(TRENCH_DEPTH, { f: rate, t: EMPTY_H, n: hole.fills }),
      kind: 'length',
    },
    { id: 'aYearM3', label: 'Goes into the ground in a year', value: aYear, kind: 'volume' },
    {
      id: 'backM3',
      label: 'Of that comes out again below: a guess',
      value: aYear === null || comesBackPercent === undefined ? null : (aYear * comesBackPercent) / 100,
      kind: 'volume',
    },
    { id: 'backDays', label: 'After about: a guess', value: comesBackDays ?? null, kind: 'days' },
    { id: 'dugM3', label: 'To dig', value: parts.dugM3, kind: 'volume' },
    ...hourFigures(work.labour, parts.hours),
    {
      id: 'litresAnHour',
      label: 'Litres held for each hour, a fill',
      value: litresAnHour(open, hoursWorked(work.labour, parts.hours)),
      kind: 'number',
    },
    {
      id: 'litresAnHourAYear',
      label: 'Litres held for each hour, a year',
      value: litresAnHour(aYear, hoursWorked(work.labour, parts.hours)),
      kind: 'number',
    },
  ];
}

function pegsOf(work: Soakaway, hole: Hole, intervalM: number): PegDraft[] {
  const length = lineLength(work.line);
  const places = work.form === 'trench' ? Math.max(1, Math.ceil(length / intervalM)) : 0;
  const at = (atM: number, what: Pick<PegDraft, 'name' | 'role' | 'levelM'>): PegDraft => {
    const [x, y] = pointAlong(work.line, atM).point;
    return { ...what, x, y, groundM: groundAlong(hole.ground, atM) };
  };
  const floors =
    places === 0
      ? [at(length / 2, { name: `${work.name}, floor`, role: 'floor', levelM: hole.floorM })]
      : Array.from({ length: places + 1 }, (_, k) => {
          const atM = (length * k) / places;
          return at(atM, { name: `${work.name}, floor ${atM.toFixed(0)} m`, role: 'floor', levelM: hole.floorM });
        });
  return [...floors, at(hole.lowAtM, { name: `${work.name}, rim`, role: 'sill', levelM: hole.rimM })];
}

const marksOf = ({ id }: Soakaway, { rimM, floorM }: Hole): LevelMark[] => [
  { id: `${id}:rim`, work: id, name: 'Rim', role: 'sill', levelM: rimM, path: null },
  { id: `${id}:floor`, work: id, name: 'Floor', role: 'floor', levelM: floorM, path: null },
];

function placeSoakaway(work: Soakaway, ground: LipGround): PlacedWork {
  const hole = holeOf(work, ground);
  return {
    host: null,
    stores: () => [storeOf(work, hole)],
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, work, hole }, sheet),
    checks: (facts) => runRules(SOAKAWAY_RULES, { ...facts, work, hole }, work.id),
    quantities: () => quantitiesOf(work, hole),
    buildSteps: () => stepsOf(work, hole),
    pegs: (intervalM) => pegsOf(work, hole, intervalM),
    marks: marksOf(work, hole),
    section: (waterM) => sectionOf(work, hole, waterM),
    beds: () => ({ line: work.line, dugM: work.dimensions.depthM }),
  };
}

export const soakaway: Technique<Soakaway, LipGround> = {
  ...soakawayDescriptor,
  formulas: [TRENCH_AREA, TRENCH_DEPTH, SOAK_SIDES, SOAK_HALF, SOAK_FALL, RING_VOIDS],
  rules: SOAKAWAY_RULES,
  suits: suitsSoak,
  begin: beginSoakaway,
  measure: measureSoakaway,
  place: placeSoakaway,
};
