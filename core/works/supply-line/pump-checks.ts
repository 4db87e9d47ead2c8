// Rules on the pump of a water line.
import type { Rule } from '../../contract/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, gradeMax, gradeMin } from '../rules.ts';
import { type SupplyLineFacts, fallOf, lossAt, panelsFor, pipeFor, pumpPower } from './standing.ts';
import { byPump, widened } from './told.ts';

const suction: Rule<SupplyLineFacts> = {
  id: 'supply-line.suction',
  title: 'Height the pump sucks',
  why: 'Water is pushed up by the air alone: from seven metres on it boils off in the pipe and the pump runs dry.',
  unit: 'm',
  kind: 'length',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'six metres in practice at the sea, a metre less for each 1000 m up' },
  applies: (facts) => byPump(facts) && facts.work.pump.stands === 'dry',
  find: ({ work }) => {
    const value = work.pump.overM;
    return {
      value,
      limit: 6,
      severity: gradeMax(value, 6, 7),
      do: value > 6 ? 'Stand the pump lower, or hang one in the water.' : 'Nothing.',
    };
  },
};

const pumpLoss: Rule<SupplyLineFacts> = {
  id: 'supply-line.pump-loss',
  title: 'Head lost in the pipe, of what it lifts and leaves',
  why: 'Head lost in a thin pipe is paid every hour the pump runs.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'losses up to a fifth' },
  applies: (facts) => byPump(facts) && Math.max(0, -fallOf(facts.work)) + facts.work.endHeadM > 0,
  find: ({ work, ground }) => {
    const useful = Math.max(0, -fallOf(work)) + work.endHeadM;
    const value = lossAt(work.flowM3s, work, ground.lengthM) / useful;
    const wide = pipeFor(work.flowM3s, 0.2 * useful, { ...work, lengthM: ground.lengthM });
    return {
      value,
      limit: 0.2,
      severity: gradeMax(value, 0.2, 1),
      ...(value > 0.2 ? widened(work, wide, 'Pump less for longer.') : { do: 'Nothing.' }),
    };
  },
};

const plate: Rule<SupplyLineFacts> = {
  id: 'supply-line.pump-power',
  title: 'Power of the pump, of what it must take',
  why: 'A pump too weak stands and hums against the hill.',
  unit: 'W',
  kind: 'power',
  sense: 'min',
  source: { key: 'geometry', locator: 'weight of water times height over efficiency' },
  applies: byPump,
  find: ({ work, ground }) => {
    const limit = pumpPower(work, ground);
    const value = work.pump.plateW;
    if (value === undefined)
      return {
        value: null,
        limit,
        severity: 'unknown',
        do: say`Choose a pump by its curve that takes about ${amount(limit, 'power')}, and note its plate.`,
      };
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? 'Take a stronger pump, or pump less for longer.' : 'Nothing.',
    };
  },
};

const panels: Rule<SupplyLineFacts> = {
  id: 'supply-line.panels',
  title: 'Panels, of what the day’s water asks for',
  why: 'With too few panels the pump starts late, stops early, and the tank is empty by August.',
  unit: 'W',
  kind: 'power',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '2.725 Wh a cubic metre and metre, over what pump and panels lose' },
  applies: (facts) => byPump(facts) && facts.work.pump.power === 'sun',
  find: ({ work, ground }) => {
    const limit = panelsFor(work, ground);
    const value = work.pump.panelsW;
    if (value === undefined)
      return {
        value: null,
        limit,
        severity: 'unknown',
        do: say`It asks for panels of ${amount(limit, 'power')} at their peak: note what you have.`,
      };
    return {
      value,
      limit,
      severity: gradeMin(value, 0.7 * limit, limit),
      do: value < limit ? 'Add panels, or ask for less water a day.' : 'Nothing.',
    };
  },
};

export const PUMPED_RULES: readonly Rule<SupplyLineFacts>[] = [suction, pumpLoss, plate, panels];
