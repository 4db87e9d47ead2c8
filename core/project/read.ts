import type { Catalogue } from '../works/index.ts';
import { documentProblems } from './judge.ts';
import { requireWithin } from './limits.ts';
import { PROJECT_FORMAT, PROJECT_VERSION, type Project } from './model.ts';
import { UserError } from './problem.ts';
import { told } from '../units/index.ts';

/**
 * A project from parsed JSON. What is not understood is refused, never stripped; unknown extra members are kept as they are.
 * @throws UserError listing the problems found.
 */
export function readProject(json: unknown, registry: Catalogue, file?: string): Project {
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
      `"format" is ${told(head.format)}, not "${PROJECT_FORMAT}"`,
      'Choose a .outlet file or a project.json.',
    );
  if (typeof head.version === 'number' && head.version > PROJECT_VERSION) {
    return refuse(
      'project.newer',
      `this project was made by a newer version (${head.version}; this app reads up to ${PROJECT_VERSION})`,
      'Update Outlet, then open it again. Nothing was changed.',
    );
  }
  requireWithin(json, file);
  // Lists that may be left out; members keep the order they have in the file.
  const { pins = [], features = [] } = json as { pins?: unknown; features?: unknown };
  const project = { ...json, pins, features } as unknown as Project;
  const problems = documentProblems(project, registry).map((p) => ({ ...p, where: { ...where, ...p.where } }));
  if (problems.length > 0) throw new UserError(problems);
  return project;
}
