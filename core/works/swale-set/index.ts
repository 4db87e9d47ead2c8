// Swales in a set: down a slope, each along its contour, one shape for all; what one spills the next takes in.
import type { Built, Figure, LevelMark, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { type Line, pointAlong } from '../../geometry/index.ts';
import { builtTogether, troughBuilt } from '../built.ts';
import { type LipGround, groundAlong, measureLip } from '../lip.ts';
import { hourFigures, hoursWorked, litresAnHour } from '../labour.ts';
import { runRules } from '../rules.ts';
import { SWALE_BANK, SWALE_CUT, SWALE_WATER } from '../trough.ts';
import { beginSet } from './begin.ts';
import { SET_RULES } from './checks.ts';
import { swaleSetDescriptor } from './descriptor.ts';
import { INTERVAL, INTERVAL_HUDSON, LEE, MIDDLE_XY, STORAGE_APART } from './formulas.ts';
import { partsOf, quantitiesOf, stepsOf } from './making.ts';
import { type SwaleSet, lengthOf } from './model.ts';
import { sectionOf } from './section.ts';
import { type Row, type SetFacts, heldIn, rowsOf, storesOf } from './standing.ts';
import { suitsSwales } from './suits.ts';

export * from './model.ts';
export { SET_RULES } from './checks.ts';

/** Soil between one that washes easily and one that does not, as the southern African rule asks. */
const MIDDLE_F = 4.5;

const meanSlopeOf = (rows: readonly Row[]): number => rows.reduce((a, r) => a + r.slope, 0) / rows.length;

/** Clockwise from north, the way a line runs from end to end [degrees]. */
const bearingOf = (line: Line): number => {
  const [[ax, ay], [bx, by]] = [line[0], line[line.length - 1]];
  return (Math.atan2(bx - ax, by - ay) * 180) / Math.PI;
};

/** The working of the mean of all of them. */
function workThrough({ work, rows }: SetFacts, sheet: Worksheet): void {
  const { floorWidthM: b, sideSlopeHV: z, depthM: h, bankM: B, bankTopM: w, bankSlopeHV: zb, spillM } = work.dimensions;
  const s = meanSlopeOf(rows);
  if (s * z < 1) sheet.use(SWALE_CUT, { b, z, h, s });
  if (s * zb < 1) sheet.use(SWALE_BANK, { B, w, zb, s });
  sheet.use(SWALE_WATER, { b, z, h, s, zb, Hw: h + spillM });
}

function figuresOf(facts: SetFacts, sheet: Worksheet): Figure[] {
  const { work, rows, runoff } = facts;
  workThrough(facts, sheet);
  const parts = partsOf(work, rows);
  const held = rows.reduce((a, r) => a + heldIn(work, r), 0);
  const s = meanSlopeOf(rows);
  const A = held / Math.max(1e-9, lengthOf(work));
  const { windFromDeg, planting } = work;
  return [
    { id: 'swales', label: 'Swales', value: rows.length, kind: 'count' },
    { id: 'lengthM', label: 'Together', value: lengthOf(work), kind: 'distance' },
    { id: 'slope', label: 'Slope, on average', value: s, kind: 'slope' },
    { id: 'openM3', label: 'Hold to their spills', value: held, kind: 'volume' },
    {
      id: 'byAsae',
      label: 'Fall between, by the rule for terraces',
      value: sheet.use(INTERVAL, { ...MIDDLE_XY, S: 100 * s }),
      kind: 'length',
    },
    {
      id: 'byHudson',
      label: 'Fall between, as in southern Africa',
      value: sheet.use(INTERVAL_HUDSON, { S: 100 * s, f: MIDDLE_F }),
      kind: 'length',
    },
    {
      id: 'byRoom',
      label: 'Apart, so that each holds what runs off above it',
      value: runoff && runoff.runoffMm > 0 ? sheet.use(STORAGE_APART, { A, Q: runoff.runoffMm }) : null,
      kind: 'length',
    },
    { id: 'cutM3', label: 'To dig', value: parts.cutM3, kind: 'volume' },
    { id: 'bankM3', label: 'Banks', value: parts.bankM3, kind: 'volume' },
    { id: 'trees', label: 'Trees', value: parts.trees, kind: 'count' },
    { id: 'bushes', label: 'Bushes', value: parts.bushes, kind: 'count' },
    {
      id: 'leeM',
      label: 'Well sheltered behind a grown row',
      value: windFromDeg === undefined ? null : sheet.use(LEE, { H: planting.treeHeightM, a: windFromDeg - bearingOf(rows[0].line) }),
      kind: 'length',
    },
    { id: 'fenceM', label: 'Fence', value: parts.fenceM, kind: 'distance' },
    ...hourFigures(work.labour, parts.hours),
    {
      id: 'litresAnHour',
      label: 'Litres held for each hour, a fill',
      value: litresAnHour(held, hoursWorked(work.labour, parts.hours)),
      kind: 'number',
    },
  ];
}

function pegsOf(rows: readonly Row[], intervalM: number): PegDraft[] {
  return rows.flatMap(({ line, name, ground, floorM, spillM, spillAtM }): PegDraft[] => {
    const count = Math.max(1, Math.ceil(ground.lengthM / intervalM));
    const peg = (atM: number, what: Pick<PegDraft, 'name' | 'role' | 'levelM'>): PegDraft => {
      const [x, y] = pointAlong(line, atM).point;
      return { ...what, x, y, groundM: groundAlong(ground, atM) };
    };
    return [
      ...Array.from({ length: count + 1 }, (_, k) => {
        const atM = (ground.lengthM * k) / count;
        return peg(atM, { name: `${name}, ${atM.toFixed(0)} m`, role: 'floor', levelM: floorM });
      }),
      peg(spillAtM, { name: `${name}, spill`, role: 'sill', levelM: spillM }),
    ];
  });
}

const marksOf = (work: SwaleSet, rows: readonly Row[]): LevelMark[] =>
  (rows.length > 1 ? [rows[0], rows[rows.length - 1]] : rows).map((row, k) => ({
    id: `${row.store}:spill`,
    work: work.id,
    name: rows.length > 1 ? ['Highest spill', 'Lowest spill'][k] : 'Spill',
    role: 'sill',
    levelM: row.spillM,
    path: null,
  }));

/** One swale of a set as it is made, its bank lower where it spills. */
function builtOf({ dimensions }: SwaleSet, { line, ground, floorM, crestM, spillM, spillAtM }: Row): Built {
  const half = dimensions.spillLengthM / 2;
  return troughBuilt({ line, ground, dimensions, floorM, crestAt: (atM) => (Math.abs(atM - spillAtM) <= half ? spillM : crestM) });
}

function placeSet(work: SwaleSet, grounds: readonly LipGround[]): PlacedWork {
  const rows = rowsOf(work, grounds);
  return {
    host: null,
    stores: () => storesOf(work, rows),
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, work, rows }, sheet),
    checks: (facts) => runRules(SET_RULES, { ...facts, work, rows }, work.id),
    quantities: () => quantitiesOf(work, rows),
    buildSteps: () => stepsOf(work, rows),
    built: () => builtTogether(rows.map((row) => builtOf(work, row))),
    pegs: (intervalM) => pegsOf(rows, intervalM),
    marks: marksOf(work, rows),
    section: (waterM) => sectionOf(work, rows[0], waterM),
    beds: (store) => rows.filter((r) => r.store === store).map(({ line }) => ({ line, dugM: work.dimensions.depthM }))[0] ?? null,
  };
}

export const swaleSet: Technique<SwaleSet, readonly LipGround[]> = {
  ...swaleSetDescriptor,
  formulas: [INTERVAL, INTERVAL_HUDSON, STORAGE_APART, LEE],
  rules: SET_RULES,
  suits: suitsSwales,
  begin: beginSet,
  measure: ({ lines }, plot) => lines.map((line) => measureLip(line, plot)),
  place: placeSet,
};
