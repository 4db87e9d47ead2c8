// Writes docs/methods.md from the formulas themselves; with --check it only says whether the file is up to date.
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { FORMULAS } from '#core/derive';
import type { SymbolCard } from '#core/formula';

const path = fileURLToPath(new URL('../docs/methods.md', import.meta.url));

const parts = FORMULAS.map((f) => {
  const symbols = Object.entries<SymbolCard>(f.symbols).map(
    ([s, c]) => `| ${s} | ${c.means} | ${c.unit || '–'} | ${c.range ? `${c.range[0]} to ${c.range[1]}` : ''} |`,
  );
  const source = [f.source.key, f.source.locator].filter(Boolean).join(', ');
  return [
    `## ${f.title}`,
    '',
    `\`${f.id}\` gives **${f.result.symbol}**, ${f.result.means}${f.result.unit ? ` [${f.result.unit}]` : ''}.`,
    '',
    `    ${f.statement}`,
    '',
    '| symbol | means | unit | established for |',
    '| --- | --- | --- | --- |',
    ...symbols,
    '',
    `Source: ${source}${f.source.fromMemory ? ' (place in the source from memory)' : ''}.${f.limits ? ` ${f.limits}` : ''}`,
    '',
  ].join('\n');
});

const text = `# Methods\n\nEvery formula Outlet computes with. Generated from \`core\` by \`npm run docs\`; do not edit. Sources: [references](references.md).\n\n${parts.join('\n')}`;

if (process.argv.includes('--check')) {
  let kept = '';
  try {
    kept = readFileSync(path, 'utf8');
  } catch {
    // A missing file is out of date.
  }
  if (kept !== text) {
    console.error('docs/methods.md is out of date: run npm run docs');
    process.exitCode = 1;
  }
} else writeFileSync(path, text);
