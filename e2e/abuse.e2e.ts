// What must not be lost, whatever is done to the page.
import { onOneBench } from './bench.ts';
import { abuse } from './abuse.ts';

onOneBench([abuse]);
