// The land, and maps brought in.
import { onOneBench } from './bench.ts';
import { broughtIn } from './brought-in.ts';
import { land } from './land.ts';

onOneBench([broughtIn, land]);
