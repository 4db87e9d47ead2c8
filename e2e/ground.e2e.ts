// Rain, and what the ground does with it.
import { onOneBench } from './bench.ts';
import { ground } from './ground.ts';
import { rain } from './rain.ts';

onOneBench([ground, rain]);
