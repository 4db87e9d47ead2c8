// A water line: a pipe from where water is kept to where it is wanted, by its fall or by a pump, with drip lines at its end or none.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import { checkChoices, checkEntries, checkFields, checkLine, choice, option } from '../fields.ts';

/** A place along it, from where it begins. */
export interface Along {
  readonly atM: number;
}

export interface SupplyLine extends WorkBase {
  readonly kind: 'supply-line';
  /** From where water is taken to where it is wanted. */
  readonly line: Line;
  /** What it draws from and what it fills, where that is a store. */
  readonly from?: string;
  readonly to?: string;
  readonly drive: 'fall' | 'pump';
  readonly serves: 'tap' | 'vessel' | 'drip';
  readonly frost: 'not-said' | 'none' | 'emptied' | 'stays';
  readonly mains: 'not-said' | 'none' | 'gap' | 'joined';
  readonly services: 'not-asked' | 'asked';
  readonly levels: {
    /** The lowest water it draws from, and where it ends: the tap, the float, the head of the drip lines. */
    readonly drawM: number;
    readonly endM: number;
  };
  /** Wanted at its end, and the head it must still have there. */
  readonly flowM3s: number;
  readonly endHeadM: number;
  readonly pipe: {
    readonly diameterM: number;
    readonly wall: 'plastic' | 'steel' | 'galvanised';
    /** Head it is made to stand. */
    readonly standsM: number;
    readonly bends: number;
    /** Under the ground; nothing where it lies on it. */
    readonly coverM: number;
  };
  /** Where air is let out, and where it can be emptied. */
  readonly vents?: readonly Along[];
  readonly drains?: readonly Along[];
  /** Roof that runs off through it. */
  readonly roofM2?: number;
  readonly pump: {
    readonly stands: 'in-water' | 'dry';
    readonly power: 'mains' | 'sun';
    readonly stops: 'by-itself' | 'by-hand';
    readonly guarded: 'not-asked' | 'breaker' | 'none';
    /** Of one that stands dry, over the lowest water. */
    readonly overM: number;
    readonly efficiency: number;
    readonly hoursADay: number;
    readonly panelShare: number;
    /** By its plate, and of its panels. */
    readonly plateW?: number;
    readonly panelsW?: number;
  };
  readonly drip: {
    readonly filter: 'none' | 'mesh';
    readonly lines: number;
    readonly lengthM: number;
    readonly apartM: number;
    readonly diameterM: number;
    /** What one lets out under ten metres of head [L/h]. */
    readonly litresAnHour: number;
  };
  readonly labour: { readonly mPerDay: number };
}

const PUMPED = { shownWhen: { path: 'drive', is: ['pump'] } } as const;
const DRY = { shownWhen: { path: 'pump.stands', is: ['dry'] } } as const;
const BY_SUN = { shownWhen: { path: 'pump.power', is: ['sun'] } } as const;
const DRIPS = { shownWhen: { path: 'serves', is: ['drip'] } } as const;

/** What is asked of a pump, and of drip lines: nothing where there are none. */
export const PUMP_FIELDS: readonly FieldSpec[] = [
  { path: 'pump.overM', label: 'Pump over the lowest water', kind: 'length', min: 0, max: 12, help: 'It can suck no more than six metres in practice.', ...DRY },
  { path: 'pump.efficiency', label: 'Efficiency of pump and motor', kind: 'number', min: 0.05, max: 0.95, help: '0.35 to 0.5 for small sets.', ...PUMPED },
  { path: 'pump.hoursADay', label: 'Runs a day', kind: 'hours', min: 0.05, max: 24, help: 'By the sun: its full hours in the month you count on.', ...PUMPED },
  { path: 'pump.panelShare', label: 'What panels give in use', kind: 'number', min: 0.3, max: 1, help: '0.75 to 0.8: heat, dust, wires.', ...BY_SUN },
  { path: 'pump.plateW', label: 'Power by its plate', kind: 'power', min: 5, max: 50_000, help: 'As it takes it.', optional: { offer: 'You have chosen a pump', start: 400 }, ...PUMPED },
  { path: 'pump.panelsW', label: 'Panels, at their peak', kind: 'power', min: 5, max: 100_000, help: 'All of them together.', optional: { offer: 'You have chosen panels', start: 400 }, ...BY_SUN },
]; // prettier-ignore
export const DRIP_FIELDS: readonly FieldSpec[] = [
  { path: 'drip.lines', label: 'Drip lines', kind: 'count', min: 1, max: 200, help: 'Side by side, fed from one end.', ...DRIPS },
  { path: 'drip.lengthM', label: 'Each long', kind: 'distance', min: 1, max: 300, help: 'Longer ones drip less at their far ends.', ...DRIPS },
  { path: 'drip.apartM', label: 'Drippers apart', kind: 'length', min: 0.1, max: 5, help: 'Along a line.', ...DRIPS },
  { path: 'drip.diameterM', label: 'Drip line, inside', kind: 'difference', min: 0.003, max: 0.05, help: 'Usual ones have 14 to 17 mm.', ...DRIPS },
  { path: 'drip.litresAnHour', label: 'Each lets out, litres an hour', kind: 'number', min: 0.2, max: 30, help: 'As it is sold: under ten metres of head. Under less it gives less.', ...DRIPS },
]; // prettier-ignore

export const SUPPLY_LINE_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.drawM', label: 'Lowest water it draws from', kind: 'level', min: -500, max: 9000, help: 'Its tap or strainer: below that it runs dry.' },
  { path: 'levels.endM', label: 'Ends at', kind: 'level', min: -500, max: 9000, help: 'The tap, the float, or the head of the drip lines.' },
  { path: 'flowM3s', label: 'Wanted at its end', kind: 'tapFlow', min: 0.000001, max: 1, help: 'A can in a minute is 10 L/min; a trough for stock five times that.' },
  { path: 'endHeadM', label: 'Head wanted there', kind: 'length', min: 0, max: 100, help: '0.5 m for a float, 1 m for drip lines, 3 m for a hose, 15 m for a house.' },
  { path: 'pipe.diameterM', label: 'Pipe, inside', kind: 'difference', min: 0.005, max: 0.5, help: 'Inside, not as it is sold.' },
  { path: 'pipe.standsM', label: 'Made to stand', kind: 'length', min: 5, max: 400, help: 'Head of water: one bar is 10.2 m.' },
  { path: 'pipe.bends', label: 'Bends and fittings', kind: 'count', min: 0, max: 200, help: 'Elbows, valves, joints: each loses a little.' },
  { path: 'pipe.coverM', label: 'Under the ground', kind: 'length', min: 0, max: 4, help: 'Over its top; nothing where it lies on the ground.' },
  { path: 'roofM2', label: 'Roof that runs off through it', kind: 'area', min: 1, max: 20_000, help: 'From above: the pipe must take the hardest five minutes of it.', optional: { offer: 'A roof runs off through it', start: 80 } },
  ...PUMP_FIELDS,
  ...DRIP_FIELDS,
  { path: 'labour.mPerDay', label: 'One person lays in a day', kind: 'distance', min: 1, max: 500, help: 'Trench, pipe and filling: 15 m by hand, 100 m on the ground.' },
]; // prettier-ignore

export const SUPPLY_LINE_CHOICES: readonly ChoiceSpec[] = [
  choice('drive', 'Water runs', [option('fall', 'by its own fall'), option('pump', 'by a pump')]),
  choice('serves', 'It serves', [option('tap', 'a tap or a hose'), option('vessel', 'a tank or a trough with a float'), option('drip', 'drip lines')]),
  choice('pipe.wall', 'Pipe of', [option('plastic', 'plastic'), option('steel', 'steel'), option('galvanised', 'galvanised steel')]),
  choice('frost', 'Frost', [option('not-said', 'not said yet'), option('none', 'never freezes here'), option('emptied', 'emptied before it freezes'), option('stays', 'stays full in frost')]),
  choice('mains', 'Mains or drinking water', [option('not-said', 'not said yet'), option('none', 'none near it'), option('gap', 'fills it through an air gap'), option('joined', 'joined to it by a valve')]),
  choice('services', 'Buried cables and pipes', [option('not-asked', 'not asked yet'), option('asked', 'asked for, and marked')]),
  { ...choice('pump.stands', 'The pump', [option('in-water', 'hangs in the water'), option('dry', 'stands dry and sucks')]), ...PUMPED },
  { ...choice('pump.power', 'It runs by', [option('mains', 'mains or an engine'), option('sun', 'the sun')]), ...PUMPED },
  { ...choice('pump.stops', 'Without water', [option('by-itself', 'it stops by itself'), option('by-hand', 'somebody must stop it')]), ...PUMPED },
  { ...choice('pump.guarded', 'Its current', [option('not-asked', 'nobody has looked'), option('breaker', 'through a breaker that trips at a leak'), option('none', 'without one')]), ...PUMPED },
  { ...choice('drip.filter', 'Before the drippers', [option('none', 'nothing'), option('mesh', 'a filter that is cleaned')]), ...DRIPS },
]; // prettier-ignore

const PLACE: readonly FieldSpec[] = [
  { path: 'atM', label: 'Along it', kind: 'distance', min: 0, max: 20_000, help: 'From where water is taken.' },
];

export const SUPPLY_LINE_LISTS: readonly ListSpec[] = [
  {
    path: 'vents',
    title: 'Where air is let out',
    words: { none: 'Nowhere yet: air gathers at every top and stops the water.', add: 'Note a vent', remove: 'Take it away' },
    fields: PLACE,
    start: () => ({ atM: 0 }),
  },
  {
    path: 'drains',
    title: 'Where it can be emptied',
    words: { none: 'Nowhere yet: water stays in every dip.', add: 'Note a drain', remove: 'Take it away' },
    fields: PLACE,
    start: () => ({ atM: 0 }),
  },
];

/** Everything wrong with one line on its own. */
export function validateSupplyLine(work: SupplyLine): Problem[] {
  const shape = [...checkFields(work, SUPPLY_LINE_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, SUPPLY_LINE_CHOICES)];
  if (shape.length > 0) return shape;
  const entries = SUPPLY_LINE_LISTS.flatMap(({ path }) =>
    checkEntries(work, { path, fields: PLACE, each: path === 'vents' ? 'vent' : 'drain' }),
  );
  if (entries.length > 0) return entries;
  if (work.from === undefined || work.from !== work.to) return [];
  return [
    {
      code: 'supply-line.ring',
      what: `"${work.name}" ends where it begins`,
      field: 'to',
      do: 'Say what it draws from, and another store it fills, or a tap.',
    },
  ];
}
