// Shaped ground: made level, let fall away, filled, taken off or dished; all that runs and stands on it follows.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { runRules } from '../rules.ts';
import { beginRegrade } from './begin.ts';
import { REGRADE_RULES } from './checks.ts';
import { regradeDescriptor } from './descriptor.ts';
import { COMPACTS, EARTH_BALANCE } from './formulas.ts';
import { hoursOf, quantitiesOf, stepsOf } from './making.ts';
import { type Regrade, drawnOf, isDish } from './model.ts';
import { sectionOf } from './section.ts';
import { type RegradeFacts, type RegradeGround, afterAt, areaOf, beforeAt, measureRegrade, placesIn } from './standing.ts';

export * from './model.ts';
export { newRegrade } from './create.ts';
export { REGRADE_RULES } from './checks.ts';

function figuresOf({ work, ground }: RegradeFacts, sheet: Worksheet): Figure[] {
  const { moved, pool } = ground;
  const left = sheet.use(EARTH_BALANCE, { C: moved.cutM3, F: moved.fillM3, k: COMPACTS });
  return [
    { id: 'areaM2', label: 'Shaped', value: areaOf(work, ground), kind: 'area' },
    { id: 'cutM3', label: 'To take off', value: moved.cutM3, kind: 'volume' },
    { id: 'fillM3', label: 'To fill', value: moved.fillM3, kind: 'volume' },
    { id: 'leftM3', label: left < 0 ? 'Earth wanting' : 'Earth left over', value: Math.abs(left), kind: 'volume' },
    { id: 'deepestM', label: 'Taken off at most', value: moved.deepestCutM, kind: 'difference' },
    { id: 'highestM', label: 'Filled at most', value: moved.highestFillM, kind: 'difference' },
    { id: 'standsM', label: 'Stands on it before it runs on', value: pool ? pool.spillM - pool.lowM : null, kind: 'difference' },
    { id: 'hours', label: 'Hours of one person', value: hoursOf(work, ground), kind: 'hours' },
  ];
}

function pegsOf(work: Regrade, ground: RegradeGround, intervalM: number): PegDraft[] {
  const peg = (name: string, role: PegDraft['role'], at: Point): PegDraft => ({
    name: `${work.name}, ${name}`,
    role,
    x: at[0],
    y: at[1],
    levelM: afterAt(work, ground, at),
    groundM: beforeAt(ground, at),
  });
  if (isDish(work)) {
    const line = drawnOf(work);
    const places = Math.max(1, Math.ceil(lineLength(line) / intervalM));
    return Array.from({ length: places + 1 }, (_, k) => {
      const atM = (lineLength(line) * k) / places;
      return peg(`bed ${atM.toFixed(1)} m`, 'floor', pointAlong(line, atM).point);
    });
  }
  const corners = (work.ring ?? []).map((at, k) => peg(`corner ${k + 1}`, 'floor', at));
  return [...corners, ...placesIn(drawnOf(work)).flatMap((at, k) => (k % 2 === 0 ? [peg(`grid ${k / 2 + 1}`, 'floor', at)] : []))];
}

function marksOf({ id, shape, levels }: Regrade): LevelMark[] {
  const mark = (key: 'levelM' | 'startM' | 'endM', name: string): LevelMark => ({ id: `${id}:${key}`, work: id, name, role: 'ground', levelM: levels[key], path: `levels.${key}` });
  if (shape === 'dish') return [mark('startM', 'Bed, upper end'), mark('endM', 'Bed, lower end')];
  return shape === 'by' ? [] : [mark('levelM', shape === 'plane' ? 'First corner' : 'Level')];
} // prettier-ignore

const placeRegrade = (work: Regrade, ground: RegradeGround): PlacedWork => ({
  host: null,
  stores: () => [],
  outlets: [],
  figures: (facts, sheet) => figuresOf({ ...facts, work, ground }, sheet),
  checks: (facts) => runRules(REGRADE_RULES, { ...facts, work, ground }, work.id),
  quantities: () => quantitiesOf(work, ground),
  buildSteps: () => stepsOf(work, ground),
  pegs: (intervalM) => pegsOf(work, ground, intervalM),
  marks: marksOf(work),
  section: () => sectionOf(work, ground),
});

export const regrade: Technique<Regrade, RegradeGround> = {
  ...regradeDescriptor,
  formulas: [EARTH_BALANCE],
  rules: REGRADE_RULES,
  begin: beginRegrade,
  measure: measureRegrade,
  place: placeRegrade,
};
