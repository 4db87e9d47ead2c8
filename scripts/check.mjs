// All checks in order: lint, types, then every test in one Jest run. Ends with "N passed, N failed" counted from Jest's own result.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..');
const bin = (name) => join(root, 'node_modules/.bin', name);
const out = join(mkdtempSync(join(tmpdir(), 'outlet-')), 'jest.json');

const steps = [
  ['eslint', bin('eslint'), ['.', '--max-warnings', '0']],
  ['prettier', bin('prettier'), ['--check', '.', '--log-level', 'warn']],
  ['imports', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'core', 'cli', 'server', 'web', 'e2e', 'abuse']],
  ...['core', 'tsconfig.json', 'web', 'e2e', 'abuse'].map((project) => [`types of ${project}`, bin('tsc'), ['-p', project]]),
  ['compiled kernels', process.execPath, ['scripts/build-native.mjs', '--check']],
  ['generated docs', bin('tsx'), ['scripts/write-methods.ts', '--check']],
  ['unit tests', bin('jest'), ['--selectProjects', 'core', 'cli', 'server', 'web', '--json', `--outputFile=${out}`]],
  ['abuse, a sample', bin('tsx'), ['abuse/run.ts', '--sample']],
  ['interface tests', bin('jest'), ['--selectProjects', 'e2e', '--runInBand', '--json', `--outputFile=${out}.e2e`]],
];

let passed = 0;
let failed = 0;
for (const [name, command, args] of steps) {
  const start = Date.now();
  console.log(`\n== ${name}`);
  const { status } = spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] });
  console.log(`== ${name}: ${status === 0 ? 'ok' : 'FAILED'} in ${((Date.now() - start) / 1000).toFixed(0)} s`);
  const report = args.find((a) => a.startsWith('--outputFile='))?.slice('--outputFile='.length);
  if (report) {
    try {
      const result = JSON.parse(readFileSync(report, 'utf8'));
      passed += result.numPassedTests;
      failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
    } catch {
      failed++;
    }
  } else if (status === 0) passed++;
  else failed++;
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
