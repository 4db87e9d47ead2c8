// Works that hold and lead water down the land, and the storms they meet.
import { onOneBench } from './bench.ts';
import { network } from './network.ts';
import { set } from './set.ts';
import { slopes } from './slopes.ts';

onOneBench([network, set, slopes]);
