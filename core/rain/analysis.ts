// A record's yearly maxima, fits and table: what may be said from so many years, and how surely.
import { type Band, bootstrapBand, fitBy } from './bootstrap.ts';
import { type Distribution, type Plotted, depthOfReturn, gumbelSuffices, plottingPositions } from './frequency.ts';
import { type RainRecord, type YearMaximum, type YearSummary, DAY_MIN, dailyOf, firstMonthOf, yearlyMaxima, yearsOf } from './record.ts';
import { GROWTH } from './memory.ts';
import type { RainTable } from './table.ts';

/** Fewer years than this give no table at all: L-moments of them are noise (common practice). */
export const LEAST_YEARS = 5;
/** Fewer years than this cannot carry a third parameter (handbook habit; the same is said by most guides). */
export const GEV_YEARS = 20;
export const RETURN_YEARS: readonly number[] = [2, 5, 10, 20, 50, 100];
export const BOOTSTRAP_DRAWS = 2000;
const CONFIDENCE = 0.9;
const SEED = 20;

export interface DurationFit {
  readonly durationMin: number;
  readonly maxima: readonly YearMaximum[];
  readonly plotted: readonly Plotted[];
  readonly gumbel: Distribution;
  /** Null where the record is too short for it. */
  readonly gev: Distribution | null;
  /** Whether two parameters do; null where the record is too short to tell. */
  readonly gumbelSuffices: boolean | null;
}

/** Durations a record can speak of: its step, longer ones of common use, three days at most. */
export function durationsOf(record: RainRecord): number[] {
  return [5, 10, 15, 30, 60, 120, 180, 360, 720, DAY_MIN, 2 * DAY_MIN, 3 * DAY_MIN].filter(
    (d) => d >= record.stepMin && Number.isInteger(d / record.stepMin),
  );
}

/** Fits of one duration; null with fewer than LEAST_YEARS years. */
export function fitDuration(
  record: RainRecord,
  durationMin: number,
  { years, firstMonth }: Pick<FrequencyOfRecord, 'years' | 'firstMonth'>,
): DurationFit | null {
  const maxima = yearlyMaxima(record, { durationMin, years, firstMonth });
  const values = maxima.map((m) => m.mm);
  if (values.length < LEAST_YEARS || values.every((v) => v === values[0])) return null;
  const gev = values.length < GEV_YEARS ? null : fitBy('gev', values);
  return {
    durationMin,
    maxima,
    plotted: plottingPositions(values),
    gumbel: fitBy('gumbel', values),
    gev,
    gumbelSuffices: gev && gumbelSuffices(gev, values.length),
  };
}

export interface FrequencyOfRecord {
  readonly years: readonly YearSummary[];
  /** Month they begin with: a wet season is not cut in two. */
  readonly firstMonth: number;
  readonly fits: readonly DurationFit[];
  /** Why there is no fit, when there is none. */
  readonly tooShort: boolean;
}

/** Fits of every duration that the record can speak of. */
export function frequencyOf(record: RainRecord): FrequencyOfRecord {
  const daily = dailyOf(record);
  const firstMonth = firstMonthOf(daily);
  const years = yearsOf(daily, firstMonth);
  const fits = durationsOf(record).flatMap((d) => fitDuration(record, d, { years, firstMonth }) ?? []);
  return { years, firstMonth, fits, tooShort: fits.length === 0 };
}

/** Band of one fit's depths, by bootstrap with a fixed seed. */
export function bandOf(
  fit: DurationFit,
  kind: Distribution['kind'],
  { returnYears, draws = BOOTSTRAP_DRAWS }: { readonly returnYears: readonly number[]; readonly draws?: number },
): Band[] {
  const values = fit.maxima.map((m) => m.mm);
  return bootstrapBand(values, { kind, returnYears, draws, seed: SEED, confidence: CONFIDENCE });
}

/** A table by fits of a record, with its band. */
export interface TableOfRecord {
  readonly table: RainTable;
  readonly limits: { readonly lowMm: readonly (readonly number[])[]; readonly highMm: readonly (readonly number[])[] };
}

/**
 * Depths of the return periods for each duration. Depths are kept from falling with duration, which independent fits of
 * neighbouring durations may do by chance: the longer then takes the shorter's depth.
 */
export function tableOf({ fits }: FrequencyOfRecord, kind: Distribution['kind'], draws = BOOTSTRAP_DRAWS): TableOfRecord | null {
  if (fits.length === 0) return null;
  const rising = (rows: number[][]): number[][] => {
    for (const row of rows) for (let c = 1; c < row.length; c++) row[c] = Math.max(row[c], row[c - 1]);
    return rows;
  };
  const bands = fits.map((fit) => bandOf(fit, fit.gev ? kind : 'gumbel', { returnYears: RETURN_YEARS, draws }));
  const depths = RETURN_YEARS.map((years) => fits.map((fit) => depthOfReturn(kind === 'gev' && fit.gev ? fit.gev : fit.gumbel, years)));
  return {
    table: { durationsMin: fits.map((f) => f.durationMin), returnYears: RETURN_YEARS, depthMm: rising(depths) },
    limits: {
      lowMm: rising(RETURN_YEARS.map((_, r) => bands.map((b) => b[r].low))),
      highMm: rising(RETURN_YEARS.map((_, r) => bands.map((b) => b[r].high))),
    },
  };
}

/** Durations added below a day [min]. */
const SHORTER_MIN = [15, 30, 60, 120, 360, 720];

/**
 * A daily gauge's table carried on to shorter rain by a power of the duration: the cube root, with the spread of GROWTH in its
 * limits. A guess (from memory: a rough rule of hot, stormy places); a table that begins sooner stays as it is.
 */
export function withShorter(made: TableOfRecord): TableOfRecord {
  const { table, limits } = made;
  if (table.durationsMin[0] < DAY_MIN) return made;
  const [flat, usual, steep] = GROWTH;
  const carried = (rows: readonly (readonly number[])[], power: number): number[][] =>
    rows.map((row) => [...SHORTER_MIN.map((t) => row[0] * (t / table.durationsMin[0]) ** power), ...row]);
  return {
    table: { ...table, durationsMin: [...SHORTER_MIN, ...table.durationsMin], depthMm: carried(table.depthMm, usual) },
    // Rain that grows slowly with duration is the deeper one in a short time.
    limits: { lowMm: carried(limits.lowMm, steep), highMm: carried(limits.highMm, flat) },
  };
}
