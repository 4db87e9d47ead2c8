import { readFileSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { importFile, openProjectFile } from '#core/formats';
import type { GridSource, RainContext } from '#core/derive';
import { type Project, type Terrain, fail, gridFromBytes, recordFromBytes } from '#core/project';
import { readProject } from '../core/project/guard.ts';
import type { Grid } from '#core/terrain';
import { registry } from '#core/works';

export function readBytes(path: string): Uint8Array {
  try {
    return new Uint8Array(readFileSync(path));
  } catch {
    return fail('file.missing', `there is no readable file ${path}`, { where: { file: path }, do: 'Check the name and the folder.' });
  }
}

export function writeBytes(path: string, bytes: Uint8Array): void {
  try {
    writeFileSync(path, bytes);
  } catch {
    fail('file.unwritable', `${path} cannot be written`, { where: { file: path }, do: 'Check the folder, and that it may be written to.' });
  }
}

export interface Opened {
  readonly project: Project;
  readonly grids: GridSource;
  readonly records: RainContext['records'];
  /** Hash of the document as it lies in the file. */
  readonly file: string;
}

/** Opens a .outlet file or project.json with its terrain. */
export async function openProject(path: string): Promise<Opened> {
  const file = basename(path);
  const { json, assets } = openProjectFile(file, readBytes(path));
  const project = readProject(json, registry, file);
  const { terrain } = project;
  let grid: Grid | null = null;
  if (terrain?.kind === 'asset') {
    const bytes =
      assets.get(terrain.sha256) ??
      fail('asset.missing', `the terrain ${terrain.sha256.slice(0, 12)}… is not in the file`, {
        where: { file },
        do: 'Export the project again from where it was made.',
      });
    grid = gridFromBytes(bytes, file);
  } else if (terrain?.kind === 'grid' && 'file' in terrain) {
    const imported = await importFile(
      { name: terrain.file, bytes: readBytes(join(dirname(path), terrain.file)) },
      { crs: project.site.crs },
    );
    if (imported.kind !== 'terrain')
      fail('terrain.file', `${terrain.file} is not a terrain`, {
        where: { file: terrain.file },
        do: 'Name a GeoTIFF, an ASCII grid or survey points.',
      });
    else grid = imported.grid;
  }
  // What is kept of where it was read lies beside the ground.
  const surveyed = (asked: Terrain): Grid | null => {
    if (asked.kind !== 'asset' || asked.sha256 === (terrain?.kind === 'asset' ? terrain.sha256 : null)) return null;
    const bytes = assets.get(asked.sha256);
    return bytes
      ? gridFromBytes(bytes, file)
      : fail('asset.missing', `what is known of ${asked.source} is not in the file`, {
          where: { file },
          do: 'Export the project again from where it was made.',
        });
  };
  return {
    project,
    file,
    records: ({ sha256 }) =>
      recordFromBytes(
        assets.get(sha256) ??
          fail('asset.missing', `the gauge ${sha256.slice(0, 12)}… is not in the file`, {
            where: { file },
            do: 'Export the project again from where it was made.',
          }),
        file,
      ),
    grids: (asked) =>
      surveyed(asked) ?? grid ?? fail('terrain.missing', 'the terrain is not there', { where: { file }, do: 'Import it again.' }),
  };
}
