// Zips: every entry is judged by what its header says before anything is unpacked, so that no more memory is taken than it said.
import { type UnzipFileInfo, unzipSync } from 'fflate';
import { UserError } from '../project/index.ts';
import { type InputFile, refuseFile } from './imported.ts';

export const MB = 1e6;

/** What a zip may hold: entries, how far one and all of them unpack, and how many times its packed size an entry may be. */
export interface ZipBounds {
  readonly entries: number;
  readonly wholeMB: number;
  readonly ratio: number;
  readonly mostMB: (name: string) => number;
}

/** Which entries are wanted of a zip, within which bounds; what to do where it is too large, and what to say where it is damaged. */
export interface ZipWanted {
  readonly bounds: ZipBounds;
  readonly isWanted: (name: string) => boolean;
  readonly tooLarge: string;
  readonly damaged: { readonly code: string; readonly what: string; readonly do: string };
}

function entryJudge(file: string, { bounds, isWanted, tooLarge }: ZipWanted): (entry: UnzipFileInfo) => boolean {
  let [count, whole] = [0, 0];
  const refuse = (what: string): never => refuseFile(file, 'zip.limits', { what, do: tooLarge });
  return ({ name, size, originalSize, compression }) => {
    if (++count > bounds.entries) refuse(`it has more than ${bounds.entries} entries`);
    const most = bounds.mostMB(name);
    if (originalSize > most * MB) refuse(`"${name}" unpacks to ${Math.round(originalSize / MB)} MB; the limit is ${most} MB`);
    if (originalSize > MB && originalSize > bounds.ratio * size)
      refuse(`"${name}" unpacks to ${Math.round(originalSize / Math.max(1, size))} times its size; the limit is ${bounds.ratio} times`);
    whole += originalSize;
    if (whole > bounds.wholeMB * MB) refuse(`it unpacks to more than ${bounds.wholeMB} MB`);
    if (compression !== 0 && compression !== 8) refuse(`"${name}" is packed in a way that is not read`);
    return isWanted(name);
  };
}

/** The wanted entries of a zip by their names. @throws UserError where it is damaged, or holds more than it may. */
export function unpacked({ name, bytes }: InputFile, wanted: ZipWanted): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes, { filter: entryJudge(name, wanted) });
  } catch (error) {
    if (error instanceof UserError) throw error;
    const { code, ...said } = wanted.damaged;
    return refuseFile(name, code, said);
  }
}

/** Maps come with their pictures; what is drawn in them is small. */
const OF_MAPS: ZipBounds = { entries: 5000, wholeMB: 1000, ratio: 1000, mostMB: () => 256 };

/** The parts of a zipped map that bear what is drawn. */
export const mapParts = (file: InputFile, endings: RegExp): Record<string, Uint8Array> =>
  unpacked(file, {
    bounds: OF_MAPS,
    isWanted: (entry) => endings.test(entry) && !entry.includes('__MACOSX'),
    tooLarge: 'Cut out the part round your land, and pack that alone.',
    damaged: { code: 'zip.broken', what: 'it cannot be unpacked', do: 'Pack or save it anew where it comes from.' },
  });
