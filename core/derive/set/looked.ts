// Other rain looked at on the ground and water of one member of a set, each run once.
import type { By } from '../../contract/index.ts';
import type { Rain } from '../../project/index.ts';
import type { Graph } from '../graph/graph.ts';
import type { Slowly } from '../graph/slowly.ts';
import type { Run } from '../run/run.ts';
import { rainOver, runOn } from './laid.ts';
import type { SetRan } from './set.ts';

/** Another rain, under a name by which what is worked out for it is kept. */
export interface OtherRain {
  readonly name: string;
  readonly rain: Rain;
}

export class Looked {
  private readonly runs = new Map<string, Run>();
  constructor(
    private readonly set: Pick<SetRan, 'scenario' | 'lands'>,
    private readonly graph: Graph,
  ) {}

  /** What a store has left under its crest in another rain of a length, on ground and water as a condition finds them [m]; a pause where it had to be run. */
  *left(store: string, { durationMin, condition }: By, { name: called, rain }: OtherRain): Slowly<number | null> {
    const { graph } = this;
    const { scenario, lands } = this.set;
    const found = lands.get(condition);
    if (!found) return null;
    const name = `${scenario.id}|${called}:${condition}:${durationMin}`;
    const known = this.runs.get(name);
    const on = { name, rain: rainOver({ rain }, durationMin), startsM: found.startsM, isRaised: true, isInside: true, graph };
    const run = known ?? graph.runFor(name, () => runOn(found.laid, on));
    this.runs.set(name, run);
    if (!known) yield;
    return run.outcomes.get(store)?.storm.freeboardM ?? null;
  }
}
