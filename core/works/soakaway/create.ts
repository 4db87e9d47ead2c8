// A soakaway to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Line } from '../../geometry/index.ts';
import type { Soakaway } from './model.ts';

/** Over how long a line water is led to a pit or a shaft at first [m]. */
export const LED_M = 4;

type Form = Soakaway['form'];
const FIRST: Readonly<Record<Form, Pick<Soakaway, 'fill' | 'soaksBy' | 'cover'> & { readonly depthM: number; readonly widthM: number }>> = {
  trench: { fill: 'stone', soaksBy: 'base', cover: 'buried', depthM: 1, widthM: 0.6 },
  pit: { fill: 'stone', soaksBy: 'sides', cover: 'buried', depthM: 1.5, widthM: 1.5 },
  shaft: { fill: 'rings', soaksBy: 'sides', cover: 'grate', depthM: 4, widthM: 1 },
};

/** What each form goes by. */
export const SOAKAWAY_NAMES: Readonly<Record<Form, string>> = { trench: 'Soak trench', pit: 'Soak pit', shaft: 'Recharge shaft' };

export const newSoakaway = (id: string, name: string, { form, line }: { readonly form: Form; readonly line: Line }): Soakaway => {
  const { depthM, widthM, ...own } = FIRST[form];
  return {
    id,
    kind: 'soakaway',
    name,
    status: 'planned',
    form,
    ...own,
    line,
    trap: 'sump',
    wrap: 'cloth',
    asked: 'not-asked',
    dimensions: { depthM, widthM, voids: 0.36, surroundM: 0.2, wayWidthM: form === 'trench' ? 2 : 1, bermM: 0.1, safety: 2 },
    labour: { m3PerDay: 2 },
  };
};

export const SOAKAWAY_SAMPLE = newSoakaway('soakaway', 'Soakaway', { form: 'trench', line: [[0, 0], [12, 0]] }); // prettier-ignore

const PLACE = { what: 'point', least: 1, most: 1 } as const;
export const SOAKAWAY_DRAWS: readonly DrawSpec[] = [
  {
    id: 'soak-trench',
    name: SOAKAWAY_NAMES.trench,
    what: 'line',
    least: 2,
    hint: 'Click along the slope, so that it lies level; double-click to end.',
  },
  { id: 'soak-pit', name: SOAKAWAY_NAMES.pit, ...PLACE, hint: 'Click where water gathers and the ground takes it in.' },
  { id: 'soak-shaft', name: SOAKAWAY_NAMES.shaft, ...PLACE, hint: 'Click where a deeper layer that takes in water was found.' },
];
