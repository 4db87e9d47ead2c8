// Questions about the rain: what the gauge's record says, and what storm a reading was. Worked out when they are asked.
import { type Gauge, type Project, fail } from '../../project/index.ts';
import {
  type Band,
  type DailyRain,
  type Distribution,
  type DurationFit,
  type FrequencyOfRecord,
  type RainEvent,
  type RainRecord,
  type ReadBy,
  type ReturnRead,
  type Seasons,
  type StormRead,
  type StormSteps,
  type TableOfRecord,
  type YearSummary,
  LEAST_KNOWN,
  LONGEST_STORM_MIN,
  bandOf,
  dailyOf,
  depthOfReturn,
  eventsOf,
  frequencyOf,
  returnIn,
  seasonsOf,
  stormOfEvent,
  tableOf,
  whichStorm,
  withShorter,
  yearsOf,
} from '../../rain/index.ts';
import type { Graph } from '../graph/graph.ts';

export interface RainContext {
  readonly records: (gauge: Gauge) => RainRecord;
  readonly graph: Graph;
}

function recordOf({ gauge }: Project, { records }: RainContext): { readonly record: RainRecord; readonly key: string } {
  if (!gauge) return fail('gauge.missing', 'there is no gauge record yet', { do: 'Bring in a gauge’s CSV first.' });
  return { record: records(gauge), key: gauge.sha256 };
}

function daily(project: Project, context: RainContext): DailyRain {
  const { record, key } = recordOf(project, context);
  return context.graph.step('gauge-daily', [key], () => dailyOf(record));
}

export interface GaugeQuality {
  readonly stepMin: number;
  readonly fromMin: number;
  readonly toMin: number;
  readonly years: readonly YearSummary[];
  /** Years known well enough for their greatest rain to count. */
  readonly wholeYears: number;
  /** Longest gaps first: first minute and length [min]. */
  readonly gaps: readonly { readonly fromMin: number; readonly durationMin: number }[];
  readonly gapCount: number;
}

const GAPS_TOLD = 5;

/** How complete the record is. */
export function gaugeQuality(project: Project, context: RainContext): GaugeQuality {
  const { record } = recordOf(project, context);
  const { startMin, stepMin, steps, missing } = record;
  const years = yearsOf(daily(project, context));
  const gaps = Array.from({ length: missing.length / 2 }, (_, k) => ({
    fromMin: startMin + missing[2 * k] * stepMin,
    durationMin: (missing[2 * k + 1] - missing[2 * k]) * stepMin,
  })).sort((a, b) => b.durationMin - a.durationMin);
  return {
    stepMin,
    fromMin: startMin,
    toMin: startMin + steps * stepMin,
    years,
    wholeYears: years.filter((y) => y.known >= LEAST_KNOWN).length,
    gaps: gaps.slice(0, GAPS_TOLD),
    gapCount: gaps.length,
  };
}

/** Yearly maxima of each duration and their fits. */
export function gaugeFrequency(project: Project, context: RainContext): FrequencyOfRecord {
  const { record, key } = recordOf(project, context);
  return context.graph.step('gauge-frequency', [key], () => frequencyOf(record));
}

/** Return periods a fitted curve is drawn through [years]. */
const CURVE_YEARS = [1.05, 1.2, 1.5, 2, 3, 5, 7, 10, 15, 20, 30, 50, 70, 100, 150, 200];

export interface FittedCurve {
  readonly fit: DurationFit;
  readonly kind: Distribution['kind'];
  /** Depth of the fit, and the band nine in ten redrawn records stay within [mm]. */
  readonly curve: readonly (Band & { readonly depthMm: number })[];
}

/** One duration's fit as a curve with its band; by Gumbel where the record is too short for three parameters. Null without a fit. */
export function gaugeCurve(
  project: Project,
  context: RainContext,
  { durationMin, kind: wanted }: { readonly durationMin: number; readonly kind: Distribution['kind'] },
): FittedCurve | null {
  const fit = gaugeFrequency(project, context).fits.find((f) => f.durationMin === durationMin);
  if (!fit) return null;
  const kind = fit.gev ? wanted : 'gumbel';
  const distribution = kind === 'gev' && fit.gev ? fit.gev : fit.gumbel;
  const { key } = recordOf(project, context);
  const bands = context.graph.step(`gauge-band:${durationMin}:${kind}`, [key], () => bandOf(fit, kind, { returnYears: CURVE_YEARS }));
  return { fit, kind, curve: bands.map((b) => ({ ...b, depthMm: depthOfReturn(distribution, b.returnYears) })) };
}

/**
 * A table by the record's fits, with its band; `shorter` carries a daily one on to less than a day by a rough rule. Null where
 * the record is too short.
 */
export function gaugeTable(
  project: Project,
  context: RainContext,
  { kind, shorter = false }: { readonly kind: Distribution['kind']; readonly shorter?: boolean },
): TableOfRecord | null {
  const { key } = recordOf(project, context);
  const frequency = gaugeFrequency(project, context);
  const made = context.graph.step(`gauge-table:${kind}`, [key], () => tableOf(frequency, kind));
  return made && shorter ? withShorter(made) : made;
}

export function gaugeSeasons(project: Project, context: RainContext): Seasons {
  const days = daily(project, context);
  return context.graph.step('gauge-seasons', [recordOf(project, context).key], () => seasonsOf(days));
}

export interface EventTold extends RainEvent {
  /** How rare its whole depth is for its length, by the project's table; null without one. */
  readonly returned: ReturnRead | null;
  /** Its steps, for use as a storm; null where it is too long. */
  readonly storm: StormSteps | null;
}

/** The deepest rains of the record that are no longer than a storm may be. */
export function gaugeEvents(project: Project, context: RainContext, { count = 12 }: { readonly count?: number }): EventTold[] {
  const { record, key } = recordOf(project, context);
  const events = context.graph.step('gauge-events', [key], () => eventsOf(record));
  const table = project.rain?.table;
  const usable = events.filter((e) => e.durationMin <= LONGEST_STORM_MIN);
  return usable
    .slice(0, count)
    .map((event) => ({
      ...event,
      returned: table ? returnIn(table, event.depthMm, event.durationMin) : null,
      storm: stormOfEvent(record, event, LONGEST_STORM_MIN),
    }));
}

/** What storm a reading was, by the project's table and its limits. */
export function stormRead(
  project: Project,
  _: RainContext,
  reading: { readonly depthMm: number; readonly durationMin: number; readonly by: ReadBy },
): StormRead {
  const { rain } = project;
  if (!rain) return fail('rain.missing', 'there is no rain table yet', { do: 'Give a rain table first.' });
  if (!(reading.depthMm > 0 && reading.durationMin > 0)) {
    return fail('rain.reading', 'a reading needs a depth and a time above 0', { do: 'Give both.' });
  }
  return whichStorm(rain.table, reading, rain.limits ?? null);
}

export const RAIN_QUESTIONS = {
  quality: gaugeQuality,
  frequency: gaugeFrequency,
  curve: gaugeCurve,
  table: gaugeTable,
  seasons: gaugeSeasons,
  events: gaugeEvents,
  which: stormRead,
} as const;
