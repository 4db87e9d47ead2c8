import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { MAX_CELLS, MAX_CELL_M } from '../terrain/index.ts';
import type { Registry } from '../works/index.ts';
import { ProjectShape } from './classes.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, type Project } from './model.ts';
import { checkFeature } from '../seen/index.ts';
import { told } from '../units/index.ts';
import { groundProblems } from './ground-problems.ts';
import { UserError, type UserProblem, problemOf } from './problem.ts';
import { problemsOf } from './shape-problems.ts';
import { caseProblems, linkProblems } from './cases.ts';
import { rainProblems } from './rain-problems.ts';
import { workProblems } from './work-problems.ts';

/** Members of a project that are objects, never lists. */
const MEMBERS = ['site', 'rain', 'gauge', 'ground', 'runoff', 'survey', 'land'] as const;

/**
 * A project from parsed JSON. What is not understood is refused, never stripped; unknown extra members are kept as they are.
 * @throws UserError listing every problem found.
 */
export function readProject(json: unknown, registry: Registry, file?: string): Project {
  const where = file === undefined ? {} : { file };
  const refuse = (code: string, what: string, hint: string): never => {
    throw new UserError([{ code, what, where, do: hint }]);
  };
  if (typeof json !== 'object' || json === null || Array.isArray(json)) {
    return refuse('project.not-a-project', 'this is not an Outlet project', 'Choose a .outlet file or a project.json.');
  }
  const head = json as { format?: unknown; version?: unknown };
  if (head.format !== PROJECT_FORMAT)
    return refuse(
      'project.not-a-project',
      `"format" is ${JSON.stringify(head.format) ?? 'missing'}, not "${PROJECT_FORMAT}"`,
      'Choose a .outlet file or a project.json.',
    );
  if (typeof head.version === 'number' && head.version > PROJECT_VERSION) {
    return refuse(
      'project.newer',
      `this project was made by a newer version (${head.version}; this app reads up to ${PROJECT_VERSION})`,
      'Update Outlet, then open it again. Nothing was changed.',
    );
  }
  // A list would pass for an object that has none of its members.
  const listed = MEMBERS.find((key) => Array.isArray((json as Record<string, unknown>)[key]));
  if (listed !== undefined) {
    throw new UserError([
      {
        code: 'project.member',
        what: `"${listed}" is a list`,
        where: { ...where, field: listed },
        do: 'Open an export of the project instead.',
      },
    ]);
  }
  // Lists that may be left out; members keep the order they have in the file.
  const { pins = [], features = [] } = json as { pins?: unknown; features?: unknown };
  const whole = { ...json, pins, features };
  const shape = plainToInstance(ProjectShape, { ...whole, terrain: null }, { enableCircularCheck: false });
  const problems = problemsOf(validateSync(shape, { forbidUnknownValues: true }), file);
  if (problems.length > 0) throw new UserError(problems);
  const project = whole as unknown as Project;
  const inner = [
    ...terrainProblems(project),
    ...featureProblems(project),
    ...rainProblems(project.rain),
    ...gaugeProblems(project),
    ...groundProblems(project),
    ...caseProblems(project.cases),
    ...optionProblems(project, registry),
  ].map((p) => ({ ...p, where: { ...where, ...p.where } }));
  if (inner.length > 0) throw new UserError(inner);
  return project;
}

function terrainProblems({ terrain }: Project): UserProblem[] {
  const problem = (code: string, what: string, field: string): UserProblem[] => [
    { code, what, where: { field }, do: 'Import the terrain again.' },
  ];
  if (terrain === null || terrain === undefined) return [];
  if (typeof terrain !== 'object') return problem('terrain.shape', 'terrain is not an object', 'terrain');
  if (terrain.kind === 'asset') {
    return /^[0-9a-f]{64}$/.test(terrain.sha256)
      ? []
      : problem('terrain.asset', `terrain asset "${String(terrain.sha256)}" is not a sha256`, 'terrain.sha256');
  }
  if (terrain.kind !== 'grid')
    return problem('terrain.kind', `terrain kind ${told((terrain as { kind?: unknown }).kind)} is not known here`, 'terrain.kind');
  if ('file' in terrain)
    return typeof terrain.file === 'string' ? [] : problem('terrain.file', 'terrain.file is not a name', 'terrain.file');
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
  const bad = z.findIndex((v) => v !== null && !(typeof v === 'number' && Number.isFinite(v)));
  if (bad >= 0) return problem('terrain.level', `level ${bad} of the terrain is ${told(z[bad])}, not a number or null`, `terrain.z.${bad}`);
  if (z.every((v) => v === null)) return problem('terrain.no-data', 'every cell of the terrain is without data', 'terrain.z');
  return [];
}

function featureProblems({ features }: Project): UserProblem[] {
  return features.flatMap((feature, i) => {
    const same = features.findIndex((other) => other.id === feature.id) !== i;
    const own = checkFeature(feature).map(problemOf);
    const twice: UserProblem = {
      code: 'feature.same-id',
      what: `two features have the id "${feature.id}"`,
      where: { field: 'id' },
      do: 'Give each its own id.',
    };
    return [...own, ...(same ? [twice] : [])].map((p) => ({
      ...p,
      where: { field: `features.${i}.${p.where.field ?? ''}`.replace(/\.$/, '') },
    }));
  });
}

function gaugeProblems({ gauge }: Project): UserProblem[] {
  if (gauge === undefined || gauge === null) return [];
  const isSound = /^[0-9a-f]{64}$/.test(String(gauge.sha256)) && typeof gauge.source === 'string';
  return isSound
    ? []
    : [
        {
          code: 'gauge.asset',
          what: `gauge asset ${told(gauge.sha256)} is not a sha256 with its source`,
          where: { field: 'gauge' },
          do: 'Import the gauge’s record again.',
        },
      ];
}

function optionProblems(project: Project, registry: Registry): UserProblem[] {
  const found: UserProblem[] = [];
  const add = (code: string, what: string, more: { field: string; do: string }): void => {
    found.push({ code, what, where: { field: more.field }, do: more.do });
  };
  if (!project.options.some((o) => o.id === project.activeOption)) {
    add('project.active-option', `the active option "${project.activeOption}" is not in the project`, {
      field: 'activeOption',
      do: `Choose one of ${project.options.map((o) => o.id).join(', ')}.`,
    });
  }
  project.options.forEach((option, o) => {
    found.push(...linkProblems(option.links, `options.${o}.links`));
    option.works.forEach((work, w) => {
      const field = `options.${o}.works.${w}`;
      for (const p of workProblems(work, option.works, registry))
        add(p.code, p.what, { field: p.where.field ? `${field}.${p.where.field}` : field, do: p.do });
      if (option.works.findIndex((other) => other.id === work.id) !== w)
        add('work.same-id', `two works have the id "${work.id}"`, { field: `${field}.id`, do: 'Give each work its own id.' });
    });
  });
  return found;
}
