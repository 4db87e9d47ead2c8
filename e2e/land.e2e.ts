// The land and what is known of it: terrain, maps brought in, rain and ground.
import { onOneBench } from './bench.ts';
import { broughtIn } from './brought-in.ts';
import { ground } from './ground.ts';
import { land } from './land.ts';
import { rain } from './rain.ts';

onOneBench([land, broughtIn, rain, ground]);
