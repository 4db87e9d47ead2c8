import { LEVEL_HIGHEST_M, LEVEL_LOWEST_M, MAX_CELLS, MAX_CELL_M, MOST_GROWTH, SURVEY_KNOWN_M } from '../terrain/index.ts';
import { told } from '../units/index.ts';
import type { Project } from './model.ts';
import type { UserProblem } from './problem.ts';

/** As many surveys as ground is made of, and how long their names may be. */
const [MOST_SURVEYS, MOST_NAMED] = [50, 300];
const MOST_FEATHER_M = 1e6;

const isBetween = (value: unknown, [least, most]: readonly [number, number]): boolean =>
  typeof value === 'number' && value >= least && value <= most;

/** What is wrong with what the ground is said to be made of. */
function surveyProblems(surveys: unknown): UserProblem[] {
  const problem = (what: string, field: string): UserProblem[] => [
    { code: 'terrain.surveys', what, where: { field }, do: 'Correct it, or take the list of surveys out: the ground itself stays.' },
  ];
  if (surveys === undefined) return [];
  if (!Array.isArray(surveys) || surveys.length > MOST_SURVEYS)
    return problem(`terrain.surveys is ${told(surveys)}; it is a list of ${MOST_SURVEYS} at most`, 'terrain.surveys');
  return surveys.flatMap((survey: unknown, k) => {
    const on = `terrain.surveys.${k}`;
    if (typeof survey !== 'object' || survey === null) return problem(`${on} is ${told(survey)}`, on);
    const { name, levelsM, growsBy, away, featherM } = survey as Record<string, unknown>;
    if (typeof name !== 'string' || name.length > MOST_NAMED) return problem(`its name is ${told(name)}`, `${on}.name`);
    if (levelsM !== undefined && !isBetween(levelsM, SURVEY_KNOWN_M))
      return problem(`levels known to ${told(levelsM)} m; ${SURVEY_KNOWN_M.join(' to ')} m can be`, `${on}.levelsM`);
    if (growsBy !== undefined && !isBetween(growsBy, [0, MOST_GROWTH]))
      return problem(`growsBy is ${told(growsBy)}; 0 to ${MOST_GROWTH} can be`, `${on}.growsBy`);
    if (away !== undefined && !(typeof away === 'string' && /^[0-9a-f]{64}$/.test(away)))
      return problem(`away is ${told(away)}, not a sha256`, `${on}.away`);
    if (featherM !== undefined && !isBetween(featherM, [0, MOST_FEATHER_M]))
      return problem(`featherM is ${told(featherM)}; 0 to ${MOST_FEATHER_M} m can be`, `${on}.featherM`);
    return [];
  });
}

/** What is wrong with a project's terrain as it stands in the document. */
export function terrainProblems({ terrain }: Project): UserProblem[] {
  const problem = (code: string, what: string, field: string): UserProblem[] => [
    { code, what, where: { field }, do: 'Import the terrain again.' },
  ];
  if (terrain === null || terrain === undefined) return [];
  if (typeof terrain !== 'object') return problem('terrain.shape', 'terrain is not an object', 'terrain');
  if (terrain.isMadeUp !== undefined && (terrain.isMadeUp as unknown) !== true)
    return problem('terrain.made-up', `terrain.isMadeUp is ${told(terrain.isMadeUp)}; it is true, or left out`, 'terrain.isMadeUp');
  const surveys = surveyProblems(terrain.surveys);
  if (surveys.length > 0) return surveys;
  if (terrain.kind === 'asset') {
    return /^[0-9a-f]{64}$/.test(terrain.sha256)
      ? []
      : problem('terrain.asset', `terrain asset "${String(terrain.sha256)}" is not a sha256`, 'terrain.sha256');
  }
  if (terrain.kind !== 'grid')
    return problem('terrain.kind', `terrain kind ${told((terrain as { kind?: unknown }).kind)} is not known here`, 'terrain.kind');
  if ('file' in terrain)
    return isNameBeside(terrain.file)
      ? []
      : problem('terrain.file', `terrain.file is ${told(terrain.file)}, not the name of a file beside the project`, 'terrain.file');
  const { ncols, nrows, cellM, west, south, z } = terrain;
  const isCount = (v: unknown): boolean => Number.isInteger(v) && (v as number) >= 2;
  if (!isCount(ncols) || !isCount(nrows))
    return problem('terrain.size', `terrain has ${told(ncols)} columns and ${told(nrows)} rows; at least 2 x 2 is needed`, 'terrain.ncols');
  if (ncols * nrows > MAX_CELLS)
    return problem('terrain.too-big', `terrain has ${ncols * nrows} cells; the limit is ${MAX_CELLS}`, 'terrain.ncols');
  if (!(cellM > 0 && cellM <= MAX_CELL_M) || ![west, south].every(Number.isFinite))
    return problem(
      'terrain.frame',
      `terrain cell size, west or south is not a sound number; cells may be up to ${MAX_CELL_M} m`,
      'terrain.cellM',
    );
  if (terrain.rows !== 'north-first')
    return problem('terrain.rows', `terrain rows are ${told(terrain.rows)}; only "north-first" is read`, 'terrain.rows');
  if (!Array.isArray(z) || z.length !== ncols * nrows)
    return problem('terrain.cells', `terrain lists ${Array.isArray(z) ? z.length : 0} levels for ${ncols * nrows} cells`, 'terrain.z');
  const bad = z.findIndex((v) => v !== null && !(typeof v === 'number' && v >= LEVEL_LOWEST_M && v <= LEVEL_HIGHEST_M));
  if (bad >= 0)
    return problem(
      'terrain.level',
      `level ${bad} of the terrain is ${told(z[bad])}, not a level from ${LEVEL_LOWEST_M} to ${LEVEL_HIGHEST_M} m, nor null where there is none`,
      `terrain.z.${bad}`,
    );
  if (z.every((v) => v === null)) return problem('terrain.no-data', 'every cell of the terrain is without data', 'terrain.z');
  return [];
}

/** A name in the same folder: no way to another place of the machine. */
const isNameBeside = (name: unknown): boolean =>
  typeof name === 'string' && /^[^/\\:]+$/.test(name) && !/^\.+$/.test(name) && !name.includes('\0');
