// All checks: lint, types and the like two at a time, then every test. Ends with "N passed, N failed" counted from Jest's own results.
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..');
const bin = (name) => join(root, 'node_modules/.bin', name);
const out = join(mkdtempSync(join(tmpdir(), 'outlet-')), 'jest.json');

/** What needs no other, the longest first: each core takes the next. */
const apart = [
  ['abuse, a sample', bin('tsx'), ['abuse/run.ts', '--sample']],
  ['lint', bin('oxlint'), ['--type-aware', '--max-warnings', '0', '.']],
  ['format', bin('oxfmt'), ['--check', '.']],
  ['imports', bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'core', 'cli', 'server', 'web', 'e2e', 'abuse']],
  ...['core', 'tsconfig.json', 'web', 'e2e', 'abuse'].map((project) => [
    `types of ${project}`,
    process.execPath,
    ['node_modules/typescript7/bin/tsc', '-p', project],
  ]),
  ['compiled kernels', process.execPath, ['scripts/build-native.mjs', '--check']],
  ['generated docs', bin('tsx'), ['scripts/write-methods.ts', '--check']],
];
// Jest keeps a core for itself unless it is told how many there are.
const workers = `--maxWorkers=${availableParallelism()}`;
const unit = [['unit tests', bin('jest'), ['--selectProjects', 'core', 'cli', 'server', 'web', workers, '--json', `--outputFile=${out}`]]];
// A page often waits for itself: with one more than there are cores none of them rests.
const pagesAtOnce = `--maxWorkers=${availableParallelism() + 1}`;
const pages = [['interface tests', bin('jest'), ['--selectProjects', 'e2e', pagesAtOnce, '--json', `--outputFile=${out}.e2e`]]];

let passed = 0;
let failed = 0;
/** Runs a command; what it says is shown when it is done, so that two beside each other do not mix. */
function run([name, command, args], isAlone) {
  const start = Date.now();
  if (isAlone) console.log(`\n== ${name}`);
  return new Promise((resolve) => {
    const said = [];
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', isAlone ? 'inherit' : 'pipe', isAlone ? 'inherit' : 'pipe'] });
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (data) => said.push(data));
    child.on('close', (status) => {
      if (!isAlone) process.stdout.write(`\n== ${name}\n${Buffer.concat(said)}`);
      console.log(`== ${name}: ${status === 0 ? 'ok' : 'FAILED'} in ${((Date.now() - start) / 1000).toFixed(0)} s`);
      resolve(status);
    });
  });
}

function count(args, status) {
  const report = args.find((a) => a.startsWith('--outputFile='))?.slice('--outputFile='.length);
  if (!report) {
    if (status === 0) passed++;
    else failed++;
    return;
  }
  try {
    const result = JSON.parse(readFileSync(report, 'utf8'));
    passed += result.numPassedTests;
    failed += result.numFailedTests + result.numRuntimeErrorTestSuites;
  } catch {
    failed++;
  }
}

/** Takes steps from a list that others may take from as well, until there are none. */
async function takeFrom(steps, isAlone = false) {
  for (let step = steps.shift(); step; step = steps.shift()) count(step[2], await run(step, isAlone));
}

await Promise.all([takeFrom(apart), takeFrom(apart)]);
await takeFrom([...unit, ...pages], true);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 && passed > 0 ? 0 : 1);
