import { describe, expect, it } from '@jest/globals';
import { noGrid } from '../../testing/projects.ts';
import { EVERY_KIND, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph } from '../graph/graph.ts';
import type { Run } from '../run/run.ts';
import { askForLike, startsFound, stoodIn } from '../run/starts.ts';
import { asDesigned } from '../scenario/scenario.ts';
import { laidOut, rainOver, runOn } from '../set/laid.ts';
import { leadingTo } from './leading.ts';

const project = valleyProject(EVERY_KIND);
const laid = laidOut(asDesigned(project), { registry, grids: noGrid, graph: new Graph() })!;
const { stores } = laid.water;
const rain = rainOver(project, 360);
const runFor = (asked: readonly string[] | null): Run =>
  runOn(laid, {
    name: `test:${asked?.join() ?? 'all'}`,
    rain,
    startsM: new Map(),
    isRaised: true,
    isInside: true,
    asked,
    graph: new Graph(),
  });
const whole = runFor(null);

describe('the water that bears on one store of a valley of every kind', () => {
  it('does to it, and to its ways out, what all of it does', () => {
    const counts = stores.map(({ id }) => {
      const { outcomes, outlets, flows } = runFor([id]);
      expect([id, outcomes.get(id)?.storm, outlets.get(id), flows.get(id)]).toEqual([
        id,
        whole.outcomes.get(id)?.storm,
        whole.outlets.get(id),
        whole.flows.get(id),
      ]);
      return outcomes.size;
    });
    // Some hang on no other, some on most; hardly any on all.
    expect(Math.min(...counts)).toBe(1);
    expect(Math.max(...counts)).toBeGreaterThan(stores.length / 3);
    expect(counts.reduce((a, n) => a + n, 0)).toBeLessThan((stores.length * stores.length) / 2);
  });
  it('is the same thing where all of it does; of what is unknown nothing is asked', () => {
    expect(
      leadingTo(
        laid.water,
        stores.map((s) => s.id),
      ),
    ).toBe(laid.water);
    expect(leadingTo(laid.water, ['nowhere']).stores).toEqual([]);
  });
});

describe('what leads to a store', () => {
  const storeOf = (id: string) => ({ ...stores[0], id, outlets: [] });
  const wayTo = (to: string) => ({ ...[...laid.water.links.values()].flat()[0], to });
  const past = (store: string, to: string) => ({ id: `${store}#intake`, store, work: store, takes: () => 0, past: wayTo(to) });
  const water = { stores: ['a', 'b', 'c', 'd'].map(storeOf), places: [past('a', 'b'), past('c', 'd')], links: new Map() };
  const namesOf = ({ stores: own, places }: typeof water): string =>
    `${own.map((s) => s.id).join('')} ${places.map((p) => p.store).join('')}`;
  it('is also what runs past another', () => {
    expect(namesOf(leadingTo(water, ['b']))).toBe('ab a');
    expect(namesOf(leadingTo(water, ['a']))).toBe('a a');
    expect(namesOf(leadingTo(water, ['d', 'b']))).toBe('abcd ac');
  });
});

describe('levels stores are found at', () => {
  const stood = ({ outcomes }: Run) => stoodIn(stores, (id) => outcomes.get(id)?.storm.peakLevelM ?? null);
  it.each(['usual', 'wet', 'dry'] as const)('%s: hang on a like storm only where something of it would be left', (antecedent) => {
    const on = { water: laid.water, antecedent, saidM: new Map<string, number>() };
    const asked = askForLike(on).map((s) => s.id);
    const found = startsFound({ ...on, stoodM3: stood(whole) });
    expect(startsFound({ ...on, stoodM3: stood(runFor(asked)) })).toEqual(found);
    // Nobody is asked for nothing: had it been full, something would have stayed.
    const full = new Map(stores.map((s) => [s.id, s.heldM3]));
    const left = startsFound({ ...on, stoodM3: full });
    for (const id of asked) expect([id, left.has(id)]).toEqual([id, true]);
    // And everybody of whom that is so, but for those that keep their water whatever came.
    const kept = startsFound({ ...on, stoodM3: new Map() });
    expect(new Set(asked)).toEqual(new Set([...left.keys()].filter((id) => !kept.has(id))));
    expect([antecedent, asked.length > 0, asked.length < stores.length / 2]).toEqual([antecedent, antecedent !== 'dry', true]);
  });
});
