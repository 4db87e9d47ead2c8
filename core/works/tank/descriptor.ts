// A vessel: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { TANK_DRAWS, TANK_SAMPLE } from './create.ts';
import { TANK_CHOICES, TANK_FIELDS, TANK_LISTS, type Tank, validateTank } from './model.ts';

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
  intakes: () => [],
  groundKey: ({ at, levelsWith }) => [at, levelsWith ?? null],
};
