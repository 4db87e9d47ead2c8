// From the first visit to pegs, what is kept, and what must not be lost.
import { abuse } from './abuse.ts';
import { onOneBench } from './bench.ts';
import { journeys } from './journey.ts';
import { keeping } from './keeping.ts';

onOneBench([journeys, keeping, abuse]);
