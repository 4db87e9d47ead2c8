// A pump that lifts water from a low store to a high one, by sun or by mains.
import type {
  ChoiceSpec,
  FieldSpec,
  Figure,
  Host,
  Outlet,
  PlacedWork,
  Problem,
  Rule,
  StormFacts,
  Technique,
} from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { lineLength, nearestOnLine, pointAlong } from '../../geometry/index.ts';
import { DARCY_LOSS, PUMP_POWER, SOLAR_ARRAY } from '../../hydraulics/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { begun, hostRef, mm, storeNear } from '../beginning.ts';
import { checkFields } from '../fields.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { PIPE_WALLS, PUMP_DRIVES, type PumpBack } from './model.ts';
import { gradeMax, runRules } from '../rules.ts';

export * from './model.ts';

export const PUMP_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.stopM', label: 'Stops at', kind: 'level', min: -500, max: 9000, help: 'So that the lower store keeps some water.' },
  { path: 'levels.deliveryM', label: 'Pipe ends at', kind: 'level', min: -500, max: 9000, help: 'Highest place of the pipe.' },
  { path: 'flowM3s', label: 'Flow', kind: 'flow', min: 0.00001, max: 1, help: 'While it runs.' },
  { path: 'pipe.lengthM', label: 'Length of the pipe', kind: 'length', min: 1, max: 20_000, help: 'All of it, up and along.' },
  { path: 'pipe.diameterM', label: 'Pipe, inside', kind: 'length', min: 0.01, max: 1, help: 'A wider pipe loses less.' },
  {
    path: 'efficiency',
    label: 'Efficiency of pump and motor',
    kind: 'number',
    min: 0.05,
    max: 0.95,
    help: '0.35 to 0.5 for small solar sets.',
  },
  { path: 'sunHours', label: 'Hours of full sun a day', kind: 'hours', min: 0.5, max: 12, help: 'In the month you count on.' },
  {
    path: 'panelShare',
    label: 'What panels give in use',
    kind: 'number',
    min: 0.3,
    max: 1,
    help: '0.75 to 0.8: heat, dust, wires.',
    shownWhen: { path: 'drive', is: ['sun'] },
  },
];

export const PUMP_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'drive',
    label: 'Driven by',
    options: [
      { id: 'sun', name: 'the sun: it stands still in a storm' },
      { id: 'mains', name: 'mains or an engine: it runs in a storm too' },
    ],
  },
  {
    path: 'pipe.wall',
    label: 'Pipe of',
    options: [
      { id: 'plastic', name: 'plastic' },
      { id: 'steel', name: 'steel' },
      { id: 'galvanised', name: 'galvanised steel' },
      { id: 'concrete', name: 'concrete' },
    ],
  },
];

interface PumpHeads {
  readonly liftM: number;
  readonly lossM: number;
  readonly velocityMs: number;
}

export function headsOf({ levels, flowM3s: Q, pipe }: Pick<PumpBack, 'levels' | 'flowM3s' | 'pipe'>, sheet?: Worksheet): PumpHeads {
  const inputs = { Q, D: pipe.diameterM, L: pipe.lengthM, e: PIPE_WALLS[pipe.wall] };
  return {
    liftM: Math.max(0, levels.deliveryM - levels.stopM),
    lossM: sheet ? sheet.use(DARCY_LOSS, inputs) : DARCY_LOSS.evaluate(inputs),
    velocityMs: Q / ((Math.PI / 4) * pipe.diameterM ** 2),
  };
}

/** Share of its flow a pump gives over the first centimetres above the level it stops at, so that it starts softly [m]. */
const SOFT_START_M = 0.05;

function outletOf(pump: PumpBack, host: Host): Outlet[] {
  if (pump.drive === 'sun') return [];
  return [
    {
      id: pump.id,
      role: 'lift',
      work: pump.id,
      name: pump.name,
      kind: 'joint',
      levelM: pump.levels.stopM,
      dischargeAt: pointAlong(host.line, lineLength(host.line) / 2).point,
      to: pump.to,
      flowAt: (levelM) => pump.flowM3s * Math.min(1, Math.max(0, (levelM - pump.levels.stopM) / SOFT_START_M)),
    },
  ];
}

interface PumpFacts extends StormFacts {
  readonly pump: PumpBack;
  readonly heads: PumpHeads;
}

const pipeLoss: Rule<PumpFacts> = {
  id: 'pump-back.pipe-loss',
  title: 'Head lost in the pipe, of the lift',
  why: 'Head lost in a thin pipe is paid every day the pump runs.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { key: 'common-practice', locator: 'losses up to a fifth of the lift' },
  find: ({ heads }) => {
    if (heads.liftM <= 0) return null;
    const value = heads.lossM / heads.liftM;
    return { value, limit: 0.2, severity: gradeMax(value, 0.2, 1), do: value > 0.2 ? 'Lay a wider pipe.' : 'Nothing.' };
  },
};

const velocity: Rule<PumpFacts> = {
  id: 'pump-back.velocity',
  title: 'Velocity in the pipe',
  why: 'Fast water hammers when the pump stops and bursts joints.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { key: 'common-practice', locator: 'under 1.5 m/s; 3 m/s at the most' },
  find: ({ heads }) => {
    const value = heads.velocityMs;
    return {
      value,
      limit: 1.5,
      severity: gradeMax(value, 1.5, 3),
      do: value > 1.5 ? 'Lay a wider pipe, or pump less for longer.' : 'Nothing.',
    };
  },
};

const lifts: Rule<PumpFacts> = {
  id: 'pump-back.lift',
  title: 'Height it lifts to',
  why: 'A pipe that ends under the water it takes from is a siphon: it runs the other way.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { key: 'geometry' },
  find: ({ pump }) => {
    const value = pump.levels.deliveryM - pump.levels.stopM;
    return {
      value,
      limit: 0,
      severity: value <= 0 ? 'mend' : 'fine',
      do: value <= 0 ? say`End the pipe ${amount(-value, 'length')} higher.` : 'Nothing.',
    };
  },
};

export const PUMP_RULES: readonly Rule<PumpFacts>[] = [pipeLoss, velocity, lifts];

/** Panels it needs at their peak [W]; null where it runs by mains. */
function arrayOf(pump: PumpBack, sheet?: Worksheet): number | null {
  if (pump.drive !== 'sun') return null;
  const { liftM, lossM } = headsOf(pump);
  const inputs = { V: pump.flowM3s * 3600 * pump.sunHours, H: liftM + lossM, eta: pump.efficiency, h: pump.sunHours, PR: pump.panelShare };
  return sheet ? sheet.use(SOLAR_ARRAY, inputs) : SOLAR_ARRAY.evaluate(inputs);
}

function figuresOf(pump: PumpBack, sheet: Worksheet): Figure[] {
  const { liftM, lossM } = headsOf(pump, sheet);
  const H = liftM + lossM;
  const power = sheet.use(PUMP_POWER, { Q: pump.flowM3s, H, eta: pump.efficiency });
  const V = pump.flowM3s * 3600 * pump.sunHours;
  const array = arrayOf(pump, sheet);
  return [
    { id: 'liftM', label: 'Lift', value: liftM, kind: 'length' },
    { id: 'lossM', label: 'Lost in the pipe', value: lossM, kind: 'length' },
    { id: 'powerW', label: 'Power', value: power, kind: 'power' },
    { id: 'dayM3', label: 'Water a day', value: V, kind: 'volume' },
    ...(array === null ? [] : [{ id: 'arrayW', label: 'Panels, at their peak', value: array, kind: 'power' as const }]),
  ];
}

function placePump(pump: PumpBack, _ground: null, host: Host | null): PlacedWork {
  return {
    host: null,
    stores: () => [],
    outlets: host ? outletOf(pump, host) : [],
    figures: (_facts, sheet) => figuresOf(pump, sheet),
    checks: (facts) => runRules(PUMP_RULES, { ...facts, pump, heads: headsOf(pump) }, pump.id),
    quantities: () => quantitiesOf(pump, arrayOf(pump)),
    buildSteps: () => stepsOf(pump),
    pegs: () => [],
    marks: [
      { id: `${pump.id}:stop`, work: pump.id, name: `${pump.name}: stops`, role: 'floor', levelM: pump.levels.stopM, path: 'levels.stopM' },
    ],
  };
}

/** A small solar set to begin with. */
const newPump = (
  id: string,
  name: string,
  on: {
    readonly low: { readonly id: string; readonly floorM: number };
    readonly high: { readonly id: string; readonly crestM: number };
    readonly lengthM: number;
  },
): PumpBack => ({
  id,
  kind: 'pump-back',
  name,
  status: 'planned',
  host: on.low.id,
  to: on.high.id,
  drive: 'sun',
  levels: { stopM: mm(on.low.floorM + 0.5), deliveryM: mm(on.high.crestM + 0.2) },
  flowM3s: 0.001,
  pipe: { lengthM: mm(on.lengthM), diameterM: 0.05, wall: 'plastic' },
  efficiency: 0.4,
  sunHours: 5,
  panelShare: 0.75,
});

const beginPump: Technique<PumpBack, null>['begin'] = ({ points, host }, land) => {
  const [from, to = from] = points;
  const low = host === null ? (from ? storeNear(from, land.stores) : null) : (land.stores.find((s) => s.id === host) ?? null);
  const high = to ? storeNear(to, land.stores) : null;
  if (!low || !high || low.id === high.id) {
    const problem = { code: 'pump.stores', what: 'it needs two different stores', do: 'Click one pond or swale, then another.' };
    return { ok: false, problem };
  }
  const lengthM = Math.max(5, nearestOnLine(low.line[0], high.line).distanceM);
  return begun(newPump(land.idFor('pump'), land.nameFor('Pump'), { low, high, lengthM }));
};

function validatePump(pump: PumpBack): Problem[] {
  const problems: Problem[] = [...checkFields(pump, PUMP_FIELDS)];
  const isPair = [pump.host, pump.to].every((id) => typeof id === 'string' && id !== '') && pump.host !== pump.to;
  if (!isPair) {
    problems.push({
      code: 'pump.stores',
      what: `"${pump.name}" does not lead from one work to another`,
      field: 'to',
      do: 'Name the store it takes from and another it lifts to.',
    });
  }
  if (!PUMP_DRIVES.includes(pump.drive)) {
    problems.push({
      code: 'pump.drive',
      what: `"${pump.name}" is driven by ${told(pump.drive)}`,
      field: 'drive',
      do: `Choose one of ${PUMP_DRIVES.join(', ')}.`,
    });
  }
  const { wall } = pump.pipe ?? {};
  if (wall === undefined || !Object.hasOwn(PIPE_WALLS, wall)) {
    problems.push({
      code: 'pump.wall',
      what: `the pipe of "${pump.name}" is of ${told(wall)}`,
      field: 'pipe.wall',
      do: `Choose one of ${Object.keys(PIPE_WALLS).join(', ')}.`,
    });
  }
  return problems;
}

export const pumpBack: Technique<PumpBack, null> = {
  kind: 'pump-back',
  title: 'Pump back',
  family: 'lift',
  sample: newPump('pump', 'Pump', { low: { id: 'store', floorM: 100 }, high: { id: 'tank', crestM: 110 }, lengthM: 80 }),
  fields: PUMP_FIELDS,
  choices: PUMP_CHOICES,
  references: [{ path: 'to', title: 'Lifts to', label: 'Upper store' }],
  validate: validatePump,
  traits: () => ({ retains: 'none', canBlock: false, isConduit: true, canSilt: false, isCut: false, joinable: false, wayOut: 'lifted' }),
  refs: (work) => [...hostRef(work), { role: 'to', id: work.to, path: 'to', whenGone: 'goes' }],
  formulas: [],
  rules: PUMP_RULES,
  draws: [
    {
      id: 'pump',
      name: 'A pump from store to store',
      what: 'between-stores',
      least: 2,
      most: 2,
      hint: 'Click the store it takes from, then the one it lifts to.',
    },
  ],
  begin: beginPump,
  footprint: () => [],
  intakes: () => [],
  groundKey: () => null,
  measure: () => null,
  place: placePump,
};
