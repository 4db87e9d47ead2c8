// Rules on drip lines at the end of a water line.
import type { Rule } from '../../contract/index.ts';
import { say } from '../../units/index.ts';
import { cureBy, gradeMax, gradeMin } from '../rules.ts';
import { type SupplyLineFacts, dripsOf } from './standing.ts';
import { litres } from './told.ts';

const dripEven: Rule<SupplyLineFacts> = {
  id: 'supply-line.drip-even',
  title: 'Less at the last dripper than at the first',
  why: 'Where the far end of a line gets half, those plants die or all others are drowned.',
  unit: 'ratio',
  kind: 'slope',
  sense: 'max',
  source: { key: 'keller-bliesner-1990', locator: 'a tenth between the ends of a line', fromMemory: true },
  applies: ({ work }) => work.serves === 'drip',
  find: ({ work }) => {
    const value = dripsOf(work).less;
    return {
      value,
      limit: 0.1,
      severity: gradeMax(value, 0.1, 0.2),
      do: value > 0.1 ? 'Lay shorter lines, fed from their middle, or wider ones.' : 'Nothing.',
    };
  },
};

const dripFlow: Rule<SupplyLineFacts> = {
  id: 'supply-line.drip-flow',
  title: 'Flow wanted, of what the drippers let out',
  why: 'Less than all drippers together let out fills only the first lines.',
  unit: 'm³/s',
  kind: 'tapFlow',
  sense: 'min',
  source: { key: 'keller-bliesner-1990', locator: 'flow of a dripper by its head', fromMemory: true },
  applies: ({ work }) => work.serves === 'drip',
  find: ({ work }) => {
    const limit = dripsOf(work).allM3s;
    const value = work.flowM3s;
    const to = Math.ceil(limit * 1e6) / 1e6;
    const says = say`Ask for ${litres(to)}`;
    const lacks = value < limit * (1 - 1e-9);
    return {
      value,
      limit,
      severity: gradeMin(value, 0.8 * limit, limit * (1 - 1e-9)),
      do: lacks ? say`${says}, or open a part of the lines at a time.` : 'Nothing.',
      ...cureBy(lacks, { work: work.id, set: { flowM3s: to }, says }),
    };
  },
};

export const DRIP_RULES: readonly Rule<SupplyLineFacts>[] = [dripEven, dripFlow];
