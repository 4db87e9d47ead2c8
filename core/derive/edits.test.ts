// A thousand edits of every sort, each looked at with one graph kept throughout: what it gives must be what a fresh one gives.
import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '../contract/index.ts';
import type { Case, Project } from '../project/index.ts';
import { randomFrom } from '../rain/index.ts';
import { withAt } from '../testing/rules.ts';
import { noGrid } from '../testing/projects.ts';
import { EVERY_KIND, FOUR_DAMS, valleyProject } from '../testing/valley.ts';
import { type LevelSill, type Swale, registry } from '../works/index.ts';
import { Graph, derive, failureOrder } from './index.ts';
import type { SetAsked } from './set/set.ts';

const CASES: readonly Case[] = [
  { id: 'full', name: 'Full', startsFull: true },
  { id: 'shut', name: 'Shut', blockedPercent: { pipe: 100, road: 100 }, lowBanks: [{ work: 'pond', lengthM: 5, byM: 0.3 }] },
  { id: 'bare', name: 'Bare', ground: 'bare', stormPercent: 30, siltedPercent: { pond: 40 } },
];

const START: Project = {
  ...valleyProject(EVERY_KIND),
  cases: CASES,
  options: [
    { id: 'o1', name: 'Base', works: EVERY_KIND },
    { id: 'few', name: 'Few', works: EVERY_KIND.slice(0, 3) },
  ] as Project['options'],
};

type Random = () => number;
const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)];

/** Works of the active option changed. */
const withWorks = (p: Project, change: (works: readonly WorkBase[]) => readonly WorkBase[]): Project => ({
  ...p,
  options: p.options.map((o) => (o.id === p.activeOption ? { ...o, works: change(o.works) } : o)),
});

/** A number the user decides, moved a little. */
function nudged(work: WorkBase, random: Random): WorkBase {
  const fields = registry.bind(work).fields.filter((f) => typeof at(work, f.path) === 'number');
  if (fields.length === 0) return work;
  const field = pick(fields, random);
  const value = at(work, field.path) as number;
  return withAt(work, field.path, Math.min(field.max, Math.max(field.min, value + (random() - 0.5) * 0.2)));
}
const at = (thing: unknown, path: string): unknown =>
  path
    .split('.')
    .reduce<unknown>((o, key) => (typeof o === 'object' && o !== null ? (o as Record<string, unknown>)[key] : undefined), thing);

const bankWhole = ({ lowPlaces: _, ...rest }: Swale): Swale => rest;
const unread = ({ asFound: _, ...rest }: LevelSill): LevelSill => rest;

/** Members that may be left out, put in or taken away. */
function optional(work: WorkBase, random: Random): WorkBase {
  if (work.kind === 'swale') {
    const rest = bankWhole(work as Swale);
    const lowPlaces = [{ atM: 10, lengthM: 4, levelM: rest.levels.bankCrestM - 0.2 * random() }];
    const swale: Swale = random() < 0.5 ? rest : { ...rest, lowPlaces };
    return swale;
  }
  if (work.kind !== 'level-sill') return work;
  const rest = unread(work as LevelSill);
  const { sillM } = rest.levels;
  const sill: LevelSill = random() < 0.5 ? rest : { ...rest, asFound: { lowM: sillM - 0.05 * random(), highM: sillM + 0.02 } };
  return sill;
}

const EDITS: readonly ((p: Project, random: Random) => Project)[] = [
  (p, random) => withWorks(p, (works) => works.map((w) => (random() < 0.2 ? nudged(w, random) : w))),
  (p, random) =>
    withWorks(p, (works) => works.map((w) => (random() < 0.1 ? { ...w, status: pick(['planned', 'built', 'retired'], random) } : w))),
  (p, random) => withWorks(p, (works) => works.map((w) => (random() < 0.2 ? optional(w, random) : w))),
  (p, random) => withWorks(p, (works) => works.filter(() => random() > 0.06)),
  (p) => withWorks(p, (works) => [...works, ...EVERY_KIND.filter((w) => !works.some((o) => o.id === w.id)).slice(0, 1)]),
  (p, random) => withWorks(p, (works) => works.map((w) => (random() < 0.1 ? { ...w, name: `${w.name}'` } : w))),
  (p, random) => (p.rain ? { ...p, rain: { ...p.rain, storm: { ...p.rain.storm, upliftPercent: Math.round(60 * random()) } } } : p),
  (p) => ({ ...p, rain: p.rain ? null : START.rain }),
  (p, random) => (p.ground ? { ...p, ground: { ...p.ground, infiltrationMmPerHour: 5 + 20 * random() } } : { ...p, ground: START.ground }),
  (p, random) => ({ ...p, ground: random() < 0.3 ? null : START.ground }),
  (p, random) => (p.ground ? { ...p, ground: { ...p.ground, cover: pick(['pasture-good', 'pasture-poor', 'meadow'], random) } } : p),
  (p, random) =>
    p.rain
      ? { ...p, rain: { ...p.rain, storm: { returnYears: 20, ...(random() < 0.5 ? { durationMin: 120 } : { durationsMin: [10, 120] }) } } }
      : p,
  (p, random) => ({ ...p, activeOption: pick(['o1', 'few'], random) }),
  (p, random) => ({ ...p, pins: [{ id: 'k', at: [60 + 80 * random(), 60 + 80 * random()] }] }),
  (p, random) => ({ ...p, features: random() < 0.5 ? [] : [{ id: 'spring', kind: 'spring', at: [101, 181], flowM3s: 0.001 * random() }] }),
];

describe('one edit alone', () => {
  /** What is worked out from one graph kept throughout, held against a fresh one each time. */
  const kept = new Graph();
  const first = derive(START, { registry, grids: noGrid, graph: kept });
  const said = JSON.stringify(first);
  const asked = { only: new Set(first.view.first), startsM: new Map(Object.entries(first.view.starts)) };
  const heldAgainst = (project: Project, wants: readonly (typeof asked | object)[] = [asked, {}]): void => {
    for (const wanted of wants) {
      const [one, fresh] = [kept, new Graph()].map((graph) => derive(project, { registry, grids: noGrid, graph }, wanted));
      if (JSON.stringify(one) !== JSON.stringify(fresh)) expect(one).toEqual(fresh);
    }
  };
  it.each(EVERY_KIND.map((w) => [w.id]))('of %s reaches all that hangs on it, while it is dragged and when the hand rests', (id) => {
    const k = EVERY_KIND.findIndex((w) => w.id === id);
    const random = randomFrom(k);
    const edited = withWorks(START, (works) => works.map((w) => (w.id === id ? nudged(w, random) : w)));
    heldAgainst(edited, k % 3 === 0 ? [asked, {}] : [{}]);
    expect(JSON.stringify(derive(START, { registry, grids: noGrid, graph: kept }))).toBe(said);
  });
  it('of the uppermost of a series of dams reaches the lowest, and what stands below them', () => {
    const series = (heightM: number): WorkBase => withAt(FOUR_DAMS, 'dams.0.heightM', heightM);
    const within = (work: WorkBase): Project => withWorks(START, (works) => works.map((w) => (w.id === work.id ? work : w)));
    for (const heightM of [0.6, 0.5, 0.45, 0.6]) heldAgainst(within(series(heightM)));
  });
});

describe('a dam dragged along a series', () => {
  const on = { registry, grids: noGrid };
  const dragged = (byM: number): Project =>
    valleyProject([
      withAt(FOUR_DAMS, 'dams.0.atM', FOUR_DAMS.dams[0].atM + byM) as WorkBase,
      ...EVERY_KIND.filter((w) => w.kind === 'pond'),
    ]);
  const routes = (graph: Graph): number => graph.runs.get('route') ?? 0;
  /** What a step of the hand is answered with, and how many stores were routed for it. */
  const answered = (graph: Graph, byM: number, asked: SetAsked): readonly [Map<string, number>, number] => {
    const before = routes(graph);
    const { derived, view } = derive(dragged(byM), { ...on, graph }, asked);
    expect(view.isWhole).toBe(asked.only === undefined);
    return [new Map(derived.stores.map((s) => [s.id, s.peakLevelM!])), routes(graph) - before];
  };
  const [near, exact] = [new Graph(), new Graph()];
  const { view } = derive(dragged(0), { ...on, graph: near });
  derive(dragged(0), { ...on, graph: exact });
  const asked: SetAsked = { only: new Set(view.first), startsM: new Map(Object.entries(view.starts)) };

  it('is answered with levels within a millimetre, for fewer stores; all is the same to the last bit when the hand rests', () => {
    let [few, all, most] = [0, 0, 0];
    // Small steps that come far together.
    for (let byM = 0.01; byM < 0.3; byM += 0.01) {
      const [levels, routed] = answered(near, byM, { ...asked, isNear: true });
      const [truly, routedAll] = answered(exact, byM, asked);
      for (const [id, levelM] of truly) most = Math.max(most, Math.abs(levels.get(id)! - levelM));
      few += routed;
      all += routedAll;
    }
    expect(most).toBeLessThan(0.001);
    expect([few > 0, few < 0.7 * all]).toEqual([true, true]);
    const rested = derive(dragged(0.29), { ...on, graph: near });
    expect(JSON.stringify(rested)).toBe(JSON.stringify(derive(dragged(0.29), { ...on, graph: new Graph() })));
  });
  it('is worked out to the end where the very same document is asked for anew', () => {
    answered(near, 0.97, { ...asked, isNear: true });
    expect(answered(near, 0.97, asked)[0]).toEqual(answered(new Graph(), 0.97, asked)[0]);
  });
  it('asks the whole set for the very same, whatever is said', () => {
    const whole = derive(dragged(0.98), { ...on, graph: near }, { isNear: true });
    expect(JSON.stringify(whole)).toBe(JSON.stringify(derive(dragged(0.98), { ...on, graph: new Graph() })));
  });
});

describe('a thousand edits', () => {
  it('give with a graph kept throughout what a fresh one gives, undone and redone, in every case', () => {
    const random = randomFrom(20_261_128);
    const graph = new Graph();
    const past: Project[] = [START];
    let now = START;
    let looks = 0;
    let near: SetAsked = {};
    for (let k = 0; k < 1000; k++) {
      now = random() < 0.15 ? past[Math.max(0, past.length - 1 - Math.floor(3 * random()))] : pick(EDITS, random)(now, random);
      past.push(now);
      // Some come so fast that only the last of them is looked at.
      if (random() < 0.97) continue;
      // A message brings the document as a copy each time.
      const copy = { ...structuredClone({ ...now, terrain: null }), terrain: START.terrain };
      const on = { registry, grids: noGrid, graph, ...(random() < 0.2 ? { case: pick(CASES, random).id } : {}) };
      // What is only near while a hand drags leaves nothing behind in what is worked out when it rests.
      if (looks % 2 === 0) derive(copy, on, { ...near, isNear: true });
      const kept = derive(copy, on);
      near = { only: new Set(kept.view.first), startsM: new Map(Object.entries(kept.view.starts)) };
      if (random() < 0.01 && now.rain && now.ground) failureOrder(copy, on);
      looks++;
      if (looks % 4 !== 0) continue;
      const fresh = derive(copy, { ...on, graph: new Graph() });
      // Written out first: to look through them piece by piece takes longer than to make them.
      if (JSON.stringify(kept) !== JSON.stringify(fresh)) expect(kept).toEqual(fresh);
    }
    expect(looks).toBeGreaterThan(20);
    // What nobody can come back to is let go.
    expect(graph.size).toBeLessThan(550 * EVERY_KIND.length);
  });
});

describe('a retired work', () => {
  // One graph for them all: what one of them left behind must not show in the next.
  const graph = new Graph();
  it.each(EVERY_KIND.map((w) => [w.id]))('%s is as if it were not there, and what hangs on it is named', (id) => {
    const works = (change: (w: WorkBase) => WorkBase[]): Project => valleyProject(EVERY_KIND.flatMap(change));
    const needs = (w: WorkBase): boolean => registry.bind(w).hostId === id;
    const retired = derive(
      works((w) => [w.id === id ? { ...w, status: 'retired' } : w]),
      { registry, grids: noGrid, graph },
    ).derived;
    const without = derive(
      works((w) => (w.id === id || needs(w) ? [] : [w])),
      { registry, grids: noGrid },
    ).derived;
    expect(retired.stores).toEqual(without.stores);
    expect(retired.links).toEqual(without.links);
    expect(retired.checks.filter((c) => c.on === id)).toEqual([]);
    expect(retired.uncomputed.map((u) => u.work)).toEqual(EVERY_KIND.filter(needs).map((w) => w.id));
  });
});
