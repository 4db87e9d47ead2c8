import { openProjectFile } from '#core/formats';
import { readProject } from '../../core/project/guard.ts';
import { registry } from '#core/works';
import { claim, isAnotherOpen } from './claim.ts';
import { openProject } from './store.ts';
import { collectAssets, loadProject, saveProject } from './storage.ts';

export const DEMO_ID = 'sallow-rise';

async function loadDemo(): Promise<boolean> {
  const response = await fetch('/samples/demo.outlet');
  if (!response.ok) return false;
  const { json, assets } = openProjectFile('demo.outlet', new Uint8Array(await response.arrayBuffer()));
  const project = readProject(json, registry, 'demo.outlet');
  await openProject(project, { assets, readOnly: !(await claim(project.id, () => void openById(project.id))) });
  await saveProject(project).catch(() => undefined);
  return true;
}

/** Opens a kept project, or the demo when it is not kept yet. Returns false when there is no such project. */
export async function openById(id: string): Promise<boolean> {
  const project = await loadProject(id);
  if (!project) return id === DEMO_ID ? loadDemo() : false;
  if (!(await isAnotherOpen())) await collectAssets();
  await openProject(project, { readOnly: !(await claim(id, () => void openById(id))) });
  return true;
}
