// What storm was that: the return period of a rain that was measured, and how far off it may be.
import { defineFormula } from '../formula/index.ts';
import { variateOf } from './edit.ts';
import { depthFor } from './depth.ts';
import type { RainTable } from './table.ts';

export const BUCKET_RAIN = defineFormula(
  {
    id: 'rain.bucket',
    title: 'Rain from the water in a straight-sided or tapered bucket',
    statement: 'P = h · (d² + d·w + w²) / (3·D²), w = d + (D - d)·h/H',
    symbols: {
      h: { means: 'depth of water', unit: 'mm', domain: 'nonNegative' },
      D: { means: 'inner diameter at the rim', unit: 'mm', domain: 'positive' },
      d: { means: 'inner diameter at the bottom', unit: 'mm', domain: 'positive' },
      H: { means: 'inner height', unit: 'mm', domain: 'positive' },
    },
    result: { symbol: 'P', means: 'rain', unit: 'mm' },
    source: { key: 'geometry', locator: 'volume of a cone cut off, over the area of the opening' },
    limits: 'Water not above the rim; the bucket stood level and in the open.',
  },
  ({ h, D, d, H }) => {
    const w = d + ((D - d) * h) / H;
    return (h * (d * d + d * w + w * w)) / (3 * D * D);
  },
);

/** How far a reading may be off, as a share of it (common practice: wind, splash, a rim that is not level). */
export const READING_ERROR = { gauge: 0.05, bucket: 0.15 } as const;
export type ReadBy = keyof typeof READING_ERROR;
/** How far a remembered duration may be off, as a share of it (common practice). */
export const TIME_ERROR = 0.2;

/** Return period by a table; `beyond` says on which side of it the rain lies, `years` is then the table's end. */
export interface ReturnRead {
  readonly years: number;
  readonly beyond: 'rarer' | 'commoner' | null;
}

const yearsOfVariate = (y: number): number => 1 / (1 - Math.exp(-Math.exp(-y)));

/** Return period of a depth in a duration, straight between the table's depths on Gumbel paper; not carried beyond its ends. */
export function returnIn(table: RainTable, depthMm: number, durationMin: number): ReturnRead {
  const years = table.returnYears;
  const depths = years.map((t) => depthFor(table, t, durationMin).depthMm);
  const last = depths.length - 1;
  if (depthMm < depths[0]) return { years: years[0], beyond: 'commoner' };
  if (depthMm > depths[last]) return { years: years[last], beyond: 'rarer' };
  let k = 0;
  while (k < last - 1 && depths[k + 1] < depthMm) k++;
  if (last === 0 || depths[k + 1] === depths[k]) return { years: years[k], beyond: null };
  const share = (depthMm - depths[k]) / (depths[k + 1] - depths[k]);
  const y = variateOf(years[k]) + share * (variateOf(years[k + 1]) - variateOf(years[k]));
  return { years: yearsOfVariate(y), beyond: null };
}

/** A return period in words: "1 in 12 years", "rarer than 1 in 100 years". */
export function returnWords({ years, beyond }: ReturnRead): string {
  const plain = `1 in ${years < 10 ? Number(years.toFixed(1)) : Math.round(years)} years`;
  return beyond === null ? plain : `${beyond} than ${plain}`;
}

export interface TableLimits {
  readonly lowMm: readonly (readonly number[])[];
  readonly highMm: readonly (readonly number[])[];
}

export interface StormRead {
  readonly best: ReturnRead;
  readonly least: ReturnRead;
  readonly most: ReturnRead;
  /** The duration lies outside the table, so that its depths were carried on. */
  readonly extrapolated: boolean;
  /** Whether the table's own uncertainty is in the range, or only that of the reading. */
  readonly withLimits: boolean;
}

/**
 * Return period of a reading with its range: the reading too high and too long on one side, too low and too short on the
 * other, each against the end of the table's confidence band that says most, where it has one.
 */
export function whichStorm(
  table: RainTable,
  reading: { readonly depthMm: number; readonly durationMin: number; readonly by: ReadBy; readonly timeError?: number },
  limits: TableLimits | null = null,
): StormRead {
  const { depthMm, durationMin, by } = reading;
  const [error, time] = [READING_ERROR[by], reading.timeError ?? TIME_ERROR];
  const low = limits ? { ...table, depthMm: limits.lowMm } : table;
  const high = limits ? { ...table, depthMm: limits.highMm } : table;
  return {
    best: returnIn(table, depthMm, durationMin),
    least: returnIn(high, depthMm * (1 - error), durationMin * (1 + time)),
    most: returnIn(low, depthMm * (1 + error), durationMin * (1 - time)),
    extrapolated: depthFor(table, table.returnYears[0], durationMin).extrapolated,
    withLimits: limits !== null,
  };
}
