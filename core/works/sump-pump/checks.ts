// Rules on a sump: whether its pump keeps up, how often it starts, what happens when mains go, and where its water goes.
import { NEEDS_STORM, type Rule } from '../../contract/index.ts';
import { contains } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { COMMON_PRACTICE, cureBy, gradeMax, gradeMin, millimetres, upToMm } from '../rules.ts';
import { FINE, saidRule } from '../said-rule.ts';
import { nearestFeature } from '../setbacks.ts';
import { SUMP_RUNS, SUMP_STARTS } from './formulas.ts';
import { cycleM3 } from './model.ts';
import { type SumpFacts, headsOf, hoursToRim, letsGoAt, peakOf, pitM2 } from './standing.ts';

const keepsUp: Rule<SumpFacts> = {
  id: 'sump-pump.keeps-up',
  title: 'Peak that comes, against what the pump gives',
  why: 'A pump that gives less than comes only puts off the flood by its pit.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'a fifth over what comes' },
  needs: NEEDS_STORM,
  find: (facts) => {
    const peak = peakOf(facts);
    if (peak === null) return null;
    const { flowM3s } = facts.work;
    const value = peak / flowM3s;
    const to = Math.ceil(peak * 1.25e4) / 1e4;
    return {
      value,
      limit: 0.8,
      severity: gradeMax(value, 0.8, 1),
      do: value > 0.8 ? say`Set a pump that gives ${amount(to, 'tapFlow')} at its head, or two; or let less come.` : 'Nothing.',
    };
  },
};

/** Starts an hour small motors stand, and hardly stand: common practice. */
const [STARTS, TOO_MANY] = [15, 30];

const starts: Rule<SumpFacts> = {
  id: 'sump-pump.starts',
  title: 'Starts an hour, at the most',
  why: 'Each start heats a motor as minutes of running do: a pit that is too small burns it.',
  unit: '1/h',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: '10 to 20 an hour by the maker; worst when half as much comes as it gives' },
  find: ({ work }) => {
    const value = SUMP_STARTS.evaluate({ Q: work.flowM3s, V: cycleM3(work) });
    const betweenM = upToMm((3600 * work.flowM3s) / 4 / STARTS / pitM2(work));
    const to = work.levels.stopM + betweenM;
    const fits = to < Math.min(work.inletM ?? work.levels.rimM, work.levels.rimM) - 0.05;
    return {
      value,
      limit: STARTS,
      severity: gradeMax(value, STARTS, TOO_MANY),
      do: value > STARTS ? say`Let it start ${millimetres(betweenM)} over where it stops${fits ? '' : '; for that the pit must be wider or deeper'}.` : 'Nothing.',
      ...cureBy(value > STARTS && fits, { work: work.id, set: { 'levels.startM': upToMm(to) }, says: say`Let it start ${millimetres(betweenM)} over where it stops` }),
    };
  },
}; // prettier-ignore

/** A float needs so much between start and stop [m]. */
const FLOAT_M = 0.15;

const float: Rule<SumpFacts> = {
  id: 'sump-pump.float',
  title: 'Between start and stop',
  why: 'A float on a cord swings through a hand’s breadth: closer it chatters.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ work: { levels } }) => {
    const value = levels.startM - levels.stopM;
    return {
      value,
      limit: FLOAT_M,
      severity: gradeMin(value, 0.05, FLOAT_M),
      do: value < FLOAT_M ? 'Set start and stop further apart.' : 'Nothing.',
    };
  },
};

const inlet: Rule<SumpFacts> = {
  id: 'sump-pump.inlet',
  title: 'Its start under the lowest pipe that comes in',
  why: 'A pump that starts over the pipe keeps that full of water, and of silt.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: COMMON_PRACTICE,
  applies: ({ work }) => work.inletM !== undefined,
  find: ({ work: { inletM, levels } }) => {
    if (inletM === undefined) return null;
    const value = inletM - levels.startM;
    return {
      value,
      limit: 0.05,
      severity: gradeMin(value, -0.1, 0.05),
      do: value < 0.05 ? say`Let it start ${millimetres(0.05 - value)} lower.` : 'Nothing.',
    };
  },
};

const head: Rule<SumpFacts> = {
  id: 'sump-pump.head',
  title: 'Head it lifts against, of what its card says',
  why: 'Over the head on its card a pump gives less, and at its last nothing.',
  unit: 'ratio',
  kind: 'number',
  sense: 'max',
  source: { key: 'swamee-jain-1976', locator: 'loss of the pipe; lift from where it stops', fromMemory: true },
  find: ({ work }) => {
    const { liftM, lossM } = headsOf(work);
    const value = (liftM + lossM) / work.ratedHeadM;
    return { value, limit: 1, severity: gradeMax(value, 1, 1.25), do: value > 1 ? say`It is ${amount(liftM + lossM, 'length')}: take the flow from its card at that, or lay a wider pipe.` : 'Nothing.' };
  },
}; // prettier-ignore

const velocity: Rule<SumpFacts> = {
  id: 'sump-pump.velocity',
  title: 'Velocity in its pipe',
  why: 'Fast water hammers when the pump stops; and most of the head is lost in a thin pipe.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'under 2 m/s; 3 m/s at the most' },
  find: ({ work }) => {
    const value = headsOf(work).velocityMs;
    return { value, limit: 2, severity: gradeMax(value, 2, 3), do: value > 2 ? 'Lay a wider pipe.' : 'Nothing.' };
  },
};

const grit: Rule<SumpFacts> = {
  id: 'sump-pump.grit',
  title: 'Velocity that carries grit up its pipe',
  why: 'What is not carried up lies on the valve until it no longer closes.',
  unit: 'm/s',
  kind: 'velocity',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '0.7 m/s' },
  find: ({ work }) => {
    const value = headsOf(work).velocityMs;
    return { value, limit: 0.7, severity: value < 0.7 ? 'weigh' : 'fine', do: value < 0.7 ? 'Lay a narrower pipe.' : 'Nothing.' };
  },
};

/** A storm's mains are away so long [h], and half an hour is what it takes to be there: common practice. */
const [AWAY_H, THERE_H] = [6, 0.5];
/** Half of a lead battery is used. */
const USABLE = 0.5;

const cut: Rule<SumpFacts> = {
  id: 'sump-pump.power-cut',
  title: 'Hours from a power cut until water stands at its rim',
  why: 'Mains go in the storm that fills the pit.',
  unit: 'h',
  kind: 'hours',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: 'a second pump on a battery or a generator; half an hour is what it takes to be there' },
  needs: NEEDS_STORM,
  applies: ({ work }) => work.backup !== 'generator',
  find: (facts) => {
    const { work } = facts;
    const hours = hoursToRim(facts);
    if (hours === null) return null;
    if (work.backup === 'none')
      return { value: hours, limit: AWAY_H, severity: gradeMin(hours, THERE_H, AWAY_H), do: hours < AWAY_H ? 'Set a second pump on a battery, or give the pit a way out by its fall.' : 'Nothing.' };
    if (work.batteryWh === undefined) return { value: null, limit: AWAY_H, severity: 'unknown', do: 'Say what its battery holds.' };
    const peak = peakOf(facts);
    const value = hours + SUMP_RUNS.evaluate({ E: work.batteryWh, u: USABLE, P: headsOf(work).powerW, q: peak ?? work.flowM3s, Q: work.flowM3s });
    return { value, limit: AWAY_H, severity: gradeMin(value, 1, AWAY_H), do: value < AWAY_H ? 'A larger battery, or a generator.' : 'Nothing.' };
  },
}; // prettier-ignore

const alarm = saidRule<SumpFacts>(
  { id: 'sump-pump.alarm', title: 'A float that rings', why: 'A pump that has stopped says nothing: the first to know is whoever steps into the water.', source: COMMON_PRACTICE },
  ({ work }) => (work.alarm === 'yes' ? FINE : { severity: 'weigh', do: 'Hang a second float over where it starts that rings, on a battery of its own.' }),
); // prettier-ignore

const valve = saidRule<SumpFacts>(
  { id: 'sump-pump.valve', title: 'A valve against water running back', why: 'Without one all that stands in the pipe runs back at each stop, and is lifted again.', source: COMMON_PRACTICE },
  ({ work }) => (work.valve === 'yes' ? FINE : { severity: 'mend', do: 'Set a check valve over the pump, where it can be reached, and a small hole under it so that the pump does not lock on air.' }),
); // prettier-ignore

const circuit = saidRule<SumpFacts>(
  { id: 'sump-pump.circuit', title: 'Its circuit', why: 'Mains and water in one pit: a fault must cut it off, and nothing else in the house must.', source: { ...COMMON_PRACTICE, locator: 'licensed work; local codes first' } },
  ({ work }) =>
    work.circuit === 'own' ? FINE : work.circuit === 'shared' ? { severity: 'mend', do: 'Have a licensed electrician give it a circuit of its own, with a switch that trips on a fault.' } : { severity: 'unknown', do: 'Look what else hangs on its circuit, and whether a switch trips on a fault.' },
); // prettier-ignore

const goes = saidRule<SumpFacts>(
  { id: 'sump-pump.goes', title: 'Whoever takes its water', why: 'Lifted onto another’s ground it is another’s flood, in frost another’s fall; in the sewer it comes up in the cellars below.', source: { ...COMMON_PRACTICE, locator: 'rain water is not let into foul sewers; verify locally' } },
  ({ work, site: { outline } }) => {
    if (work.goes === 'sewer') return { severity: 'mend', do: 'Lead it elsewhere: rain water is no foul water.' };
    if (work.goes !== 'own-ground')
      return work.asked === 'asked' ? FINE : { severity: 'unknown', do: 'Ask whoever owns the ground, the street or its drain, and write down what was allowed.' };
    if (outline.length < 3) return { severity: 'unknown', do: 'Draw the property line: whose ground it is let go on is not known.' };
    return contains(outline, letsGoAt(work)) ? FINE : { severity: 'mend', do: 'It is let go beyond the property line: end its pipe on own ground, or say whose it is and ask.' };
  },
); // prettier-ignore

const away: Rule<SumpFacts> = {
  id: 'sump-pump.away',
  title: 'From where its water is let go to the nearest building',
  why: 'Let go beside the wall it runs back to where it came from, and is lifted again.',
  unit: 'm',
  kind: 'length',
  sense: 'min',
  source: { ...COMMON_PRACTICE, locator: '3 m and downhill; 6 m where the ground is tight' },
  find: ({ work, site }) => {
    const at = letsGoAt(work);
    const near = nearestFeature([at, at], site.features.filter((f) => f.kind === 'building'));
    if (!near) return null;
    const value = near.distanceM;
    return { value, limit: 3, at: near.at, severity: gradeMin(value, 1.5, 3), do: value < 3 ? 'Lead it further from the wall, to ground that falls away.' : 'Nothing.' };
  },
}; // prettier-ignore

const over: Rule<SumpFacts> = {
  id: 'sump-pump.pipe-over',
  title: 'Its pipe over the highest ground it crosses',
  why: 'A pipe that is said to end lower than the ground it crosses lifts higher than its figures say.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: { key: 'geometry' },
  find: ({ work, ground }) => {
    // Buried by a spade it still rises to about the ground.
    const value = work.levels.deliveryM - ground.highestM;
    return { value, limit: BURIED_M, severity: gradeMin(value, 2 * BURIED_M, BURIED_M), do: value < BURIED_M ? say`Count on ${amount(ground.highestM, 'reading')} as the highest of it, or lay it round.` : 'Nothing.' };
  },
}; // prettier-ignore
const BURIED_M = -0.6;

const tried: Rule<SumpFacts> = {
  id: 'sump-pump.tried',
  title: 'Months since it was tried',
  why: 'Floats stick, valves jam, and a pump that stood a year is as likely stuck as not.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: { ...COMMON_PRACTICE, locator: 'a bucket each quarter, and before the wet season' },
  applies: ({ work }) => work.status === 'existing' || work.status === 'built',
  find: ({ work: { triedMonths: value } }) =>
    value === undefined
      ? { value: null, limit: 3, severity: 'unknown', do: 'Pour a bucket in, watch it start and stop, and note the day.' }
      : {
          value,
          limit: 3,
          severity: gradeMax(value, 3, 12),
          do: value > 3 ? 'Pour a bucket in, and watch it start and stop.' : 'Nothing.',
        },
};

export const SUMP_RULES: readonly Rule<SumpFacts>[] = [
  keepsUp,
  starts,
  float,
  inlet,
  head,
  velocity,
  grit,
  cut,
  alarm,
  valve,
  circuit,
  goes,
  away,
  over,
  tried,
];
