import { describe, expect, it } from '@jest/globals';
import { type Ground, type Project, type TerrainInline, UserError } from '../../project/index.ts';
import { LOSS_METHODS, WETNESSES, runoffDepth } from '../../runoff/index.ts';
import { ABOVE, GROUND, ask, box, withGround, zone } from '../../testing/ground.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { rareFactor } from '../run/hydrology.ts';
import { verdict } from '../index.ts';

const told = (project: Project): string =>
  verdict('ground', project, { derived: derived(project).derived, system: 'metric', selected: null })
    .map((p) => p.text)
    .join('')
    .replace(/\s/g, ' ');
describe('zones', () => {
  it('shed by their own numbers, added by area', () => {
    const bare = zone('bare', box(0, 150, [202, 202]), { cover: 'bare' });
    const { runoff, grounds } = derived(withGround({ zones: [bare] })).derived;
    const rain = runoff[0].rainMm;
    const share = (runoff[0].runoffMm - runoffDepth(rain, 69)) / (runoffDepth(rain, 86) - runoffDepth(rain, 69));
    // From the swale to the top are 100 m, of which 52 are the zone's.
    expect(Math.abs(share - 0.52)).toBeLessThan(0.015);
    expect(grounds.map((g) => [g.id, g.curveNumber])).toEqual([
      ['ground', 69],
      ['bare', 86],
    ]);
    expect(grounds[1].areaM2).toBe(182 * 42);
    for (const g of grounds) expect((g.soaksMm ?? 0) + (g.standsMm ?? 0) + (g.runsMm ?? 0)).toBeCloseTo(rain, 9);
  });
  it('that are like the ground round them change nothing; the last drawn lies on top', () => {
    const plain = derived(planeProject()).derived;
    const same = derived(withGround({ zones: [zone('z', ABOVE)] })).derived;
    expect(same.stores[0].inM3).toBeCloseTo(plain.stores[0].inM3 ?? 0, 9);
    const covered = derived(withGround({ zones: [zone('z', ABOVE, { cover: 'bare' }), zone('y', ABOVE)] })).derived;
    expect(covered.stores[0].inM3).toBeCloseTo(plain.stores[0].inM3 ?? 0, 9);
  });
  it('under a swale set how fast it drains; soil over rock where it is deepest cut is what counts', () => {
    const half = zone('clay', box(0, 0, [102, 202]), { infiltrationMmPerHour: 4, soilDepthM: 0.6 });
    const [plain, mixed] = [derived(planeProject()), derived(withGround({ zones: [half] }))].map((r) => r.derived);
    // The swale runs from x = 32 to 172: half of it lies in the zone.
    expect((plain.stores[0].drainDownH ?? 0) / (mixed.stores[0].drainDownH ?? 1)).toBeCloseTo((20 * 0.5 + 4 * 0.5) / 20, 1);
    const depth = mixed.checks.find((c) => c.id === 'swale.soil-depth');
    expect(depth?.value).toBeCloseTo(0.6 - 0.35, 1);
    expect(depth?.at?.[0]).toBeLessThan(102);
  });
  it('roofs and pools are apart from soil, and roofs alone may give the peak', () => {
    const ring = box(60, 140, [100, 180]);
    const roofed = withGround({ soilGroup: 'A', cover: 'meadow' }, { features: [{ id: 'b', kind: 'building', ring }] });
    const { runoff, grounds } = derived(roofed).derived;
    expect(grounds.map((g) => g.id)).toEqual(['ground', 'roofs']);
    expect(runoff[0].sealedPeakM3s).toBeGreaterThan(0);
    expect(runoff[0].rationalPeakM3s).toBeGreaterThanOrEqual(runoff[0].sealedPeakM3s ?? 0);
    expect(derived(planeProject()).derived.runoff[0].sealedPeakM3s).toBeNull();
  });
});

describe('as it is now, and healed', () => {
  const healing: Partial<Ground> = {
    cover: 'pasture-poor',
    compaction: 'severe',
    healing: { treatment: 'rest', cover: 'pasture-good' },
    healedYears: 6,
  };
  it('changes every figure down to the sill, and says which ground they are for', () => {
    const [now, healed] = [withGround(healing), withGround({ ...healing, as: 'healed' })];
    const [a, b] = [derived(now).derived, derived(healed).derived];
    expect(b.stores[0].inM3).toBeLessThan(0.8 * (a.stores[0].inM3 ?? 0));
    expect(b.stores[0].drainDownH).toBeLessThan(a.stores[0].drainDownH ?? 0);
    expect(b.exits[0].without.peakM3s).toBeLessThan(a.exits[0].without.peakM3s);
    expect(a.grounds[0].runsHealedMm).toBeCloseTo(b.grounds[0].runsMm ?? 0, 12);
    expect(told(now)).toMatch(
      /Of 58 mm in the storm, \d+ mm runs off .*soaks in and the rest stands\..*Healed in 6 years, \d+ mm would\.$/,
    );
    expect(told(healed)).toMatch(/As it is now, \d+ mm would\. Ground as healed in 6 years\.$/);
    expect(derived(healed).derived.verdicts['works']).toMatch(/Ground as healed in 6 years\.$/);
    expect(a.verdicts['works']).not.toMatch(/healed/);
  });
  it('is the same while no plan is made for the ground', () => {
    const healed = derived(withGround({ as: 'healed' })).derived;
    expect(healed.stores).toEqual(derived(planeProject()).derived.stores);
    expect(healed.groundAs).toBe('now');
    expect(healed.verdicts['works']).not.toMatch(/healed/);
  });
  it('the picture shows both for each kind of ground, healed never shedding more', () => {
    const zones = [zone('track', box(20, 120, [60, 160]), { cover: 'dirt' })];
    const [ground, track] = ask('picture', withGround({ ...healing, zones }), { rain: { depthMm: 40, durationMin: 60 } });
    expect(track.healed).toBeNull();
    expect(ground.now.rainMm).toBeCloseTo(40, 9);
    expect(ground.healed?.runsMm).toBeLessThan(ground.now.runsMm);
    expect(() => ask('picture', planeProject(), { rain: { depthMm: -3, durationMin: 60 } })).toThrow(UserError);
  });
});

describe('exits', () => {
  it('hold what leaves without works, and less with a swale; volume is kept', () => {
    const { rain } = planeProject();
    const dry: Partial<Project> = { rain: { ...rain!, storm: { ...rain!.storm, before: 'dry' } } };
    const { exits, stores, balance, runoff } = derived(planeProject(dry)).derived;
    const bare = derived(planeProject({}, [])).derived.exits;
    expect(bare[0].with).toEqual(bare[0].without);
    // Its steps follow the quickest catchment, which a swale makes shorter.
    expect(exits[0].without.volumeM3 / bare[0].without.volumeM3).toBeCloseTo(1, 9);
    expect(exits[0].without.peakM3s / bare[0].without.peakM3s).toBeCloseTo(1, 1);
    const lost = exits.reduce((a, e) => a + e.without.volumeM3 - e.with.volumeM3, 0);
    const kept = (stores[0].inM3 ?? 0) - (stores[0].spilledM3 ?? 0);
    // Rain on its own water is all its own; the ground there would have shed a part of it.
    const { stage, wayOutM } = stores[0];
    const k = stage.findIndex((row) => row.levelM >= wayOutM);
    const share = (wayOutM - stage[k - 1].levelM) / (stage[k].levelM - stage[k - 1].levelM);
    const waterM2 = stage[k - 1].wettedM2 + share * (stage[k].wettedM2 - stage[k - 1].wettedM2);
    const { rainMm, runoffMm } = runoff.find((r) => r.of === 'w1')!;
    const more = (waterM2 * (rainMm - runoffMm)) / 1000;
    expect(more).toBeGreaterThan(5);
    // The steps of the storm differ by what is finest, so the two runoffs agree to their own sum.
    expect(Math.abs((lost + more) / kept - 1)).toBeLessThan(1e-3);
    expect(balance?.errorFraction).toBeCloseTo(0, 9);
  });
});

describe('methods side by side', () => {
  const methods = (project: Project) => ask('methods', project, { of: 'w1' });
  it('include those the derive used, and say where each stops', () => {
    const { times, peaks, losses, tcMin, spread, chosen } = methods(planeProject());
    const [own] = derived(planeProject()).derived.runoff.filter((r) => r.of === 'w1');
    expect(chosen).toEqual({ time: 'lag', peak: 'larger', loss: 'curve-number' });
    expect(tcMin).toBe(own.tcMin);
    expect(times.find((t) => t.method === 'lag')?.tcMin).toBe(own.tcMin);
    expect(peaks.find((p) => p.method === 'rational')?.peakM3s).toBe(own.rationalPeakM3s);
    expect(peaks.find((p) => p.method === 'hydrograph')?.peakM3s).toBeCloseTo(own.hydrographPeakM3s, 9);
    expect(losses.find((l) => l.method === 'curve-number')?.runoffMm).toBeCloseTo(own.runoffMm, 9);
    expect(peaks.find((p) => p.method === 'graphical')).toMatchObject({ peakM3s: null });
    expect(times.find((t) => t.method === 'kirpich')?.unfit.join()).toMatch(/channels/);
    expect(times.find((t) => t.method === 'path')?.unfit.join()).toMatch(/carried on beyond your table/);
    expect(spread).toMatch(/^The methods that fit agree|gives [\d.]+ times as much as/);
    expect(spread).toMatch(/What soaks in is the largest doubt/);
  });
  it('the flow path is split into a sheet, runnels and no channel on a small plane', () => {
    const way = ask('way', planeProject(), { of: 'w1' });
    expect(way.sheet.lengthM).toBeCloseTo(30.48, 2);
    expect(way.channel.lengthM).toBe(0);
    expect(way.sheet.slope).toBeCloseTo(0.1, 3);
    expect(way.sheet.lengthM + way.shallow.lengthM).toBeCloseTo(derived(planeProject()).derived.catchments[0].longestPathM, 6);
  });
  it('a valley has a channel from where two hectares run in, its fall that of the valley floor', () => {
    // Sides of 20 % to a floor that falls 5 % southwards along x = 101.
    const z = Array.from({ length: 101 * 101 }, (_, i) => {
      const [x, y] = [((i % 101) + 0.5) * 2, (101 - Math.floor(i / 101) - 0.5) * 2];
      return 100 + 0.05 * y + 0.2 * Math.abs(x - 101);
    });
    const terrain = { ...(planeProject().terrain as TerrainInline), z };
    const way = ask('way', planeProject({ terrain, pins: [{ id: 'k1', at: [101, 21] }] }, []), { of: 'k1' });
    expect(way.channel.slope).toBeCloseTo(0.05, 2);
    // The whole valley is 202 m wide: two hectares lie above the row 99 m from its head, some 80 m above the pin.
    expect(way.channel.lengthM).toBeGreaterThan(60);
    expect(way.channel.lengthM).toBeLessThan(90);
    expect(way.sheet.slope).toBeGreaterThan(way.channel.slope);
  });
  it('one chosen for a catchment is what its sill must pass', () => {
    const at = (runoff: Project['runoff']) => derived(planeProject(runoff ? { runoff } : {})).derived.runoff.find((r) => r.of === 'w1');
    const usual = at(undefined);
    expect(at({ peak: 'rational' })?.chosenPeakM3s).toBe(usual?.rationalPeakM3s);
    expect(at({ of: { w1: { peak: 'hydrograph' } } })?.chosenPeakM3s).toBe(usual?.hydrographPeakM3s);
    expect(at({ of: { other: { peak: 'hydrograph' } } })?.choice.peak).toBe('larger');
    // 1 in 20 years raises the coefficient by two thirds of a tenth.
    expect((at({ peak: 'rational-rare' })?.chosenPeakM3s ?? 0) / (usual?.rationalPeakM3s ?? 1)).toBeCloseTo(1 + 0.1 * (10 / 15), 9);
    const slow = at({ time: 'airfield' });
    expect(slow?.tcMin).toBeGreaterThan(usual?.tcMin ?? 0);
    expect(slow?.hydrographPeakM3s).toBeLessThan(usual?.hydrographPeakM3s ?? 0);
    expect(slow?.volumeM3).toBeCloseTo(usual?.volumeM3 ?? 0, 9);
  });
  it('day-long regional storms have a graphical peak near the hydrograph’s', () => {
    const rain = planeProject().rain!;
    const table = {
      durationsMin: [10, 60, 1440],
      returnYears: [2, 20],
      depthMm: [
        [8, 18, 50],
        [16, 40, 110],
      ],
    };
    const day = planeProject({
      rain: { ...rain, table, storm: { returnYears: 20, durationMin: 1440, shape: { kind: 'pattern', pattern: 'II' } } },
    });
    const { peaks } = methods(day);
    const [graphical, hydrograph] = (['graphical', 'hydrograph'] as const).map((m) => peaks.find((p) => p.method === m)?.peakM3s ?? 0);
    // The curves were drawn for times of 0.1 h and more on one pattern: within a third is what they promise.
    expect(Math.abs(graphical / hydrograph - 1)).toBeLessThan(0.33);
    // Two halves of ground alike in all but their borders give what one gives.
    const halves = methods({ ...day, ground: { ...GROUND, zones: [zone('z', box(0, 150, [202, 202]))] } });
    expect(halves.peaks.find((p) => p.method === 'graphical')?.peakM3s).toBeCloseTo(graphical, 9);
    const bare = methods({ ...day, ground: { ...GROUND, zones: [zone('z', box(0, 150, [202, 202]), { cover: 'bare' })] } });
    expect(bare.peaks.find((p) => p.method === 'graphical')?.peakM3s).toBeGreaterThan(graphical);
  });
  it.each([
    [2, 1],
    [10, 1],
    [17.5, 1.05],
    [25, 1.1],
    [100, 1.25],
    [500, 1.25],
  ])('1 in %d years raises the coefficient by %d (HEC-22 rows; straight between)', (years, factor) => {
    expect(rareFactor(years)).toBeCloseTo(factor, 12);
  });
  it('every loss and wetness keeps the balance of the routing to 1e-9, and wetter never lowers the peak level', () => {
    for (const loss of LOSS_METHODS) {
      const levels = WETNESSES.map((wetness) => {
        const { balance, stores } = derived(planeProject({ runoff: { loss, wetness } })).derived;
        expect(Math.abs(balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
        return stores[0].peakLevelM ?? 0;
      });
      expect(levels[1]).toBeGreaterThanOrEqual(levels[0] - 1e-9);
      expect(levels[2]).toBeGreaterThanOrEqual(levels[1] - 1e-9);
    }
  });
});

describe('doubt', () => {
  it('is a band round what is computed, narrower once a test was made', () => {
    const band = (change: Partial<Ground>) =>
      ask('bands', withGround(change, { runoff: { loss: 'green-ampt' } }), { of: 'w1', samples: 600 });
    const [guessed, tested] = [band({}), band({ rateFrom: 't1' })];
    const own = derived(planeProject({ runoff: { loss: 'green-ampt' } })).derived.runoff[0];
    expect(guessed.runoffMm.low).toBeLessThan(own.runoffMm);
    expect(guessed.runoffMm.high).toBeGreaterThan(own.runoffMm);
    expect(tested.runoffMm.high - tested.runoffMm.low).toBeLessThan(0.7 * (guessed.runoffMm.high - guessed.runoffMm.low));
  });
});

describe('soil loss', () => {
  const erosion = { annualMm: 700 };
  it('falls with cover, is cut by a swale, and fills it in so many years', () => {
    const of = (change: Partial<Ground>, works?: Parameters<typeof planeProject>[1]) =>
      derived(works ? planeProject({ ground: { ...GROUND, erosion, ...change } }, works) : withGround({ erosion, ...change })).derived
        .erosion!;
    const [bare, grass] = [of({ cover: 'bare' }), of({ cover: 'pasture-good' })];
    expect(bare.perHaT / grass.perHaT).toBeCloseTo(1 / 0.004, 4);
    expect(of({ cover: 'bare' }, []).perHaT).toBeGreaterThan(bare.perHaT);
    const [w] = bare.works;
    expect(w.arrivesT).toBeLessThanOrEqual(w.wornT);
    const { heldM3 } = derived(withGround({ erosion, cover: 'bare' })).derived.stores[0];
    expect(w.yearsToFifth).toBeCloseTo((0.2 * heldM3) / w.arrivesM3, 9);
    expect(derived(planeProject()).derived.erosion).toBeNull();
  });
  it('is mapped: sealed ground loses nothing, and the map adds up to the property', () => {
    const ring = box(60, 140, [100, 180]);
    const project = withGround({ erosion, cover: 'bare' }, { features: [{ id: 'b', kind: 'building', ring }] });
    const layer = ask('layer', project, { layer: 'soil-loss' });
    expect(layer[(101 - 80) * 101 + 40]).toBe(0);
    const sheds = ask('layer', project, { layer: 'sheds' });
    expect(sheds[(101 - 80) * 101 + 40]).toBeGreaterThan(sheds[0]);
    // The rain of a storm is not asked for.
    const noStorm = ask('layer', { ...project, rain: null }, { layer: 'soil-loss' });
    expect(noStorm).toEqual(layer);
    expect(() => ask('layer', planeProject(), { layer: 'soil-loss' })).toThrow(UserError);
  });
});
