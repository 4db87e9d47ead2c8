// A water line: by its fall or by a pump to a tap, a tank or drip lines. Nothing in a storm counts on it.
import type { Figure, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { DARCY_LOSS, PIPE_WALLS, PUMP_POWER, SOLAR_ARRAY } from '../../hydraulics/index.ts';
import { runRules } from '../rules.ts';
import { beginSupplyLine } from './begin.ts';
import { SUPPLY_LINE_RULES } from './checks.ts';
import { supplyLineDescriptor } from './descriptor.ts';
import { DRIPPER, FITTING_LOSS, MANY_OUTLETS, TIME_TO_FILL } from './formulas.ts';
import { type LineGround, measureSupplyLine } from './ground.ts';
import { BUCKET_M3, bucketS, hoursOf, quantitiesOf, stepsOf } from './making.ts';
import type { SupplyLine } from './model.ts';
import { sectionOf } from './section.ts';
import {
  FITTING_K,
  type SupplyLineFacts,
  dayM3,
  dripsOf,
  drippersOf,
  fallOf,
  gives,
  leastHead,
  pipeLevels,
  pumpHead,
  restHead,
  staysM3,
  velocityAt,
} from './standing.ts';

export * from './model.ts';
export { newSupplyLine } from './create.ts';
export { SUPPLY_LINE_RULES } from './checks.ts';

/** The working of what it loses, and of its pump and drippers. */
function workThrough({ work, ground }: SupplyLineFacts, sheet: Worksheet): number {
  const { flowM3s: Q, pipe, pump, drip } = work;
  const along = sheet.use(DARCY_LOSS, { Q, D: pipe.diameterM, L: ground.lengthM, e: PIPE_WALLS[pipe.wall] });
  const lossM = along + sheet.use(FITTING_LOSS, { n: pipe.bends, k: FITTING_K, V: velocityAt(Q, work) });
  const H = pumpHead(work, ground);
  if (work.drive === 'pump') {
    sheet.use(PUMP_POWER, { Q, H, eta: pump.efficiency });
    if (pump.power === 'sun') sheet.use(SOLAR_ARRAY, { V: dayM3(work), H, eta: pump.efficiency, h: pump.hoursADay, PR: pump.panelShare });
  }
  if (work.serves === 'drip') {
    sheet.use(MANY_OUTLETS, { N: drippersOf(work) / drip.lines });
    sheet.use(DRIPPER, { q10: drip.litresAnHour, h: work.endHeadM });
  }
  const seconds = bucketS(work, ground);
  if (seconds !== null) sheet.use(TIME_TO_FILL, { V: BUCKET_M3, Q: BUCKET_M3 / seconds });
  return lossM;
}

function figuresOf(facts: SupplyLineFacts, sheet: Worksheet): Figure[] {
  const { work, ground } = facts;
  const lossM = workThrough(facts, sheet);
  const seconds = bucketS(work, ground);
  const drips = work.serves === 'drip' ? dripsOf(work) : null;
  const pumped = work.drive === 'pump';
  return [
    { id: 'lengthM', label: 'Length on the ground', value: ground.lengthM, kind: 'distance' },
    { id: 'fallM', label: pumped ? 'Lifts' : 'Falls', value: pumped ? Math.max(0, -fallOf(work)) : fallOf(work), kind: 'length' },
    { id: 'lossM', label: 'Lost on the way, at the flow wanted', value: lossM, kind: 'length' },
    ...(pumped ? [] : [{ id: 'givesM3s', label: 'Gives, its store nearly empty', value: gives(work, ground), kind: 'tapFlow' as const, sets: 'flowM3s' }]),
    { id: 'velocityMs', label: 'Velocity', value: velocityAt(work.flowM3s, work), kind: 'velocity' },
    { id: 'restM', label: 'Head at rest, at its lowest', value: restHead(work, ground).value, kind: 'length' },
    { id: 'leastM', label: 'Least head along it', value: leastHead(work, ground).value, kind: 'length' },
    { id: 'bucketS', label: 'Ten litres at its open end', value: seconds, kind: 'seconds' },
    { id: 'staysM3', label: 'Stays in it when nothing runs', value: staysM3(work, ground), kind: 'liquid' },
    ...(pumped
      ? [
          { id: 'headM', label: 'Head the pump works against', value: pumpHead(work, ground), kind: 'length' as const },
          { id: 'dayM3', label: 'Water a day', value: dayM3(work), kind: 'liquid' as const },
        ]
      : []),
    ...(drips
      ? [
          { id: 'drippers', label: 'Drippers', value: drippersOf(work), kind: 'count' as const },
          { id: 'dripM3s', label: 'They let out together', value: drips.allM3s, kind: 'tapFlow' as const, sets: 'flowM3s' },
          { id: 'dripLess', label: 'Less at the last than at the first', value: drips.less, kind: 'slope' as const },
        ]
      : []),
    { id: 'hours', label: 'Hours of one person', value: hoursOf(work, ground), kind: 'hours' },
  ]; // prettier-ignore
}

function pegsOf(work: SupplyLine, ground: LineGround, intervalM: number): PegDraft[] {
  const levels = pipeLevels(work, ground);
  const last = levels.length - 1;
  const every = Math.max(1, Math.round(intervalM / ground.stepM));
  const places = Array.from({ length: last + 1 }, (_, k) => k).filter((k) => k % every === 0 || k === last);
  return places.map((k): PegDraft => {
    const [x, y] = pointAlong(work.line, k * ground.stepM).point;
    return {
      name: `${work.name}, ${(k * ground.stepM).toFixed(0)} m`,
      role: 'invert',
      x,
      y,
      levelM: levels[k],
      groundM: ground.groundM[k],
    };
  });
}

/** From a store to a store it leads water each day: by its fall day and night, by a pump as long as that runs. */
function liftsOf(work: SupplyLine, ground: LineGround): Pick<PlacedWork, 'lifts'> {
  const { from, to, drive, flowM3s } = work;
  if (from === undefined || to === undefined || ground.from === null || ground.from.roofM2 !== null) return {};
  const mostM3PerDay = drive === 'pump' ? dayM3(work) : DAY_S * Math.min(flowM3s, gives(work, ground));
  return { lifts: { from, to, mostM3PerDay, stopM: work.levels.drawM } };
}
const DAY_S = 86_400;

function placeSupplyLine(work: SupplyLine, ground: LineGround): PlacedWork {
  const { drawM, endM } = work.levels;
  return {
    host: null,
    stores: () => [],
    outlets: [],
    ...liftsOf(work, ground),
    figures: (facts, sheet) => figuresOf({ ...facts, work, ground }, sheet),
    checks: (facts) => runRules(SUPPLY_LINE_RULES, { ...facts, work, ground }, work.id),
    quantities: () => quantitiesOf(work, ground),
    buildSteps: () => stepsOf(work, ground),
    pegs: (intervalM) => pegsOf(work, ground, intervalM),
    marks: [
      { id: `${work.id}:draw`, work: work.id, name: `${work.name}: draws from`, role: 'floor', levelM: drawM, path: 'levels.drawM' },
      { id: `${work.id}:end`, work: work.id, name: `${work.name}: ends`, role: 'sill', levelM: endM, path: 'levels.endM' },
    ],
    section: () => sectionOf(work, ground),
  };
}

export const supplyLine: Technique<SupplyLine, LineGround> = {
  ...supplyLineDescriptor,
  formulas: [FITTING_LOSS, DRIPPER, MANY_OUTLETS, TIME_TO_FILL],
  rules: SUPPLY_LINE_RULES,
  begin: beginSupplyLine,
  measure: measureSupplyLine,
  place: placeSupplyLine,
};
