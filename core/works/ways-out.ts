// Rules that any way out is judged by, with the words of its own technique.
import { type Exit, NEEDS_STORM, type Outlet, type Rule, type StormFacts } from '../contract/index.ts';
import { amount, say } from '../units/index.ts';
import { exitFlow, noneCarries } from './exit.ts';
import type { HostPlace } from './on-host.ts';
import { cureBy, downToMm, gradeMax } from './rules.ts';

export interface WayOutFacts extends StormFacts {
  readonly outlet: Outlet;
  readonly place: HostPlace;
}

/** Peak an outlet carried in the storm; null before a storm is known. */
export const peakThrough = ({ links, outlet }: WayOutFacts): number | null => links.find((l) => l.outlet === outlet.id)?.peakM3s ?? null;

/** What to do where a way out lets its water go onto ground without a level. */
export const GROUND_BELOW_UNKNOWN =
  'The ground below it is off the terrain: bring in terrain that reaches it, or level 10 m of it down the slope.';

/** Velocity of an outlet's water at its peak in the storm, against what it runs on. */
export function exitVelocityRule<F extends WayOutFacts>(id: string, advice: string): Rule<F> {
  return {
    id,
    title: 'Velocity where its water leaves',
    why: 'Water that runs faster than grass or stone stands cuts back towards the wall.',
    unit: 'm/s',
    kind: 'velocity',
    sense: 'max',
    source: { key: 'chow1959', locator: 'Table 7-6 (SCS TP-61) for cover; Isbash for stone', fromMemory: true },
    needs: NEEDS_STORM,
    applies: ({ outlet }) => outlet.exit !== undefined,
    find: (facts) => {
      const peak = peakThrough(facts);
      const { exit } = facts.outlet;
      const soil = exit && facts.site.soilAt(exit.at);
      if (peak === null || !exit || !soil) return null;
      const { velocityMs: value, standsMs } = exitFlow(exit, peak, soil.cover);
      if (exit.slope === null || value === null)
        return { value, limit: standsMs, at: exit.at, severity: 'unknown', do: GROUND_BELOW_UNKNOWN };
      if (standsMs === null) {
        return { value, limit: null, at: exit.at, severity: peak > 0 ? 'mend' : 'weigh', do: noneCarries(soil.cover, exit.slope) };
      }
      return {
        value,
        limit: standsMs,
        at: exit.at,
        severity: gradeMax(value, standsMs, 1.25 * standsMs),
        do: value > standsMs ? advice : 'Nothing: keep stock off it.',
      };
    },
  };
}

/** A way out cut into natural ground, not set on fill. */
export function onNaturalGroundRule<F extends WayOutFacts>(id: string): Rule<F> {
  return {
    id,
    title: 'On natural ground',
    why: 'Water over made ground cuts through it.',
    unit: 'm',
    kind: 'difference',
    sense: 'max',
    source: { key: 'common-practice', locator: 'spillways in natural ground, not on fill' },
    find: ({ outlet, place }) => {
      if (place.groundM === null) return null;
      const value = outlet.levelM - place.groundM;
      return {
        value,
        limit: 0,
        at: place.at,
        severity: gradeMax(value, 0.03, 0.15),
        do:
          value > 0.03
            ? say`Natural ground is ${amount(value, 'difference')} lower here: move it to the end of the wall, or lower it.`
            : 'Nothing.',
        ...cureBy(value > 0.03, {
          work: outlet.work,
          set: { 'levels.sillM': downToMm(place.groundM) },
          says: say`Lower it by ${amount(value, 'difference')}`,
        }),
      };
    },
  };
}

/** The exit of a sheet or a channel on the slope below its place. */
export const exitBelow = (place: HostPlace, exit: Omit<Exit, 'at' | 'slope'>): Exit => ({
  at: place.dischargeAt,
  slope: place.slopeBelow,
  ...exit,
});
