// A tenth technique, made up for tests: a stone trough along a line that catches, holds and lets over its edge. It is added by
// this folder, its twin in web/testing and two lines of lists; nothing else knows it.
import type { FieldSpec, Host, Outlet, PlacedWork, Rule, StormFacts, Descriptor, Technique, WorkBase } from '../../contract/index.ts';
import { defineFormula } from '../../formula/index.ts';
import { type Line, type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { grassedSillLaw } from '../../hydraulics/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { begun, groundUnder, mm, offTerrain } from '../../works/beginning.ts';
import { checkFields, checkLine } from '../../works/fields.ts';
import { inOrder, line } from '../../works/making.ts';
import { gradeMin, runRules } from '../../works/rules.ts';

export interface Trough extends WorkBase {
  readonly kind: 'trough';
  readonly line: Line;
  readonly levels: { readonly floorM: number; readonly edgeM: number };
  readonly dimensions: { readonly widthM: number };
  readonly lid: 'none' | 'boards';
  readonly boardMm?: number;
  readonly cracks?: readonly { readonly atM: number; readonly widthM: number }[];
}

const FIELDS: readonly FieldSpec[] = [
  { path: 'levels.floorM', label: 'Trough floor', kind: 'level', min: -500, max: 9000, help: 'Level all along.' },
  { path: 'levels.edgeM', label: 'Trough edge', kind: 'level', min: -500, max: 9000, help: 'Water runs over it.' },
  { path: 'dimensions.widthM', label: 'Trough width', kind: 'length', min: 0.2, max: 5, help: 'Inside.' },
  {
    path: 'boardMm',
    label: 'Board',
    kind: 'rain',
    min: 10,
    max: 100,
    help: 'Thickness.',
    optional: { offer: 'Note its boards', start: 30 },
    shownWhen: { path: 'lid', is: ['boards'] },
  },
];

export const TROUGH_VOLUME = defineFormula(
  {
    id: 'trough.volume',
    title: 'Water in a trough',
    statement: 'V = L · w · d',
    symbols: {
      L: { means: 'length', unit: 'm', domain: 'nonNegative' },
      w: { means: 'width', unit: 'm', domain: 'nonNegative' },
      d: { means: 'depth', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'water', unit: 'm³' },
    source: { key: 'geometry' },
  },
  ({ L, w, d }) => L * w * d,
);

interface Facts extends StormFacts {
  readonly trough: Trough;
}

const freeboard: Rule<Facts> = {
  id: 'trough.freeboard',
  title: 'Edge over the storm’s water',
  why: 'Water over the whole edge washes out what it stands on.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'common-practice' },
  needs: ['rain', 'ground'],
  isOfLevels: true,
  find: ({ storm }) =>
    storm && {
      value: storm.freeboardM,
      limit: 0.1,
      severity: gradeMin(storm.freeboardM, 0, 0.1),
      do: storm.freeboardM < 0.1 ? 'Raise its edge.' : 'Nothing.',
    },
};

interface Ground {
  readonly groundM: readonly number[];
}

function outletsOf(trough: Trough): Outlet[] {
  const length = lineLength(trough.line);
  const [x, y] = pointAlong(trough.line, length / 2).point;
  const levelM = trough.levels.edgeM - 0.1;
  const notch: Outlet = {
    id: `${trough.id}#end`,
    role: 'end',
    work: trough.id,
    name: 'notch',
    kind: 'sill',
    levelM,
    dischargeAt: [x, y - 3],
    flowAt: grassedSillLaw({ lengthM: 2, levelM }),
    exit: { at: [x, y - 3], slope: 0.05, widthM: 2, shape: 'sheet' },
  };
  const edge: Outlet = {
    ...notch,
    id: `${trough.id}#bank`,
    role: 'bank',
    name: 'edge',
    kind: 'bank',
    levelM: trough.levels.edgeM,
    flowAt: grassedSillLaw({ lengthM: length, levelM: trough.levels.edgeM }),
  };
  return [notch, edge];
}

function place(trough: Trough, ground: Ground): PlacedWork {
  const { floorM, edgeM } = trough.levels;
  const L = lineLength(trough.line);
  const w = trough.dimensions.widthM;
  const levelM = Float64Array.from({ length: 11 }, (_, k) => floorM + ((edgeM + 1 - floorM) * k) / 10);
  const host: Host = {
    work: trough,
    line: trough.line,
    floorM,
    crestM: edgeM,
    downhillAt: () => [0, -1],
    groundAt: () => ground.groundM[0],
    crossSlope: 0.1,
  };
  return {
    host,
    stores: (guests) => [
      {
        id: trough.id,
        work: trough.id,
        name: trough.name,
        floorM,
        sillM: edgeM - 0.1,
        wayOutM: edgeM - 0.1,
        crestM: edgeM,
        heldM3: L * w * (edgeM - 0.1 - floorM),
        stage: { levelM, volumeM3: levelM.map((v) => L * w * (v - floorM)), wettedM2: levelM.map(() => L * w) },
        outlets: [...guests, ...outletsOf(trough)].sort((a, b) => a.levelM - b.levelM),
      },
    ],
    outlets: [],
    figures: (_facts, sheet) => [
      { id: 'volumeM3', label: 'Holds to its edge', value: sheet.use(TROUGH_VOLUME, { L, w, d: edgeM - floorM }), kind: 'volume' },
    ],
    quantities: () => [
      line(
        { item: 'stone', label: 'Dressed stone', kind: 'volume', from: 'floor and sides' },
        L * (w + 2 * (edgeM - floorM)) * 0.2,
        'stone',
      ),
    ],
    buildSteps: () => inOrder({ id: 'dig', does: 'Dig it.' }, { id: 'set', does: 'Set its stones.', hold: 'Level its edge.' }),
    checks: (facts) => runRules([freeboard], { ...facts, trough }, trough.id),
    pegs: () =>
      [trough.line[0], trough.line[trough.line.length - 1]].map(([x, y], k) => ({
        name: `trough ${k}`,
        role: 'crest',
        x,
        y,
        levelM: edgeM,
        groundM: ground.groundM[0],
      })),
    marks: [
      { id: `${trough.id}:edge`, work: trough.id, name: 'Trough edge', role: 'crest', levelM: edgeM, path: 'levels.edgeM' },
      { id: `${trough.id}:floor`, work: trough.id, name: 'Trough floor', role: 'floor', levelM: floorM, path: 'levels.floorM' },
    ],
    section: () => ({
      title: 'Section of the trough',
      parts: [{ role: 'stone', isArea: true, points: [[0, floorM], [w, floorM], [w, edgeM], [0, edgeM]] }],
      levels: [{ name: 'edge', levelM: edgeM }],
    }), // prettier-ignore
  };
}

const newTrough = (id: string, name: string, on: { readonly line: Line; readonly groundM: number }): Trough => ({
  id,
  kind: 'trough',
  name,
  status: 'planned',
  line: on.line,
  levels: { floorM: mm(on.groundM - 0.5), edgeM: mm(on.groundM + 0.2) },
  dimensions: { widthM: 1 },
  lid: 'none',
});

const SAMPLE_LINE: readonly Point[] = [
  [0, 0],
  [20, 0],
];

export const troughDescriptor: Descriptor<Trough> = {
  kind: 'trough',
  title: 'Stone trough',
  family: 'store',
  sample: newTrough('trough', 'Trough', { line: SAMPLE_LINE, groundM: 100 }),
  fields: FIELDS,
  choices: [
    {
      path: 'lid',
      label: 'Covered by',
      options: [
        { id: 'none', name: 'nothing' },
        { id: 'boards', name: 'boards' },
      ],
    },
  ],
  lists: [
    {
      path: 'cracks',
      title: 'Cracks',
      words: { none: 'No crack noted.', add: 'Add a crack', remove: 'Mended' },
      fields: [
        { path: 'atM', label: 'Crack at', kind: 'length', min: 0, max: 100, help: 'From its start.' },
        { path: 'widthM', label: 'Crack width', kind: 'length', min: 0, max: 1, help: 'At its widest.' },
      ],
      start: ({ line }: Trough) => ({ atM: mm(lineLength(line) / 2), widthM: 0.01 }),
    },
  ],
  validate: (work) => [...checkFields(work, FIELDS), ...checkLine(work, work.line)],
  traits: () => ({ retains: 'vessel', canBlock: false, isConduit: false, canSilt: true, isCut: false, joinable: true, wayOut: null }),
  refs: () => [],
  draws: [{ id: 'trough', name: 'A stone trough', what: 'line', least: 2, hint: 'Draw it along the contour.' }],
  footprint: (work) => [work.line],
  intakes: ({ id, line }) => [{ store: id, line }],
  groundKey: (work) => work.line,
};

export const trough: Technique<Trough, Ground> = {
  ...troughDescriptor,
  formulas: [TROUGH_VOLUME],
  rules: [freeboard],
  begin: ({ points }, land) => {
    const ground = groundUnder(points, land);
    if (!ground) return offTerrain('the trough');
    return begun(newTrough(land.idFor('trough'), land.nameFor('Trough'), { line: points, groundM: Math.min(...ground) }));
  },
  measure: (work, { grid }) => ({ groundM: work.line.map((p) => levelAt(grid, p)) }),
  place,
};
