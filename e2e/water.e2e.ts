// Works that hold water, and the storms they meet.
import { onOneBench } from './bench.ts';
import { network } from './network.ts';
import { set } from './set.ts';

onOneBench([network, set]);
