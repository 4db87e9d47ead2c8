// Laws of a water line, beside those of pipes: fittings, drippers, and a pipe that gives its water away along its length.
import { defineFormula } from '../../formula/index.ts';
import { GRAVITY } from '../../hydraulics/index.ts';

export const FITTING_LOSS = defineFormula(
  {
    id: 'supply-line.fittings',
    title: 'Head lost in bends and fittings',
    statement: 'hm = n · k · V² / (2·g)',
    symbols: {
      n: { means: 'bends and fittings', unit: '', domain: 'nonNegative' },
      k: { means: 'loss of one', unit: '', domain: 'nonNegative', range: [0.1, 10] },
      V: { means: 'velocity', unit: 'm/s', domain: 'nonNegative' },
    },
    result: { symbol: 'hm', means: 'head lost', unit: 'm' },
    source: { key: 'common-practice', locator: '0.9 for an elbow, a valve or a joint of small pipe' },
  },
  ({ n, k, V }) => (n * k * V * V) / (2 * GRAVITY),
);

/** Head drippers are sold by [m]. */
export const RATED_HEAD_M = 10;

export const DRIPPER = defineFormula(
  {
    id: 'supply-line.dripper',
    title: 'What a dripper lets out',
    statement: 'q = q10 · (h / 10)^0.5',
    symbols: {
      q10: { means: 'what it lets out under ten metres of head', unit: 'L/h', domain: 'nonNegative' },
      h: { means: 'head at it', unit: 'm', domain: 'nonNegative', range: [0.3, 40] },
    },
    result: { symbol: 'q', means: 'flow', unit: 'L/h' },
    source: { key: 'keller-bliesner-1990', locator: 'emitters of the orifice kind, exponent one half', fromMemory: true },
    limits: 'Not for drippers that hold their flow by a membrane: those need five metres of head or more.',
  },
  ({ q10, h }) => q10 * Math.sqrt(h / RATED_HEAD_M),
);

/** Power of the flow by which a smooth small pipe loses head (Blasius). */
const FLOW_POWER = 1.75;

export const MANY_OUTLETS = defineFormula(
  {
    id: 'supply-line.many-outlets',
    title: 'Share of its loss that is left where a pipe gives all its water away along its length',
    statement: 'F = 1/(m+1) + 1/(2·N) + (m−1)^0.5 / (6·N²),  m = 1.75',
    symbols: { N: { means: 'places it gives water at', unit: '', domain: 'positive' } },
    result: { symbol: 'F', means: 'share', unit: '' },
    source: { key: 'christiansen-1942', locator: 'equal flow at equal distances', fromMemory: true },
  },
  ({ N }) => Math.min(1, 1 / (FLOW_POWER + 1) + 1 / (2 * N) + Math.sqrt(FLOW_POWER - 1) / (6 * N * N)),
);

export const TIME_TO_FILL = defineFormula(
  {
    id: 'supply-line.time-to-fill',
    title: 'Time a bucket takes at its end',
    statement: 't = V / Q',
    symbols: { V: { means: 'bucket', unit: 'm³', domain: 'nonNegative' }, Q: { means: 'flow', unit: 'm³/s', domain: 'positive' } },
    result: { symbol: 't', means: 'time', unit: 's' },
    source: { key: 'geometry', locator: 'volume over flow' },
  },
  ({ V, Q }) => V / Q,
);
