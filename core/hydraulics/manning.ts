import { defineFormula } from '../formula/index.ts';

export const MANNING = defineFormula(
  {
    id: 'hydraulics.manning',
    title: "Manning's velocity",
    statement: 'V = R^(2/3) · S^(1/2) / n',
    symbols: {
      R: { means: 'hydraulic radius', unit: 'm', domain: 'positive' },
      S: { means: 'slope of the energy line', unit: 'm/m', domain: 'positive' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.8] },
    },
    result: { symbol: 'V', means: 'mean velocity', unit: 'm/s' },
    source: { key: 'chow1959', locator: 'eq. 5-6', fromMemory: true },
  },
  ({ R, S, n }) => (Math.cbrt(R) ** 2 * Math.sqrt(S)) / n,
);

export const SHALLOW_FLOW = defineFormula(
  {
    id: 'hydraulics.shallow-concentrated',
    title: 'Velocity of shallow flow over short grass',
    statement: 'V = 2.12 · S^(1/2)',
    symbols: { S: { means: 'slope along the path', unit: 'm/m', domain: 'positive' } },
    result: { symbol: 'V', means: 'mean velocity', unit: 'm/s' },
    source: { key: 'neh630-15', locator: 'Table 15-3, short-grass pasture 6.962 ft/s', fromMemory: true },
  },
  ({ S }) => 6.962 * 0.3048 * Math.sqrt(S),
);
