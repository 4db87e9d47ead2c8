// What comes to a store while a hand drags something above it: all but the same as before is taken as the same, until the hand rests.
import type { Arriving, Coming } from './arrivals.ts';

/**
 * Share of its greatest by which a flow may differ at any step, and of its volume, and still be all but the same: over a crest that is
 * a level less than 1 mm off for each half metre of head.
 */
export const NEAR = 0.002;

function isAllButTheSame(was: Arriving, is: Arriving): boolean {
  if (was.lagS !== is.lagS || was.share !== is.share) return false;
  const { flowM3s: before, peakM3s, volumeM3, id } = was.run;
  const { flowM3s: now } = is.run;
  if (before === now) return true;
  if (id !== is.run.id || before.length !== now.length) return false;
  if (Math.abs(is.run.volumeM3 - volumeM3) > NEAR * Math.abs(volumeM3)) return false;
  const most = NEAR * peakM3s;
  for (let i = 0; i < now.length; i++) if (Math.abs(now[i] - before[i]) > most) return false;
  return true;
}

/**
 * What came to the stores of a group before, as long as what comes `now` is all but the same; else what comes now. It is held against
 * what was last taken, so that many small steps do not add up.
 */
export function asItCame(before: Coming | undefined, now: Coming): Coming {
  const isSame =
    before?.length === now.length &&
    now.every((ways, k) => ways.length === before[k].length && ways.every((way, j) => isAllButTheSame(before[k][j], way)));
  return isSame ? before : now;
}
