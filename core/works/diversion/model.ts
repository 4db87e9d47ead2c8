import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { normalDepth, trapezoid } from '../../hydraulics/index.ts';
import { told } from '../../units/index.ts';
import { grassChannel, stoneRoughness, stoneStands } from '../exit.ts';
import { checkFields, checkLine } from '../fields.ts';

export const DRAIN_LININGS = ['earth', 'grass', 'stone'] as const;
export type DrainLining = (typeof DRAIN_LININGS)[number];

export interface Diversion extends WorkBase {
  readonly kind: 'diversion';
  /** Its lower edge, from its upper to its lower end. */
  readonly line: Line;
  readonly lining: DrainLining;
  readonly levels: { readonly startM: number; readonly endM: number };
  readonly dimensions: {
    readonly floorWidthM: number;
    readonly sideSlopeHV: number;
    /** From its floor to the crest of its bank. */
    readonly depthM: number;
    readonly stoneM: number;
  };
}

export const DIVERSION_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.startM', label: 'Floor at its upper end', kind: 'level', min: -500, max: 9000, help: 'It falls evenly from here.' },
  { path: 'levels.endM', label: 'Floor at its lower end', kind: 'level', min: -500, max: 9000, help: 'Where it lets its water go.' },
  { path: 'dimensions.floorWidthM', label: 'Floor width', kind: 'length', min: 0.1, max: 20, help: 'Flat floors wear less than notches.' },
  {
    path: 'dimensions.sideSlopeHV',
    label: 'Sides, out per 1 up',
    kind: 'number',
    min: 0,
    max: 8,
    help: '3 to 4 where it is mown or crossed.',
  },
  { path: 'dimensions.depthM', label: 'Depth to the bank’s crest', kind: 'length', min: 0.1, max: 3, help: 'Water and freeboard.' },
  {
    path: 'dimensions.stoneM',
    label: 'Median stone, if lined',
    kind: 'length',
    min: 0.01,
    max: 1,
    help: 'Counts only where it is lined with stone.',
    shownWhen: { path: 'lining', is: ['stone'] },
  },
];

export const DIVERSION_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'lining',
    label: 'Lined with',
    options: [
      { id: 'earth', name: 'bare earth' },
      { id: 'grass', name: 'grass' },
      { id: 'stone', name: 'stone' },
    ],
  },
];

/** Roughness of weathered earth (Chow 1959, Table 5-6), and grass: tall to carry, short to stand (handbook 4.1). */
export const EARTH_N = 0.022;
const [TALL, SHORT] = [5.6, 4.44];
/** What bare earth and a sward stand [m/s]: sandy loam in clear water, and a grass mixture under 5 % (Chow 1959, Tables 7-3 and 7-6). */
const [EARTH_STANDS, GRASS_STANDS] = [0.53, 1.52];
export const LEAST_SLOPE = 1e-4;

export const fallOf = ({ line, levels }: Pick<Diversion, 'line' | 'levels'>): number =>
  (levels.startM - levels.endM) / Math.max(1e-6, lineLength(line));

interface EvenFlow {
  readonly depthM: number;
  readonly velocityMs: number;
  readonly n: number;
}

/** Even flow in the drain: with tall grass for its depth, with short for its velocity. */
export function evenFlow(drain: Diversion, flowM3s: number, height: 'tall' | 'short'): EvenFlow {
  const { floorWidthM: widthM, sideSlopeHV: sideHV, stoneM } = drain.dimensions;
  const slope = Math.max(LEAST_SLOPE, fallOf(drain));
  if (drain.lining === 'grass') return grassChannel({ widthM, sideHV, slope, curveIndex: height === 'tall' ? TALL : SHORT }, flowM3s);
  const n = drain.lining === 'stone' ? stoneRoughness(stoneM) : EARTH_N;
  const section = trapezoid(widthM, sideHV);
  const depthM = normalDepth(section, { slope, n }, flowM3s);
  return { depthM, velocityMs: depthM > 0 ? flowM3s / section.area(depthM) : 0, n };
}

export const stands = (drain: Diversion): number =>
  drain.lining === 'stone' ? stoneStands(drain.dimensions.stoneM) : drain.lining === 'grass' ? GRASS_STANDS : EARTH_STANDS;

/** Everything wrong with one drain on its own. */
export function validateDiversion(drain: Diversion): Problem[] {
  const problems: Problem[] = [...checkFields(drain, DIVERSION_FIELDS), ...checkLine(drain, drain.line)];
  if (!DRAIN_LININGS.includes(drain.lining)) {
    problems.push({
      code: 'diversion.lining',
      what: `lining of "${drain.name}" is ${told(drain.lining)}`,
      field: 'lining',
      do: `Choose one of ${DRAIN_LININGS.join(', ')}.`,
    });
  }
  return problems;
}
