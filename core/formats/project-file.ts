import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { type Project, assetName } from '../project/index.ts';
import { refuseFile } from './imported.ts';

export interface ProjectFile {
  /** Parsed project.json, not yet checked. */
  readonly json: unknown;
  /** Assets by their sha256. */
  readonly assets: ReadonlyMap<string, Uint8Array>;
}

// A fixed time stamp keeps the file the same for the same project (zip cannot say less than 1980).
const STAMP = '1980-01-01T12:00:00';

/** A project and the assets it names as one .outlet file. */
export function writeProjectFile(project: Project, assets: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const entries: Record<string, [Uint8Array, { mtime: string; level: 6 }]> = {
    'project.json': [strToU8(JSON.stringify(project, null, 1)), { mtime: STAMP, level: 6 }],
  };
  for (const [name, bytes] of assets) entries[`assets/${name}`] = [bytes, { mtime: STAMP, level: 6 }];
  return zipSync(entries);
}

/** Opens a .outlet file or a bare project.json. @throws UserError when it is damaged. */
export function openProjectFile(name: string, bytes: Uint8Array): ProjectFile {
  if (bytes.length === 0) refuseFile(name, 'file.empty', { what: 'the file is empty', do: 'Choose another file.' });
  if (!(bytes[0] === 0x50 && bytes[1] === 0x4b)) return { json: parseJson(name, bytes), assets: new Map() };
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes);
  } catch {
    return refuseFile(name, 'project.damaged', { what: 'the file is cut short or damaged', do: 'Use another copy of it.' });
  }
  const main = files['project.json'];
  if (!main)
    return refuseFile(name, 'project.not-a-project', { what: 'there is no project.json in it', do: 'Choose a file that Outlet saved.' });
  const assets = new Map<string, Uint8Array>();
  for (const [path, data] of Object.entries(files)) {
    if (!path.startsWith('assets/') || path.endsWith('/')) continue;
    const wanted = path.slice('assets/'.length);
    if (assetName(data) !== wanted)
      refuseFile(name, 'asset.damaged', {
        what: `the asset ${wanted.slice(0, 12)}… does not match its name`,
        do: 'Use another copy of the file.',
      });
    assets.set(wanted, data);
  }
  return { json: parseJson(name, main), assets };
}

export function parseJson(name: string, bytes: Uint8Array): unknown {
  const text = strFromU8(bytes).replace(/^\uFEFF/, '');
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    const at = /position (\d+)/.exec(error instanceof Error ? error.message : '');
    const line = at ? text.slice(0, Number(at[1])).split('\n').length : undefined;
    return refuseFile(name, 'json.syntax', {
      what: 'it is not valid JSON',
      ...(line === undefined ? {} : { line }),
      do: 'Correct the file at this line, or use another copy.',
    });
  }
}
