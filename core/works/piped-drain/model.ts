// A piped drain: a pipe that falls, basins under grates where water stands or passes, and a place that may take it.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say, told } from '../../units/index.ts';
import { FOUND_CHOICES, type Found } from './found.ts';
import { checkChoices, checkEntries, checkFields, checkLine, choice, option } from '../fields.ts';

/** A basin under a grate, or a joint under a lid, and the pipe that leaves it. */
export interface Basin {
  /** Its place along the line, from the upper end. */
  readonly atM: number;
  /** Invert of the pipe that leaves it, and that pipe’s inner width [m]. */
  readonly invertM: number;
  readonly pipeM: number;
  /** The grate over it; no length where it is closed. */
  readonly grateLongM: number;
  readonly grateWideM: number;
  /** Depth under the invert, for silt. */
  readonly sumpM: number;
  /** Downspouts, and lines of what cooling units drip, that join it; left out, none. */
  readonly spouts?: number;
  readonly drips?: number;
}

export interface PipedDrain extends WorkBase {
  readonly kind: 'piped-drain';
  /** From its upper end to where it ends. */
  readonly line: Line;
  /** From the upper end down; the last pipe runs to the end of the line. */
  readonly basins: readonly Basin[];
  /** What it leads into: another drain, or what holds water. */
  readonly into?: string;
  readonly ends: 'daylight' | 'street';
  readonly wall: 'smooth' | 'ribbed' | 'concrete';
  readonly over: 'grass' | 'paving' | 'wheels';
  readonly mouth: 'open' | 'grille';
  readonly asked: 'not-asked' | 'asked';
  readonly services: 'not-asked' | 'asked';
  readonly levels: { readonly outletM: number };
  readonly dimensions: {
    /** Grates under the ground about them, the share of them that is open, and what of that leaves are counted on to close. */
    readonly setM: number;
    readonly openShare: number;
    readonly closedPercent: number;
    /** How the ground falls towards a grate on a slope, from both sides; left out, nobody has said. */
    readonly acrossFall?: number;
    /** Median stone laid where it ends; none is 0. */
    readonly stoneM: number;
  };
  /** Lowest sill, vent or window near its basins, and the highest water known where it ends. */
  readonly thresholdM?: number;
  readonly outsideM?: number;
  /** Of a street's drain: what may be given to it; its width and fall, and what runs in it already [m3/s, m, m/m, m3/s]. */
  readonly mayGiveM3s?: number;
  readonly streetPipeM?: number;
  readonly streetFall?: number;
  readonly streetOwnM3s?: number;
  /** Of a drain that is there: what was seen of it, and what it let through when it was tried. */
  readonly found: Found;
  readonly passesM3s?: number;
  readonly labour: { readonly mPerDay: number };
}

/** Manning’s roughness by wall (handbook 4.1; Chow 1959 Table 5-6; from memory). */
export const ROUGHNESS: Readonly<Record<PipedDrain['wall'], number>> = { smooth: 0.011, ribbed: 0.016, concrete: 0.013 };

const IN_STREET = { path: 'ends', is: ['street'] } as const;

export const DRAIN_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.outletM', label: 'Invert where it ends', kind: 'level', min: -500, max: 9000, help: 'Lowest of the bore, where its water leaves.' },
  { path: 'dimensions.setM', label: 'Grates under the ground', kind: 'difference', min: 0, max: 0.2, help: '10 to 30 mm, the ground led to them.' },
  { path: 'dimensions.openShare', label: 'Share of a grate that is open', kind: 'number', min: 0.05, max: 0.9, help: '0.3 to 0.5 of usual ones.' },
  { path: 'dimensions.acrossFall', label: 'Dish to a grate on a slope falls', kind: 'slope', min: 0.005, max: 0.1, help: 'From both sides to the grate: a shallow dish of 5 % leads water to it.', optional: { offer: 'The ground is dished to grates on a slope', start: 0.05 } },
  { path: 'dimensions.closedPercent', label: 'Of that closed by leaves', kind: 'percent', min: 0, max: 95, help: 'Half, as a habit; less where somebody sweeps before every rain.' },
  { path: 'dimensions.stoneM', label: 'Stone where it ends', kind: 'difference', min: 0, max: 0.6, help: 'Its median size; nothing where none is laid.', shownWhen: { path: 'ends', is: ['daylight'] } },
  { path: 'thresholdM', label: 'Lowest sill or vent near it', kind: 'level', min: -500, max: 9000, help: 'A door, a cellar window, a vent: what water must never reach.', optional: { offer: 'You have levelled the lowest sill', start: 0 } },
  { path: 'outsideM', label: 'Highest water where it ends', kind: 'level', min: -500, max: 9000, help: 'In the street drain, the ditch or the stream, in a great storm.', optional: { offer: 'You know how high water stands where it ends', start: 0 } },
  { path: 'mayGiveM3s', label: 'May be given to the street', kind: 'flow', min: 0, max: 50, help: 'As whoever owns its drain allowed it.', optional: { offer: 'You were told how much the street takes', start: 0.005 }, shownWhen: IN_STREET },
  { path: 'streetPipeM', label: 'Its pipe, inside', kind: 'difference', min: 0.05, max: 3, help: 'The pipe in the street that takes it: from its owner, or measured at a lid.', optional: { offer: 'You know the pipe in the street', start: 0.3 }, shownWhen: IN_STREET },
  { path: 'streetFall', label: 'That pipe falls', kind: 'slope', min: 0.0005, max: 0.3, help: 'Between two lids, by their inverts.', optional: { offer: 'You know its fall', start: 0.01 }, shownWhen: IN_STREET },
  { path: 'streetOwnM3s', label: 'Runs in it already', kind: 'flow', min: 0, max: 50, help: 'In a storm as is designed for: from its owner, or by how full it runs under a lid.', optional: { offer: 'You know what runs in it already', start: 0 }, shownWhen: IN_STREET },
  { path: 'passesM3s', label: 'It lets through, as tried', kind: 'tapFlow', min: 0, max: 5, help: 'A barrel emptied into it with a watch in hand, or a hose of known flow: as much as it took without rising.', optional: { offer: 'You have tried what it lets through', start: 0.001 }, shownWhen: { path: 'status', is: ['existing', 'built'] } },
  { path: 'labour.mPerDay', label: 'One person lays in a day', kind: 'distance', min: 0.5, max: 200, help: 'Trench, pipe, gravel and turf: 6 to 10 m by hand.' },
]; // prettier-ignore

export const DRAIN_CHOICES: readonly ChoiceSpec[] = [
  choice('ends', 'It ends', [option('daylight', 'in the open, on own ground'), option('street', 'in the street or its drain')]),
  choice('wall', 'Pipe of', [option('smooth', 'smooth plastic'), option('ribbed', 'ribbed plastic'), option('concrete', 'concrete or clay')]),
  choice('over', 'Over it', [option('grass', 'grass or beds'), option('paving', 'paving for feet'), option('wheels', 'wheels')]),
  choice('mouth', 'Its end is', [option('open', 'open'), option('grille', 'closed to animals by a grille or a flap')]),
  choice('asked', 'Whose ground or drain takes it', [option('not-asked', 'was not asked yet'), option('asked', 'was asked, and allows it')]),
  choice('services', 'Buried cables and pipes', [option('not-asked', 'not asked yet'), option('asked', 'asked for, and marked')]),
  ...FOUND_CHOICES,
]; // prettier-ignore

export const BASIN_FIELDS: readonly FieldSpec[] = [
  { path: 'atM', label: 'Along it', kind: 'distance', min: 0, max: 20_000, help: 'From its upper end.' },
  { path: 'invertM', label: 'Invert of the pipe below', kind: 'level', min: -500, max: 9000, help: 'Lowest of the bore where the pipe leaves.' },
  { path: 'pipeM', label: 'That pipe, inside', kind: 'difference', min: 0.03, max: 2, help: 'Never narrower than the one above it.' },
  { path: 'grateLongM', label: 'Grate, long', kind: 'length', min: 0, max: 20, help: 'Nothing for a joint under a lid; metres for a channel with a grate.' },
  { path: 'grateWideM', label: 'Grate, wide', kind: 'length', min: 0, max: 3, help: 'Across.' },
  { path: 'sumpM', label: 'Sump below the invert', kind: 'difference', min: 0, max: 1.5, help: 'Where silt and debris stay: 150 mm or more.' },
  { path: 'spouts', label: 'Downspouts joined there', kind: 'count', min: 0, max: 6, help: 'By an adapter and a riser. Say at the roof that its water leads here: only then it counts.', optional: { offer: 'A downspout joins there', start: 1 } },
  { path: 'drips', label: 'Cooling units’ drips joined there', kind: 'count', min: 0, max: 6, help: 'Some litres an hour, no load; a trap keeps the air of the drain out of the house.', optional: { offer: 'The drip of a cooling unit joins there', start: 1 } },
]; // prettier-ignore

/** More basins than any yard has in one line. */
const MOST_BASINS = 60;

export const DRAIN_LISTS: readonly ListSpec[] = [
  {
    path: 'basins',
    title: 'Basins and joints, from its upper end',
    each: 'Basin',
    words: { none: 'None: a drain begins at one.', add: 'Add a basin', remove: 'Take it away' },
    fields: BASIN_FIELDS,
    start: (work: PipedDrain) => {
      const last = work.basins[work.basins.length - 1];
      const length = lineLength(work.line);
      const atM = (last.atM + length) / 2;
      const fall = (last.invertM - work.levels.outletM) * ((atM - last.atM) / Math.max(1e-6, length - last.atM));
      const { pipeM, grateLongM, grateWideM, sumpM } = last;
      return { atM, invertM: Math.round(1000 * (last.invertM - fall)) / 1000, pipeM, grateLongM, grateWideM, sumpM };
    },
  },
];

/** Whether a basin has a grate. */
export const isOpen = ({ grateLongM, grateWideM }: Pick<Basin, 'grateLongM' | 'grateWideM'>): boolean => grateLongM > 0 && grateWideM > 0;

/** Downspouts, and all lines, that join a basin from above. */
export const spoutsAt = ({ spouts = NONE_JOINED }: Basin): number => spouts;
export const joinsAt = ({ spouts = NONE_JOINED, drips = NONE_JOINED }: Basin): number => spouts + drips;
const NONE_JOINED = 0;

/** Water does not run up: a pipe may lie level at the least, to a hair. */
const HAIR_M = 1e-6;

/** Pipes that would have to climb, each by its place and by how much. */
function climbs({ name, basins, line, levels }: PipedDrain): Problem[] {
  const length = lineLength(line);
  const ends = [...basins.map((b) => ({ atM: b.atM, levelM: b.invertM })), { atM: length, levelM: levels.outletM }];
  return ends.slice(1).flatMap(({ atM, levelM }, k): Problem[] => {
    const upper = ends[k];
    const rise = levelM - upper.levelM;
    if (rise <= HAIR_M) return [];
    const isLast = k === basins.length - 1;
    const where = isLast ? 'where it ends' : say`at ${amount(atM, 'length')}`;
    return [
      {
        code: 'piped-drain.climbs',
        field: isLast ? 'levels.outletM' : `basins.${k + 1}.invertM`,
        what: say`pipe ${String(k + 1)} of "${name}" would climb ${amount(rise, 'difference')}: from ${amount(upper.levelM, 'level')} at ${amount(upper.atM, 'length')} to ${amount(levelM, 'level')} ${where}`,
        do: isLast ? 'Lower its end, raise what lies above it, or lead it elsewhere.' : 'Give inverts that fall from its upper end down.',
      },
    ];
  });
}

/** Basins out of their order, two in one place, or beyond the line. */
function misplaced({ name, basins, line }: PipedDrain): Problem[] {
  const length = lineLength(line);
  return basins.flatMap(({ atM }, k): Problem[] => {
    const before = k === 0 ? null : basins[k - 1].atM;
    if (before !== null && atM - before < LEAST_APART_M)
      return [
        {
          code: 'piped-drain.order',
          field: `basins.${k}.atM`,
          what: say`basin ${String(k + 1)} of "${name}" lies at ${amount(atM, 'length')}, the one before it at ${amount(before, 'length')}`,
          do: 'Give them from the upper end down, 0.2 m apart at the least.',
        },
      ];
    if (atM <= length - LEAST_APART_M) return [];
    return [
      {
        code: 'piped-drain.beyond',
        field: `basins.${k}.atM`,
        what: say`basin ${String(k + 1)} of "${name}" lies at ${amount(atM, 'length')}; the drain ends at ${amount(length, 'length')}`,
        do: 'Bring it nearer, or draw the drain longer.',
      },
    ];
  });
}
const LEAST_APART_M = 0.2;

/** Everything wrong with one drain on its own. */
export function validateDrain(work: PipedDrain): Problem[] {
  const shape = [...checkFields(work, DRAIN_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, DRAIN_CHOICES)];
  if (shape.length > 0) return shape;
  if (typeof work.found !== 'object' || work.found === null)
    return [{ code: 'piped-drain.found', field: 'found', what: `what was seen of "${work.name}" is ${told(work.found)}`, do: 'Give {} while nobody has looked.' }];
  const { basins, name, id } = work as { readonly basins: unknown; readonly name: string; readonly id: string };
  if (!Array.isArray(basins) || basins.length === 0 || basins.length > MOST_BASINS) {
    const what = Array.isArray(basins) ? `"${name}" has ${basins.length} basins` : `"basins" of "${name}" is ${told(basins)}`;
    return [{ code: 'piped-drain.basins', field: 'basins', what, do: `Give one to ${MOST_BASINS}, the first at its upper end.` }];
  }
  const entries = checkEntries(work, { path: 'basins', fields: BASIN_FIELDS, each: 'basin' });
  if (entries.length > 0) return entries;
  if (work.into === id)
    return [{ code: 'piped-drain.ring', field: 'into', what: `"${name}" leads into itself`, do: 'Say what else takes it, or that it ends in the open.' }];
  const places = misplaced(work);
  return places.length > 0 ? places : climbs(work);
} // prettier-ignore
