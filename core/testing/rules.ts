// Rules held at both sides of each of their limits, with facts put together by hand.
import { expect, it } from '@jest/globals';
import type { Cure, Finding, Missing, Rule, Severity, Site, SiteSoil, StoreStorm, StormFacts } from '../contract/index.ts';
import { coverOf } from '../ground/index.ts';
import type { Grid } from '../terrain/index.ts';
import { type Said, spoken } from '../units/index.ts';
import { judgeBy } from '../works/rules.ts';

export interface Sides<F> {
  /** Facts in which the rule finds a value. */
  readonly at: (value: number) => F;
  /** What is told where it is not the value itself. */
  readonly found?: (value: number) => number | null;
  /** The limit told, of several the one told of a value; left out, it is not looked at. */
  readonly limit?: number | null | ((value: number) => number);
  /** Values, what each is judged, and words the advice must have. */
  readonly judged: readonly (readonly [value: number, severity: Severity, says?: RegExp])[];
  /** What the cure of a value sets, to a millimetre and on the sure side of it; nothing where it has none. Left out, cures are only looked at for sense. */
  readonly cure?: (value: number) => Readonly<Record<string, number>> | undefined;
  /** Facts of which the rule says nothing. */
  readonly silent?: readonly F[];
}

/** What is told in metric words, its figures and units joined by plain spaces. */
export const words = (said: Said | undefined): string => spoken(said ?? '', 'metric').replace(/[\u00a0\u202f]/g, ' ');

/** Cures are rounded by the millimetre. */
const ROUNDED_M = 0.0011;

/** The cure sets just what it should, and there is none where there should be none. */
function holdsCure(value: number, cure: Cure | undefined, wanted: Readonly<Record<string, number>> | undefined): void {
  expect([value, Object.keys(cure?.set ?? {})]).toEqual([value, Object.keys(wanted ?? {})]);
  for (const [path, to] of Object.entries(wanted ?? {})) expect(Math.abs((cure?.set[path] as number) - to)).toBeLessThan(ROUNDED_M);
}

/** What is not fine is told against a limit it does not keep: nobody is told that 9 % is too little against at most 36 %. */
function holdsMiss<F>({ sense }: Rule<F>, finding: Finding | null): void {
  if (!finding || finding.value === null || finding.limit === null) return;
  const over = finding.value - finding.limit;
  expect([finding.value, finding.limit, (finding.sense ?? sense) === 'max' ? over >= 0 : over <= 0]).toEqual([
    finding.value,
    finding.limit,
    true,
  ]);
}

function holds<F extends object>(rule: Rule<F>, { at, found = (v) => v, limit, judged, cure, silent = [] }: Sides<F>): void {
  for (const [value, severity, says] of judged) {
    const finding = judgeBy(rule, at(value));
    const told = words(finding?.do);
    expect([value, finding?.severity]).toEqual([value, severity]);
    const expected = found(value);
    if (expected === null) expect(finding?.value).toBeNull();
    else expect(finding?.value).toBeCloseTo(expected, 6);
    if (limit === null) expect(finding?.limit).toBeNull();
    else if (limit !== undefined) expect(finding?.limit).toBeCloseTo(typeof limit === 'number' ? limit : limit(value), 6);
    if (severity === 'mend' || severity === 'weigh') holdsMiss(rule, finding);
    if (says) expect(told).toMatch(says);
    else if (severity === 'fine') expect(told).toMatch(/^Nothing/);
    if (severity !== 'fine') expect(told).not.toMatch(/^Nothing/);
    expect(told).not.toMatch(/NaN|undefined|null|-\d/);
    if (cure) holdsCure(value, finding?.cure, cure(value));
    if (!finding?.cure) continue;
    // What mends is offered only where there is something to mend, in figures and in words.
    expect([value, severity === 'mend' || severity === 'weigh']).toEqual([value, true]);
    for (const to of Object.values(finding.cure.set)) expect(Number.isFinite(to)).toBe(true);
    expect(words(finding.cure.says)).toMatch(/^[A-Z]((?!NaN|undefined|null| -\d).)+[^.]$/);
  }
  for (const facts of silent) expect(judgeBy(rule, facts)).toBeNull();
  // What the rule needs and nobody knows is never judged.
  for (const what of rule.needs ?? [])
    expect(judgeBy(rule, { ...at(judged[0][0]), missing: [what] as readonly Missing[] })).toMatchObject({
      severity: 'unknown',
      value: null,
    });
}

/** Each rule at both sides of its limits; every rule of the list has its case. */
export function testSides<F extends object>(rules: readonly Rule<F>[], cases: Readonly<Record<string, Sides<F>>>): void {
  it('holds every rule at both sides of its limits', () => {
    expect(Object.keys(cases).sort()).toEqual(rules.map((r) => r.id).sort());
  });
  it.each(Object.entries(cases))('%s', (id, sides) => {
    const rule = rules.find((r) => r.id === id);
    if (!rule) throw new Error(`there is no rule ${id}`);
    holds(rule, sides);
  });
}

/** The storm's work on a store, nothing of it unless said. */
export const stormOf = (change: Partial<StoreStorm> = {}): StoreStorm => ({
  startM: 0,
  inM3: 100,
  soakedM3: 0,
  spilledM3: 0,
  endM3: 0,
  peakLevelM: 0,
  peakInM3s: 0,
  peakOutM3s: 0,
  firstSpillS: null,
  spillsH: 0,
  riseM: 0,
  freeboardM: 1,
  drainDownH: 10,
  soilShortM3: 0,
  holds: true,
  nextDayM3: 0,
  readyH: null,
  ...change,
});

export const soilOf = (change: { readonly cover?: string; readonly soilDepthM?: number } = {}): SiteSoil => ({
  cover: coverOf(change.cover ?? 'pasture-fair'),
  infiltrationMmPerHour: 20,
  soilDepthM: change.soilDepthM ?? 1.6,
  texture: { drainable: 0.2 },
});

/** A property on a grid, its ground alike everywhere. */
export const siteOf = (grid: Grid, change: Partial<Site> = {}): Site => ({
  grid,
  outline: [],
  features: [],
  soilAt: () => soilOf(),
  ...change,
});

/** All that checks may read, none of it known unless said. */
export const factsOf = (site: Site, change: Partial<StormFacts> = {}): StormFacts => ({
  missing: [],
  site,
  store: null,
  storm: null,
  catchment: null,
  runoff: null,
  links: [],
  designPeakM3s: null,
  ...change,
});

/** What one outlet carried at its peak. */
export const linkOf = (outlet: string, peakM3s: number, to = 'ground'): StormFacts['links'][number] => ({
  from: 'store',
  outlet,
  work: outlet.split('#')[0],
  role: 'way',
  to,
  path: [[0, 0, 0]],
  lengthM: 0,
  lagS: 0,
  volumeM3: 100 * peakM3s,
  peakM3s,
});

/** The document's member at a dotted path put to another value. */
export function withAt<T extends object>(object: T, path: string, value: unknown): T {
  const [key, ...rest] = path.split('.');
  const inner = (object as Record<string, unknown>)[key];
  const put = rest.length === 0 ? value : withAt(inner ?? {}, rest.join('.'), value);
  // A list stays a list.
  return Object.assign(Array.isArray(object) ? [...object] : { ...object }, { [key]: put }) as T;
}

/** The distances any standing water keeps, for a thing of a kind so far from it. */
export function setbackCases<F>(kind: string, near: (thing: string, awayM: number) => F): Readonly<Record<string, Sides<F>>> {
  const limits = { building: [3, 5], well: [15, 30], septic: [10, 15] } as const;
  return Object.fromEntries(
    Object.entries(limits).map(([thing, [mendM, weighM]]) => [
      `${kind}.${thing}-distance`,
      {
        at: (v: number) => near(thing, v),
        limit: weighM,
        judged: [
          [mendM - 0.01, 'mend', /too near/],
          [mendM, 'weigh'],
          [weighM - 0.01, 'weigh'],
          [weighM, 'fine'],
        ],
        silent: [near('tree', 1)],
      } satisfies Sides<F>,
    ]),
  );
}
