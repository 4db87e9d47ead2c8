import { abuseReaders } from './readers.ts';
const r = await abuseReaders({ count: Number(process.argv[2]), seed: 1, untilMs: performance.now() + 500000 });
console.log(JSON.stringify(r.counts), r.slowestMs, r.largestMb);
for (const f of r.faults.slice(0, 40)) console.log(JSON.stringify(f));
