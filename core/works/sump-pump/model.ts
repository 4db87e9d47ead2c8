// A sump with a pump: where water cannot leave by its fall it is lifted, as long as there is power.
import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { PIPE_WALLS, type PipeWall } from '../../hydraulics/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkFields, checkLine, choice, option } from '../fields.ts';

export interface Sump extends WorkBase {
  readonly kind: 'sump-pump';
  /** From the pit to where its water is let go. */
  readonly line: readonly Point[];
  readonly top: 'grate' | 'lid';
  readonly backup: 'none' | 'battery' | 'generator';
  readonly alarm: 'yes' | 'no';
  readonly valve: 'yes' | 'no';
  readonly circuit: 'unknown' | 'own' | 'shared';
  readonly goes: 'own-ground' | 'street' | 'sewer' | 'neighbour';
  readonly asked: 'asked' | 'not-asked';
  readonly levels: {
    /** Bottom of the pit, where the pump stops and starts, the rim, and the highest place of its pipe. */
    readonly floorM: number;
    readonly stopM: number;
    readonly startM: number;
    readonly rimM: number;
    readonly deliveryM: number;
  };
  /** Inside across the pit. */
  readonly diameterM: number;
  /** What the pump gives, and at which head its card says so. */
  readonly flowM3s: number;
  readonly ratedHeadM: number;
  readonly efficiency: number;
  readonly pipe: { readonly lengthM: number; readonly diameterM: number; readonly wall: PipeWall };
  /** Lowest pipe that comes in. */
  readonly inletM?: number;
  /** What its battery holds. */
  readonly batteryWh?: number;
  /** Months since somebody poured water in and watched it run. */
  readonly triedMonths?: number;
}

const level = (key: keyof Sump['levels'], label: string, help: string): FieldSpec => ({
  path: `levels.${key}`,
  label,
  kind: 'level',
  min: -500,
  max: 9000,
  help,
});

export const SUMP_FIELDS: readonly FieldSpec[] = [
  level('floorM', 'Bottom of the pit', 'A hand under where the pump stops: silt lies there.'),
  level('stopM', 'Stops at', 'Where the pump still stands in water.'),
  level('startM', 'Starts at', 'Under the lowest pipe that comes in.'),
  level('rimM', 'Rim', 'Where water stands out of the pit.'),
  level('deliveryM', 'Pipe rises to', 'Highest place of its pipe.'),
  { path: 'inletM', label: 'Lowest pipe that comes in', kind: 'level', min: -500, max: 9000, help: 'Its invert at the pit.', optional: { offer: 'A pipe comes in', start: 100 } },
  { path: 'diameterM', label: 'Pit, across', kind: 'length', min: 0.3, max: 4, help: 'Inside. 0.45 to 0.6 m for a yard.' },
  { path: 'flowM3s', label: 'Pump gives', kind: 'tapFlow', min: 0.0001, max: 0.2, help: 'At the head below: by its card.' },
  { path: 'ratedHeadM', label: 'At a head of', kind: 'length', min: 0.5, max: 60, help: 'By its card: lift and what the pipe loses.' },
  { path: 'efficiency', label: 'Efficiency of pump and motor', kind: 'number', min: 0.1, max: 0.9, help: '0.25 to 0.4 of small ones.' },
  { path: 'pipe.lengthM', label: 'Length of its pipe', kind: 'distance', min: 1, max: 2000, help: 'All of it, up and along.' },
  { path: 'pipe.diameterM', label: 'Pipe, inside', kind: 'difference', min: 0.02, max: 0.3, help: '40 to 50 mm of small pumps.' },
  { path: 'batteryWh', label: 'Battery holds, watt-hours', kind: 'number', min: 10, max: 100_000, help: 'A car battery: about 600, half of it usable.', optional: { offer: 'It has a battery', start: 600 }, shownWhen: { path: 'backup', is: ['battery'] } },
  { path: 'triedMonths', label: 'Months since it was tried', kind: 'number', min: 0, max: 600, help: 'A bucket poured in, and watched.', optional: { offer: 'You know when it was tried', start: 1 } },
]; // prettier-ignore

const yesNo = [option('yes', 'yes'), option('no', 'no')];
export const SUMP_CHOICES: readonly ChoiceSpec[] = [
  choice('top', 'Over the pit', [option('grate', 'a grate'), option('lid', 'a closed lid')]),
  choice('backup', 'When mains go', [option('none', 'it stands still'), option('battery', 'a second pump on a battery'), option('generator', 'a generator that starts itself')]),
  choice('alarm', 'A float that rings', yesNo),
  choice('valve', 'A valve against water running back', yesNo),
  choice('circuit', 'Its circuit', [option('unknown', 'nobody has looked'), option('own', 'its own, with a switch that trips on a fault'), option('shared', 'shared with others')]),
  choice('goes', 'Its water goes', [option('own-ground', 'onto own ground'), option('street', 'to the street or its storm drain'), option('sewer', 'into the sewer of the house'), option('neighbour', 'towards a neighbour')]),
  choice('asked', 'Whoever takes it', [option('asked', 'was asked, and said yes'), option('not-asked', 'was not asked yet')]),
  choice('pipe.wall', 'Pipe of', (Object.keys(PIPE_WALLS) as PipeWall[]).map((wall) => option(wall, wall))),
]; // prettier-ignore

/** Water it lifts at a start, from where it starts to where it stops [m3]. */
export const cycleM3 = ({ diameterM, levels }: Pick<Sump, 'diameterM' | 'levels'>): number =>
  (Math.PI / 4) * diameterM ** 2 * (levels.startM - levels.stopM);

/** Everything wrong with one sump on its own. */
export function validateSump(work: Sump): Problem[] {
  const shape = [...checkFields(work, SUMP_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, SUMP_CHOICES)];
  if (shape.length > 0) return shape;
  const { floorM, stopM, startM, rimM } = work.levels;
  const wrong = (field: string, what: Problem['what'], todo: string): Problem[] => [{ code: 'sump-pump.levels', what, field, do: todo }];
  if (stopM < floorM) return wrong('levels.stopM', say`"${work.name}" would stop ${amount(floorM - stopM, 'difference')} under the bottom of its pit`, 'Let it stop over the bottom.');
  if (startM <= stopM) return wrong('levels.startM', say`"${work.name}" would start ${amount(stopM - startM, 'difference')} under where it stops`, 'Let it start over where it stops.');
  return rimM <= startM ? wrong('levels.rimM', say`"${work.name}" would start at its rim, or ${amount(startM - rimM, 'difference')} over it`, 'Let it start under the rim, or build the rim higher.') : [];
} // prettier-ignore
