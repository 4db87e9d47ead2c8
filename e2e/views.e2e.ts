// What every view must hold to.
import { onOneBench } from './bench.ts';
import { views } from './views.ts';

onOneBench([views]);
