// A vessel to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import { FIRST_CRATES, FIRST_MORTAR } from './made.ts';
import type { Tank } from './model.ts';

type Size = Pick<Tank['dimensions'], 'diameterM' | 'heightM' | 'standM' | 'inletM' | 'overflowM' | 'overflowPipeM'>;

/** What is drawn first: a barrel on a stand, a cube in its cage, a cistern on a slab. */
export const FIRST_SIZES: Readonly<Record<string, { readonly title: string; readonly form: Tank['form']; readonly stands: Tank['stands']; readonly boxM?: readonly [number, number]; readonly made?: Tank['made'] } & Size>> = {
  barrel: { title: 'Barrel', form: 'upright', stands: 'blocks', diameterM: 0.58, heightM: 0.85, standM: 0.4, inletM: 0.8, overflowM: 0.75, overflowPipeM: 0.06 },
  tote: { title: 'Tote', form: 'box', stands: 'blocks', boxM: [1.1, 0.95], diameterM: 1, heightM: 1, standM: 0.4, inletM: 0.95, overflowM: 0.88, overflowPipeM: 0.09 },
  cistern: { title: 'Cistern', form: 'upright', stands: 'slab', diameterM: 2.4, heightM: 2.2, standM: 0.15, inletM: 2.1, overflowM: 2, overflowPipeM: 0.11 },
  'mortar-tank': { title: 'Cement tank', form: 'upright', stands: 'slab', made: 'mortar', diameterM: 2.6, heightM: 2, standM: 0.1, inletM: 1.9, overflowM: 1.86, overflowPipeM: 0.11 },
  'crate-tank': { title: 'Crate tank', form: 'box', stands: 'buried', made: 'crates', boxM: [4, 2.4], diameterM: 2, heightM: 1.2, standM: -1.8, inletM: 1.1, overflowM: 1.06, overflowPipeM: 0.11 },
}; // prettier-ignore

export function newTank(id: string, name: string, { how, at }: { readonly how: string; readonly at: Point }): Tank {
  const { form, stands, boxM = [1, 1], made = 'bought', ...first } = FIRST_SIZES[how] ?? FIRST_SIZES.cistern;
  const { diameterM, heightM, standM, inletM, overflowM, overflowPipeM } = first;
  return {
    id,
    kind: 'tank',
    name,
    status: 'planned',
    at,
    form,
    lid: 'closed',
    wall: 'dark',
    screen: 'mesh',
    stands,
    fitting: 'through',
    draws: made === 'crates' ? 'pump' : 'tap',
    use: 'garden',
    treated: 'none',
    made,
    mortar: FIRST_MORTAR,
    crates: FIRST_CRATES,
    frost: 'not-said',
    count: 1,
    dimensions: {
      diameterM,
      heightM,
      standM,
      inletM,
      overflowM,
      overflowPipeM,
      topM: diameterM,
      lengthM: boxM[0],
      widthM: boxM[1],
      tapM: 0.08,
    },
  };
}

export const TANK_SAMPLE = newTank('tank', 'Cistern', { how: 'cistern', at: [0, 0] });

const PLACE = { what: 'point', least: 1, most: 1 } as const;
export const TANK_DRAWS: readonly DrawSpec[] = [
  { id: 'cistern', name: 'Cistern', ...PLACE, hint: 'Click where it stands: lower than the eaves it is filled from.' },
  { id: 'tote', name: 'Totes', ...PLACE, hint: 'Click where the first of them stands.' },
  { id: 'barrel', name: 'Barrel', ...PLACE, hint: 'Click the downpipe it stands under.' },
  { id: 'mortar-tank', name: 'Cement tank', ...PLACE, hint: 'Click where it is built: on firm ground, lower than the eaves.' },
  { id: 'crate-tank', name: 'Buried crate tank', ...PLACE, hint: 'Click the middle of the pit: clear of footings, pipes and trees.' },
];
