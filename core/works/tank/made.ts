// What a tank is made of where it is not bought whole: mortar over mesh and bar, or crates in a lined pit.
import type { ChoiceSpec, FieldSpec } from '../../contract/index.ts';
import { choice, option } from '../fields.ts';

export interface Mortar {
  readonly top: 'dome' | 'slab';
  readonly wallM: number;
  readonly baseM: number;
  readonly barM: number;
  readonly barApartM: number;
  readonly meshLayers: number;
  readonly sand: number;
  readonly coats: number;
  readonly cureDays: number;
}

export interface Crates {
  /** What lies under the liner, what its pit is, what stands or drives over it, and what keeps silt out. */
  readonly underlay: 'cloth' | 'none';
  readonly pit: 'dug' | 'old-pool';
  readonly over: 'lawn' | 'patio' | 'vehicle';
  readonly trap: 'none' | 'sump';
  readonly voids: number;
  readonly coverM: number;
  readonly sandM: number;
  readonly lapM: number;
  /** Paving above that drains into it [m2]. */
  readonly pavedM2: number;
}

export const FIRST_MORTAR: Mortar = { top: 'dome', wallM: 0.05, baseM: 0.1, barM: 0.005, barApartM: 0.06, meshLayers: 2, sand: 2.5, coats: 3, cureDays: 14 }; // prettier-ignore
export const FIRST_CRATES: Crates = { underlay: 'cloth', pit: 'dug', over: 'lawn', trap: 'sump', voids: 0.95, coverM: 0.6, sandM: 0.1, lapM: 0.15, pavedM2: 0 }; // prettier-ignore

const m = (key: keyof Mortar, label: string, more: Pick<FieldSpec, 'help' | 'min' | 'max' | 'kind'>): FieldSpec => ({
  path: `mortar.${key}`,
  label,
  shownWhen: { path: 'made', is: ['mortar'] },
  ...more,
});
export const MORTAR_FIELDS: readonly FieldSpec[] = [
  m('wallM', 'Wall, thick', { kind: 'difference', min: 0.02, max: 0.2, help: '30 to 50 mm over mesh; without steel thickness earns nothing.' }),
  m('baseM', 'Slab under it, thick', { kind: 'difference', min: 0.05, max: 0.3, help: '75 to 100 mm on packed gravel.' }),
  m('barM', 'Wire or bar round it, thick', { kind: 'difference', min: 0.002, max: 0.016, help: '2.5 to 6 mm.' }),
  m('barApartM', 'Hoops stand apart at its foot', { kind: 'difference', min: 0.02, max: 0.5, help: 'Closer at its foot, half as close at its top.' }),
  m('meshLayers', 'Layers of netting', { kind: 'count', min: 0, max: 8, help: 'On both sides of the hoops.' }),
  m('sand', 'Sand to one of cement', { kind: 'number', min: 1, max: 6, help: '2 to 3 by weight: washed, sharp.' }),
  m('coats', 'Coats', { kind: 'count', min: 1, max: 8, help: 'Each thin, and left to set a day.' }),
  m('cureDays', 'Kept wet afterwards', { kind: 'days', min: 0, max: 60, help: '14 days; 7 at the least.' }),
]; // prettier-ignore

const c = (key: keyof Crates, label: string, more: Pick<FieldSpec, 'help' | 'min' | 'max' | 'kind'>): FieldSpec => ({
  path: `crates.${key}`,
  label,
  shownWhen: { path: 'made', is: ['crates'] },
  ...more,
});
export const CRATE_FIELDS: readonly FieldSpec[] = [
  c('voids', 'Share of the crates that water fills', { kind: 'number', min: 0.2, max: 0.98, help: '0.95 of crates, 0.35 of stone.' }),
  c('coverM', 'Soil over it', { kind: 'length', min: 0.1, max: 3, help: '0.5 m under a lawn, 0.8 m under wheels.' }),
  c('sandM', 'Sand under it', { kind: 'difference', min: 0, max: 0.5, help: 'Levelled, wetted and settled before the liner is laid.' }),
  c('lapM', 'Sheets of the liner lap', { kind: 'difference', min: 0, max: 1, help: '150 mm, welded or taped.' }),
  c('pavedM2', 'Paving above that drains into it', { kind: 'area', min: 0, max: 5000, help: 'Rain on it comes in as well.' }),
]; // prettier-ignore

const crates = { path: 'made', is: ['crates'] } as const;
export const MADE_CHOICES: readonly ChoiceSpec[] = [
  choice('made', 'It is', [option('bought', 'bought whole'), option('mortar', 'mortar over mesh and bar'), option('crates', 'crates in a lined pit')]),
  { ...choice('mortar.top', 'Its top is', [option('dome', 'a dome'), option('slab', 'a slab')]), shownWhen: { path: 'made', is: ['mortar'] } },
  { ...choice('crates.pit', 'They lie in', [option('dug', 'a pit that is dug'), option('old-pool', 'an old pool')]), shownWhen: crates },
  { ...choice('crates.underlay', 'Under the liner lies', [option('cloth', 'felt on both sides'), option('none', 'nothing')]), shownWhen: crates },
  { ...choice('crates.over', 'Over it will be', [option('lawn', 'a lawn'), option('patio', 'a patio'), option('vehicle', 'wheels')]), shownWhen: crates },
  { ...choice('crates.trap', 'Before it, silt is kept by', [option('none', 'nothing'), option('sump', 'a filter or sump')]), shownWhen: crates },
]; // prettier-ignore
