// What the ground that was given cannot tell, and what it sends down to a work.
import type { Check, Rule } from '../contract/index.ts';
import { amount, say } from '../units/index.ts';
import { COMMON_PRACTICE, gradeMin, runRules } from '../works/rules.ts';
import { notYours } from './not-yours.ts';

export interface GroundFacts {
  /** Why the chosen time or peak should not be used for this catchment; empty where it may. */
  readonly unfitTime: readonly string[];
  readonly unfitPeak: readonly string[];
  readonly tcMin: number;
  readonly peakM3s: number;
  /** Least and most that runs off by the ways to losses there are [mm]; null where hardly any does. */
  readonly lossesMm: { readonly leastMm: number; readonly mostMm: number } | null;
  /** Share of the catchment whose soil is full before the longest storm ends, by the way of losses chosen; null where that knows no full soil. */
  readonly soilFullShare: number | null;
  /** Whether the ground is a start to correct, not what anybody found. */
  readonly isExample: boolean;
  /** Whether the land itself was made up to try things on. */
  readonly isMadeUp: boolean;
  /** The rate under the work, and whether it comes from a test; null where none is asked for. */
  readonly rate: { readonly isTested: boolean; readonly mmPerHour: number } | null;
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

/** Ways that differ by more than this share of the most are not told apart by choosing one (common practice). */
const LOSSES_APART = 0.5;

const lossesApart: Rule<GroundFacts> = {
  id: 'runoff.losses-apart',
  title: 'Runoff by one way of losses against another',
  why: 'Each way sees the ground by other figures. Where they differ by more than half, what is known of the ground does not tell how much runs off.',
  unit: '',
  kind: 'percent',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'a second method beside the first' },
  applies: ({ lossesMm }) => lossesMm !== null,
  find: ({ lossesMm }) => {
    if (!lossesMm) return null;
    const { leastMm, mostMm } = lossesMm;
    const value = 100 * (1 - leastMm / mostMm);
    const isApart = value > 100 * LOSSES_APART;
    return {
      value,
      limit: 100 * LOSSES_APART,
      severity: isApart ? 'weigh' : 'fine',
      do: isApart
        ? say`From ${amount(leastMm, 'rain')} to ${amount(mostMm, 'rain')} runs off, by the way chosen: test how fast the soil takes in water, or design by the most.`
        : 'Nothing.',
    };
  },
};

const soilFull: Rule<GroundFacts> = {
  id: 'runoff.soil-full',
  title: 'Share of the catchment whose soil fills in the storm',
  why: 'Soil over rock or water takes in no more when it is full, whatever its rate: all that falls after that runs off, wherever the dry slope had none before.',
  unit: '',
  kind: 'percent',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'depth of soil times the share of it that drains' },
  applies: ({ soilFullShare }) => soilFullShare !== null,
  find: ({ soilFullShare }) => {
    if (soilFullShare === null) return null;
    return {
      value: 100 * soilFullShare,
      limit: 0,
      severity: soilFullShare > 0 ? 'weigh' : 'fine',
      do:
        soilFullShare > 0
          ? 'Dig a hole up there to see how deep the soil is: the storm is worked out as if it were full by then.'
          : 'Nothing.',
    };
  },
};

const invented = notYours<GroundFacts>(
  {
    id: 'ground.not-yours',
    title: 'This ground is not yours yet',
    why: 'It is a start to correct: nobody has said that your ground is so, and half or twice the runoff would be no surprise.',
  },
  { isIt: ({ isExample }) => isExample, mend: 'Correct it under Ground, or say there that it is right.' },
);

const madeUp = notYours<GroundFacts>(
  {
    id: 'terrain.not-yours',
    title: 'This land is made up',
    why: 'Nobody levelled it: what is sized and pegged on it would stand on other ground.',
  },
  { isIt: ({ isMadeUp }) => isMadeUp, mend: 'Bring in your own levels under Land before anything is pegged or built.' },
);

const untested: Rule<GroundFacts> = {
  id: 'ground.rate-tested',
  title: 'Rate of soaking found by a test',
  why: 'Rates told by texture or habit are off by three times or more either way; a ring or a hole tells in an afternoon.',
  unit: 'mm/h',
  kind: 'intensity',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'scatter of rates within a texture is a factor of 3 to 10' },
  applies: ({ rate }) => rate !== null,
  find: ({ rate }) =>
    rate && {
      value: rate.mmPerHour,
      limit: null,
      severity: rate.isTested ? 'fine' : 'unknown',
      do: rate.isTested ? 'Nothing.' : 'Dig a hole or drive a ring where this work will stand: Ground, Tests.',
    },
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

export const GROUND_RULES: readonly Rule<GroundFacts>[] = [timeMethod, peakMethod, lossesApart, soilFull, invented, madeUp, untested, silt];

export const checkGround = (facts: GroundFacts, on: string): Check[] => runRules(GROUND_RULES, facts, on);
