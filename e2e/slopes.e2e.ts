// Works of slopes and gullies.
import { onOneBench } from './bench.ts';
import { slopes } from './slopes.ts';

onOneBench([slopes]);
