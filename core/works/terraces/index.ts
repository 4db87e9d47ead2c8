// Terraces: benches cut into a slope, bench below bench, which hold the rain that falls on them and hand on what is too much.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { BASE_PRESSURE, EARTH_THRUST, ECCENTRICITY, RANKINE_PUSH, SAFE_SLIDING, SAFE_TURNING, stabilityOf } from '../gravity/index.ts';
import { type LipGround, groundAlong, measureLip } from '../lip.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { runRules } from '../rules.ts';
import { worstOf } from '../series.ts';
import { terracesBuilt } from './built.ts';
import { beginTerraces } from './begin.ts';
import { TERRACES_RULES } from './checks.ts';
import { terracesDescriptor } from './descriptor.ts';
import { BENCH_CUT, BENCH_RISE, BENCH_WATER, RISER_HEIGHT } from './formulas.ts';
import { cutOf, hoursOf, quantitiesOf, stepsOf, stoneOf } from './making.ts';
import { type Terraces, inwardOf, lengthOf } from './model.ts';
import { sectionOf } from './section.ts';
import { type Bench, type TerracesFacts, benchesOf, edgeOf, floorOf, heldOn, loadOf, storesOf, wayOf } from './standing.ts';
import { suitsTerraces } from './suits.ts';

export * from './model.ts';
export { TERRACES_RULES } from './checks.ts';

const highestOf = (benches: readonly Bench[]): Bench => worstOf(benches, (b) => b.riserM).one;

/** The shadow a wall throws on the bench below it at noon in midwinter, by its height and the latitude [m]. */
export function shadowM(riserM: number, latitudeDeg: number): number | null {
  const sun = 90 - Math.abs(latitudeDeg) - 23.44;
  return sun > 0 ? riserM / Math.tan((sun * Math.PI) / 180) : null;
}

/** The working of the bench with the highest riser. */
function workThrough({ work, benches }: TerracesFacts, sheet: Worksheet): void {
  const { benchM: Wb, riserHV: U } = work.dimensions;
  const bench = highestOf(benches);
  const i = inwardOf(work);
  const VI = sheet.use(BENCH_RISE, { S: bench.slope, Wb, U, i });
  sheet.use(RISER_HEIGHT, { VI, i, Wb });
  sheet.use(BENCH_CUT, { Wb, VI, i, S: bench.slope });
  sheet.use(BENCH_WATER, { y: wayOf(bench, work) - floorOf(bench), i, Wb });
  const load = work.riser === 'stone' ? loadOf(work, bench.riserM) : null;
  if (load) stabilityOf(load, (formula, values) => sheet.use(formula, values));
}

function figuresOf(facts: TerracesFacts, sheet: Worksheet): Figure[] {
  const { work, benches } = facts;
  workThrough(facts, sheet);
  const bench = highestOf(benches);
  const held = benches.reduce((a, b) => a + heldOn(work, b), 0);
  const byBook = hoursOf(work, benches);
  return [
    { id: 'benches', label: 'Benches', value: benches.length, kind: 'count' },
    { id: 'lengthM', label: 'Together', value: lengthOf(work), kind: 'distance' },
    { id: 'wonM2', label: 'Level ground won', value: lengthOf(work) * work.dimensions.benchM, kind: 'area' },
    { id: 'slope', label: 'Slope, on average', value: benches.reduce((a, b) => a + b.slope, 0) / benches.length, kind: 'slope' },
    { id: 'riserM', label: 'Highest riser', value: bench.riserM, kind: 'length' },
    { id: 'openM3', label: 'Hold to their inlets', value: held, kind: 'volume' },
    { id: 'cutM3', label: 'To cut and fill', value: cutOf(work, benches), kind: 'volume' },
    { id: 'stoneM3', label: 'Stone', value: stoneOf(work, benches), kind: 'volume' },
    {
      id: 'shadowM',
      label: 'Shadow of a wall that stands towards the midwinter sun',
      value: work.latitudeDeg === undefined ? null : shadowM(bench.riserM, work.latitudeDeg),
      kind: 'length',
    },
    ...hourFigures(work.labour, byBook),
    {
      id: 'litresAnHour',
      label: 'Litres held for each hour, a fill',
      value: litresAnHour(held, hoursWorked(work.labour, byBook)),
      kind: 'number',
    },
  ];
}

function pegsOf(benches: readonly Bench[], intervalM: number): PegDraft[] {
  return benches.flatMap(({ line, name, ground, middleM }): PegDraft[] => {
    const count = Math.max(1, Math.ceil(ground.lengthM / intervalM));
    return Array.from({ length: count + 1 }, (_, k): PegDraft => {
      const atM = (ground.lengthM * k) / count;
      const [x, y] = pointAlong(line, atM).point;
      return { name: `${name}, ${atM.toFixed(0)} m`, role: 'floor', x, y, levelM: middleM, groundM: groundAlong(ground, atM) };
    });
  });
}

const marksOf = (work: Terraces, benches: readonly Bench[]): LevelMark[] =>
  (benches.length > 1 ? [benches[0], benches[benches.length - 1]] : benches).map((bench, k) => ({
    id: `${bench.store}:edge`,
    work: work.id,
    name: benches.length > 1 ? ['Highest edge', 'Lowest edge'][k] : 'Edge',
    role: 'crest',
    levelM: edgeOf(bench, work),
    path: null,
  }));

/** Its water lies on the bench as it was made: half of it on ground that was cut. */
const ON_THE_BENCH_M = 0;

function placeTerraces(work: Terraces, grounds: readonly LipGround[]): PlacedWork {
  const benches = benchesOf(work, grounds);
  return {
    host: null,
    stores: () => storesOf(work, benches),
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, work, benches }, sheet),
    checks: (facts) => runRules(TERRACES_RULES, { ...facts, work, benches }, work.id),
    built: () => terracesBuilt(work, benches),
    quantities: () => quantitiesOf(work, benches),
    buildSteps: () => stepsOf(work, benches),
    pegs: (intervalM) => pegsOf(benches, intervalM),
    marks: marksOf(work, benches),
    section: (waterM) => sectionOf(work, benches[0], waterM),
    beds: (store) => benches.filter((b) => b.store === store).map(({ line }) => ({ line, dugM: ON_THE_BENCH_M }))[0] ?? null,
  };
}

export const terraces: Technique<Terraces, readonly LipGround[]> = {
  ...terracesDescriptor,
  formulas: [
    BENCH_RISE,
    RISER_HEIGHT,
    BENCH_CUT,
    BENCH_WATER,
    RANKINE_PUSH,
    EARTH_THRUST,
    SAFE_TURNING,
    SAFE_SLIDING,
    ECCENTRICITY,
    BASE_PRESSURE,
  ],
  rules: TERRACES_RULES,
  suits: suitsTerraces,
  begin: beginTerraces,
  measure: ({ lines }, plot) => lines.map((line) => measureLip(line, plot)),
  place: placeTerraces,
};
