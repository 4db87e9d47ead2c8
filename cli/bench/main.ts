// What is compiled and run by itself: all figures of the benchmark, as text.
import { runBench } from './run.ts';

process.stdout.write(JSON.stringify(await runBench()));
