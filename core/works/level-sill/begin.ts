import type { DrawSpec } from '../../contract/index.ts';
import { ON_HOST, beginWayOut } from '../beginning.ts';
import type { Technique } from '../../contract/index.ts';
import { type LevelSill, newSill } from './model.ts';

export const SILL_DRAWS: readonly DrawSpec[] = [{ id: 'level-sill', name: 'Level sill', ...ON_HOST }];

export const beginSill: Technique<LevelSill, unknown>['begin'] = (drawn, land) =>
  beginWayOut(drawn, land, { kind: 'level-sill', title: 'Level sill', work: ({ sillM, ...first }) => newSill({ ...first, sillM }) });
