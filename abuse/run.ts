// Usage: npm run abuse [-- --sample | --minutes N].
// --minutes bounds the time for pages. The whole writes docs/robustness.md; the sample takes a minute and is one of the checks.
// Ends with code 1 when anything was lost, taken wrongly, thrown or left hanging.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openBench } from '../e2e/driver.ts';
import { measureLarge, type LargeReport } from './large.ts';
import { abusePages, type PagesReport } from './pages.ts';
import { abuseReaders, type ReadersReport } from './readers.ts';
import { abuseRequests, type RequestsReport } from './requests.ts';
import { FORMATS } from './mutate.ts';

const isSample = process.argv.includes('--sample');
const minutesAt = process.argv.indexOf('--minutes');
const pagesMs = 60_000 * (minutesAt > 0 ? Number(process.argv[minutesAt + 1]) : 30);
const SEED = 2026;
const SIZE = isSample
  ? { mutations: 1000, readersMs: 40_000, kills: 4, rounds: 1, pagesMs: 30_000, requests: 200 }
  : { mutations: 20_000, readersMs: 1_500_000, kills: 300, rounds: 20, pagesMs, requests: 4000 };

interface Report {
  readonly readers: ReadersReport;
  readonly pages: PagesReport;
  readonly requests: RequestsReport;
  /** Measured in the whole alone. */
  readonly large: LargeReport | null;
}

function faultsOf({ readers, pages, requests, large }: Report): string[] {
  return [
    ...readers.faults.map((f) => `${f.format} seed ${f.seed}: ${f.why}`),
    ...(pages.lost > 0 ? [`${pages.lost} edits lost to a kill`] : []),
    ...(pages.notOneWriter > 0 ? [`${pages.notOneWriter} times not exactly one tab could write`] : []),
    ...(pages.falseWords > 0 ? [`${pages.falseWords} times a starved page said what was not so`] : []),
    ...requests.wrong.map((w) => `request answered wrongly: ${w}`),
    ...(requests.hanging > 0 ? [`${requests.hanging} requests left hanging`] : []),
    ...(requests.slowBodyS > 30 ? [`a slow body was kept for ${requests.slowBodyS.toFixed(0)} s`] : []),
    ...(requests.isAlive ? [] : ['the server does not answer any more']),
    ...(large?.cancelMs.some((ms) => ms > 200) ? [`giving up took ${Math.max(...large.cancelMs)} ms`] : []),
  ];
}

function loadSection(large: LargeReport | null): string {
  if (!large) return '';
  return `
## The page under load

| what | measured |
| --- | ---: |
| a project of ${(large.cells / 1e6).toFixed(0)} million cells, from the file to its first answer, stopped once and gone on with | ${large.importS.toFixed(1)} s |
| giving up while the file is read, and while it is worked out | ${large.cancelMs.join(' and ')} ms |
| the same project written to a file, apart from the page | ${large.exportS.toFixed(1)} s |
| longest the page stood still in all of that | ${large.largeStallMs} ms |
| ${large.works} works: from a typed depth to its answer and its keeping | ${large.editS.toFixed(2)} s |
| longest the page stood still in that | ${large.editStallMs} ms |
`;
}

function page(report: Report, faults: readonly string[]): string {
  const { readers, pages, requests } = report;
  const rows = FORMATS.map((f) => {
    const { taken, refused, unsound, exception } = readers.counts[f];
    return `| ${f} | ${taken + refused + unsound + exception} | ${taken} | ${refused} | ${unsound} | ${exception} |`;
  });
  const total = FORMATS.reduce((sum, f) => sum + Object.values(readers.counts[f]).reduce((a, n) => a + n, 0), 0);
  return `# Robustness

Written by \`npm run abuse\` (seed ${SEED}); the same seed spoils the same files in the same way.

## Spoilt files and commands

${total} spoilt files and lists of commands, each read in a thread of at most 1 GiB. What is taken is computed and judged: no figure that is none, no water lost, levels that ground can have, undo that comes back. What is refused says what, where and what to do.

| format | spoilt | taken, and sound | refused in words | taken wrongly | thrown or hung |
| --- | ---: | ---: | ---: | ---: | ---: |
${rows.join('\n')}

Slowest ${(readers.slowestMs / 1000).toFixed(1)} s (limit 5 s); most memory taken by one ${Math.round(readers.largestMb)} MB (limit 1024 MB).

## Pages

| what | times | wrong |
| --- | ---: | ---: |
| page closed or its renderer crashed at any moment after an edit; an edit older than a second, or any before a closing, must be there | ${pages.kills} | ${pages.lost} |
| two tabs at one moment, half of them without locks: exactly one writes, the other takes over with its last words | ${pages.pairs} | ${pages.notOneWriter} |
| storage full at an edit: never "saved", all of it there afterwards | ${pages.starved} | ${pages.falseWords} |

## The server

${requests.sent} junk requests: ${requests.wrong.length} answered with a fault or a path, ${requests.hanging} left hanging; a body of a byte at a time was cut off after ${requests.slowBodyS.toFixed(0)} s; it ${requests.isAlive ? 'goes on' : 'no longer answers'}.
${loadSection(report.large)}
${faults.length === 0 ? 'Nothing lost, nothing taken wrongly, nothing thrown.' : `## Faults\n\n${faults.map((f) => `- ${f}`).join('\n')}`}
`;
}

// Most of the requests' time goes by waiting for one that is slow on purpose.
const [requests, readers] = await Promise.all([
  abuseRequests({ count: SIZE.requests, seed: SEED }),
  abuseReaders({ count: SIZE.mutations, seed: SEED, untilMs: performance.now() + SIZE.readersMs }),
]);
console.log(
  `requests: ${requests.sent} sent, ${requests.wrong.length} wrong, ${requests.hanging} hanging, slow body cut off after ${requests.slowBodyS.toFixed(0)} s`,
);
console.log(`readers: ${JSON.stringify(readers.counts)}, slowest ${Math.round(readers.slowestMs)} ms, ${readers.faults.length} faults`);
const benches = await Promise.all(Array.from({ length: isSample ? 1 : 4 }, () => openBench()));
const pages = await abusePages(benches, { kills: SIZE.kills, rounds: SIZE.rounds, seed: SEED, forMs: SIZE.pagesMs });
console.log(`pages: ${JSON.stringify(pages)}`);
const large = isSample ? null : await measureLarge(benches[0]);
await Promise.all(benches.map((bench) => bench.close()));
if (large) console.log(`large: ${JSON.stringify(large)}`);
const report = { readers, pages, requests, large };
const faults = faultsOf(report);
for (const fault of faults.slice(0, 40)) console.log(`FAULT ${fault}`);
if (!isSample) writeFileSync(join(import.meta.dirname, '../docs/robustness.md'), page(report, faults));
process.exit(faults.length === 0 ? 0 : 1);
