// The benchmark is run as the page runs what it measures: compiled into one file. Sources that are translated while they are read
// name every function anew each time it is made, which costs up to half of the time of small ones.
import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
/** As deep as the sources, so that what they name beside them is found. */
const BUILT = join(ROOT, 'reports', 'bench');
const ENTRIES = ['main', 'chain-worker', 'gauge-worker', 'bands-worker'];

/** All figures of the benchmark. @throws Error where it cannot be compiled, or fails. */
export async function benchCompiled(): Promise<unknown> {
  const { build } = await import('esbuild');
  const common = { absWorkingDir: ROOT, outdir: BUILT, bundle: true, alias: { '#core': './core' }, logLevel: 'error' } as const;
  await build({
    ...common,
    entryPoints: ENTRIES.map((name) => `cli/bench/${name}.ts`),
    outExtension: { '.js': '.mjs' },
    platform: 'node',
    format: 'esm',
    packages: 'external',
  });
  // What a page runs has everything in it.
  await build({ ...common, entryPoints: ['cli/bench/field-page.ts'], platform: 'browser', format: 'iife' });
  const { stdout } = await promisify(execFile)(process.execPath, [join(BUILT, 'main.mjs')], { maxBuffer: 1e8 });
  return JSON.parse(stdout) as unknown;
}
