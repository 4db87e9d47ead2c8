import { checkTable, stormProblems } from '../rain/index.ts';
import { told } from '../units/index.ts';
import { RAIN_BASES, type Rain } from './model.ts';
import type { UserProblem } from './problem.ts';

const isShaped = (rows: unknown, like: readonly (readonly number[])[]): boolean =>
  Array.isArray(rows) &&
  rows.length === like.length &&
  rows.every(
    (row: unknown, r) =>
      Array.isArray(row) && row.length === like[r].length && row.every((v) => typeof v === 'number' && v >= 0 && Number.isFinite(v)),
  );

/** Everything wrong with a project's rain, for files and commands alike. */
export function rainProblems(rain: Rain | null | undefined): UserProblem[] {
  if (!rain) return [];
  const found: UserProblem[] = checkTable(rain.table).map((p) => ({
    code: `rain.${p.code}`,
    what: p.what,
    where: { field: 'rain.table' },
    do: 'Correct the rain table: depth never falls with duration or return period.',
  }));
  if (found.length > 0) return found;
  found.push(...stormProblems(rain.table, rain.storm).map((p) => ({ code: p.code, what: p.what, where: { field: p.field }, do: p.do })));
  if (rain.basis !== undefined && !RAIN_BASES.includes(rain.basis)) {
    found.push({
      code: 'rain.basis',
      what: `a table cannot come from ${told(rain.basis)}`,
      where: { field: 'rain.basis' },
      do: `Use one of ${RAIN_BASES.join(', ')}.`,
    });
  }
  const { limits } = rain;
  if (limits !== undefined && !(isShaped(limits?.lowMm, rain.table.depthMm) && isShaped(limits?.highMm, rain.table.depthMm))) {
    found.push({
      code: 'rain.limits',
      what: 'the limits of the rain table do not have its shape',
      where: { field: 'rain.limits' },
      do: 'Leave them out, or give a low and a high depth for each depth.',
    });
  }
  return found;
}
