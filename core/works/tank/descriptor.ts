// A vessel: what it is, without what works it out.
import type { Descriptor, Intake } from '../../contract/index.ts';
import { TANK_DRAWS, TANK_SAMPLE } from './create.ts';
import { TANK_CHOICES, TANK_FIELDS, TANK_LISTS, type Tank, validateTank } from './model.ts';

/** Paving over crates keeps its rain from the ground below, as a roof does: laid as a square over them. */
function pavingOf({ id, made, crates, at: [x, y] }: Tank): readonly Intake[] {
  if (made !== 'crates' || !(crates.pavedM2 > 0)) return [];
  const half = Math.sqrt(crates.pavedM2) / 2;
  return [{ store: id, roof: [[x - half, y - half], [x + half, y - half], [x + half, y + half], [x - half, y + half]] }]; // prettier-ignore
}

export const tankDescriptor: Descriptor<Tank> = {
  kind: 'tank',
  title: 'Tank',
  family: 'store',
  sample: TANK_SAMPLE,
  fields: TANK_FIELDS,
  choices: TANK_CHOICES,
  lists: TANK_LISTS,
  validate: validateTank,
  traits: () => ({
    retains: 'vessel',
    canBlock: false,
    isConduit: false,
    canSilt: false,
    isCut: false,
    joinable: false,
    wayOut: null,
    standsAlone: true,
  }),
  references: [{ path: 'levelsWith', title: 'Joined to another vessel', label: 'Levels out with', none: 'none' }],
  refs: ({ levelsWith }) => (levelsWith === undefined ? [] : [{ role: 'to', id: levelsWith, path: 'levelsWith', whenGone: 'lets-go' }]),
  draws: TANK_DRAWS,
  footprint: ({ at: [x, y] }) => [
    [
      [x - 0.25, y],
      [x + 0.25, y],
    ],
  ],
  intakes: pavingOf,
  groundKey: ({ at, levelsWith }) => [at, levelsWith ?? null],
};
