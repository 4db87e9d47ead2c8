// What the page does with rain: takes tables and records into the document, and asks the worker about them.
import type { AnswerOf, ArgsOf, FAMILIES } from '#core/derive';
import type { ImportedGauge } from '#core/formats';
import type { Rain } from '#core/project';
import { DAY_MIN, type DesignStorm, type RainTable, dateText, dayOf } from '#core/rain';
import { useAnswer } from './ask.ts';
import { dispatch, notify, useApp } from './store.ts';

/** The storm to go on with over a new table: the same where its return period is still a row, else the row next above. */
function stormOver(table: RainTable, storm: DesignStorm | undefined): DesignStorm {
  const wanted = storm?.returnYears ?? 20;
  const returnYears = table.returnYears.find((y) => y >= wanted) ?? table.returnYears[table.returnYears.length - 1];
  const { durationsMin, ...rest } = { ...storm };
  const last = table.durationsMin[table.durationsMin.length - 1];
  // Lengths the new table does not reach are not known any more; without one that is left, all that matter are looked at.
  const kept = durationsMin?.filter((d) => d <= last) ?? [];
  return { ...rest, returnYears, ...(kept.length > 0 ? { durationsMin: kept } : {}) };
}

/** Puts a table in the document, keeping the storm where it can. */
export function takeTable(taken: Omit<Rain, 'storm'>): boolean {
  const rain = useApp.getState().history?.project.rain;
  return dispatch({ type: 'rain.set', payload: { rain: { ...taken, storm: stormOver(taken.table, rain?.storm) } } });
}

/** Changes part of the design storm. */
export function setStorm(change: { readonly [K in keyof DesignStorm]?: DesignStorm[K] | undefined }): boolean {
  const rain = useApp.getState().history?.project.rain;
  if (!rain) return false;
  const storm = Object.fromEntries(Object.entries({ ...rain.storm, ...change }).filter(([, v]) => v !== undefined));
  return dispatch({ type: 'rain.set-storm', payload: { storm: storm as unknown as DesignStorm } });
}

const stepText = (minutes: number): string => (minutes === DAY_MIN ? 'day' : minutes % 60 === 0 ? `${minutes / 60} h` : `${minutes} min`);

/** Names a gauge's record, kept already, in the document and says what was found in it. */
export function takeGauge({ record, report, source, notes }: ImportedGauge, sha256: string): boolean {
  const done = dispatch({ type: 'gauge.set', payload: { gauge: { sha256, source } } });
  if (!done) return false;
  const [from, to] = [record.startMin, record.startMin + (record.steps - 1) * record.stepMin].map((m) => dateText(dayOf(m)));
  const counts = [
    [report.missing, 'steps without a reading'],
    [report.traces, 'traces counted as no rain'],
    [report.accumulated, 'steps shared out of sums'],
    [report.outOfOrder, 'lines out of order, sorted'],
  ] as const;
  const told = counts.flatMap(([n, what]) => (n > 0 ? [`${n} ${what}.`] : []));
  notify({
    tone: 'fine',
    title: [`The record of ${source} is in: ${from} to ${to}, by the ${stepText(record.stepMin)}.`, ...told, ...notes].join(' '),
    problems: [],
  });
  return true;
}

type RainQuestion = keyof (typeof FAMILIES)['rain'];

/** An answer about the rain that follows the document; undefined while it is worked out, null where there is none. `args` null asks nothing. */
export function useAskRain<K extends RainQuestion>(name: K, args: ArgsOf<K> | null): AnswerOf<K> | null | undefined {
  const project = useApp((s) => s.history?.project);
  const table = name === 'events' || name === 'which' ? JSON.stringify([project?.rain?.table, project?.rain?.limits]) : '';
  const key = project ? [project.id, project.gauge?.sha256 ?? '', table] : null;
  return useAnswer(args && { name, args }, { key, keeps: false, tells: true });
}
