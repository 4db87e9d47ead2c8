// A pump that lifts water from a low store to a high one, by sun or by mains.
import { pumpBackDescriptor } from './descriptor.ts';
import type { Figure, Host, Outlet, PlacedWork, Rule, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { lineLength, nearestOnLine, pointAlong } from '../../geometry/index.ts';
import { DARCY_LOSS, PIPE_WALLS, PUMP_POWER, SOLAR_ARRAY } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { begun, storeNear } from '../beginning.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { type PumpBack, newPump } from './model.ts';
import { cureBy, gradeMax, runRules, upToMm } from '../rules.ts';

export * from './model.ts';

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
      ...cureBy(value <= 0, {
        work: pump.id,
        set: { 'levels.deliveryM': upToMm(pump.levels.stopM) },
        says: say`End the pipe ${amount(-value, 'length')} higher`,
      }),
    };
  },
};

export const PUMP_RULES: readonly Rule<PumpFacts>[] = [pipeLoss, velocity, lifts];

/** What it lifts in a day [m3]. */
const dayM3 = ({ flowM3s, sunHours }: PumpBack): number => flowM3s * 3600 * sunHours;

/** Panels it needs at their peak [W]; null where it runs by mains. */
function arrayOf(pump: PumpBack, sheet?: Worksheet): number | null {
  if (pump.drive !== 'sun') return null;
  const { liftM, lossM } = headsOf(pump);
  const inputs = { V: dayM3(pump), H: liftM + lossM, eta: pump.efficiency, h: pump.sunHours, PR: pump.panelShare };
  return sheet ? sheet.use(SOLAR_ARRAY, inputs) : SOLAR_ARRAY.evaluate(inputs);
}

function figuresOf(pump: PumpBack, sheet: Worksheet): Figure[] {
  const { liftM, lossM } = headsOf(pump, sheet);
  const H = liftM + lossM;
  const power = sheet.use(PUMP_POWER, { Q: pump.flowM3s, H, eta: pump.efficiency });
  const V = dayM3(pump);
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
    lifts: { from: pump.host, to: pump.to, mostM3PerDay: dayM3(pump), stopM: pump.levels.stopM },
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

export const pumpBack: Technique<PumpBack, null> = {
  ...pumpBackDescriptor,
  formulas: [],
  rules: PUMP_RULES,
  begin: beginPump,
  measure: () => null,
  place: placePump,
};
