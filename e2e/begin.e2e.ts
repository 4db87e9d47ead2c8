// From the first visit to pegs, and what is kept.
import { onOneBench } from './bench.ts';
import { journeys } from './journey.ts';
import { keeping } from './keeping.ts';

onOneBench([journeys, keeping]);
