// The rule on grates that water runs past.
import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { say } from '../../units/index.ts';
import { gradeMin } from '../rules.ts';
import { storeIdOf } from '../series.ts';
import { onSlope, sharedBy } from './slope.ts';
import type { DrainFacts } from './standing.ts';
import { pastOf, placeOf, stormsOf } from './yards.ts';

/** Of what comes to a grate on a slope it is to take so much, and hardly less than that. */
const [MOST_OF_IT, TOO_LITTLE] = [0.7, 0.4];
const hasSlope = ({ ground }: DrainFacts): boolean => ground.yards.some((_, n) => onSlope(ground, n) !== null);

export const leaps: Rule<DrainFacts> = {
  id: 'piped-drain.on-slope',
  title: 'Share of the peak that a grate on a slope takes',
  why: 'On a slope water runs past a grate, and leaps over it where it is fast: only what is led over its bars falls in.',
  unit: 'm/m',
  kind: 'slope',
  sense: 'min',
  source: { key: 'hec22', locator: 'ch. 4, grates on grade; what passes goes on to the next below', fromMemory: true },
  needs: NEEDS_STORM,
  applies: hasSlope,
  find: (facts) => {
    const { work, ground, links } = facts;
    const all = stormsOf(facts).flatMap(({ n, storm }) => {
      const k = onSlope(ground, n);
      if (k === null) return [];
      // What it takes is what comes into its yard; the rest is told beside.
      const flowM3s = links.reduce((a, l) => a + (l.outlet === pastOf(storeIdOf(work.id, n)) && l.peakM3s !== null ? l.peakM3s : 0), storm.peakInM3s);
      return flowM3s > 0 ? [{ k, share: sharedBy(work, ground, { k, flowM3s }) }] : [];
    });
    if (all.length === 0) return null;
    const unsaid = all.find((one) => one.share === null);
    if (unsaid) return { value: null, limit: MOST_OF_IT, at: placeOf(facts, unsaid.k), severity: 'unknown', do: 'Say how the ground is dished to it: without a dish it takes only what happens to run over it.' };
    const known = all.flatMap(({ k, share }) => (share === null ? [] : [{ k, share }]));
    const worst = known.reduce((a, b) => (b.share < a.share ? b : a));
    const value = worst.share;
    return {
      value,
      limit: MOST_OF_IT,
      at: placeOf(facts, worst.k),
      title: say`Share of the peak that grate ${String(worst.k + 1)} on a slope takes`,
      severity: gradeMin(value, TOO_LITTLE, MOST_OF_IT),
      do: value < MOST_OF_IT ? 'Make it longer along the flow, dish the ground deeper, or level a pan about it so that water stands over it.' : 'Nothing.',
    };
  },
}; // prettier-ignore
