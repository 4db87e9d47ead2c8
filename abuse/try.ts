import { openBench } from '../e2e/driver.ts';
import { measureLarge } from './large.ts';
const bench = await openBench();
console.log(await measureLarge(bench));
await bench.close();
