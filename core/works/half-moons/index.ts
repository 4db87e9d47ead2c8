// Half-moons and planting pits over a field: each row holds its share of what comes and lets the rest pass to the next.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type LipGround, measureLip } from '../lip.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { runRules } from '../rules.ts';
import { moonsBuilt } from './built.ts';
import { beginMoons } from './begin.ts';
import { MOONS_RULES } from './checks.ts';
import { halfMoonsDescriptor } from './descriptor.ts';
import { MOON_EARTH, MOON_ROOM, PIT_ROOM, RUN_ON_RATIO, TREE_CATCHMENT } from './formulas.ts';
import { hoursOf, partsOf, quantitiesOf, stepsOf } from './making.ts';
import { siltedShare } from '../series.ts';
import { type HalfMoons, basinsIn, cropOf } from './model.ts';
import { sectionOf } from './section.ts';
import { type MoonsFacts, type Row, basinAreaM2, deepestM, heldBy, roomOf, rowsOf, runOnM2, storesOf } from './standing.ts';
import { suitsMoons } from './suits.ts';

export * from './model.ts';
export { MOONS_RULES } from './checks.ts';
export { runOnM2 } from './standing.ts';

/** The working of one of them, so that it can be followed by hand. */
function workThrough({ work, rows }: MoonsFacts, sheet: Worksheet): void {
  const { radiusM: r, dugM: d, overTipsM: f, bundTopM: t, bundSlopeHV: z } = work.dimensions;
  const S = rows[0].slope;
  if (work.form === 'pit') sheet.use(PIT_ROOM, { r, d });
  else {
    sheet.use(MOON_ROOM, { r, S, d });
    sheet.use(MOON_EARTH, { r, S, f, t, z });
  }
  const crop = cropOf(work);
  if (crop) sheet.use(RUN_ON_RATIO, crop);
}

/** At its tips, neither over nor under. */
const LEVEL_M = 0;

function figuresOf(facts: MoonsFacts, sheet: Worksheet): Figure[] {
  const { work, rows } = facts;
  workThrough(facts, sheet);
  const { count, earthM3, manureT, personDays } = partsOf(work, rows);
  const allM3 = rows.reduce((a, row) => a + roomOf(work, row), 0);
  const openM3 = allM3 * (1 - siltedShare(work));
  const runs = runOnM2(work, rows);
  const crop = cropOf(work);
  const byBook = hoursOf(work, rows);
  return [
    { id: 'count', label: work.form === 'pit' ? 'Pits' : 'Half-moons', value: count, kind: 'count' },
    { id: 'rows', label: 'Rows', value: rows.length, kind: 'count' },
    { id: 'slope', label: 'Slope, on average', value: rows.reduce((a, r) => a + r.slope, 0) / rows.length, kind: 'slope' },
    { id: 'litresEach', label: 'Litres in each', value: 1000 * heldBy(work, rows[0].slope, LEVEL_M).volumeM3, kind: 'count' },
    { id: 'openM3', label: 'Hold together', value: openM3, kind: 'volume' },
    { id: 'runOnM2', label: 'Run-on ground of each', value: runs, kind: 'area' },
    { id: 'ratio', label: 'Run-on for one part planted', value: runs === null ? null : runs / basinAreaM2(work), kind: 'number' },
    { id: 'ratioNeeded', label: 'The crop asks for', value: crop && RUN_ON_RATIO.evaluate(crop), kind: 'number' },
    { id: 'earthM3', label: work.form === 'pit' ? 'Dug' : 'Earth in bunds', value: earthM3, kind: 'volume' },
    { id: 'personDays', label: 'Days of one person', value: personDays, kind: 'days' },
    ...hourFigures(work.labour, byBook),
    { id: 'manureT', label: 'Manure in all', value: manureT, kind: 'mass' },
    {
      id: 'litresAnHour',
      label: 'Litres held for each hour, a fill',
      value: litresAnHour(openM3, hoursWorked(work.labour, byBook)),
      kind: 'number',
    },
  ];
}

/** The first and last of each row are pegged with levels; those between are swung from a cord. */
function pegsOf(work: HalfMoons, rows: readonly Row[]): PegDraft[] {
  return rows.flatMap((row, k): PegDraft[] => {
    const basins = basinsIn(work, k);
    const ends = basins.length > 1 ? [0, basins.length - 1] : [0];
    return ends.map((i): PegDraft => {
      const [x, y] = basins[i].at;
      return { name: `${row.name}, number ${i + 1}`, role: 'sill', x, y, levelM: row.tipsM, groundM: row.tipsM };
    });
  });
}

const marksOf = (work: HalfMoons, rows: readonly Row[]): LevelMark[] =>
  (rows.length > 1 ? [rows[0], rows[rows.length - 1]] : rows).map((row, k) => ({
    id: `${row.store}:tips`,
    work: work.id,
    name: rows.length > 1 ? ['Highest tips', 'Lowest tips'][k] : 'Tips',
    role: 'sill',
    levelM: row.tipsM,
    path: null,
  }));

function placeMoons(work: HalfMoons, grounds: readonly LipGround[]): PlacedWork {
  const rows = rowsOf(work, grounds);
  const built = moonsBuilt(work, rows);
  return {
    host: null,
    ...(built ? { built: () => built } : {}),
    stores: () => storesOf(work, rows),
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, work, rows }, sheet),
    checks: (facts) => runRules(MOONS_RULES, { ...facts, work, rows }, work.id),
    quantities: () => quantitiesOf(work, rows),
    buildSteps: () => stepsOf(work, rows),
    pegs: () => pegsOf(work, rows),
    marks: marksOf(work, rows),
    section: (waterM) => sectionOf(work, rows[0], waterM),
    beds: (store) => {
      const row = rows.find((r) => r.store === store);
      return row ? { line: row.line, dugM: deepestM(work, row) / 2 } : null;
    },
  };
}

export const halfMoons: Technique<HalfMoons, readonly LipGround[]> = {
  ...halfMoonsDescriptor,
  formulas: [MOON_ROOM, PIT_ROOM, MOON_EARTH, RUN_ON_RATIO, TREE_CATCHMENT],
  rules: MOONS_RULES,
  suits: suitsMoons,
  begin: beginMoons,
  measure: ({ rows }, plot) => rows.map((row) => measureLip(row, plot)),
  place: placeMoons,
};
