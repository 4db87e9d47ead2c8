// Reads and writes files apart from the page and from the computation: a large one keeps nobody waiting, and can be given up.
import * as Comlink from 'comlink';
import { importFile, openProjectFile, writeProjectFile } from '#core/formats';
import { assetName, gridToBytes, problemsThrown, recordToBytes } from '#core/project';
import type { Answer, FileWork, TakenIn } from './protocol.ts';

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

const buffersOf = (assets: Iterable<Uint8Array>): ArrayBuffer[] => [...assets].map((bytes) => bytes.buffer as ArrayBuffer);

const work: FileWork = {
  open: async (file) => {
    const done = await answer(`opening ${file.name}`, async () => {
      const { name, bytes } = await bytesOf(file);
      report(`unpacking ${name}`, 0.3);
      const { json, assets } = openProjectFile(name, bytes);
      // Parts of one buffer would be handed over together: each asset gets its own.
      return { json, assets: new Map([...assets].map(([sha, data]) => [sha, data.slice()])) };
    });
    return done.ok ? Comlink.transfer(done, buffersOf(done.value.assets.values())) : done;
  },
  import: async (file, how) => {
    const done = await answer(`reading ${file.name}`, async (): Promise<TakenIn> => {
      const input = await bytesOf(file);
      report(`understanding ${file.name}`, 0.2);
      const imported = await importFile(input, how);
      if (imported.kind === 'rain') return imported;
      report(`packing what is in ${file.name}`, 0.8);
      const bytes = imported.kind === 'terrain' ? gridToBytes(imported.grid) : recordToBytes(imported.record);
      const asset = { sha256: assetName(bytes), bytes };
      if (imported.kind === 'gauge') return { ...imported, asset };
      const { crs, source, notes } = imported;
      return { kind: 'terrain', crs, source, notes, asset };
    });
    return done.ok && done.value.kind !== 'rain' ? Comlink.transfer(done, [done.value.asset.bytes.buffer as ArrayBuffer]) : done;
  },
  pack: async (project, assets) => {
    const done = await answer(`packing ${project.name}`, () => {
      report('packing the project', 0.2);
      return writeProjectFile(project, assets);
    });
    return done.ok ? Comlink.transfer(done, [done.value.buffer as ArrayBuffer]) : done;
  },
  onProgress: (to) => {
    report = to;
    return Promise.resolve();
  },
};

Comlink.expose(work);
