// Stores of a project day by day: what comes, what is asked, where it spills; what is not known; a second reckoning.
import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '../../contract/index.ts';
import type { Project, Supply } from '../../project/index.ts';
import { type RainRecord, daysTo } from '../../rain/index.ts';
import { type Climate, roofDays } from '../../season/index.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { ROOF, SOAK, TANK } from '../../testing/valley-fields.ts';
import { MOONS, POND, POND_SILL, valleyProject } from '../../testing/valley.ts';
import { words } from '../../testing/rules.ts';
import { type Roof, type Soakaway, type Tank, type SupplyLine, newSupplyLine, registry } from '../../works/index.ts';
import { derive } from '../derive.ts';
import { Graph } from '../graph/graph.ts';
import { UserError } from '../../project/index.ts';
import type { Season } from './season.ts';
import type { Quick, Sizes } from './sizes.ts';
import { supplyVerdict } from './supply-words.ts';
import { ask } from './table.ts';

const YEARS = 3;
/** Rain by a plain rule, so that all of it can be added up by hand: wet from October to April, now and then a day that runs off. */
const rainOn = (i: number): number => {
  const inYear = i % 365;
  return (inYear < 120 || inYear > 272) && i % 3 === 0 ? (i % 27 === 0 ? 64 : 6 + (i % 7)) : 0;
};
const N = 365 * YEARS;
const RAIN = Float64Array.from({ length: N }, (_, i) => rainOn(i));
const FIRST = daysTo(2001, 1, 1);
const RECORD: RainRecord = {
  startMin: FIRST * 1440,
  stepMin: 1440,
  steps: N,
  wet: Uint32Array.from([...RAIN.keys()].filter((i) => RAIN[i] > 0)),
  mm: Float32Array.from([...RAIN].filter((v) => v > 0)),
  missing: new Uint32Array(0),
};
const GAUGE = { sha256: 'a'.repeat(64), source: 'test' };
const EVAPORATION = [30, 40, 70, 100, 130, 160, 170, 150, 100, 60, 40, 30];
const climate: Climate = { evaporationMm: EVAPORATION };
const supply = (change: Partial<Supply> = {}): Supply => ({
  needs: [{ id: 'n1', name: 'House', store: 'tank', kind: 'daily', count: 4, each: 50 }],
  ...change,
});
const OWN_ROOF: Roof = { ...ROOF, ring: [[60, 60], [72, 60], [72, 68], [60, 68]] }; // prettier-ignore
const OWN_TANK: Tank = { ...TANK, at: [58, 57], count: 1 };
const ROOFED: Project = planeProject({ gauge: GAUGE, climate, supply: supply() }, [OWN_ROOF, OWN_TANK]);
/** Narrower than a cell, so that it takes a part of its water; its own rate was measured. */
const NARROW: Soakaway = { ...SOAK, id: 'narrow', line: [[60, 120], [61, 120]] }; // prettier-ignore
/** A project of which nobody has said what dries off. */
const without = (project: Project): Project => ({ ...project, climate: {} });
const led = (project: Project, links: Readonly<Record<string, string>> = { 'roof#down': 'tank' }): Project => ({
  ...project,
  options: [{ ...project.options[0], links }],
});
const context = () => ({ registry, grids: noGrid, records: () => RECORD, graph: new Graph() });
const season = (project: Project, args: object = {}): Season => ask('season', { project, context: context(), args }) as Season;
const sizes = (project: Project, args: object): Sizes => ask('sizes', { project, context: context(), args }) as Sizes;
const refusal = (run: () => unknown): string => {
  try {
    run();
    return 'answered';
  } catch (error) {
    if (!(error instanceof UserError)) throw error;
    return error.problems[0].code;
  }
};
const of = (told: Season, id: string) => told.stores.find((s) => s.id === id)!;

describe('a roof and a tank', () => {
  it('by a plain loop of another hand: what comes, what is used, what runs over, to a litre', () => {
    const told = of(season(led(ROOFED)), 'tank').told!;
    const room = Math.PI * 1.66;
    const dead = Math.PI * 0.08;
    const sends = roofDays(Float64Array.from(RAIN), { share: 0.92, firstFlushMm: 1 });
    const run = (start: number, days: number) => {
      let [v, used, over] = [start, 0, 0];
      for (let i = 0; i < days; i++) {
        const y = Math.min(0.2, Math.max(0, v - dead));
        const q = (Math.fround(RAIN[i]) > 0 ? sends[i] : 0) * 0.096;
        over += Math.max(0, v + q - room);
        v = Math.min(v + q, room) - y;
        used += y;
      }
      return { v, used, over };
    };
    const { used, over, v } = run(run(0, 365).v, N);
    expect(over).toBeGreaterThan(10);
    expect(told.suppliedM3).toBeCloseTo(used, 3);
    expect(told.spilledM3).toBeCloseTo(over, 3);
    expect(told.endM3).toBeCloseTo(v, 3);
    expect(told.demandM3).toBeCloseTo(0.2 * N, 6);
  });
  it('the first need of a store is met first; one of a store that is gone is not told', () => {
    const needs = [
      { id: 'a', name: 'A', store: 'tank', kind: 'daily', count: 1, each: 150 },
      { id: 'b', name: 'B', store: 'tank', kind: 'garden', count: 40, each: 4, months: [5, 6, 7, 8] },
      { id: 'c', name: 'C', store: 'sold', kind: 'daily', count: 1, each: 10 },
    ] as const;
    const told = season(led({ ...ROOFED, supply: supply({ needs }) }));
    const [a, b, c] = told.demands;
    expect(a.suppliedShare!).toBeGreaterThan(b.suppliedShare!);
    expect(a.suppliedM3! + b.suppliedM3!).toBeCloseTo(of(told, 'tank').told!.suppliedM3, 6);
    expect(c).toEqual({ id: 'c', name: 'C', store: 'sold', demandM3: null, suppliedM3: null, suppliedShare: null, dryDays: null });
  });
  it('led nowhere the tank stays dry; with water brought in it is not, and that is told apart', () => {
    expect(of(season(led(ROOFED, {})), 'tank').told!.suppliedM3).toBe(0);
    const topped = season(led({ ...ROOFED, supply: supply({ topUps: [{ store: 'tank', toM3: 2, mostM3PerDay: 0.1 }] }) }, {}));
    const told = of(topped, 'tank').told!;
    // A tenth of a cubic metre a day against two tenths asked.
    expect(told.toppedUpM3).toBeCloseTo(0.1 * N, 3);
    expect(told.suppliedShare).toBeCloseTo(0.5, 3);
  });
  it('two tanks joined at their feet supply what two alike under one name do', () => {
    const second: Tank = { ...OWN_TANK, id: 'second', name: 'Second', at: [55, 57], levelsWith: 'tank', joinPipeM: 0.05 };
    const flat = { terrain: { kind: 'grid', ncols: 101, nrows: 101, west: 0, south: 0, cellM: 2, rows: 'north-first', z: Array<number>(101 * 101).fill(100) } } as const; // prettier-ignore
    const on = (...works: WorkBase[]): Season => season(led(planeProject({ ...flat, gauge: GAUGE, climate, supply: supply() }, [OWN_ROOF, ...works]))); // prettier-ignore
    const joined = on(OWN_TANK, second);
    const one = of(on({ ...OWN_TANK, count: 2 } as WorkBase), 'tank').told!;
    const [a, b] = [of(joined, 'tank').told!, of(joined, 'second').told!];
    expect(a.suppliedM3).toBeCloseTo(one.suppliedM3, 6);
    expect(a.spilledM3 + b.spilledM3).toBeCloseTo(one.spilledM3, 6);
    expect(a.suppliedShare!).toBeGreaterThan(of(on(OWN_TANK), 'tank').told!.suppliedShare! + 0.02);
    expect(joined.balance.errorM3).toBeLessThan(1e-6);
  });
  it('a roof is told apart from what keeps water', () => {
    expect(season(led(ROOFED)).stores.map((s) => [s.id, s.isRoof])).toEqual([
      ['roof', true],
      ['tank', false],
    ]);
  });
  it('a line to a second tank fills it each evening as far as it has room; nobody’s need is met there without one', () => {
    const high: Tank = { ...OWN_TANK, id: 'high', name: 'High tank', at: [40, 40] };
    const line: SupplyLine = { ...newSupplyLine('line', 'Line', { line: [[58, 57], [40, 40]], from: 'tank', to: 'high', levels: { drawM: 0, endM: 0 }, drive: 'pump', serves: 'vessel', flowM3s: 0.0002, endHeadM: 0.5, diameterM: 0.026 }) }; // prettier-ignore
    const needs = [{ id: 'h', name: 'Trough', store: 'high', kind: 'daily', count: 4, each: 50 }] as const;
    const project = (...works: WorkBase[]): Project => {
      const all = planeProject({ gauge: GAUGE, climate, supply: supply({ needs }) }, [OWN_ROOF, OWN_TANK, high, ...works]);
      return led(all);
    };
    expect(of(season(project()), 'high').told!.suppliedM3).toBe(0);
    const floor = derive(project(), context()).derived.stores.find((s) => s.id === 'tank')!.floorM;
    const told = season(project({ ...line, levels: { drawM: floor + 0.5, endM: floor + 6 } } as SupplyLine));
    const [from, to] = [of(told, 'tank').told!, of(told, 'high').told!];
    // 0.2 L/s for two hours a day: 1.44 m3 at the most, of which only what is used up is asked for.
    expect(to.suppliedM3).toBeGreaterThan(50);
    expect(to.spilledM3).toBeLessThan(1e-9);
    expect(Math.abs(from.liftedM3 - to.inM3)).toBeLessThan(1.5);
    expect(told.balance.errorM3).toBeLessThan(1e-6);
    // It stops above what the tap of the first cannot reach: half a metre stays.
    const daily = season(project({ ...line, levels: { drawM: floor + 0.5, endM: floor + 6 } } as SupplyLine), { daily: true });
    expect(Math.min(...daily.series!.volumeM3.tank.slice(400))).toBeGreaterThanOrEqual(Math.PI * 0.5 - 0.01);
  });
  it('what soaks in comes out again at the store its owner thinks, as late and as much as he thinks; else it is gone', () => {
    const soak: Soakaway = { ...SOAK, comesBackPercent: 40, comesBackDays: 20, backTo: 'tank' };
    const told = (work: Soakaway): Season => season(planeProject({ gauge: GAUGE, climate }, [work, OWN_TANK]), { daily: true });
    const [here, nowhere] = [told(soak), told({ ...SOAK, comesBackPercent: 40, comesBackDays: 20 })];
    const soaked = of(here, 'soak').told!.soakedM3;
    expect(soaked).toBeGreaterThan(20);
    expect(of(nowhere, 'tank').told!.inM3).toBe(0);
    const came = of(here, 'tank').told!.inM3;
    // All but what the last twenty days put on its way.
    expect(came / (0.4 * soaked)).toBeGreaterThan(0.93);
    expect(came).toBeLessThanOrEqual(0.4 * soaked + 1e-9);
    expect([here.balance.errorM3 < 1e-6, nowhere.balance.errorM3 < 1e-6]).toEqual([true, true]);
    // Nothing hangs on a guess: two that feed one another through the ground both stand.
    const other: Soakaway = { ...soak, id: 'other', name: 'Other', line: SOAK.line.map(([x, y]) => [x + 8, y]), backTo: 'soak' };
    const ring = season(planeProject({ gauge: GAUGE, climate }, [{ ...soak, backTo: 'other' } as Soakaway, other, OWN_TANK]));
    expect(ring.stores.map((s) => [s.id, s.told === null])).toEqual([['soak', false], ['other', false], ['tank', false]]); // prettier-ignore
    expect(ring.balance.errorM3).toBeLessThan(1e-6);
    // Neither share nor time alone is enough to go by.
    expect(of(told({ ...SOAK, comesBackPercent: 40, backTo: 'tank' }), 'tank').told!.inM3).toBe(0);
  });
  it('used before it spills it gives no less; less rain gives no more', () => {
    const share = (change: Partial<Project>): number => of(season(led({ ...ROOFED, ...change })), 'tank').told!.suppliedShare!;
    expect(share({ supply: supply({ order: 'before' }) })).toBeGreaterThanOrEqual(share({}));
    expect(share({ climate: { ...climate, rainTimes: 0.7 } })).toBeLessThan(share({}));
  });
  it('years as asked, days one by one where wanted, closed to a litre', () => {
    const told = season(led(ROOFED), { fromYear: 2002, toYear: 2003, year: 2002 });
    expect([told.fromYear, told.toYear, told.years, told.series!.dates.length]).toEqual([2002, 2003, 2, 365]);
    expect(told.series!.dates[0]).toBe('2002-01-01');
    expect(told.balance.errorM3).toBeLessThan(0.001);
    expect(season(led(ROOFED), { daily: true }).series!.dates).toHaveLength(N);
    expect(refusal(() => season(led(ROOFED), { fromYear: 2050 }))).toBe('season.years');
  });
});

describe('ground, ponds and what leaves', () => {
  const pond = valleyProject([{ ...POND, seepageMmPerDay: 2 } as WorkBase, POND_SILL], { gauge: GAUGE, climate, supply: supply({ needs: [{ id: 'n', name: 'Herd', store: 'pond', kind: 'daily', count: 20, each: 50 }] }) }); // prettier-ignore
  it('a pond takes what its ground sheds, rain on itself, and loses what dries off; what leaves is less than before', () => {
    const told = season(pond);
    const { told: own, lacks } = of(told, 'pond');
    expect(lacks).toEqual([]);
    const { inM3, evaporatedM3, soakedM3, spilledM3, suppliedM3, endM3, startM3 } = own!;
    expect(startM3 + inM3 - evaporatedM3 - soakedM3 - spilledM3 - suppliedM3 - endM3).toBeCloseTo(0, 6);
    expect([inM3 > 0, evaporatedM3 > 0, suppliedM3 > 0]).toEqual([true, true, true]);
    const sum = (key: 'withM3' | 'withoutM3'): number => told.exits.reduce((a, e) => a + (e[key] ?? NaN), 0);
    expect(sum('withM3')).toBeLessThan(sum('withoutM3'));
    // What the property sheds without works is with them caught, lost or let go.
    expect(sum('withoutM3') - sum('withM3')).toBeLessThan(inM3);
  });
  it('what nobody knows is not told: no evaporation, no ground, no rain', () => {
    const dry = without(pond);
    expect(of(season(dry), 'pond')).toMatchObject({ lacks: ['evaporation'], told: null });
    expect(of(season({ ...pond, ground: null }), 'pond').lacks).toContain('ground');
    // Where its water is parted on its way, and its own rate was measured, it is as little known.
    const parted = season({ ...valleyProject([MOONS, SOAK, NARROW], { gauge: GAUGE, climate }), ground: null });
    expect(parted.stores.length).toBeGreaterThan(2);
    for (const { lacks, told } of parted.stores) expect([lacks, told]).toEqual([['ground'], null]);
    // What it lets go is as little known where that leaves, and so is each evening.
    const unsure = season(dry, { year: 2002 });
    expect(unsure.exits.filter((e) => e.withM3 === null).length).toBeGreaterThan(0);
    expect(unsure.series!.volumeM3).not.toHaveProperty('pond');
    expect(season(pond).exits.every((e) => e.withM3 !== null && e.flowDaysWith !== null)).toBe(true);
    expect(unsure.demands[0].suppliedShare).toBeNull();
    expect(refusal(() => season({ ...pond, gauge: null }))).toBe('season.no-rain');
    expect(refusal(() => sizes(dry, { store: 'pond' }))).toBe('size.unknown');
    expect(refusal(() => season({ ...pond, options: [{ ...pond.options[0], works: [] }] }))).toBe('season.no-store');
  });
  it('a tank needs neither ground nor what dries off open water', () => {
    const bare = without(led({ ...ROOFED, ground: null }));
    expect(of(season(bare), 'tank').lacks).toEqual([]);
  });
  it('without any terrain what stands alone is told the same, and nothing else is', () => {
    const apart = season({ ...led(ROOFED), terrain: null });
    expect(apart.isApart).toBe(true);
    // However far they stand from one another.
    const far = { ...ROOFED, options: [{ ...ROOFED.options[0], works: [OWN_ROOF, { ...OWN_TANK, at: [3058, 57] } as WorkBase] }] };
    expect(of(season({ ...led(far), terrain: null }), 'tank').told!.suppliedM3).toBeGreaterThan(0);
    expect(of(apart, 'tank').told!.suppliedM3).toBeCloseTo(of(season(led(ROOFED)), 'tank').told!.suppliedM3, 9);
    expect(refusal(() => season({ ...pond, terrain: null }))).toBe('season.no-store');
  });
});

describe('how big', () => {
  it('the size it has among those tried is as it runs; other ways beside it', () => {
    const project = led({ ...ROOFED, supply: supply({ price: { fixed: 100, perM3: 80 }, boughtPer1000L: 5 }) });
    const told = sizes(project, { store: 'tank' });
    const { told: ran } = of(season(project), 'tank');
    expect(told.now.suppliedM3).toBeCloseTo(ran!.suppliedM3, 6);
    expect(told.now.spilledM3).toBeCloseTo(ran!.spilledM3, 6);
    expect(told.rows.some((r) => r.roomM3 === told.nowM3)).toBe(true);
    const share = (id: string): number => told.tried.find((t) => t.id === id)!.suppliedShare!;
    for (const id of ['more-roof', 'less-use', 'twice', 'before']) expect(share(id)).toBeGreaterThanOrEqual(share('now') - 1e-12);
    const cost = 100 + 80 * told.nowM3;
    expect(told.paidBackYears).toBeCloseTo(cost / ((ran!.suppliedM3 / YEARS) * 5), 9);
  });
  it('sizes as asked; a store or sizes that cannot be are refused in words', () => {
    const project = led(ROOFED);
    expect(sizes(project, { store: 'tank', litres: [2000, 8000] }).rows.map((r) => r.litres)).toEqual([2000, 8000]);
    for (const litres of [[], [0], ['big'], 7, [1e12]])
      expect(refusal(() => sizes(project, { store: 'tank', litres }))).toBe('size.litres');
    expect(refusal(() => sizes(project, { store: 'barn' }))).toBe('size.store');
    expect(refusal(() => sizes(project, { store: 'roof' }))).toBe('size.no-room');
  });
  it('quick: a sentence before anything is drawn, the same as a tank of that size gives', () => {
    const bare = planeProject({ gauge: GAUGE, terrain: null }, []);
    const asked = { roofM2: 96, share: 0.92, litresADay: 200, tankL: 10_000 };
    const told = ask('quick', { project: bare, context: context(), args: asked }) as Quick;
    expect(words(told.says)).toMatch(/^A tank of 10 000 L under 96 m² of roof gives \d+ % of the 200 L a day you want: dry on \d+ days/);
    const made: Tank = { ...OWN_TANK, form: 'box', dimensions: { ...TANK.dimensions, lengthM: 5, widthM: 2, heightM: 1.2, inletM: 1.1, overflowM: 1, tapM: 0 } }; // prettier-ignore
    const project = led({ ...ROOFED, options: [{ ...ROOFED.options[0], works: [OWN_ROOF, made] }] });
    expect(told.suppliedShare).toBeCloseTo(of(season(project), 'tank').told!.suppliedShare!, 6);
    for (const bad of [{ roofM2: 0 }, { litresADay: -1 }, { tankL: NaN }, { share: 2 }])
      expect(refusal(() => ask('quick', { project: bare, context: context(), args: { ...asked, ...bad } }))).toBe('quick.value');
  });
});

describe('what is said of it', () => {
  const said = (project: Project): string =>
    supplyVerdict(season(project), 'metric')
      .map((p) => p.text)
      .join('')
      .replace(/[\u00a0\u202f]/g, ' ');
  it('who gets least, where it ends, what runs over, by which years', () => {
    expect(said(led(ROOFED))).toMatch(/^House: \d+ % of what is asked is met; Cistern stands empty up to \d+ days on end\. .* a year run over Cistern\. By 3 years of the record, 2001 to 2003\.$/); // prettier-ignore
  });
  it('all met, nobody asking, and what is not known', () => {
    const small = supply({ needs: [{ id: 'n', name: 'Cat', store: 'tank', kind: 'daily', count: 1, each: 0.2 }] });
    expect(said(led({ ...ROOFED, supply: small }))).toMatch(/^All that is asked is met, every day\./);
    expect(said(led({ ...ROOFED, supply: supply({ needs: [] }) }))).toMatch(/^No need draws on a store yet/);
    const dry = valleyProject([POND, POND_SILL], { gauge: GAUGE, supply: supply({ needs: [{ ...supply().needs[0], store: 'pond' }] }) }); // prettier-ignore
    expect(said(dry)).toMatch(/^What House gets cannot be told\. Pond is not told: nobody has said what dries off in each month\.$/);
  });
  it('days that were made up are said to be', () => {
    const made: Climate = { ...climate, rainMm: Array<number>(12).fill(60), wetDays: Array<number>(12).fill(9) };
    expect(said(led({ ...ROOFED, gauge: null, climate: made }))).toMatch(/made from monthly figures: real years differ more\.$/);
  });
});
