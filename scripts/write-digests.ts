// Keeps what is computed of the demo and of a valley with a work of every kind in cli/digests/, so that no change of an answer
// goes unseen: `npm run digests`. A test compares; run this only when the change is meant, and read the difference.
import { mkdirSync, writeFileSync } from 'node:fs';
import { DIGESTED, digestOf } from '../cli/digests/digest.ts';

const folder = new URL('../cli/digests/', import.meta.url);
mkdirSync(folder, { recursive: true });
for (const name of DIGESTED) writeFileSync(new URL(`${name}.json`, folder), `${JSON.stringify(await digestOf(name), null, 1)}\n`);
