import type { CommandType, PayloadOf } from './types.ts';

type Members<T> = { readonly [K in keyof T]-?: undefined extends T[K] ? 'may' : 'needs' };

/** The members of each command's payload, and which of them it cannot do without. */
export const PAYLOADS: { readonly [T in CommandType]: Members<PayloadOf<T>> } = {
  'project.rename': { name: 'needs' },
  'site.set': { crs: 'may', outline: 'may', zeroLevelM: 'may' },
  'terrain.set': { terrain: 'needs', crs: 'needs' },
  'pin.add': { pin: 'needs' },
  'pin.move': { id: 'needs', at: 'needs' },
  'pin.remove': { id: 'needs' },
  'feature.add': { feature: 'needs' },
  'feature.change': { id: 'needs', set: 'needs' },
  'feature.remove': { id: 'needs' },
  'land.set': { land: 'needs' },
  'rain.set': { rain: 'needs' },
  'rain.set-storm': { storm: 'needs' },
  'gauge.set': { gauge: 'needs' },
  'ground.set': { ground: 'needs' },
  'zone.add': { zone: 'needs' },
  'zone.change': { id: 'needs', set: 'needs' },
  'zone.remove': { id: 'needs' },
  'test.add': { test: 'needs' },
  'test.change': { id: 'needs', set: 'needs' },
  'test.remove': { id: 'needs' },
  'runoff.set': { runoff: 'needs' },
  'case.add': { case: 'needs' },
  'case.change': { id: 'needs', set: 'needs' },
  'case.remove': { id: 'needs' },
  'link.set': { outlet: 'needs', to: 'needs' },
  'start.set': { store: 'needs', levelM: 'needs' },
  'hazard.set': { store: 'needs', hazard: 'needs' },
  'survey.set': { survey: 'needs' },
  'works.add': { works: 'needs' },
  'works.change': { changes: 'needs' },
  'works.remove': { ids: 'needs' },
};
