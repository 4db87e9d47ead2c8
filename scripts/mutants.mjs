// Plants single-line faults in a folder of core and tells how many its tests catch: `npm run mutants [-- works checks network derive]`.
// With `--sample 60` only on so many lines of each, drawn at random but always the same ones: where all of them would take hours.
// Kept from run to run in reports/ (not in git), so that only what changed is tried again. Not part of `npm test`.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';

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

const { values, positionals: asked } = parseArgs({ allowPositionals: true, options: { sample: { type: 'string' } } });

/** Lines of a part on which something is worked out, as `file:line-line`. */
function linesOf(part) {
  const files = readdirSync(join(root, 'core', part), { recursive: true }).filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts'));
  return files.sort().flatMap((file) =>
    readFileSync(join(root, 'core', part, file), 'utf8')
      .split('\n')
      .flatMap((text, k) =>
        /^\s*(?:\/?\*|\/\/|import\b|export \*|$)|^[\s})\]>;,]*$/.test(text) ? [] : [`core/${part}/${file}:${k + 1}-${k + 1}`],
      ),
  );
}

/** So many of a list, the same ones every time (a multiplicative generator, Park and Miller 1988). */
function drawn(list, count) {
  let seed = 20250;
  const next = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  const left = [...list];
  return Array.from({ length: Math.min(count, left.length) }, () => left.splice(Math.floor(next() * left.length), 1)[0]);
}

/** The files of a part that may be spoilt: all but its tests and its lists of names; or lines drawn of them. */
const filesOf = (part) =>
  values.sample ? drawn(linesOf(part), Number(values.sample)) : [`core/${part}/**/*.ts`, `!core/${part}/**/*.test.ts`];

function run(part) {
  const name = part.replaceAll('/', '-') + (values.sample ? '-sample' : '');
  const report = join(root, 'reports', `mutants-${name}.json`);
  mkdirSync(join(root, 'reports'), { recursive: true });
  const { status } = spawnSync(join(root, 'node_modules/.bin/stryker'), ['run', 'scripts/stryker.config.mjs'], {
    cwd: root,
    stdio: 'inherit',
    env: {
      ...process.env,
      MUTATE: JSON.stringify(filesOf(part)),
      MUTANTS_OF: part,
      MUTANTS_KEPT: name,
      MUTANTS_REPORT: report,
      NODE_OPTIONS: '--no-warnings',
    },
  });
  return status === 0 && existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
}

/** Killed and all mutants that could be judged. */
function countOf(report) {
  const all = Object.values(report.files).flatMap((file) => file.mutants.map((m) => m.status));
  const of = (...wanted) => all.filter((s) => wanted.includes(s)).length;
  return { killed: of('Killed', 'Timeout'), all: of('Killed', 'Timeout', 'Survived', 'NoCoverage') };
}

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
