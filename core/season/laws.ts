// A store day by day as laws of lists, so that published examples and work by hand can be held against it.
import { defineLaw, together } from '../formula/index.ts';
import { type UseOrder, balanceDays } from './balance.ts';

const NOTHING = (n: number): Float64Array => new Float64Array(n);

/** What a bare store supplies of what is asked, step by step. */
function suppliedBy(
  order: UseOrder,
  { Q, D, S, V0 }: { readonly Q: readonly number[]; readonly D: readonly number[]; readonly S: number; readonly V0: number },
): number[] {
  const store = {
    id: 'store',
    roomM3: S,
    deadM3: 0,
    startM3: Math.min(S, V0),
    volumeM3: Float64Array.of(0, S),
    areaM2: Float64Array.of(0, 0),
    isCovered: true,
    rainedM2: 0,
    soaksMmPerDay: 0,
    comesM3: Float64Array.from(Q),
    asksM3: Float64Array.from(D),
    topUp: null,
    spills: [{ to: -1, share: 1, lagDays: 0 }],
    returns: null,
  };
  const { runs } = balanceDays([store], { rainMm: NOTHING(Q.length), evaporationMm: null }, order);
  return [...runs[0].usedM3];
}

const symbols = {
  Q: { means: 'what comes, step by step', unit: 'm³', domain: 'nonNegative', many: true },
  D: { means: 'what is asked, step by step', unit: 'm³', domain: 'nonNegative', many: true },
  S: { means: 'room', unit: 'm³', domain: 'nonNegative' },
  V0: { means: 'stands in it at first', unit: 'm³', domain: 'nonNegative' },
} as const;

export const USE_AFTER_SPILL = defineLaw(
  {
    id: 'season.use-after-spill',
    title: 'A store from which is used after it has spilled',
    statement: 'Y = min(D, V before); V = min(V before + Q − Y, S − Y)',
    symbols,
    result: { symbol: 'Y', means: 'supplied, step by step', unit: 'm³' },
    source: { key: 'jenkins-1978', locator: 'yield after spillage', fromMemory: true },
    limits: 'The safe reading of a day: what comes on it is not counted on. First flush and losses are off Q already.',
  },
  (given) => {
    together('season.use-after-spill', given.Q, given.D);
    return suppliedBy('after', given);
  },
);

export const USE_BEFORE_SPILL = defineLaw(
  {
    id: 'season.use-before-spill',
    title: 'A store from which is used before it spills',
    statement: 'Y = min(D, V before + Q); V = min(V before + Q − Y, S)',
    symbols,
    result: { symbol: 'Y', means: 'supplied, step by step', unit: 'm³' },
    source: { key: 'jenkins-1978', locator: 'yield before spillage', fromMemory: true },
    limits: 'The hopeful reading of a day: all that comes on it can be used first.',
  },
  (given) => {
    together('season.use-before-spill', given.Q, given.D);
    return suppliedBy('before', given);
  },
);
