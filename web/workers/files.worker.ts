// Reads and writes files apart from the page and from the computation: a large one keeps nobody waiting, and can be given up.
import * as Comlink from 'comlink';
import {
  GROUND_ENDINGS,
  canBeGround,
  crsOf,
  drawingOf,
  epsgOf,
  findSystems,
  importFile,
  needsCrs,
  openProjectFile,
  prjOf,
  readMarks,
  overviewOf,
  pointTable,
  tablesOf,
  withPrj,
  writeDrawing,
  writeGround,
  writePegs,
  writeProjectFile,
  writeTables,
} from '#core/formats';
import { catalogue } from '#core/works';
import { assetName, gridFromBytes, gridToBytes, problemsThrown, recordToBytes } from '#core/project';
import { type Grid, differsFrom, patched, everyCellRead, shadedByThemselves, shiftByMarks, smoothed, usualFeather } from '#core/terrain';
import type { Answer, FileWork, Looked, Packed, TakenIn } from './protocol.ts';

let report: (part: string, share: number) => void = () => undefined;

async function answer<T>(doing: string, run: () => T | Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: true, value: await run() };
  } catch (error) {
    return { ok: false, problems: problemsThrown(error, doing) };
  }
}

async function bytesOf(file: File): Promise<{ name: string; bytes: Uint8Array }> {
  report(`reading ${file.name}`, 0);
  return { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
}

const gridOf = async (blob: Blob): Promise<Grid> => gridFromBytes(new Uint8Array(await blob.arrayBuffer()));
const blobOf = (bytes: Uint8Array): Blob => new Blob([bytes as Uint8Array<ArrayBuffer>]);
const packed = (grid: Grid): Packed => {
  const bytes = gridToBytes(grid);
  return { sha256: assetName(bytes), blob: blobOf(bytes) };
};
const entriesOf = async <T>(map: ReadonlyMap<string, Blob>, read: (blob: Blob) => Promise<T>): Promise<Map<string, T>> =>
  new Map(await Promise.all([...map].map(async ([name, blob]) => [name, await read(blob)] as const)));

const work: FileWork = {
  open: (file) =>
    answer(`opening ${file.name}`, async () => {
      const { name, bytes } = await bytesOf(file);
      report(`unpacking ${name}`, 0.3);
      const { json, assets } = openProjectFile(name, bytes);
      return { json, assets: new Map([...assets].map(([sha, data]) => [sha, blobOf(data)])) };
    }),
  import: (file, how) =>
    answer(`reading ${file.name}`, async (): Promise<TakenIn> => {
      const input = await bytesOf(file);
      report(`understanding ${file.name}`, 0.2);
      const imported = await importFile(input, how);
      if (imported.kind === 'rain') return imported;
      if (imported.kind === 'shapes') return { ...imported, canBeGround: canBeGround(imported) };
      report(`packing what is in ${file.name}`, 0.8);
      if (imported.kind === 'picture') {
        const { bytes, ...picture } = imported.picture;
        return {
          ...imported,
          picture,
          asset: { sha256: assetName(bytes), blob: new Blob([bytes as Uint8Array<ArrayBuffer>], { type: picture.kind }) },
        };
      }
      const bytes = imported.kind === 'terrain' ? gridToBytes(imported.grid) : recordToBytes(imported.record);
      const asset = { sha256: assetName(bytes), blob: blobOf(bytes) };
      if (imported.kind === 'gauge') return { ...imported, asset };
      const { crs, source, notes, known } = imported;
      const away = known?.away ? packed(known.away) : null;
      return { kind: 'terrain', crs, source, notes, asset, ...(known ? { known: { ...known, away } } : {}) };
    }),
  points: (file, decimal) => answer(`looking over ${file.name}`, async () => pointTable(await bytesOf(file), decimal)),
  look: (file, band) =>
    answer(`looking over ${file.name}`, async (): Promise<Looked> => {
      const input = await bytesOf(file);
      const { levels, ...seen } = await overviewOf(input, { band, report: (share) => report(`looking over ${file.name}`, share) });
      return { ...seen, ...shadedByThemselves(levels, seen) };
    }),
  compare: (ground, survey) =>
    answer('comparing two grounds', async () => {
      const [there, laid] = [await gridOf(ground), await gridOf(survey)];
      const differs = differsFrom(there, laid);
      return differs && { differs, featherM: usualFeather(there, laid) };
    }),
  marks: (ground, survey, text) =>
    answer('reading the marks', async () => {
      const marks = readMarks(text);
      return shiftByMarks(marks, await gridOf(ground), await gridOf(survey));
    }),
  patch: (ground, survey, how) =>
    answer('laying one ground into the other', async () => {
      report('laying one ground into the other', 0.2);
      const laid = await gridOf(survey);
      return { ground: packed(patched(await gridOf(ground), laid, how)), reach: packed(everyCellRead(laid)) };
    }),
  pegs: (pegs, { format, crs: name, names }) =>
    answer('exporting the pegs', async () => {
      const crs = name === null ? null : await crsOf(name);
      return new Blob([writePegs(pegs, format, { crs, workNames: new Map(names) })], { type: 'text/plain' });
    }),
  systems: (words) => answer('looking for a system', () => findSystems(words)),
  tables: (project, derived) => answer('writing the tables', async () => blobOf(await writeTables(tablesOf(project, derived)))),
  smooth: (ground, how) =>
    answer('smoothing the ground', async () => {
      report('smoothing the ground', 0.2);
      const made = smoothed(await gridOf(ground), how);
      if (!made) return null;
      const { grid, ...told } = made;
      return { ...told, asset: packed(grid) };
    }),
  ground: ({ frame, z }, { format, name, crs: said }) =>
    answer('exporting the ground', async () => {
      report('writing the ground', 0.3);
      const crs = said === null ? null : await crsOf(said);
      const bytes = writeGround({ ...frame, z }, format, { name, epsg: crs && epsgOf(crs), when: new Date() });
      const prj = crs && format === 'asc' ? prjOf(crs) : null;
      return prj === null ? { blob: blobOf(bytes), ending: GROUND_ENDINGS[format] } : { blob: blobOf(withPrj(bytes, prj)), ending: 'zip' };
    }),
  drawing: (project, { derived, contours, format }) =>
    answer('exporting the plan', async () => {
      report('drawing the plan', 0.3);
      const name = project.site.crs;
      const crs = name === null || !needsCrs(format) ? null : await crsOf(name);
      return new Blob([writeDrawing(drawingOf(project, derived, { catalogue, contours }), format, crs)], { type: 'text/plain' });
    }),
  pack: (project, assets) =>
    answer(`packing ${project.name}`, async () => {
      report('packing the project', 0.2);
      return blobOf(writeProjectFile(project, await entriesOf(assets, async (blob) => new Uint8Array(await blob.arrayBuffer()))));
    }),
  onProgress: (to) => {
    report = to;
    return Promise.resolve();
  },
};

Comlink.expose(work);
