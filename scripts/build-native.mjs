// Compiles native/ into core/terrain/kernels/native.json; with --check only says whether that file is what native/ gives.
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import asc from 'assemblyscript/asc';

const root = join(import.meta.dirname, '..');
const target = join(root, 'core/terrain/kernels/native.json');
const out = join(mkdtempSync(join(tmpdir(), 'outlet-native-')), 'kernels.wasm');

const options = ['--optimizeLevel', '3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', '--baseDir', root, '--outFile', out];
const { error, stderr } = await asc.main(['native/index.ts', ...options]);
if (error) {
  console.error(stderr.toString());
  process.exit(1);
}
const text = `${JSON.stringify({ about: 'Compiled from native/ by npm run native.', wasm: readFileSync(out).toString('base64') })}\n`;
if (!process.argv.includes('--check')) writeFileSync(target, text);
else if (readFileSync(target, 'utf8') !== text) {
  console.error('core/terrain/kernels/native.json is not what native/ compiles to: run `npm run native`.');
  process.exit(1);
}
