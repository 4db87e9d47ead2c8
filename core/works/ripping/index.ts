// A ripping pattern: slots that break hard ground and lead water from valleys out to ridges. Nothing in a storm counts on it.
import type { Figure, PegDraft, PlacedWork, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { runRules } from '../rules.ts';
import { beginRipping } from './begin.ts';
import { RIPPING_RULES } from './checks.ts';
import { rippingDescriptor } from './descriptor.ts';
import { RIP_DRAFT, RIP_HOURS, RIP_LEFT, RIP_POWER } from './formulas.ts';
import { type RipGround, measureRipping } from './ground.ts';
import { IN_THE_GROUND, fuelOf, hoursOf, lengthOf, quantitiesOf, stepsOf } from './making.ts';
import { type Ripping, timesOf } from './model.ts';
import { sectionOf } from './section.ts';
import { REACHES, type RipFacts, SOILS } from './standing.ts';
import { suitsRipping } from './suits.ts';

export * from './model.ts';
export { slotLines } from './lines.ts';
export { RIPPING_RULES } from './checks.ts';

/** Years after which what is left is told. */
const YEARS = [1, 3, 5] as const;

function figuresOf({ work, ground }: RipFacts, sheet: Worksheet): Figure[] {
  const { machine, texture, testedAfterYears: t0, halvesYears: h, dimensions } = work;
  const { speedKmh: v, shanks: n } = machine;
  sheet.use(RIP_HOURS, { L: lengthOf(ground), v, n, e: IN_THE_GROUND });
  const hours = hoursOf(work, ground);
  const pull = texture === 'unknown' ? null : sheet.use(RIP_DRAFT, { f: SOILS[texture], v, n, d: 100 * dimensions.depthM });
  const leads = ground.slots.flatMap((s) => s.leads);
  const times = timesOf(work);
  return [
    { id: 'lines', label: 'Lines', value: ground.slots.length, kind: 'count' },
    { id: 'lengthM', label: 'Slots, end to end', value: lengthOf(ground), kind: 'distance' },
    { id: 'slope', label: 'Slope across', value: ground.slope, kind: 'slope' },
    {
      id: 'fall',
      label: 'Falls from valley to ridge, on average, in 10 m',
      value: leads.length > 0 ? (10 * leads.reduce((a, l) => a + l.fall, 0)) / leads.length : null,
      kind: 'difference',
    },
    { id: 'wrong', label: 'Stretches that fall into a valley', value: leads.filter((l) => l.fall < 0).length, kind: 'count' },
    { id: 'pullKn', label: 'Pull, kN', value: pull === null ? null : pull / 1000, kind: 'number' },
    {
      id: 'powerKw',
      label: 'Engine that pulls it, kW',
      value: pull === null ? null : sheet.use(RIP_POWER, { F: pull, v, e: REACHES }),
      kind: 'number',
    },
    { id: 'machineHours', label: 'Hours of the machine', value: hours, kind: 'hours' },
    { id: 'fuelM3', label: 'Fuel', value: fuelOf(work, ground), kind: 'liquid' },
    { id: 'times', label: 'Times the rate beside it, tested', value: times, kind: 'number' },
    ...YEARS.map((t): Figure => ({
      id: `times${t}`,
      label: t === 1 ? 'after one year: a guess' : `after ${t} years: a guess`,
      value: times !== null && t0 !== undefined && h !== undefined ? sheet.use(RIP_LEFT, { k: times, t, t0, h }) : null,
      kind: 'number',
    })),
  ];
}

/** Every line is pegged at its ends, every tenth along it. */
const EVERY = 10;

function pegsOf({ name }: Ripping, { slots }: RipGround, intervalM: number): PegDraft[] {
  return slots.flatMap(({ line, lengthM, stepM, groundM }, k): PegDraft[] => {
    const count = k % EVERY === 0 ? Math.max(1, Math.ceil(lengthM / intervalM)) : 1;
    return Array.from({ length: count + 1 }, (_, i): PegDraft => {
      const atM = (lengthM * i) / count;
      const [x, y] = pointAlong(line, atM).point;
      const levelM = groundM[Math.round(atM / stepM)];
      return { name: `${name}, line ${k + 1}, ${atM.toFixed(0)} m`, role: 'floor', x, y, levelM, groundM: levelM };
    });
  });
}

function placeRipping(work: Ripping, ground: RipGround): PlacedWork {
  return {
    host: null,
    stores: () => [],
    outlets: [],
    figures: (facts, sheet) => figuresOf({ ...facts, work, ground }, sheet),
    checks: (facts) => runRules(RIPPING_RULES, { ...facts, work, ground }, work.id),
    quantities: () => quantitiesOf(work, ground),
    buildSteps: () => stepsOf(work, ground),
    pegs: (intervalM) => pegsOf(work, ground, intervalM),
    marks: [],
    ...(ground.slots.length > 0 ? { section: () => sectionOf(work, ground.slots, ground.slope) } : {}),
  };
}

export const ripping: Technique<Ripping, RipGround> = {
  ...rippingDescriptor,
  formulas: [RIP_DRAFT, RIP_POWER, RIP_HOURS, RIP_LEFT],
  rules: RIPPING_RULES,
  suits: suitsRipping,
  begin: beginRipping,
  measure: measureRipping,
  place: placeRipping,
};
