// What suits a place: eight places the trade is agreed on, two where schools differ, and what is asked, ruled out and mended first.
import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import type { Ground, Project } from '../../project/index.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { words } from '../../testing/rules.ts';
import { POND, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { Graph } from '../graph/graph.ts';
import { finish } from '../graph/slowly.ts';
import { type Advice, adviseSlowly } from './advise.ts';
import { type PlaceAsked, placeOf } from './advise-place.ts';

const N = 101;
/** Ground by a law of place, on cells of a size. */
const terrain = (levelOf: (x: number, y: number) => number, cellM = 2): Project['terrain'] => ({
  kind: 'grid',
  ncols: N,
  nrows: N,
  west: 0,
  south: 0,
  cellM,
  rows: 'north-first',
  z: Array.from({ length: N * N }, (_, i) => levelOf(((i % N) + 0.5) * cellM, (N - Math.floor(i / N) - 0.5) * cellM)),
});
const SOIL: Ground = {
  soilGroup: 'B',
  cover: 'pasture-fair',
  curveNumber: null,
  runoffC: null,
  infiltrationMmPerHour: 15,
  soilDepthM: 1.5,
};
const slopeOf = (slope: number): Project['terrain'] => terrain((_x, y) => 100 + slope * y);
const site = (ground: Partial<Ground>, land: Project['terrain'], change: Partial<Project> = {}): Project =>
  planeProject({ terrain: land, ground: { ...SOIL, ...ground }, site: { crs: null, outline: [], zeroLevelM: 0 }, ...change }, []);
const context = () => ({ registry, grids: noGrid, graph: new Graph() });
const advise = (project: Project, asked: PlaceAsked): Advice => finish(adviseSlowly(project, context(), asked));
const box = (x: number, y: number, [wide, high]: readonly [number, number]): Line => [[x, y], [x + wide, y], [x + wide, y + high], [x, y + high]]; // prettier-ignore
const FIELD = box(40, 50, [120, 100]);
const YARD = box(90, 90, [24, 20]);
const first = ({ options }: Advice) => `${options[0].fits} ${options[0].kind}`;

/** A gully down a hollow, a metre and a half deep and a few metres wide. */
const GULLY = terrain((x, y) => 100 + 0.06 * y + 0.02 * Math.abs(x - 101) - Math.max(0, 1.5 - Math.abs(x - 101) / 2.5));
const BED: Line = [[101, 180], [101, 120], [101, 60]]; // prettier-ignore

describe('the first choice, as the trade would say', () => {
  it('a thin stony slope: lines of stone', () => {
    const advice = advise(site({ soilDepthM: 0.3, cover: 'pasture-poor' }, slopeOf(0.06)), { ring: FIELD, stone: 'plenty' });
    expect(first(advice)).toBe('well stone-lines');
    expect(words(advice.said)).toMatch(/^Best here: stone lines, since stone lies all over.*room for \d+ m³ in \d+ hours of one person/);
    // Water runs on through them: they slow it.
    expect([advice.options[0].holdsM3! > 0, advice.options[0].isSlowed]).toEqual([true, true]);
    const swales = advice.options.find((o) => o.kind === 'swale-set')!;
    expect([swales.fits, words(swales.not!)]).toEqual(['not', 'no soil depth, no swale: 0.30 m']);
  });
  it('a gully with loose rock at its narrow places: check dams', () => {
    const advice = advise(site({}, GULLY), { line: BED, stone: 'some' });
    expect(first(advice)).toBe('well check-dams');
    const [dams] = advice.options;
    expect([dams.holdsM3! > 0, dams.isSlowed, dams.hours! > 0, dams.litresAnHour! > 0]).toEqual([true, false, true, true]);
    expect(advice.place.peakM3s!).toBeGreaterThan(0.01);
  });
  it('a bare crusted plain: half-moons', () => {
    const ground = { cover: 'bare', soilGroup: 'C', infiltrationMmPerHour: 6, soilDepthM: 1 } as const;
    const advice = advise(site(ground, slopeOf(0.015)), { ring: FIELD, stone: 'none', machine: 'no', purpose: 'grow' });
    expect(first(advice)).toBe('well half-moons');
    expect(advice.options.find((o) => o.kind === 'stone-lines')!.fits).toBe('not');
    expect(advice.options.find((o) => o.kind === 'ripping')!.not).toContain('no machine');
  });
  it('a deep loam hillside: swales', () => {
    const ground = { cover: 'pasture-good', soilDepthM: 2, infiltrationMmPerHour: 20 } as const;
    expect(first(advise(site(ground, slopeOf(0.07)), { ring: FIELD, machine: 'yes', stone: 'none' }))).toBe('well swale-set');
  });
  it('a steep garden: terraces', () => {
    const advice = advise(site({ soilDepthM: 1.6 }, slopeOf(0.25)), { ring: box(85, 90, [30, 24]), stone: 'some', purpose: 'grow' });
    expect(first(advice)).toBe('well terraces');
    expect(advice.options.find((o) => o.kind === 'rain-garden')!.fits).toBe('not');
  });
  it('wet clay: a drain that leads it where it may go, and nothing that soaks', () => {
    const advice = advise(site({ soilGroup: 'D', infiltrationMmPerHour: 1.5 }, slopeOf(0.04)), { ring: FIELD, stone: 'none' });
    expect(first(advice)).toBe('well diversion');
    for (const kind of ['swale-set', 'rain-garden', 'soakaway'])
      expect([kind, advice.options.find((o) => o.kind === kind)!.fits]).toEqual([kind, 'not']);
  });
  it('a lawn above a drive: a rain garden', () => {
    const features = [
      { id: 'h', kind: 'building', ring: box(90, 128, [20, 12]) },
      { id: 'd', kind: 'road', line: [[60, 80], [140, 80]] as Line }, // prettier-ignore
    ];
    const advice = advise(site({ infiltrationMmPerHour: 22, soilDepthM: 2 }, slopeOf(0.05), { features }), { ring: YARD });
    expect(first(advice)).toBe('well rain-garden');
    expect(advice.options[0].speaksFor.map(words).join()).toMatch(/drive below/);
  });
  it('a rocky wash with big floods: not here', () => {
    // A square kilometre of hard ground drains into it.
    const wash = terrain((x, y) => 100 + 0.03 * y + 0.05 * Math.abs(x - 505) - Math.max(0, 3 - Math.abs(x - 505) / 8), 10);
    const ground = { soilGroup: 'D', cover: 'bare', infiltrationMmPerHour: 3 } as const;
    const advice = advise(site(ground, wash), { line: [[505, 420], [505, 160]], stone: 'plenty', bed: 'rock' }); // prettier-ignore
    expect(advice.options[0].fits).toBe('not');
    expect(advice.place.peakM3s!).toBeGreaterThan(3);
    expect(words(advice.said)).toMatch(/^Not here: .*(gone in the first flood|licensed)/);
  });
});

describe('where schools differ', () => {
  it('a trodden pasture: those who rip and those who dig swales, each with its reason', () => {
    const ground = { cover: 'pasture-fair', soilDepthM: 1.2, infiltrationMmPerHour: 9 } as const;
    const advice = advise(site(ground, slopeOf(0.06)), { ring: FIELD, machine: 'yes', stone: 'none' });
    expect(advice.options.slice(0, 2).map((o) => o.kind).sort()).toEqual(['ripping', 'swale-set']); // prettier-ignore
    expect(words(advice.schools!)).toMatch(
      /pattern ripping from valley to ridge.*level swales with trees|level swales with trees.*pattern ripping/,
    );
  });
  it('a stony slope with some soil: those who lay stone and those who dig', () => {
    const ground = { soilDepthM: 0.8, infiltrationMmPerHour: 14 } as const;
    const advice = advise(site(ground, slopeOf(0.05)), { ring: FIELD, stone: 'plenty', machine: 'yes' });
    expect(advice.options.slice(0, 2).map((o) => o.kind)).toEqual(['stone-lines', 'swale-set']);
    expect(words(advice.schools!)).toMatch(/porous lines of stone.*level swales/);
  });
  it('agree on a deep loam hillside with slow water below', () => {
    const advice = advise(site({ soilDepthM: 2, infiltrationMmPerHour: 30 }, slopeOf(0.1)), { ring: FIELD, stone: 'none', machine: 'no' });
    expect([first(advice), advice.schools]).toEqual(['well swale-set', null]);
  });
});

describe('what else an advice tells', () => {
  it('the head of a gully comes before dams below it', () => {
    const head = terrain((x, y) => 100 + 0.06 * y + 0.02 * Math.abs(x - 101) - (y < 130 ? Math.max(0, 2.2 - Math.abs(x - 101) / 2.5) : 0));
    const advice = advise(site({}, head), { line: [[101, 150], [101, 90]], stone: 'some' }); // prettier-ignore
    expect(first(advice)).toBe('well headcut');
    expect(advice.place.dropM).toBeGreaterThan(1);
  });
  it('what is not known is asked for, and not taken for good or bad', () => {
    const dry = { ...site({}, slopeOf(0.06)), rain: null, ground: null };
    const advice = advise(dry, { ring: FIELD });
    const lines = advice.options.find((o) => o.kind === 'stone-lines')!;
    expect(lines.asks).toEqual(['Look for loose stone within a barrow’s way.', 'Describe the ground: how deep its soil is.']);
    expect([advice.place.soilDepthM, advice.place.runsMm, advice.place.isBare]).toEqual([null, null, null]);
    expect(JSON.stringify(advice)).not.toMatch(/NaN|undefined|not known how much/);
    // What comes down a gully is not known without rain: no dam fits well before it is.
    const gully = advise({ ...site({}, GULLY), rain: null }, { line: BED, stone: 'plenty' });
    const dams = gully.options.find((o) => o.kind === 'check-dams')!;
    expect([gully.place.peakM3s, dams.fits]).toEqual([null, 'perhaps']);
    expect(dams.asks).toContain('Give the rain and describe the ground: what comes down it at its peak.');
    // Whatever may rule a work out and is not known, it is never said to fit well; once it is known it is.
    const stony = site({ soilDepthM: 0.3, cover: 'pasture-poor' }, slopeOf(0.06));
    const fits = (asked: PlaceAsked) => advise(stony, { ring: FIELD, ...asked }).options.find((o) => o.kind === 'stone-lines')!.fits; // prettier-ignore
    expect([fits({}), fits({ stone: 'some' }), fits({ stone: 'none' })]).toEqual(['perhaps', 'well', 'not']);
  });
  it('says what to look for where nothing fits by what is known, and that nothing is to be built where all was said', () => {
    const poor = site({ cover: 'bare', soilDepthM: 0.9, infiltrationMmPerHour: 7 }, slopeOf(0.11));
    const open = advise(poor, { ring: FIELD });
    expect(words(open.said)).toMatch(/^Nothing fits by what is known\. .* might\. (Look for loose stone|Say whether a machine)/);
    const closed = advise(poor, { ring: FIELD, stone: 'none', machine: 'no' });
    expect(words(closed.said)).toMatch(/^Not here: .*Let it rest and grow/);
  });
  it('money and weeks count where they are told: what cannot be done before the rains falls behind', () => {
    const project = site({ soilDepthM: 2, infiltrationMmPerHour: 20 }, slopeOf(0.07));
    const plain = advise(project, { ring: FIELD, stone: 'some' });
    const swales = plain.options.find((o) => o.kind === 'swale-set')!;
    expect(swales.costs).toBeNull();
    const told = advise(project, { ring: FIELD, stone: 'some', weeks: 1, hourCosts: 12 }).options.find((o) => o.kind === 'swale-set')!;
    expect(told.costs! / told.hours!).toBeCloseTo(12, 9);
    expect(told.hours!).toBeGreaterThan(40);
    expect([told.score, told.against.map(words).some((w) => w.endsWith('the rains come in 1 week'))]).toEqual([swales.score - 10, true]);
  });
  it('works there are mended before new ones are added', () => {
    // Without a way out its wall is passed.
    const advice = advise(valleyProject([POND]), { ring: box(90, 85, [30, 30]) });
    expect(advice.mendFirst.map((m) => m.work)).toEqual(['pond']);
    expect(words(advice.said)).toMatch(/^First mend Pond\./);
    expect(advise(valleyProject([POND]), { ring: box(20, 160, [30, 30]) }).mendFirst).toEqual([]);
  });
  it('all ground whose water comes to a field counts, whatever stream it comes in, and whether there may be more', () => {
    // A plane with a crest across it at 160 m: half of what lies above the field, to the edge, falls away to the other side.
    const crest = terrain((_x, y) => 100 - 0.06 * Math.abs(y - 160));
    const at = (land: Project['terrain'], ring: Line) => placeOf(site({}, land), context(), { ring });
    const open = at(slopeOf(0.06), FIELD);
    expect([open.aboveM2, open.aboveIsCut]).toEqual([120 * 52, true]);
    // On a plane no place of it gathers more than a row of cells.
    expect(open.gathersM2).toBeLessThan(120 * 10);
    const under = at(crest, FIELD);
    expect(under.aboveM2).toBeGreaterThan(120 * 8);
    expect(under.aboveM2).toBeLessThan(120 * 12 + 4 * 50);
    expect(under.aboveIsCut).toBe(false);
    const channel = placeOf(site({}, GULLY), context(), { line: BED });
    expect([channel.aboveIsCut, channel.aboveM2]).toEqual([true, channel.gathersM2]);
    // Lines of stone under twenty times their own ground are run over; under fifteen they are not.
    const overrun = (deep: number): boolean => {
      const { options } = advise(site({}, slopeOf(0.05)), { ring: box(40, 10, [120, deep]), stone: 'plenty' });
      return options
        .find((o) => o.kind === 'stone-lines')!
        .against.map(words)
        .some((w) => w.includes('it would be run over'));
    };
    expect([overrun(8), overrun(12)]).toEqual([true, false]);
  });
  it('each that is offered begins there, and what was tried leaves nothing behind', () => {
    const project = site({ soilDepthM: 2 }, slopeOf(0.07));
    const on = context();
    const { options } = finish(adviseSlowly(project, on, { ring: FIELD, stone: 'plenty' }));
    const offered = options.filter((o) => o.fits !== 'not');
    expect(offered.length).toBeGreaterThan(2);
    for (const { kind, draw } of offered) {
      const made = registry.begin(kind, { how: draw!.how, points: draw!.points, host: null }, landOf(project));
      expect([kind, made.ok]).toEqual([kind, true]);
    }
    expect(project.options[0].works).toEqual([]);
  });
  it('is given for a line drawn upstream as for one drawn down, and refused where no ground is', () => {
    const up = placeOf(site({}, GULLY), context(), { line: [...BED].reverse() });
    expect(up).toEqual(placeOf(site({}, GULLY), context(), { line: BED }));
    expect(up.slope).toBeCloseTo(0.06, 3);
    const refused = (asked: PlaceAsked): string => {
      try {
        placeOf(site({}, GULLY), context(), asked);
        return 'taken';
      } catch (error) {
        return (error as { problems: { code: string }[] }).problems[0].code;
      }
    };
    expect([refused({}), refused({ ring: box(900, 900, [10, 10]) }), refused({ line: [[0, 0], [900, 900]] })]).toEqual(['advise.place', 'advise.empty', 'advise.empty']); // prettier-ignore
  });
});

const landOf = (project: Project) => {
  let next = 0;
  const { z } = project.terrain as { readonly z: readonly number[] };
  const grid = { ncols: N, nrows: N, cellM: 2, west: 0, south: 0, z: Float32Array.from(z, (v) => v - 100), baseM: 100 };
  return { grid, stores: [], nameFor: (t: string) => t, idFor: (w: string) => `${w}-${next++}`, runsMm: () => 20 };
};
