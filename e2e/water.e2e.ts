// Works that hold, lead and store water, and the storms they meet.
import { onOneBench } from './bench.ts';
import { drains } from './drains.ts';
import { network } from './network.ts';
import { set } from './set.ts';
import { slopes } from './slopes.ts';
import { supply } from './supply.ts';

onOneBench([network, set, slopes, supply, drains]);
