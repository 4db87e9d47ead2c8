// A sump to begin with, and how one is drawn: without what works it out.
import type { DrawSpec } from '../../contract/index.ts';
import type { Sump } from './model.ts';

export const newSump = (id: string, name: string, first: Pick<Sump, 'line' | 'levels'> & { readonly lengthM: number; readonly inletM?: number }): Sump => ({
  id,
  kind: 'sump-pump',
  name,
  status: 'planned',
  line: first.line,
  top: 'grate',
  backup: 'none',
  alarm: 'no',
  valve: 'yes',
  circuit: 'unknown',
  goes: 'own-ground',
  asked: 'not-asked',
  levels: first.levels,
  ...(first.inletM === undefined ? {} : { inletM: first.inletM }),
  diameterM: 0.6,
  flowM3s: 0.002,
  ratedHeadM: 4,
  efficiency: 0.3,
  pipe: { lengthM: first.lengthM, diameterM: 0.05, wall: 'plastic' },
}); // prettier-ignore

export const SUMP_SAMPLE = newSump('sump-pump', 'Sump', {
  line: [[0, 0], [10, 0]],
  levels: { floorM: 98.8, stopM: 99, startM: 99.4, rimM: 100, deliveryM: 100.2 },
  lengthM: 12,
}); // prettier-ignore

export const SUMP_DRAWS: readonly DrawSpec[] = [
  { id: 'sump-pump', name: 'Sump with a pump', what: 'line', least: 2, hint: 'Click where the pit stands, then along its pipe to where its water is let go; double-click to end.', seesStores: true },
]; // prettier-ignore
