import type { BuildStep, QuantityLine } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { BEFORE_DIGGING, counted, inOrder, line, standingIn } from '../making.ts';
import type { Sump } from './model.ts';
import { headsOf } from './standing.ts';

/** Dug about a pit, and gravel under it [m]. */
const [ROOM_M, GRAVEL_M] = [0.15, 0.15];

const hole = ({ diameterM, levels }: Sump): { readonly m2: number; readonly deepM: number } => ({
  m2: (Math.PI / 4) * (diameterM + 2 * ROOM_M) ** 2,
  deepM: levels.rimM - levels.floorM + GRAVEL_M,
});

export function quantitiesOf(work: Sump): QuantityLine[] {
  const { m2, deepM } = hole(work);
  return [
    line({ item: 'cut', label: 'Pit to dig', kind: 'volume', from: 'its width and a hand about it, by its depth' }, m2 * deepM, 'earth'),
    line({ item: 'gravel', label: 'Gravel under and about it', kind: 'volume', from: 'the hole less the pit' }, m2 * deepM - (Math.PI / 4) * work.diameterM ** 2 * (deepM - GRAVEL_M), 'stone'),
    line({ item: 'pit', label: 'Pit, rings or a ready liner', kind: 'length', from: 'from its rim to its bottom' }, deepM - GRAVEL_M, 'made'),
    line({ item: 'pipe', label: 'Pipe', kind: 'length', from: 'all of it, up and along' }, work.pipe.lengthM, 'made'),
    counted({ item: 'pump', label: 'Pump with float', from: work.backup === 'battery' ? 'one, and one on the battery' : 'one' }, work.backup === 'battery' ? 2 : 1),
    ...(work.valve === 'yes' ? [counted({ item: 'valve', label: 'Check valve', from: 'over the pump' }, 1)] : []),
    ...(work.alarm === 'yes' ? [counted({ item: 'alarm', label: 'Float that rings', from: 'over where it starts' }, 1)] : []),
  ]; // prettier-ignore
}

export function stepsOf(work: Sump): BuildStep[] {
  const { floorM, stopM, startM, rimM } = work.levels;
  const { deepM } = hole(work);
  return inOrder(
    { id: 'ask', does: 'Ask whoever takes its water; have cables and pipes marked.', cautions: [BEFORE_DIGGING] },
    { id: 'dig', does: say`Dig the pit ${amount(deepM, 'length')} deep, in the dry season.`, levels: [{ name: 'bottom', levelM: floorM }], cautions: [...standingIn(deepM), 'A pit dug into ground water floats: weigh it down before the ground water comes back.'] },
    { id: 'set', does: 'Set it on gravel, upright; the pipes that come in with a lip of a hand; fill round it in layers.', levels: [{ name: 'rim', levelM: rimM }], hold: 'Its rim stands a finger proud of ground that would wash in.' },
    { id: 'pump', does: say`Hang the pump off its bottom by a rope; floats start it at ${amount(startM, 'reading')} and stop it at ${amount(stopM, 'reading')}.`, levels: [{ name: 'starts', levelM: startM }, { name: 'stops', levelM: stopM }], cautions: ['Mains beside water: a licensed electrician connects it. Nobody reaches into the pit while it is plugged in.'] },
    { id: 'pipe', does: say`Lay the pipe to where its water is let go, the valve over the pump where it can be reached; it lifts ${amount(headsOf(work).liftM, 'length')}.`, hold: 'Its end is open, in the frost too, and throws water onto no path.' },
    { id: 'try', does: 'Fill the pit with a hose: it starts, empties in the time worked out, stops; pull the plug and watch the alarm.', hold: 'Pour until it rings.' },
    { id: 'after', does: 'A bucket each quarter and before the wet season; silt out of the pit each year; the battery by its date.' },
  ); // prettier-ignore
}
