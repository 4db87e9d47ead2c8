// The rule on the tilt of a swale's water line, and what would take it away.
import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { lineLength, pointAlong } from '../../geometry/index.ts';
import { type Amount, amount, say } from '../../units/index.ts';
import { gradeMax } from '../rules.ts';
import type { SwaleFacts } from './place-checks.ts';
import { highestOn, leavingAt, waterLine } from './water-line.ts';

/** A tilt no greater than this is lost in the levelling of a bank [m]: common practice, twice its tolerance. */
const LEVEL_ENOUGH_M = 0.05;
/** A sill so near the middle of its swale can hardly be moved to better [share of its length]. */
const NEAR_MIDDLE = 0.1;

export const farEnd: Rule<SwaleFacts> = {
  id: 'swale.far-end',
  isOfLevels: true,
  title: 'Rise of its water line from the sill to the far end',
  why: 'A level swale that carries flow to its sill is not level on top: the far end stands higher, and its bank has less left there.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: { key: 'chow1959', locator: 'section 12-4, spatially varied flow by steps; 50 mm: common practice', fromMemory: true },
  needs: NEEDS_STORM,
  applies: ({ swale, store }) => swale.joins === undefined && store?.tilt !== undefined,
  find: ({ swale, store, storm }) => {
    if (!store || !storm) return null;
    const levelM = storm.peakLevelM;
    const lengthM = lineLength(swale.line);
    const leaving = leavingAt(swale, store.outlets, levelM);
    const { riseM: value, atM } = highestOn(waterLine(swale, { lengthM, leaving, levelM }));
    const flowM3s = leaving.reduce((sum, l) => sum + l.flowM3s, 0);
    const risesBy = (...shares: readonly number[]): Amount => {
      const sills = shares.map((share) => ({ atM: share * lengthM, flowM3s: flowM3s / shares.length }));
      return amount(highestOn(waterLine(swale, { lengthM, leaving: sills, levelM })).riseM, 'difference');
    };
    const [only] = leaving;
    const canMove = leaving.length === 1 && Math.abs(only.atM / lengthM - 0.5) > NEAR_MIDDLE;
    return {
      value,
      limit: LEVEL_ENOUGH_M,
      at: value > 0 ? pointAlong(swale.line, atM).point : null,
      severity: gradeMax(value, LEVEL_ENOUGH_M, Infinity),
      do:
        value <= LEVEL_ENOUGH_M
          ? 'Nothing.'
          : canMove
            ? say`Bring the sill to the middle: it rises ${risesBy(0.5)} then. Or let it out over two, a quarter in from both ends: ${risesBy(0.25, 0.75)}.`
            : leaving.length === 1
              ? say`Let it out over two sills, a quarter in from both ends: it rises ${risesBy(0.25, 0.75)} then. Or widen its floor.`
              : say`Add a sill near ${amount(atM, 'distance')} along it, where it stands highest, or widen its floor.`,
    };
  },
};
