import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '../contract/index.ts';
import { registry } from '../works/index.ts';
import { LIP_M, SILL, SWALE, derived, planeProject } from '../testing/projects.ts';
import { runoffDepth } from '../runoff/index.ts';
import { type Project } from '../project/index.ts';
import { plane } from '../testing/grids.ts';
import { DAMS, FOUR_DAMS, valleyProject } from '../testing/valley.ts';
import { TO_TAP } from '../testing/valley-fields.ts';
import { FORMULAS, Graph, derive, verdict } from './index.ts';
import { aloneTold } from './tell/alone.ts';

const noGrid = () => plane(0.1, 0);

/**
 * Rain on a swale's own water, in place of what that ground would shed: 140 m long, 0.9 m at the floor, sides of 1.5 to 1, full
 * to 0.35 m.
 */
const ON_WATER_M3 = (140 * (0.9 + 2 * 1.5 * 0.35) * (58 - runoffDepth(58, 69))) / 1000;

describe('the chain on a plane of 10 %', () => {
  const { derived: d, view } = derived(planeProject());
  const [store] = d.stores;
  it('catches the strip above the swale and sheds what the curve number says', () => {
    expect(d.catchments[0].areaM2).toBe(140 * 102);
    expect(d.runoff[0]).toMatchObject({ rainMm: 58, curveNumber: 69, runoffC: 0.42 });
    expect(d.runoff[0].runoffMm).toBeCloseTo(runoffDepth(58, 69), 10);
    expect(d.runoff[0].volumeM3).toBeCloseTo((runoffDepth(58, 69) / 1000) * 140 * 102, 6);
  });
  it('closes its balance and follows the overflow to the property line', () => {
    expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
    expect(store.inM3).toBeCloseTo(d.runoff[0].volumeM3 + ON_WATER_M3, 3);
    expect((store.spilledM3 ?? 0) + (store.endM3 ?? 0)).toBeCloseTo(store.inM3 ?? 0, 6);
    const [link] = d.links;
    expect(link).toMatchObject({ from: 'w1', outlet: 's1', to: 'property-edge' });
    expect(link.volumeM3).toBeCloseTo(store.spilledM3 ?? 0, 6);
    const [first, last] = [link.path[0], link.path[link.path.length - 1]];
    expect(Math.abs(last[0] - first[0])).toBeLessThan(2); // straight down the plane
    expect(last[1]).toBeLessThan(12);
    for (let i = 1; i < link.path.length; i++) expect(link.path[i][2]).toBeLessThan(link.path[i - 1][2]);
  });
  it('stands above a hard sill by the head that passes its peak, and above a grassed one by as much as the grass below holds up', () => {
    const head = (store.peakLevelM ?? 0) - LIP_M;
    // Fair pasture a class taller than cut, on 10 %: Temple's curves in feet, Manning for a sheet, its energy.
    const q = (store.peakOutM3s ?? 0) / 6;
    const VR = Math.max(0.0025 * 5.6 ** 2.5, q / 0.3048 ** 2);
    const n = Math.exp(5.6 * (0.0133 * Math.log(VR) ** 2 - 0.0954 * Math.log(VR) + 0.297) - 4.16);
    const y = ((q * n) / Math.sqrt(0.1)) ** 0.6;
    expect(head).toBeCloseTo(y + (q / y) ** 2 / 19.62, 4);
    const hard = derived(planeProject({}, [SWALE, { ...SILL, crest: 'hard' } as WorkBase])).derived.stores[0];
    const [low] = [hard.peakLevelM! - LIP_M];
    expect(1.5 * 6 * low ** 1.5).toBeCloseTo(hard.peakOutM3s!, 6);
    expect(low).toBeLessThan(head - 0.01);
    expect(store.holds).toBe(false);
    // Less what its far end stands higher.
    expect(store.freeboardM).toBeCloseTo(0.35 - head - store.riseM!, 9);
    expect(store.riseM).toBeGreaterThan(0);
  });
  it('sets out pegs along it and at the sill, with cuts to the design level', () => {
    expect(d.pegs.filter((p) => p.work === 'w1')).toHaveLength(15);
    expect(d.pegs.filter((p) => p.work === 's1').map((p) => p.x)).toEqual([149, 152, 155]);
    for (const p of d.pegs.filter((q) => q.work === 'w1')) expect(p.cutM).toBeCloseTo(0.35, 3);
    expect(d.pegs.every((p) => p.staffM === null)).toBe(true);
    const read = derived(planeProject({ survey: { heightOfCollimationM: 112, pegIntervalM: 20 } })).derived.pegs[0];
    expect(read.staffM).toBeCloseTo(112 - (LIP_M - 0.35), 9);
  });
  it('tells it in one sentence, in either unit system, and shows its working', () => {
    expect(d.verdicts.works).toMatch(
      /^Upper holds \d+\sm³ of the \d+\sm³ this storm brings; the rest leaves towards the property edge at up to \d+\sL\/s, with \d+\smm of freeboard left \(all full when it begins\)\./,
    );
    const us = verdict('works', planeProject(), { derived: d, system: 'us', selected: 's1' })
      .map((p) => p.text)
      .join('');
    expect(us).toMatch(/ft³/);
    // What stores nothing is told by itself.
    const line = { ...TO_TAP, line: [[60, 120], [60, 80]], from: undefined, levels: { drawM: 107, endM: 104 } } as unknown as WorkBase; // prettier-ignore
    const project = planeProject({}, [SWALE, SILL, line]);
    const said = (work: WorkBase): string =>
      verdict('works', planeProject({}, [SWALE, SILL, work]), { derived: derived(project).derived, system: 'metric', selected: work.id })
        .map((p) => p.text)
        .join('');
    const own = derived(project).derived.checks.filter((c) => c.on === line.id);
    const count = (severity: string): number => own.filter((c) => c.severity === severity).length;
    expect(count('unknown')).toBeGreaterThan(1);
    expect(said(line)).toMatch(new RegExp(`^Line to the tap: of ${own.length} checks .*${count('unknown')} not known yet\\. First: `));
    expect(aloneTold(line, own.map((c) => ({ ...c, severity: 'fine' })), 'metric').map((p) => p.text).join('')).toBe(`Line to the tap: all ${own.length} checks are fine.`); // prettier-ignore
    const used = new Set(d.worksheets.map((w) => w.formula));
    for (const id of [
      'runoff.curve-number',
      'runoff.rational',
      'runoff.nrcs-lag',
      'hydraulics.sill-length',
      'works.swale-water-area',
      'network.drain-down',
    ])
      expect(used).toContain(id);
    expect(view.series[0].levelM[0]).toBeCloseTo(LIP_M - 0.35, 9);
  });
});

describe('derive', () => {
  it('is deterministic, with or without what it remembers', () => {
    const graph = new Graph();
    const context = { registry, grids: noGrid, graph };
    const project = planeProject({ pins: [{ id: 'k', at: [101, 31] }] });
    const [cold, again, fresh] = [derive(project, context), derive(project, context), derived(project)];
    expect(JSON.stringify(again)).toBe(JSON.stringify(cold));
    expect(JSON.stringify(fresh)).toBe(JSON.stringify(cold));
  });
  it('does not refill the terrain, retrace or recatch when a level changes', () => {
    const graph = new Graph();
    const context = { registry, grids: noGrid, graph };
    const project = planeProject();
    derive(project, context);
    const before = new Map(graph.runs);
    const again = (): string[] => [...graph.runs].flatMap(([word, n]) => (n === (before.get(word) ?? 0) ? [] : [word])).sort();
    const deeper: Project = {
      ...project,
      options: [
        {
          ...project.options[0],
          works: [{ ...SWALE, levels: { ...SWALE.levels, floorM: SWALE.levels.floorM - 0.1 } } as typeof SWALE, SILL],
        },
      ],
    };
    const held = derive(deeper, context).derived.stores[0].heldM3;
    // The work and the sill it hosts are placed and judged anew, and the storm goes through their store once more: nothing of
    // the land, of what the ground sheds, or of where water runs is worked out again.
    expect(again()).toEqual(
      [
        ...['work', 'bind', 'needs', 'place', 'grass', 'store', 'given', 'starts', 'links', 'lies', 'under', 'flood-from'],
        // Its water is wider, so more rain falls on it.
        ...['inflow', 'outlets', 'routed', 'tied', 'route', 'flows', 'outcome', 'outlet-storms', 'ends-of', 'leaving'],
        ...['laid', 'run', 'worst', 'worst-flows', 'worst-outlet', 'worst-exit', 'store-worst', 'outlets-worst'],
        ...['work', 'ways', 'across', 'exit'].flatMap((word) => [`${word}-on`, `${word}-together`]),
        ...['guest-flows', 'own-flows', 'design-peak', 'near', 'works-near', 'work-told'],
        ...[
          'facts',
          'judge',
          'ways',
          'across',
          'breach',
          'ground-checks',
          'pictures',
          'making',
          'quantities',
          'series',
          'store-json',
          'outlets-json',
          'links-told',
          'leads',
        ],
      ].sort(),
    );
    const held1 = new Map(graph.runs);
    expect(derive(project, context).derived.stores[0].heldM3).toBeLessThan(held);
    // Going back finds everything as it was.
    expect(graph.runs).toEqual(held1);
    expect(held).toBeGreaterThan(derived(project).derived.stores[0].heldM3);
  });
  it('routes none of the dams above one that was made lower, since nothing reaches up there', () => {
    const graph = new Graph();
    const context = { registry, grids: noGrid, graph };
    const { dams } = FOUR_DAMS;
    const first = derive(valleyProject([FOUR_DAMS]), context).derived;
    const [routed, judged, asked] = ['route', 'across', 'under'].map((word) => graph.runs.get(word) ?? 0);
    const lowered: typeof DAMS = { ...FOUR_DAMS, dams: [...dams.slice(0, 3), { ...dams[3], heightM: dams[3].heightM - 0.1 }] };
    const then = derive(valleyProject([lowered]), context).derived;
    expect((graph.runs.get('route') ?? 0) - routed).toBeLessThanOrEqual(routed / 4);
    expect(then.stores.slice(0, 3)).toEqual(first.stores.slice(0, 3));
    expect(then.stores[3].heldM3).toBeLessThan(first.stores[3].heldM3);
    // Only it and the one above, whose water runs to it, are judged again; the ground is asked under its own water alone.
    expect((graph.runs.get('across') ?? 0) - judged).toBeLessThanOrEqual(judged / 2);
    expect((graph.runs.get('under') ?? 0) - asked).toBeLessThanOrEqual(asked / 4);
    expect(graph.runs.get('footing')).toBe(1);
  });
  it('draws where the water of each dam of a series ends once', () => {
    const { rings } = derive(valleyProject([DAMS]), { registry, grids: noGrid }).view;
    expect(rings.dams).toHaveLength(DAMS.dams.length);
  });
  it('routes nothing anew that a moved work does not reach, though water is caught anew on all the land', () => {
    const graph = new Graph();
    const context = { registry, grids: noGrid, graph };
    const [from, to] = [60, 100];
    const beside = { ...SWALE, id: 'w2', name: 'Beside', line: [[from, 121], [to, 121]] as [number, number][] }; // prettier-ignore
    const [along] = SWALE.line;
    const placed = (eastM: number): Project => {
      const line = [along, [SWALE.line[1][0] - eastM, SWALE.line[1][1]]] as [number, number][];
      return planeProject({}, [{ ...SWALE, line } as typeof SWALE, SILL, beside]);
    };
    const first = derive(placed(0), context).derived;
    const [caught, routed] = [graph.runs.get('interception') ?? 0, graph.runs.get('route') ?? 0];
    const then = derive(placed(20), context).derived;
    expect(graph.runs.get('interception')).toBe(caught + 1);
    // Half of what was routed at first: one of the two stores, in every storm.
    expect((graph.runs.get('route') ?? 0) - routed).toBeLessThanOrEqual(routed / 2);
    expect(then.stores[1]).toEqual(first.stores[1]);
    expect(then.stores[0].inM3).not.toBe(first.stores[0].inM3);
    expect(JSON.stringify(derived(placed(20)).derived)).toBe(JSON.stringify(then));
  });
  it('sends the overflow of an upper swale into the one below', () => {
    const lower = {
      ...SWALE,
      id: 'w2',
      name: 'Lower',
      line: [
        [32, 61],
        [172, 61],
      ] as [number, number][],
      levels: { floorM: 105.75, bankCrestM: 106.45 },
    };
    const { derived: d } = derived(
      planeProject({}, [SWALE, SILL, lower, { ...SILL, id: 's2', host: 'w2', levels: { sillM: 106.1 } } as typeof SILL]),
    );
    expect(d.links.find((l) => l.outlet === 's1')?.to).toBe('w2');
    const [upper, below] = d.stores;
    const own = d.runoff.find((r) => r.of === 'w2')?.volumeM3 ?? 0;
    // A trickle of the last minutes is still on the way between them when the run ends.
    expect(below.inM3).toBeCloseTo(own + ON_WATER_M3 + (upper.spilledM3 ?? 0), 2);
    expect(Math.abs(d.balance?.errorFraction ?? 1)).toBeLessThan(1e-9);
    // Its own catchment stops at the upper swale.
    expect(d.catchments[1].areaM2).toBe(140 * 40);
  });
  it('counts soakage during the storm only when asked', () => {
    const rain = planeProject().rain!;
    const soaking = derived(planeProject({ rain: { ...rain, storm: { ...rain.storm, soakage: true } } })).derived;
    expect(derived(planeProject()).derived.balance?.soakedM3).toBe(0);
    expect(soaking.balance?.soakedM3).toBeGreaterThan(1);
    expect(soaking.stores[0].spilledM3 ?? 0).toBeLessThan(derived(planeProject()).derived.stores[0].spilledM3 ?? 0);
  });
  it('says what is missing next instead of borrowing a value', () => {
    const bare = derived(planeProject({ terrain: null, rain: null, ground: null }, [])).derived;
    expect(bare.verdicts.land).toMatch(/^Bring in the shape of your land/);
    const dry = derived(planeProject({ rain: null })).derived;
    expect(dry.stores[0]).toMatchObject({ inM3: null, holds: null });
    expect(dry.verdicts.works).toMatch(/would hold 70\sm³\. Give the rain/);
  });
  it('a wider storm or a poorer cover never brings less water', () => {
    const volume = (cover: string, years: number): number =>
      derived(
        planeProject({
          ground: { ...planeProject().ground!, cover },
          rain: { ...planeProject().rain!, storm: { returnYears: years, durationMin: 120 } },
        }),
      ).derived.runoff[0].volumeM3;
    expect(volume('pasture-poor', 20)).toBeGreaterThan(volume('pasture-good', 20));
    expect(volume('pasture-fair', 20)).toBeGreaterThan(volume('pasture-fair', 2));
  });
});

describe('formulas', () => {
  it('have their own ids, symbols with units, and refuse what is missing', () => {
    expect(new Set(FORMULAS.map((f) => f.id)).size).toBe(FORMULAS.length);
    for (const f of FORMULAS) {
      expect(f.source.key).not.toBe('');
      expect(() => f.evaluate({} as never)).toThrow(f.id);
    }
  });
});
