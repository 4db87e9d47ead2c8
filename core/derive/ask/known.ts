// How near the ground is known, asked as a whole.
import { type Project, fail } from '../../project/index.ts';
import { knownOver } from '../../terrain/index.ts';
import type { RoomContext } from '../set/laid.ts';
import { groundModel } from '../world/ground-model.ts';
import { knownIn } from '../world/world.ts';

export interface HowKnown {
  /** Share of the ground of which anybody knows how near it is known. */
  readonly share: number;
  /** How near half of that, and nine tenths of it, are known at least, and the worst of it [m]; null where nobody knows of any. */
  readonly halfM: number | null;
  readonly mostM: number | null;
  readonly worstM: number | null;
}

/** How near the ground is known, over all of it. @throws UserError without ground. */
export function howKnown(project: Project, context: RoomContext): HowKnown {
  const model = groundModel(project, context) ?? fail('terrain.missing', 'there is no ground yet', { do: 'Bring in a terrain grid or survey points first.' });
  const { grid } = model;
  const all = knownOver(knownIn(project, context), grid);
  const ground = grid.z.reduce((n, level) => (Number.isNaN(level) ? n : n + 1), 0);
  const found = all.filter((v) => !Number.isNaN(v)).sort();
  const at = (share: number): number | null => (found.length === 0 ? null : found[Math.min(found.length - 1, Math.floor(share * found.length))]);
  return { share: ground === 0 ? 0 : found.length / ground, halfM: at(0.5), mostM: at(0.9), worstM: at(1) };
} // prettier-ignore
