// How rare a storm a store must be judged by, by who lies below it.
import {
  type Below,
  type Check,
  type CrestStorm,
  type Hazard,
  type Missing,
  type Rule,
  type Store,
  type StoreBreach,
  type Traits,
  hazardOf,
} from '../contract/index.ts';
import { volumeAt } from '../network/index.ts';
import { type Said, amount, rough, say } from '../units/index.ts';
import { raiseCrest } from './crest.ts';
import { runRules } from '../works/rules.ts';

export interface HazardClass {
  readonly id: Hazard;
  readonly name: string;
  /** The same within a sentence. */
  readonly words: string;
  /** Least return period its ways out are made for, and in which the crest of a wall or of a bank must still stand [years]. */
  readonly waysYears: number;
  readonly wallYears: number;
  readonly bankYears: number;
}

/** Least return periods by what lies below: common practice for farm works, made after guidance for small dams. Local rules come first. */
export const HAZARD_CLASSES: readonly HazardClass[] = [
  { id: 'nobody', name: 'Nobody below', words: 'nobody below', waysYears: 10, wallYears: 50, bankYears: 20 },
  { id: 'track', name: 'A track or a shed', words: 'a track or a shed below', waysYears: 20, wallYears: 100, bankYears: 50 },
  { id: 'building', name: 'A building or a road', words: 'a building or a road below', waysYears: 50, wallYears: 200, bankYears: 100 },
  { id: 'homes', name: 'People sleep there', words: 'people sleeping below', waysYears: 100, wallYears: 1000, bankYears: 200 },
];

const classOf = (hazard: Hazard): HazardClass => HAZARD_CLASSES.find((c) => c.id === hazard) ?? HAZARD_CLASSES[0];
const gravity = (hazard: Hazard): number => HAZARD_CLASSES.findIndex((c) => c.id === hazard);

/** What held back above others falls under a class: what has a wall, a bank or the sides of a vessel. */
export const canFail = ({ retains }: Pick<Traits, 'retains'>): boolean => retains === 'wall' || retains === 'bank';

/** Return period in which the crest of a store must still stand [years]; of the mildest class while none is known. */
export function crestYears(below: Below, { retains }: Pick<Traits, 'retains'>): number {
  const { wallYears, bankYears } = classOf(hazardOf(below) ?? 'nobody');
  return retains === 'wall' ? wallYears : bankYears;
}

export interface HazardFacts {
  readonly missing: readonly Missing[];
  readonly store: Store;
  readonly traits: Traits;
  readonly below: Below;
  /** Return period of the storms it is judged by; null where they have none, as a storm of one's own. */
  readonly years: number | null;
  /** How its crest stands the storm it must hold; null where that was not looked at. */
  readonly crest: CrestStorm | null;
  /** What comes down when it goes; null where nothing would. */
  readonly breach: StoreBreach | null;
}

/** Water up to the crest that can hurt someone when all of it comes at once [m3]: common practice. */
const HARMFUL_M3 = 50;

const whatLiesBelow: Rule<HazardFacts> = {
  id: 'hazard.class',
  title: 'Who lies below',
  why: 'How rare a storm a bank must stand hangs on who is there when it does not: a field heals, a bedroom does not.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { key: 'common-practice', locator: 'walk the way of the flood down to the next river before you build' },
  applies: ({ store }) => volumeAt(store.stage, store.crestM) >= HARMFUL_M3,
  find: ({ below, breach }) => {
    const { said, seen } = below;
    const flood: Said = breach ? say` If it goes, about ${amount(rough(breach.peakM3s), 'flow')} comes down, roughly.` : '';
    if (said !== null) {
      const isLess = seen !== null && gravity(said) < gravity(seen.hazard);
      return {
        severity: isLess ? 'weigh' : 'fine',
        value: null,
        limit: null,
        at: isLess ? seen.at : null,
        title: `Said to have ${classOf(said).words}`,
        do: isLess
          ? say`The map shows ${seen.name}, ${amount(seen.alongM, 'distance')} down the way of its flood: make sure that it cannot be reached.`
          : 'Nothing.',
      };
    }
    if (seen === null)
      return {
        severity: 'unknown',
        value: null,
        limit: null,
        do: say`Draw what lies below it, bring in the land further down, or say on its sheet who is there: the storm it must stand hangs on that.${flood}`,
      };
    return {
      severity: 'weigh',
      value: null,
      limit: null,
      at: seen.at,
      title: `Nobody has said who lies below: taken as ${classOf(seen.hazard).words}`,
      do:
        seen.feature === null
          ? say`The map shows nobody in the way of its flood. Walk it, beyond your line too, and say on its sheet who is there.${flood}`
          : say`By the map: ${seen.name}, ${amount(seen.alongM, 'distance')} down the way of its flood. Say on its sheet who is there, and whether people sleep in it.${flood}`,
    };
  },
};

const LOCAL = 'local rules first';

const waysOutYears: Rule<HazardFacts> = {
  id: 'hazard.ways-out',
  title: 'Return period its ways out are judged by',
  why: 'What is fine in a storm that comes every other year says nothing of the one that breaks it.',
  unit: 'years',
  kind: 'years',
  sense: 'min',
  source: {
    key: 'cps-378',
    locator: `auxiliary spillways of small ponds, 10 to 50 years, more with people below; ${LOCAL}`,
    fromMemory: true,
  },
  needs: ['rain'],
  find: ({ below, years }) => {
    const hazard = hazardOf(below);
    if (years === null)
      return {
        severity: 'unknown',
        value: null,
        limit: hazard === null ? null : classOf(hazard).waysYears,
        do: 'A storm of your own has no return period: judge it by a storm of the rain table too.',
      };
    const least = HAZARD_CLASSES[0].waysYears;
    const most = HAZARD_CLASSES[HAZARD_CLASSES.length - 1].waysYears;
    if (hazard === null && years >= least && years < most)
      return {
        severity: 'unknown',
        value: null,
        limit: null,
        do: 'Say on its sheet who lies below it: the least that is usual hangs on that.',
      };
    const limit = hazard === null ? (years < least ? least : most) : classOf(hazard).waysYears;
    return {
      severity: years < limit ? 'mend' : 'fine',
      value: years,
      limit,
      do: years < limit ? `Design for 1 in ${limit} years at least, under Rain, and see what is to mend then.` : 'Nothing.',
    };
  },
};

const crestStands: Rule<HazardFacts> = {
  id: 'hazard.crest',
  title: 'Crest in the rare storm it must stand',
  why: 'A bank that water runs over is cut through, and everything it held comes down at once.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: {
    key: 'fema-p94',
    locator: `table 2: 1 in 100 years for low hazard, 1 in 1000 for significant; less for banks by common practice; ${LOCAL}`,
    fromMemory: true,
  },
  needs: ['rain', 'ground'],
  applies: ({ crest }) => crest !== null,
  find: ({ below, crest, store }) => {
    if (!crest) return null;
    const { years, leftM: value } = crest;
    const rare = `1 in ${years} years`;
    if (value === null)
      return {
        severity: 'unknown',
        value,
        limit: 0,
        title: `Crest in the storm of ${rare}, which the rain table does not hold`,
        do: `Find a table that reaches 1 in ${years} years, or have it judged by a licensed engineer.`,
      };
    if (value < 0)
      return {
        severity: 'mend',
        value,
        limit: 0,
        title: say`The crest is passed by ${amount(-value, 'difference')} in the storm of ${rare}`,
        do: say`Raise the crest or widen its ways out: with ${hazardWords(below)} it must stand that storm.`,
        ...raiseCrest(store, -value),
      };
    const isKnown = hazardOf(below) !== null;
    return {
      severity: isKnown ? 'fine' : 'unknown',
      value,
      limit: 0,
      title: `Crest in the storm of ${rare}`,
      do: isKnown ? 'Nothing.' : 'It stands the storm asked for where nobody is below. Say on its sheet who is there.',
    };
  },
};

const hazardWords = (below: Below): string => classOf(hazardOf(below) ?? 'nobody').words;

export const HAZARD_RULES: readonly Rule<HazardFacts>[] = [whatLiesBelow, waysOutYears, crestStands];

/** Checks of a store against who lies below it. */
export const checkHazard = (facts: HazardFacts): Check[] => (canFail(facts.traits) ? runRules(HAZARD_RULES, facts, facts.store.work) : []);
