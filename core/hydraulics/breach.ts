// What comes down when an earth bank goes: clearly rough, as breaches are.
import { defineFormula } from '../formula/index.ts';

const V = { means: 'water that can run out', unit: 'm³', domain: 'positive' } as const;
const h = { means: 'height of the breach', unit: 'm', domain: 'positive' } as const;

export const BREACH_WIDTH = defineFormula(
  {
    id: 'hydraulics.breach-width',
    title: 'Mean width of a breach that water over the crest cuts',
    statement: 'B = 0.1803 · 1.4 · V^0.32 · h^0.19',
    symbols: { V, h },
    result: { symbol: 'B', means: 'mean width of the breach', unit: 'm' },
    source: { key: 'froehlich-1995b', locator: 'overtopping', fromMemory: true },
    limits: 'Made from dams of 10 000 m³ and far more: half or twice as wide would be no surprise for a pond.',
  },
  (i) => 0.1803 * 1.4 * i.V ** 0.32 * i.h ** 0.19,
);

export const BREACH_TIME = defineFormula(
  {
    id: 'hydraulics.breach-time',
    title: 'Time a breach takes to form',
    statement: 't = 0.00254 · V^0.53 / h^0.90',
    symbols: { V, h },
    result: { symbol: 't', means: 'time until it is as wide and deep as it gets', unit: 'h' },
    source: { key: 'froehlich-1995b', locator: 'failure time', fromMemory: true },
  },
  (i) => (0.00254 * i.V ** 0.53) / i.h ** 0.9,
);

export const BREACH_PEAK = defineFormula(
  {
    id: 'hydraulics.breach-peak',
    title: 'Peak from a breached bank, by those that were seen',
    statement: 'Q = 0.607 · V^0.295 · h^1.24',
    symbols: { V, h },
    result: { symbol: 'Q', means: 'peak flow', unit: 'm³/s' },
    source: { key: 'froehlich-1995a', locator: 'peak outflow', fromMemory: true },
    limits: 'Fitted to dams; from small ponds less comes, since little water is there to keep it up.',
  },
  (i) => 0.607 * i.V ** 0.295 * i.h ** 1.24,
);

export const BREACH_FLOW = defineFormula(
  {
    id: 'hydraulics.breach-flow',
    title: 'Flow through a breach',
    statement: 'Q = 1.7 · b · H^1.5 + 1.27 · z · H^2.5',
    symbols: {
      b: { means: 'width of its bottom', unit: 'm', domain: 'nonNegative' },
      z: { means: 'its sides, out per 1 up', unit: '', domain: 'nonNegative' },
      H: { means: 'water above its bottom', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'Q', means: 'flow', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'section 4-3, critical flow through a rectangle and through a triangle, added', fromMemory: true },
  },
  ({ b, z, H }) => 1.7 * b * H ** 1.5 + 1.27 * z * H ** 2.5,
);

/** Sides of a breach cut by water over the crest, out per 1 up (Froehlich 1995; from memory). */
const SIDES_HV = 1.4;
/** Steps its forming is followed in, and how many times as long the water is followed. */
const [STEPS, TIMES] = [100, 30];
/** Once no more than this share of its peak runs, the peak is behind. */
const BEHIND = 0.7;

export interface Breach {
  /** Water that runs out, and how far down it is cut. */
  readonly volumeM3: number;
  readonly heightM: number;
  readonly widthM: number;
  readonly formsS: number;
  /** Peak by routing the water through it as it grows, and by those that were seen. */
  readonly peakM3s: number;
  readonly seenM3s: number;
  /** From the first cut to its peak. */
  readonly peakAtS: number;
}

export interface Breaching {
  /** Where the water stands when it goes, and the ground it is cut down to. */
  readonly topM: number;
  readonly bottomM: number;
  /** Water up to a level [m3], and the level of so much of it. */
  readonly volumeAt: (levelM: number) => number;
  readonly levelOf: (volumeM3: number) => number;
  /** The most it can widen to: the length of a stretch meant to go; left out, as far as it cuts. */
  readonly mostM?: number;
}

/**
 * A breach cut evenly down and out by water over the crest, the store's water running out through it as a level pool with nothing
 * more coming. Null where no water stands above the ground it would be cut down to.
 */
export function breachOf({ topM, bottomM, volumeAt, levelOf, mostM = Infinity }: Breaching): Breach | null {
  const heightM = topM - bottomM;
  const below = volumeAt(bottomM);
  const volumeM3 = heightM > 0 ? volumeAt(topM) - below : 0;
  if (heightM <= 0 || volumeM3 <= 0) return null;
  const of = { V: volumeM3, h: heightM };
  const widthM = Math.min(mostM, BREACH_WIDTH.evaluate(of));
  const formsS = 3600 * BREACH_TIME.evaluate(of);
  // Its mean width is that at half its height: the bottom is narrower by what the sides take.
  const z = Math.min(SIDES_HV, widthM / heightM);
  const bottomWidthM = Math.max(0, widthM - z * heightM);
  const stepS = formsS / STEPS;
  let left = volumeM3;
  let [peakM3s, peakAtS] = [0, 0];
  for (let k = 1; k <= STEPS * TIMES && left > 0; k++) {
    const share = Math.min(1, k / STEPS);
    const H = Math.max(0, levelOf(below + left) - (topM - share * heightM));
    const flow = Math.min(BREACH_FLOW.evaluate({ b: share * bottomWidthM, z, H }), left / stepS);
    if (flow > peakM3s) [peakM3s, peakAtS] = [flow, k * stepS];
    if (share === 1 && flow < BEHIND * peakM3s) break;
    left -= flow * stepS;
  }
  return { volumeM3, heightM, widthM, formsS, peakM3s, seenM3s: BREACH_PEAK.evaluate(of), peakAtS };
}
