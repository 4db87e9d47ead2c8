// Where the slots of a pattern lie, by its key line and field alone.
import type { Line } from '../../geometry/index.ts';
import { inside, parallelTo } from '../field/lines.ts';
import type { Ripping } from './model.ts';

/** The key line and all that keep beside it, uphill first. */
export function slotLines({
  line,
  ring,
  dimensions: { spacingM, upM, downM },
}: Pick<Ripping, 'line' | 'ring' | 'dimensions'>): readonly Line[] {
  const up = Math.floor(upM / spacingM + 1e-9);
  const down = Math.floor(downM / spacingM + 1e-9);
  return Array.from({ length: up + down + 1 }, (_, k) => (k - up) * spacingM).flatMap((away) =>
    parallelTo(line, away).flatMap((l) => (ring ? inside(l, ring) : [l])),
  );
}
