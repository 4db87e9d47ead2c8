// What comes from a file or from what was kept is judged before it is shown; what judges it comes when it is asked for.
import type { Project } from '#core/project';
import { catalogue } from '#core/works';

/** A project from JSON. @throws UserError saying what is wrong with it, and where. */
export async function readProject(json: unknown, file?: string): Promise<Project> {
  const { readProject: judged } = await import('../../core/project/guard.ts');
  return judged(json, catalogue, file);
}
