// Who lies below a store on the map, and the rare storm its crest must stand.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Feature, Hazard, WorkBase } from '../../contract/index.ts';
import type { Point } from '../../geometry/index.ts';
import type { Project, Rain } from '../../project/index.ts';
import { LIP_M, SWALE, noGrid, planeProject } from '../../testing/projects.ts';
import { PIPE, POND, POND_SILL, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';
import { applyCommand } from '../../commands/index.ts';
import { Graph, derive } from '../index.ts';
import type { Derived } from '../types.ts';

const TABLE = {
  durationsMin: [10, 60, 360, 1440],
  returnYears: [2, 20, 100],
  depthMm: [
    [8, 17, 30, 46],
    [15, 33, 58, 92],
    [21, 46, 80, 126],
  ],
};
const WORKS: readonly WorkBase[] = [POND, POND_SILL, PIPE];
const graph = new Graph();
const square = (x: number, y: number, size = 8): readonly Point[] => [
  [x, y],
  [x + size, y],
  [x + size, y + size],
  [x, y + size],
];
/** The valley runs south along x = 101: water leaves the pond's wall at y = 81. */
const house = (x: number, y: number): Feature => ({ id: 'house', kind: 'building', name: 'Mill', ring: square(x, y) });
const road = (y: number, kind: string): Feature => ({ id: kind, kind, line: [[0, y], [202, y]] }); // prettier-ignore

interface Asked {
  readonly features?: readonly Feature[];
  readonly hazard?: Hazard;
  readonly years?: number;
  readonly rain?: Partial<Rain>;
  readonly works?: readonly WorkBase[];
  /** By storms of all lengths, where two are not enough. */
  readonly isWhole?: boolean;
}
function projectOf({ features = [], hazard, years = 20, rain = {}, works = WORKS, isWhole = false }: Asked): Project {
  const project = valleyProject(works, {
    features,
    rain: { table: TABLE, storm: { returnYears: years, ...(isWhole ? {} : { durationsMin: [60, 1440] }) }, ...rain },
  });
  return hazard ? applyCommand(project, { type: 'hazard.set', payload: { store: 'pond', hazard } }, registry).project : project;
}
const told = (asked: Asked): Derived => derive(projectOf(asked), { registry, grids: noGrid, graph }).derived;
const pondOf = (d: Derived): Derived['stores'][number] => d.stores.find((s) => s.id === 'pond')!;
const severityOf = (d: Derived, id: string): string | undefined => d.checks.find((c) => c.id === id && c.on === 'pond')?.severity;

describe('what the map shows below', () => {
  it('is nothing known while nothing is drawn, nor where the valley runs off the map and what is drawn lies elsewhere', () => {
    expect(pondOf(told({}))).toMatchObject({ hazard: null, hazardBy: null, below: null });
    // A well is no one; a house up the valley is out of the way.
    expect(pondOf(told({ features: [{ id: 'w', kind: 'well', at: [101, 40] }] })).hazard).toBeNull();
    expect(pondOf(told({ features: [house(97, 150)] }))).toMatchObject({ hazard: null, hazardBy: null, below: null });
  });
  it('is a house within forty metres of the way of its flood, told with how far down', () => {
    const { hazard, below } = pondOf(told({ features: [house(97, 0)] }));
    expect(hazard).toBe('building');
    expect(below).toMatchObject({ feature: 'house', name: 'Mill' });
    // From the wall at 81 to where the house, whose upper side is at 8, is forty metres off.
    expect(below!.alongM).toBeGreaterThan(5);
    expect(below!.alongM).toBeLessThan(81 - 8);
    // 45 m and more to the side of the valley's floor, on both sides of the limit.
    expect(pondOf(told({ features: [house(101 + 37, 20)] })).hazard).toBe('building');
    expect(pondOf(told({ features: [house(101 + 55, 20)] })).hazard).toBeNull();
  });
  it('is the gravest of what is met, past works that might catch some of it', () => {
    expect(pondOf(told({ features: [road(60, 'track')] })).hazard).toBe('track');
    expect(pondOf(told({ features: [road(60, 'track'), road(20, 'road')] })).below).toMatchObject({ hazard: 'building', feature: 'road' });
    const lower: WorkBase = { ...POND, id: 'low', name: 'Low', wall: [[81, 51], [121, 51]], levels: { floorM: 102.4, crestM: 104.6 } } as WorkBase; // prettier-ignore
    expect(pondOf(told({ features: [house(97, 10)], works: [...WORKS, lower] })).hazard).toBe('building');
  });
  it('gives way to the user’s word, which can be taken back', () => {
    const asked = { features: [house(97, 20)], hazard: 'homes' as const };
    expect(pondOf(told(asked))).toMatchObject({ hazard: 'homes', hazardBy: 'said', below: { hazard: 'building' } });
    const back = applyCommand(projectOf(asked), { type: 'hazard.set', payload: { store: 'pond', hazard: null } }, registry).project;
    expect(back.options[0].hazards).toEqual({});
    for (const hazard of ['castle', '', 3, undefined])
      expect(() =>
        applyCommand(projectOf({}), { type: 'hazard.set', payload: { store: 'pond', hazard: hazard as never } }, registry),
      ).toThrow();
    expect(() => applyCommand(projectOf({}), { type: 'hazard.set', payload: { store: '__proto__', hazard: 'homes' } }, registry)).toThrow(
      /store/,
    );
  });
});

describe('the storm a crest must stand', () => {
  it('is the set itself where that is as rare', () => {
    const d = told({ years: 100, hazard: 'track' });
    expect(pondOf(d).crest).toEqual({ years: 100, leftM: pondOf(d).least!.value, by: expect.objectContaining({ durationMin: 1440 }) });
  });
  it('is a rarer one else, and comes to what a set designed for that comes to', () => {
    const [mild, grave] = [20, 100].map((years) => pondOf(told({ years, hazard: 'track', isWhole: true })));
    const rare = mild.crest!;
    const designed = grave.least!;
    expect(rare.years).toBe(100);
    // Another length decides in the rarer storm.
    expect(rare.by!.durationMin).not.toBe(mild.least!.durationMin);
    expect(rare.leftM!).toBeLessThan(mild.least!.value - 0.01);
    // Stores are found as the storms designed for leave them: here full in both.
    expect(rare.leftM!).toBeCloseTo(designed.value, 6);
  });
  it('is told of every store that asks for it, though one bears on the other', () => {
    const low: WorkBase = { ...POND, id: 'low', name: 'Low', wall: [[81, 51], [121, 51]], levels: { floorM: 102.4, crestM: 104.6 } } as WorkBase; // prettier-ignore
    const [mild, grave] = [20, 100].map((years) => told({ years, features: [road(30, 'track')], works: [...WORKS, low], isWhole: true }));
    for (const id of ['pond', 'low']) {
      const [here, designed] = [mild, grave].map((d) => d.stores.find((s) => s.id === id)!);
      expect([here.crest!.years, designed.crest!.years]).toEqual([100, 100]);
      // Designed for the rarer storm, ground and water found otherwise may decide by a little.
      expect(Math.abs(here.crest!.leftM! - designed.least!.value)).toBeLessThan(0.01);
      expect(here.crest!.leftM!).toBeLessThan(here.least!.value - 0.005);
    }
  });
  it('is not known where the table ends before it, or the storm is one’s own', () => {
    expect(pondOf(told({ hazard: 'building' })).crest).toEqual({ years: 200, leftM: null, by: null });
    const own = { storm: { returnYears: 20, shape: { kind: 'own' as const, name: 'Mine', stepMin: 10, stepsMm: [2, 9, 4] } } };
    const d = told({ hazard: 'nobody', rain: own });
    expect(pondOf(d).crest).toBeNull();
    expect([severityOf(d, 'hazard.ways-out'), severityOf(d, 'hazard.crest')]).toEqual(['unknown', undefined]);
  });
  it('between rows lies between them', () => {
    const designed = (years: number): number => pondOf(told({ years, hazard: 'homes' })).least!.value;
    // 1 in 50, by a table that holds 20 and 100.
    const between = pondOf(told({ hazard: 'nobody' })).crest!;
    expect(between.years).toBe(50);
    expect(between.leftM!).toBeLessThan(designed(20) - 0.005);
    expect(between.leftM!).toBeGreaterThan(designed(100) + 0.005);
  });
  it('a graver class never leaves more, and never a milder verdict', () => {
    const gravity = ['fine', 'unknown', 'weigh', 'mend'];
    fc.assert(
      fc.property(fc.constantFrom(2, 20, 100), fc.integer({ min: 0, max: 400 }), (years, lowerMm) => {
        const works = [{ ...POND, levels: { ...POND.levels, crestM: 106.5 - lowerMm / 1000 } } as WorkBase, POND_SILL, PIPE];
        const by = (hazard: Hazard): Derived => told({ years, hazard, works });
        const [mild, grave] = [by('nobody'), by('track')];
        expect(pondOf(grave).crest!.leftM!).toBeLessThanOrEqual(pondOf(mild).crest!.leftM! + 1e-9);
        for (const id of ['hazard.crest', 'hazard.ways-out'])
          expect(gravity.indexOf(severityOf(grave, id)!)).toBeGreaterThanOrEqual(gravity.indexOf(severityOf(mild, id)!));
      }),
      { seed: 7, numRuns: 6 },
    );
  });
  it('a pond with a house below is to be mended by the storm it is designed for, and is fine nowhere', () => {
    const d = told({ features: [house(97, 20)] });
    expect(severityOf(d, 'hazard.ways-out')).toBe('mend');
    expect(severityOf(d, 'hazard.crest')).toBe('unknown');
    expect(severityOf(told({ features: [house(97, 20)], years: 100 }), 'hazard.ways-out')).toBe('fine');
  });
});

describe('what comes down when a wall goes', () => {
  it('is the water above the ground under its lowest place, through a gap as wide as its volume and height cut', () => {
    const { breach, stage, crestM } = pondOf(told({}));
    const at = (level: number): number => {
      const k = Math.max(
        1,
        stage.findIndex((s) => s.levelM >= level),
      );
      const [a, b] = [stage[k - 1], stage[k]];
      return a.volumeM3 + ((level - a.levelM) / (b.levelM - a.levelM)) * (b.volumeM3 - a.volumeM3);
    };
    // The valley's floor under the wall at y = 81 lies at 104.05.
    expect(breach!.outlet).toBe('pond#crest');
    expect(Math.abs(breach!.heightM - (crestM - 104.05))).toBeLessThan(0.11);
    expect(breach!.volumeM3 / (at(crestM) - at(crestM - breach!.heightM))).toBeCloseTo(1, 2);
    expect(breach!.widthM).toBeCloseTo(0.25242 * breach!.volumeM3 ** 0.32 * breach!.heightM ** 0.19, 6);
    expect(breach!.peakM3s).toBeGreaterThan(0.5);
    expect(breach!.peakM3s).toBeLessThan(breach!.seenM3s);
  });
  it('of a swale is that of its fuse or its bank, whichever lets more out; none where nothing is held above the ground', () => {
    const level = { ...SWALE, levels: { floorM: LIP_M - 0.4, bankCrestM: LIP_M } } as WorkBase;
    const of = (work: WorkBase) => derive(planeProject({}, [work]), { registry, grids: noGrid, graph }).derived.stores[0].breach;
    expect(of(SWALE as WorkBase)!.outlet).toBe('w1#bank');
    expect(of(SWALE as WorkBase)!.heightM).toBeCloseTo(SWALE.levels.bankCrestM - LIP_M, 1);
    expect(of(level)?.volumeM3 ?? 0).toBeLessThan(1);
    const fused = of({ ...SWALE, fuse: { fromM: 30, toM: 31, crestM: SWALE.levels.bankCrestM - 0.05 } } as WorkBase)!;
    expect(['w1#bank', 'w1#fuse']).toContain(fused.outlet);
  });
});

describe('the limits of the rain', () => {
  const limits = {
    lowMm: TABLE.depthMm.map((row) => row.map((d) => 0.8 * d)),
    highMm: TABLE.depthMm.map((row) => row.map((d) => 1.3 * d)),
  };
  const limited = told({ rain: { limits } });
  it('are a band on what is left, the same as tables of those depths leave', () => {
    const { band, least } = pondOf(limited);
    expect(band!.lowM).toBeLessThan(least!.value - 0.005);
    expect(band!.highM).toBeGreaterThan(least!.value + 0.005);
    expect(Math.abs(band!.lowM - pondOf(told({ rain: { table: { ...TABLE, depthMm: limits.highMm } } })).least!.value)).toBeLessThan(0.02);
  });
  it('are told in the verdict, and nowhere without them', () => {
    expect(limited.verdicts.works).toMatch(/; \d+.mm to \d+.mm by the limits of your rain\)/);
    expect(pondOf(told({})).band).toBeNull();
    expect(told({}).verdicts.works).not.toMatch(/limits of your rain/);
  });
});
