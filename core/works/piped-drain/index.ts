// Piped drains: basins where water stands or passes, pipes that fall, and what takes them.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { GRATE } from '../../hydraulics/index.ts';
import { runRules } from '../rules.ts';
import { beginDrain } from './begin.ts';
import { PIPED_DRAIN_RULES } from './checks.ts';
import { pipedDrainDescriptor } from './descriptor.ts';
import { COVER_LEFT, LEAST_FALL, PIPE_SPEED, STREET_LEFT } from './formulas.ts';
import { diagnosisOf } from './found.ts';
import { type DrainGround, measureDrain } from './ground.ts';
import { streetLeft } from './joining-checks.ts';
import { deepestM, hoursOf, quantitiesOf, stepsOf } from './making.ts';
import { type PipedDrain, ROUGHNESS, isOpen } from './model.ts';
import { sectionOf } from './section.ts';
import { type DrainFacts, conduitsOf, grateLevel, intakesOf, lowestGrate, pipeId, pipeTakes, pipesOf, storesOf } from './standing.ts';

export * from './model.ts';
export { newDrain } from './create.ts';
export { PIPED_DRAIN_RULES } from './checks.ts';
export { fallsFor } from './falls.ts';
export { grateLaw } from './standing.ts';

/** Half full, or full, a pipe is kept clean by so much [m/s]. */
const CLEAN_MS = 0.6;
/** A yard shallower than this is not drawn [m]. */
const SHOWN_M = 0.03;
/** Depth over a grate at which it is told what it takes [m]. */
const TOLD_M = 0.05;

/** The working of its falls, its speed and its first grate. */
function workThrough({ work, ground }: DrainFacts, sheet: Worksheet): void {
  const n = ROUGHNESS[work.wall];
  for (const { diameterM: D, slope } of pipesOf(work, ground)) {
    sheet.use(LEAST_FALL, { V: CLEAN_MS, n, D });
    sheet.use(PIPE_SPEED, { D, S: Math.max(0, slope), n });
  }
  const open = work.basins.find(isOpen);
  if (!open) return;
  const { grateLongM: L, grateWideM: W } = open;
  const { openShare, closedPercent, setM } = work.dimensions;
  sheet.use(GRATE, { P: 2 * (L + W), A: openShare * L * W, d: TOLD_M + setM, c: closedPercent / 100 });
}

function figuresOf(facts: DrainFacts, sheet: Worksheet): Figure[] {
  const { work, ground, conduits = [] } = facts;
  workThrough(facts, sheet);
  const pipes = pipesOf(work, ground);
  const last = pipes[pipes.length - 1];
  const peakOf = (k: number): number | null => conduits.find((c) => c.id === pipeId(work, ground, k))?.peakM3s ?? null;
  const isStreet = ground.taker === null && work.ends === 'street';
  const leftM3s = isStreet ? streetLeft(work, (values) => sheet.use(STREET_LEFT, values)) : null;
  const flattest = pipes.reduce((a, p) => (p.slope < a.slope ? p : a));
  return [
    { id: 'lengthM', label: 'Long', value: ground.lengthM, kind: 'distance' },
    { id: 'fallM', label: 'Falls', value: work.basins[0].invertM - work.levels.outletM, kind: 'length' },
    { id: 'flattest', label: `Flattest: pipe ${flattest.k + 1}`, value: flattest.slope, kind: 'slope' },
    { id: 'deepM', label: 'Deepest dug', value: deepestM(work, ground), kind: 'length' },
    { id: 'takesM3s', label: 'Its last pipe takes', value: pipeTakes(work, ground, last), kind: 'flow' },
    { id: 'peakM3s', label: 'Comes through it at most', value: peakOf(last.k), kind: 'flow' },
    ...(pipes.length > 1
      ? pipes.slice(0, -1).map((p): Figure => ({ id: `takes${p.k + 1}`, label: `Pipe ${p.k + 1}: takes`, value: pipeTakes(work, ground, p), kind: 'flow' }))
      : []),
    ...(pipes.length > 1
      ? pipes.slice(0, -1).map((p): Figure => ({ id: `peak${p.k + 1}`, label: `Pipe ${p.k + 1}: comes at most`, value: peakOf(p.k), kind: 'flow' }))
      : []),
    ...(isStreet ? [{ id: 'streetM3s', label: 'The street can still take', value: leftM3s, kind: 'flow' } as const] : []),
    ...ground.yards.map(({ pool }, n): Figure => ({ id: `yard${n + 1}M`, label: ground.yards.length === 1 ? 'Stands before it runs on' : `Yard ${n + 1}: stands before it runs on`, value: pool.spillM - pool.lowM, kind: 'difference' })),
    { id: 'hours', label: 'Hours of one person', value: hoursOf(work, ground), kind: 'hours' },
  ]; // prettier-ignore
}

function pegsOf(work: PipedDrain, ground: DrainGround, intervalM: number): PegDraft[] {
  const { stepM, groundM, lengthM } = ground;
  const at = (atM: number, what: Pick<PegDraft, 'name' | 'role' | 'levelM'>): PegDraft => {
    const [x, y] = pointAlong(work.line, atM).point;
    return { ...what, x, y, groundM: groundM[Math.min(groundM.length - 1, Math.round(atM / stepM))] };
  };
  const along = pipesOf(work, ground).flatMap(({ fromM, lengthM: own, upperM, slope }): PegDraft[] => {
    const places = Math.max(1, Math.ceil(own / intervalM));
    return Array.from({ length: places }, (_, k) => (k * own) / places).map((m) =>
      at(fromM + m, { name: `${work.name}, invert ${(fromM + m).toFixed(1)} m`, role: 'invert', levelM: upperM - slope * m }),
    );
  });
  const grates = work.basins.flatMap((b, k) =>
    isOpen(b) ? [at(b.atM, { name: `${work.name}, grate ${k + 1}`, role: 'sill' as const, levelM: grateLevel(work, ground, k) })] : [],
  );
  return [...along, at(lengthM, { name: `${work.name}, end`, role: 'invert', levelM: work.levels.outletM }), ...grates];
}

const marksOf = (work: PipedDrain, ground: DrainGround): LevelMark[] => [
  ...work.basins.map((b, k): LevelMark => ({ id: `${work.id}:invert${k + 1}`, work: work.id, name: `Invert ${k + 1}`, role: 'floor', levelM: b.invertM, path: `basins.${k}.invertM` })),
  ...ground.yards.flatMap(({ basins }) => basins.map((k): LevelMark => ({ id: `${work.id}:grate${k + 1}`, work: work.id, name: `Grate ${k + 1}`, role: 'sill', levelM: grateLevel(work, ground, k), path: null }))),
  { id: `${work.id}:end`, work: work.id, name: 'Ends', role: 'floor', levelM: work.levels.outletM, path: 'levels.outletM' },
]; // prettier-ignore

/** Whether somebody can go and look at it. */
const isThere = ({ status }: PipedDrain): boolean => status === 'existing' || status === 'built';

function placeDrain(work: PipedDrain, ground: DrainGround): PlacedWork {
  return {
    host: null,
    stores: () => storesOf(work, ground),
    outlets: [],
    intakes: intakesOf(work, ground),
    conduits: conduitsOf(work, ground),
    figures: (facts, sheet) => figuresOf({ ...facts, work, ground }, sheet),
    checks: (facts) => runRules(PIPED_DRAIN_RULES, { ...facts, work, ground }, work.id),
    quantities: () => quantitiesOf(work, ground),
    buildSteps: () => stepsOf(work, ground),
    ...(isThere(work) ? { diagnosis: () => diagnosisOf(work) } : {}),
    pegs: (intervalM) => pegsOf(work, ground, intervalM),
    marks: marksOf(work, ground),
    section: (waterM) => sectionOf(work, ground, waterM),
    // What would lie under water if nothing left by the grates, of the yard whose way out is asked for.
    waterRings: (levelM) =>
      ground.yards.flatMap(({ pool, basins, ring }) =>
        pool.spillM - pool.lowM > SHOWN_M && lowestGrate(work, ground, basins) === levelM ? [ring] : [],
      ),
  };
}

export const pipedDrain: Technique<PipedDrain, DrainGround> = {
  ...pipedDrainDescriptor,
  formulas: [LEAST_FALL, PIPE_SPEED, COVER_LEFT, STREET_LEFT],
  rules: PIPED_DRAIN_RULES,
  begin: beginDrain,
  measure: measureDrain,
  place: placeDrain,
};
