// Other rain looked at on the ground and water of one member of a set, each run once, for all stores that ask for it.
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

/** A store looked at in another rain of a length, on ground and water as a condition finds them. */
export interface Look extends By {
  readonly store: string;
  readonly other: OtherRain;
}

/** What a store has left under its crest there [m]; null where that is not known. */
export interface LookedAt extends Look {
  readonly leftM: number | null;
}

const runNameOf = ({ other, condition, durationMin }: Look): string => `${other.name}:${condition}:${durationMin}`;

/** All looks, in their order: a pause after each run. */
export function* lookedAt(
  looks: readonly Look[],
  { scenario, lands }: Pick<SetRan, 'scenario' | 'lands'>,
  graph: Graph,
): Slowly<readonly LookedAt[]> {
  const askedIn = new Map<string, string[]>(looks.map((look) => [runNameOf(look), []]));
  for (const look of looks) askedIn.get(runNameOf(look))?.push(look.store);
  const runs = new Map<string, Run>();
  for (const look of looks) {
    const word = runNameOf(look);
    const found = lands.get(look.condition);
    if (!found || runs.has(word)) continue;
    const { rain } = look.other;
    const name = `${scenario.id}|${word}`;
    const on = {
      name,
      rain: rainOver({ rain }, look.durationMin),
      startsM: found.startsM,
      isRaised: true,
      asked: askedIn.get(word),
      graph,
    };
    runs.set(
      word,
      graph.runFor(name, () => runOn(found.laid, on)),
    );
    yield;
  }
  return looks.map((look) => ({ ...look, leftM: runs.get(runNameOf(look))?.outcomes.get(look.store)?.storm.freeboardM ?? null }));
}
