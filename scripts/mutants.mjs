// Plants single-line faults in a folder of core and tells how many its tests catch: `npm run mutants [-- works checks network derive]`.
// Kept from run to run in reports/ (not in git), so that only what changed is tried again. Not part of `npm test`.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

const root = join(import.meta.dirname, '..');
/** Folders by name, and the tests that must catch what is planted there. */
const PARTS = {
  works: readdirSync(join(root, 'core/works'))
    .filter((name) => statSync(join(root, 'core/works', name)).isDirectory())
    .map((name) => `works/${name}`),
  checks: ['checks'],
  network: ['network'],
  derive: ['derive'],
};

/** The files of a part that may be spoilt: all but its tests and its lists of names. */
const filesOf = (part) => [`core/${part}/**/*.ts`, `!core/${part}/**/*.test.ts`];

function run(part) {
  const name = part.replaceAll('/', '-');
  const report = join(root, 'reports', `mutants-${name}.json`);
  mkdirSync(join(root, 'reports'), { recursive: true });
  const { status } = spawnSync(join(root, 'node_modules/.bin/stryker'), ['run', 'scripts/stryker.config.mjs'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, MUTATE: JSON.stringify(filesOf(part)), MUTANTS_OF: part, MUTANTS_REPORT: report, NODE_OPTIONS: '--no-warnings' },
  });
  return status === 0 && existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
}

/** Killed and all mutants that could be judged. */
function countOf(report) {
  const all = Object.values(report.files).flatMap((file) => file.mutants.map((m) => m.status));
  const of = (...wanted) => all.filter((s) => wanted.includes(s)).length;
  return { killed: of('Killed', 'Timeout'), all: of('Killed', 'Timeout', 'Survived', 'NoCoverage') };
}

const asked = process.argv.slice(2);
const parts = (asked.length > 0 ? asked : Object.keys(PARTS)).flatMap((name) => PARTS[name] ?? [name]);
const sums = [];
for (const part of parts) {
  const report = run(part);
  if (report) sums.push({ part, ...countOf(report) });
  else process.exitCode = 1;
}
for (const { part, killed, all } of sums)
  console.log(`${part.padEnd(24)} ${killed} of ${all} caught, ${((100 * killed) / Math.max(1, all)).toFixed(1)} %`);
const [killed, all] = ['killed', 'all'].map((key) => sums.reduce((a, s) => a + s[key], 0));
console.log(`${'together'.padEnd(24)} ${killed} of ${all} caught, ${((100 * killed) / Math.max(1, all)).toFixed(1)} %`);
