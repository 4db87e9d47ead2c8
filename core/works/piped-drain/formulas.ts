import { defineFormula } from '../../formula/index.ts';

export const LEAST_FALL = defineFormula(
  {
    id: 'drain.least-fall',
    title: 'Fall that keeps a pipe clean',
    statement: 'S = (V · n / (D/4)^(2/3))²',
    symbols: {
      V: { means: 'velocity, half full or full', unit: 'm/s', domain: 'positive' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.03] },
      D: { means: 'inner diameter', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'S', means: 'fall along it', unit: 'm/m' },
    source: { key: 'chow1959', locator: 'Manning, R = D/4 half full and full', fromMemory: true },
    limits: 'A pipe less than half full runs slower.',
  },
  ({ V, n, D }) => ((V * n) / Math.cbrt(D / 4) ** 2) ** 2,
);

export const PIPE_SPEED = defineFormula(
  {
    id: 'drain.full-speed',
    title: 'Velocity of a pipe half full or full',
    statement: 'V = (D/4)^(2/3) · S^(1/2) / n',
    symbols: {
      D: { means: 'inner diameter', unit: 'm', domain: 'positive' },
      S: { means: 'fall along it', unit: 'm/m', domain: 'nonNegative' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.03] },
    },
    result: { symbol: 'V', means: 'velocity', unit: 'm/s' },
    source: { key: 'chow1959', locator: 'Manning, R = D/4 half full and full', fromMemory: true },
  },
  ({ D, S, n }) => (Math.cbrt(D / 4) ** 2 * Math.sqrt(S)) / n,
);

export const STREET_LEFT = defineFormula(
  {
    id: 'drain.street-left',
    title: 'What a pipe in the street can still take',
    statement: 'L = π/4 · D² · (D/4)^(2/3) · S^(1/2) / n − q',
    symbols: {
      D: { means: 'its inner diameter', unit: 'm', domain: 'positive' },
      S: { means: 'its fall', unit: 'm/m', domain: 'positive' },
      n: { means: 'Manning roughness', unit: 's/m^(1/3)', domain: 'positive', range: [0.008, 0.03] },
      q: { means: 'what runs in it already', unit: 'm³/s', domain: 'nonNegative' },
    },
    result: { symbol: 'L', means: 'flow left', unit: 'm³/s' },
    source: { key: 'chow1959', locator: 'Manning, R = D/4 full', fromMemory: true },
    limits: 'Running full without pressure; where its water stands higher it takes less.',
  },
  ({ D, S, n, q }) => (Math.PI / 4) * D * D * ((Math.cbrt(D / 4) ** 2 * Math.sqrt(S)) / n) - q,
);

export const COVER_LEFT = defineFormula(
  {
    id: 'drain.cover',
    title: 'Earth over a pipe',
    statement: 'c = G − i − D',
    symbols: {
      G: { means: 'ground over it', unit: 'm', domain: 'finite' },
      i: { means: 'invert', unit: 'm', domain: 'finite' },
      D: { means: 'inner diameter, its wall left out', unit: 'm', domain: 'positive' },
    },
    result: { symbol: 'c', means: 'cover', unit: 'm' },
    source: { key: 'geometry', locator: 'levels' },
  },
  ({ G, i, D }) => G - i - D,
);
