// Stone, silt and grass of a line along the contour.
import { defineFormula } from '../../formula/index.ts';

export const LINE_STONE = defineFormula(
  {
    id: 'stone-lines.stone',
    title: 'Stone in a line',
    statement: 'V = L · (H · (b + t)/2 + d · b)',
    symbols: {
      L: { means: 'length of the line', unit: 'm', domain: 'nonNegative' },
      H: { means: 'height over the ground', unit: 'm', domain: 'nonNegative' },
      b: { means: 'width at the ground', unit: 'm', domain: 'nonNegative' },
      t: { means: 'width at the top', unit: 'm', domain: 'nonNegative' },
      d: { means: 'how deep it is set into the ground', unit: 'm', domain: 'nonNegative' },
    },
    result: { symbol: 'V', means: 'stone with its gaps', unit: 'm³' },
    source: { key: 'geometry', locator: 'a trapezoid; a triangle where its top is nothing' },
  },
  ({ L, H, b, t, d }) => L * ((H * (b + t)) / 2 + d * b),
);

export const LINE_WEDGE = defineFormula(
  {
    id: 'stone-lines.wedge',
    title: 'Room behind a line on an even slope',
    statement: 'V = L · H² / (2·S)',
    symbols: {
      L: { means: 'length of the line', unit: 'm', domain: 'nonNegative' },
      H: { means: 'height over the ground', unit: 'm', domain: 'nonNegative' },
      S: { means: 'slope of the ground', unit: 'm/m', domain: 'positive' },
    },
    result: { symbol: 'V', means: 'water or silt to its top', unit: 'm³' },
    source: { key: 'geometry', locator: 'a wedge that narrows to nothing uphill' },
    limits: 'Outlet adds it up along the line on the ground as it is.',
  },
  ({ L, H, S }) => (L * H * H) / (2 * S),
);

export const GRASS_PLANTS = defineFormula(
  {
    id: 'stone-lines.plants',
    title: 'Plants of a grass row',
    statement: 'n = r · (L/s + 1)',
    symbols: {
      L: { means: 'length of the row', unit: 'm', domain: 'nonNegative' },
      s: { means: 'between plants', unit: 'm', domain: 'positive' },
      r: { means: 'rows', unit: '', domain: 'nonNegative' },
    },
    result: { symbol: 'n', means: 'plants', unit: '' },
    source: { key: 'geometry' },
  },
  ({ L, s, r }) => r * (Math.floor(L / s + 1e-9) + 1),
);

/** Least slope for which each spacing holds, and the spacing [m/m, m]: to 2 % as published for lines of stone, closer beyond by common practice. */
const SPACINGS = [
  [0, 20],
  [0.01, 15],
  [0.02, 10],
  [0.05, 7],
] as const;

/** How far apart lines lie, by the slope of the ground [m]. */
export const spacingFor = (slope: number): number =>
  SPACINGS.reduce((m, [from, apart]) => (slope >= from ? apart : m), SPACINGS[0][1] as number);
