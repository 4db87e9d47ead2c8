// What the ground that was given cannot tell, and what it sends down to a work.
import type { Check, Rule } from '../contract/index.ts';
import { amount, say } from '../units/index.ts';
import { COMMON_PRACTICE, gradeMin, runRules } from '../works/rules.ts';

export interface GroundFacts {
  /** Why the chosen time or peak should not be used for this catchment; empty where it may. */
  readonly unfitTime: readonly string[];
  readonly unfitPeak: readonly string[];
  readonly tcMin: number;
  readonly peakM3s: number;
  /** Whether the rate under the work comes from a test. */
  readonly isTested: boolean;
  readonly rateMmPerHour: number;
  /** Years until a fifth of the store is silt; null where soil loss is not worked out or nothing arrives. */
  readonly yearsToSilt: number | null;
}

const timeMethod: Rule<GroundFacts> = {
  id: 'runoff.time-method',
  title: 'Time of concentration by a method outside its range',
  why: 'Peak and hydrograph follow from it: half the time may nearly double the peak.',
  unit: 'min',
  kind: 'minutes',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'ranges as each method’s source has them' },
  find: ({ unfitTime, tcMin }) => ({
    value: tcMin,
    limit: null,
    severity: unfitTime.length > 0 ? 'weigh' : 'fine',
    do: unfitTime.length > 0 ? `Choose another under Ground, Runoff: ${unfitTime.join('; ')}.` : 'Nothing.',
  }),
};

const peakMethod: Rule<GroundFacts> = {
  id: 'runoff.peak-method',
  title: 'Peak by a method outside its range',
  why: 'Sills and spillways are made for this peak.',
  unit: 'm³/s',
  kind: 'flow',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'ranges as each method’s source has them' },
  find: ({ unfitPeak, peakM3s }) => ({
    value: peakM3s,
    limit: null,
    severity: unfitPeak.length > 0 ? 'weigh' : 'fine',
    do: unfitPeak.length > 0 ? `Choose another under Ground, Runoff: ${unfitPeak.join('; ')}.` : 'Nothing.',
  }),
};

const untested: Rule<GroundFacts> = {
  id: 'ground.rate-tested',
  title: 'Rate of soaking found by a test',
  why: 'Rates told by texture or habit are off by three times or more either way; a ring or a hole tells in an afternoon.',
  unit: 'mm/h',
  kind: 'intensity',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'scatter of rates within a texture is a factor of 3 to 10' },
  find: ({ isTested, rateMmPerHour }) => ({
    value: rateMmPerHour,
    limit: null,
    severity: isTested ? 'fine' : 'unknown',
    do: isTested ? 'Nothing.' : 'Dig a hole or drive a ring where this work will stand: Ground, Tests.',
  }),
};

/** Years of use below which silt rules a work: common practice. */
const [MEND_YEARS, WEIGH_YEARS] = [2, 5];

const silt: Rule<GroundFacts> = {
  id: 'ground.silt',
  title: 'Years until a fifth of it is silt',
  why: 'Bare ground above fills a work with soil: heal it first, or trap the soil before the water gets here.',
  unit: 'years',
  kind: 'years',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'dig out when a fifth is lost' },
  find: ({ yearsToSilt }) => {
    if (yearsToSilt === null) return null;
    const severity = gradeMin(yearsToSilt, MEND_YEARS, WEIGH_YEARS);
    return {
      value: yearsToSilt,
      limit: WEIGH_YEARS,
      severity,
      do:
        severity === 'fine'
          ? 'Nothing.'
          : say`Cover the ground above, or plan to dig it out every ${amount(Math.max(1, yearsToSilt), 'years')}.`,
    };
  },
};

export const GROUND_RULES: readonly Rule<GroundFacts>[] = [timeMethod, peakMethod, untested, silt];

export const checkGround = (facts: GroundFacts, on: string): Check[] => runRules(GROUND_RULES, facts, on);
