// Stone lines with grass: each slows what comes down to it, lets it through along its length, and keeps the silt.
import type { Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { lineLength, pointAlong } from '../../geometry/index.ts';
import { type LipGround, groundAlong, measureLip } from '../lip.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { runRules } from '../rules.ts';
import { beginLines } from './begin.ts';
import { LINES_RULES } from './checks.ts';
import { stoneLinesDescriptor } from './descriptor.ts';
import { GRASS_PLANTS, LINE_STONE, LINE_WEDGE } from './formulas.ts';
import { hoursOf, plantsOf, quantitiesOf, stepsOf, stoneOf } from './making.ts';
import { siltedShare } from '../series.ts';
import { type StoneLines, lengthOf } from './model.ts';
import { sectionOf } from './section.ts';
import { type LinesFacts, type Row, roomBehind, rowsOf, storesOf, topOf } from './standing.ts';
import { suitsLines } from './suits.ts';

export * from './model.ts';
export { LINES_RULES } from './checks.ts';

/** The working of one line, so that it can be followed by hand. */
function workThrough({ work, rows }: LinesFacts, sheet: Worksheet): void {
  const [row] = rows;
  const { heightM: H, baseWidthM: b, topWidthM: t, trenchM: d, plantSpacingM: s, grassRows: r } = work.dimensions;
  const L = row.ground.lengthM;
  sheet.use(LINE_STONE, { L, H, b, t, d });
  sheet.use(LINE_WEDGE, { L, H, S: row.slope });
  if (work.grass === 'behind') sheet.use(GRASS_PLANTS, { L, s, r });
}

function figuresOf(facts: LinesFacts, sheet: Worksheet): Figure[] {
  const { work, rows } = facts;
  workThrough(facts, sheet);
  const allM3 = rows.reduce((a, row) => a + roomBehind(row, work), 0);
  const openM3 = allM3 * (1 - siltedShare(work));
  const byBook = hoursOf(work);
  const stone = stoneOf(work);
  const departs = rows.reduce((a, r) => Math.max(a, r.highM - r.lowM), 0);
  return [
    { id: 'lines', label: 'Lines', value: rows.length, kind: 'count' },
    { id: 'lengthM', label: 'Together', value: lengthOf(work), kind: 'distance' },
    { id: 'slope', label: 'Slope, on average', value: rows.reduce((a, r) => a + r.slope, 0) / rows.length, kind: 'slope' },
    { id: 'departureM', label: 'Leave the contour by, at most', value: departs, kind: 'difference' },
    { id: 'roomM3', label: 'Slow, or fill with silt, together', value: allM3, kind: 'volume' },
    { id: 'stoneM3', label: 'Stone', value: stone, kind: 'volume' },
    { id: 'stonePer100M', label: 'Stone for 100 m', value: (100 * stone) / Math.max(1e-9, lengthOf(work)), kind: 'volume' },
    { id: 'plants', label: 'Slips of grass', value: plantsOf(work), kind: 'count' },
    ...hourFigures(work.labour, byBook),
    {
      id: 'litresAnHour',
      label: 'Litres slowed for each hour, a fill',
      value: litresAnHour(openM3, hoursWorked(work.labour, byBook)),
      kind: 'number',
    },
  ];
}

function pegsOf(rows: readonly Row[], intervalM: number): PegDraft[] {
  return rows.flatMap(({ line, name, ground }): PegDraft[] => {
    const length = lineLength(line);
    const count = Math.max(1, Math.ceil(length / intervalM));
    return Array.from({ length: count + 1 }, (_, k): PegDraft => {
      const atM = (length * k) / count;
      const [x, y] = pointAlong(line, atM).point;
      const groundM = groundAlong(ground, atM);
      return { name: `${name}, ${atM.toFixed(0)} m`, role: 'stone', x, y, levelM: groundM, groundM };
    });
  });
}

const marksOf = (work: StoneLines, rows: readonly Row[]): LevelMark[] =>
  (rows.length > 1 ? [rows[0], rows[rows.length - 1]] : rows).map((row, k) => ({
    id: `${row.store}:top`,
    work: work.id,
    name: rows.length > 1 ? ['Highest top', 'Lowest top'][k] : 'Top',
    role: 'sill',
    levelM: topOf(row, work),
    path: null,
  }));

/** Nothing is dug behind a line. */
const ON_THE_GROUND_M = 0;

function placeLines(work: StoneLines, grounds: readonly LipGround[]): PlacedWork {
  const rows = rowsOf(work, grounds);
  return {
    host: null,
    stores: () => storesOf(work, rows),
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, work, rows }, sheet),
    checks: (facts) => runRules(LINES_RULES, { ...facts, work, rows }, work.id),
    quantities: () => quantitiesOf(work),
    buildSteps: () => stepsOf(work, rows),
    pegs: (intervalM) => pegsOf(rows, intervalM),
    marks: marksOf(work, rows),
    section: (waterM) => sectionOf(work, rows[0], waterM),
    beds: (store) => rows.filter((r) => r.store === store).map(({ line }) => ({ line, dugM: ON_THE_GROUND_M }))[0] ?? null,
  };
}

export const stoneLines: Technique<StoneLines, readonly LipGround[]> = {
  ...stoneLinesDescriptor,
  formulas: [LINE_STONE, LINE_WEDGE, GRASS_PLANTS],
  rules: LINES_RULES,
  suits: suitsLines,
  begin: beginLines,
  measure: ({ lines }, plot) => lines.map((line) => measureLip(line, plot)),
  place: placeLines,
};
