import { strToU8, zipSync } from 'fflate';
import { type Project, assetName, requireWithin } from '../project/index.ts';
import { refuseFile } from './imported.ts';
import { textOf } from './text.ts';
import { MB, unpacked } from './zip.ts';

export interface ProjectFile {
  /** Parsed project.json, not yet checked. */
  readonly json: unknown;
  /** Assets by their sha256. */
  readonly assets: ReadonlyMap<string, Uint8Array>;
}

// A fixed time stamp keeps the file the same for the same project (zip cannot say less than 1980).
const STAMP = '1980-01-01T12:00:00';

/** What a project file may hold. A terrain of the largest size takes 64 MB; a century of a gauge by the minute takes less. */
export const ZIP_LIMITS = { entries: 16, entryMB: 200, wholeMB: 400, jsonMB: 150, ratio: 200 } as const;
const MAIN = 'project.json';

/** A project and the assets it names as one .outlet file. */
export function writeProjectFile(project: Project, assets: ReadonlyMap<string, Uint8Array>): Uint8Array {
  const json = strToU8(JSON.stringify(project, null, 1));
  const pack = (level: 0 | 6): Uint8Array => {
    const entries: Record<string, [Uint8Array, { mtime: string; level: 0 | 6 }]> = { [MAIN]: [json, { mtime: STAMP, level }] };
    for (const [name, bytes] of assets) entries[`assets/${name}`] = [bytes, { mtime: STAMP, level }];
    return zipSync(entries);
  };
  const packed = pack(6);
  const whole = [...assets.values()].reduce((sum, bytes) => sum + bytes.length, json.length);
  // Ground as flat as a table packs so well that its own reader would take it for a trap.
  return whole > MB && whole > (ZIP_LIMITS.ratio / 4) * packed.length ? pack(0) : packed;
}

/** Opens a .outlet file or a bare project.json. @throws UserError when it is damaged. */
export function openProjectFile(name: string, bytes: Uint8Array): ProjectFile {
  if (bytes.length === 0) refuseFile(name, 'file.empty', { what: 'the file is empty', do: 'Choose another file.' });
  if (!(bytes[0] === 0x50 && bytes[1] === 0x4b)) return { json: parseJson(name, bytes), assets: new Map() };
  const files = unpacked(
    { name, bytes },
    {
      bounds: { ...ZIP_LIMITS, mostMB: (entry) => (entry === MAIN ? ZIP_LIMITS.jsonMB : ZIP_LIMITS.entryMB) },
      isWanted: (entry) => entry === MAIN || /^assets\/[^/]+$/.test(entry),
      tooLarge: 'Use the file as Outlet saved it: nothing of Outlet’s own is as large.',
      damaged: { code: 'project.damaged', what: 'the file is cut short or damaged', do: 'Use another copy of it.' },
    },
  );
  const main = Object.hasOwn(files, MAIN) ? files[MAIN] : undefined;
  if (!main)
    return refuseFile(name, 'project.not-a-project', { what: 'there is no project.json in it', do: 'Choose a file that Outlet saved.' });
  const assets = new Map<string, Uint8Array>();
  for (const [path, data] of Object.entries(files)) {
    if (!path.startsWith('assets/')) continue;
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

/** Parsed JSON within the limits of depth and length. @throws UserError with the line where it is none. */
export function parseJson(name: string, bytes: Uint8Array): unknown {
  if (bytes.length > ZIP_LIMITS.jsonMB * MB)
    refuseFile(name, 'json.too-long', {
      what: `it has ${Math.round(bytes.length / MB)} MB; the limit is ${ZIP_LIMITS.jsonMB} MB`,
      do: 'Keep the terrain in a file of its own.',
    });
  const text = textOf(bytes);
  const json = parsed(name, text);
  requireWithin(json, name);
  return json;
}

function parsed(name: string, text: string): unknown {
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
