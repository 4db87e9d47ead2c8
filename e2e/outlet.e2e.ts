// One build, one server, one browser for all interface tests.
import { afterAll, afterEach, beforeAll } from '@jest/globals';
import { abuse } from './abuse.ts';
import { type Bench, openBench } from './driver.ts';
import { ground } from './ground.ts';
import { journeys } from './journey.ts';
import { keeping } from './keeping.ts';
import { broughtIn } from './brought-in.ts';
import { land } from './land.ts';
import { network } from './network.ts';
import { rain } from './rain.ts';
import { set } from './set.ts';
import { slopes } from './slopes.ts';
import { drains } from './drains.ts';
import { supply } from './supply.ts';
import { views } from './views.ts';

let bench: Bench | undefined;
const open = (): Bench => {
  if (!bench) throw new Error('the bench is not open');
  return bench;
};

beforeAll(async () => {
  bench = await openBench();
}, 180000);
// Pages of a test that is over would go on holding memory and workers.
afterEach(() => bench?.tidy(), 30000);
afterAll(() => bench?.close(), 60000);

journeys(open);
keeping(open);
abuse(open);
land(open);
broughtIn(open);
rain(open);
ground(open);
network(open);
set(open);
slopes(open);
supply(open);
drains(open);
views(open);
