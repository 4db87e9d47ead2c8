import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { PIPE_WALLS, type PipeWall } from '../../hydraulics/index.ts';
import { told } from '../../units/index.ts';
import { mm } from '../beginning.ts';
import { checkFields } from '../fields.ts';

export const PUMP_DRIVES = ['sun', 'mains'] as const;

export interface PumpBack extends WorkBase {
  readonly kind: 'pump-back';
  /** Stores it takes from and lifts to. */
  readonly host: string;
  readonly to: string;
  readonly drive: (typeof PUMP_DRIVES)[number];
  readonly levels: {
    /** Level of the lower store under which it stops. */
    readonly stopM: number;
    /** Where the pipe ends. */
    readonly deliveryM: number;
  };
  readonly flowM3s: number;
  readonly pipe: { readonly lengthM: number; readonly diameterM: number; readonly wall: PipeWall };
  readonly efficiency: number;
  readonly sunHours: number;
  readonly panelShare: number;
}

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

/** A small solar set to begin with. */
export const newPump = (
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

export function validatePump(pump: PumpBack): Problem[] {
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
