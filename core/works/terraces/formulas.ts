// Rise, earth and room of benches cut into a slope.
import { defineFormula } from '../../formula/index.ts';

const SYMBOLS = {
  S: { means: 'slope of the ground', unit: 'm/m', domain: 'positive' },
  Wb: { means: 'width of the bench', unit: 'm', domain: 'positive' },
  U: { means: 'riser, out per 1 up', unit: '', domain: 'nonNegative', range: [0, 1.5] },
  i: { means: 'fall of the bench into the slope', unit: 'm/m', domain: 'finite' },
} as const;

export const BENCH_RISE = defineFormula(
  {
    id: 'terraces.rise',
    title: 'From one bench to the next',
    statement: 'VI = S·Wb·(1 + U·i) / (1 − S·U)',
    symbols: SYMBOLS,
    result: { symbol: 'VI', means: 'rise between benches', unit: 'm' },
    source: { key: 'sheng-fao', locator: 'bench terraces: VI = S·Wb/(100 − S·U), the bench level', fromMemory: true },
    limits: 'As long as the riser is steeper than the ground: S·U under 1.',
  },
  ({ S, Wb, U, i }) => (S * Wb * (1 + U * i)) / Math.max(1e-9, 1 - S * U),
);

export const RISER_HEIGHT = defineFormula(
  {
    id: 'terraces.riser',
    title: 'Height of a riser',
    statement: 'H = VI + i·Wb',
    symbols: { VI: { means: 'rise between benches', unit: 'm', domain: 'finite' }, i: SYMBOLS.i, Wb: SYMBOLS.Wb },
    result: { symbol: 'H', means: 'from the foot of the riser to the edge above', unit: 'm' },
    source: { key: 'geometry' },
  },
  ({ VI, i, Wb }) => VI + i * Wb,
);

export const BENCH_CUT = defineFormula(
  {
    id: 'terraces.cut',
    title: 'Earth cut for a metre of bench, and filled',
    statement: 'A = Wb·VI·(1 + i/S) / 8',
    symbols: { Wb: SYMBOLS.Wb, VI: { means: 'rise between benches', unit: 'm', domain: 'nonNegative' }, i: SYMBOLS.i, S: SYMBOLS.S },
    result: { symbol: 'A', means: 'cut, which is filled on its outer half', unit: 'm²' },
    source: { key: 'sheng-fao', locator: 'Wb·VI/8, the bench level', fromMemory: true },
  },
  ({ Wb, VI, i, S }) => (Wb * VI * (1 + i / S)) / 8,
);

export const BENCH_WATER = defineFormula(
  {
    id: 'terraces.water',
    title: 'Water on a metre of bench',
    statement: 'A = y²/(2·|i|) to where it reaches across, Wb·(y − |i|·Wb/2) beyond',
    symbols: { y: { means: 'depth at its low side', unit: 'm', domain: 'nonNegative' }, i: SYMBOLS.i, Wb: SYMBOLS.Wb },
    result: { symbol: 'A', means: 'water', unit: 'm²' },
    source: { key: 'geometry', locator: 'a wedge, then a strip over it; the riser’s own slope left out' },
  },
  ({ y, i, Wb }) => {
    const tilt = Math.abs(i);
    return y < tilt * Wb ? (y * y) / (2 * tilt) : Wb * (y - (tilt * Wb) / 2);
  },
);
