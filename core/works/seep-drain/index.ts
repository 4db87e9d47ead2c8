// Seepage drains: holed pipe in gravel for what seeps, not for what runs.
import type { Figure, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { FULL_PIPE } from '../../hydraulics/index.ts';
import { runRules } from '../rules.ts';
import { beginSeep } from './begin.ts';
import { SEEP_DRAIN_RULES } from './checks.ts';
import { seepDrainDescriptor } from './descriptor.ts';
import { CLEARS_IN, GRAVEL_FLOW, SEEP_IN } from './formulas.ts';
import { type SeepGround, measureSeep } from './ground.ts';
import { hoursOf, quantitiesOf, stepsOf } from './making.ts';
import type { SeepDrain } from './model.ts';
import { sectionOf } from './section.ts';
import {
  type SeepFacts,
  clearsIn,
  depthsOf,
  fallOf,
  gravelCarries,
  intakesOf,
  invertAt,
  pipeCarries,
  roughnessOf,
  seepsIn,
  storesOf,
} from './standing.ts';

export * from './model.ts';
export { newSeepDrain } from './create.ts';
export { SEEP_DRAIN_RULES } from './checks.ts';

function figuresOf(facts: SeepFacts, sheet: Worksheet): Figure[] {
  const { work, ground } = facts;
  const { pipeM: D } = work.dimensions;
  const S = fallOf(work, ground);
  if (S > 0) sheet.use(FULL_PIPE, { D, S, n: roughnessOf(D) });
  const q = seepsIn(work, ground);
  const { mean, most } = depthsOf(work, ground);
  const { waterTableM, soilMmPerHour } = work;
  const s = waterTableM === undefined ? 0 : mean + work.dimensions.underM - waterTableM;
  if (work.seepM3s === undefined && soilMmPerHour !== undefined && s > 0) sheet.use(SEEP_IN, { K: soilMmPerHour / 3_600_000, s });
  return [
    { id: 'lengthM', label: 'Long', value: ground.lengthM, kind: 'distance' },
    { id: 'fall', label: 'Falls', value: S, kind: 'slope' },
    { id: 'deepM', label: 'Deepest dug', value: most + work.dimensions.underM, kind: 'length' },
    { id: 'seepsM3s', label: 'Seeps in, all of it', value: q === null ? null : q * ground.lengthM, kind: 'tapFlow' },
    { id: 'dayM3', label: 'In a day', value: q === null ? null : q * ground.lengthM * DAY_S, kind: 'volume' },
    { id: 'pipeM3s', label: 'Its pipe carries', value: pipeCarries(work, ground), kind: 'tapFlow' },
    { id: 'gravelM3s', label: 'Its gravel alone carries', value: gravelCarries(work, ground), kind: 'tapFlow' },
    { id: 'standsM3', label: 'The yard over it holds', value: ground.yard?.holdsM3 ?? null, kind: 'volume' },
    { id: 'clearsH', label: 'That seeps away through the ground in', value: clearsIn(facts), kind: 'hours' },
    { id: 'hours', label: 'Hours of one person', value: hoursOf(work, ground), kind: 'hours' },
  ];
}
const DAY_S = 86_400;

function pegsOf(work: SeepDrain, ground: SeepGround, intervalM: number): PegDraft[] {
  const places = Math.max(1, Math.ceil(ground.lengthM / intervalM));
  return Array.from({ length: places + 1 }, (_, k): PegDraft => {
    const atM = (ground.lengthM * k) / places;
    const [x, y] = pointAlong(work.line, atM).point;
    const groundM = ground.groundM[Math.min(ground.groundM.length - 1, Math.round(atM / ground.stepM))];
    return { name: `${work.name}, invert ${atM.toFixed(1)} m`, role: 'invert', x, y, levelM: invertAt(work, ground, atM), groundM };
  });
}

function placeSeep(work: SeepDrain, ground: SeepGround): PlacedWork {
  const { upperM, outletM } = work.levels;
  return {
    host: null,
    stores: () => storesOf(work, ground),
    outlets: [],
    intakes: intakesOf(work, ground),
    figures: (facts, sheet) => figuresOf({ ...facts, work, ground }, sheet),
    checks: (facts) => runRules(SEEP_DRAIN_RULES, { ...facts, work, ground }, work.id),
    quantities: () => quantitiesOf(work, ground),
    buildSteps: () => stepsOf(work, ground),
    pegs: (intervalM) => pegsOf(work, ground, intervalM),
    marks: [
      { id: `${work.id}:upper`, work: work.id, name: 'Upper invert', role: 'floor', levelM: upperM, path: 'levels.upperM' },
      { id: `${work.id}:end`, work: work.id, name: 'Ends', role: 'floor', levelM: outletM, path: 'levels.outletM' },
    ],
    section: () => sectionOf(work, ground),
  };
}

export const seepDrain: Technique<SeepDrain, SeepGround> = {
  ...seepDrainDescriptor,
  formulas: [SEEP_IN, GRAVEL_FLOW, CLEARS_IN],
  rules: SEEP_DRAIN_RULES,
  begin: beginSeep,
  measure: measureSeep,
  place: placeSeep,
};
