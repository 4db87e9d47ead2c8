// Tanks and taps, drains between buildings.
import { onOneBench } from './bench.ts';
import { drains } from './drains.ts';
import { supply } from './supply.ts';

onOneBench([supply, drains]);
