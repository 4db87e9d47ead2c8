import { describe, expect, it } from '@jest/globals';
import { APRON_STONE, DROP_INLET, FULL_PIPE, apronOf } from '../../hydraulics/index.ts';
import { begunBy, expectFields, hostOf, NO_TRAITS, onHost, SITE, wrong } from '../../testing/guests.ts';
import { factsOf, linkOf, siteOf, testSides, withAt, words } from '../../testing/rules.ts';
import { PIPE } from '../../testing/valley.ts';
import { judgeBy } from '../rules.ts';
import type { PipeFacts } from './checks.ts';
import { PIPE_RULES, type PipeOutlet, pipeLaw, pipeOutlet } from './index.ts';

const ONE: PipeOutlet = {
  ...PIPE,
  atM: 100,
  seal: 'filter',
  roughness: 0.012,
  levels: { sillM: 0, outletM: -0.3 },
  dimensions: { diameterM: 0.3, mouthM: 0.6, lengthM: 12 },
};
const RISER: PipeOutlet = { ...ONE, form: 'riser', levels: { sillM: 0, outletM: -1.5 } };

describe('a pipe outlet', () => {
  const { placed } = onHost(pipeOutlet, ONE);
  it('through the wall runs as a culvert: nothing at its bottom, full under head, held up and never filled by water below', () => {
    const law = pipeLaw(ONE);
    expect([law(0), law(-1)]).toEqual([0, 0]);
    // Full under 1.2 m of head to the middle of its outlet: losses at inlet, along it and of the velocity itself.
    const [head, L, D, n] = [1.5 - (-0.3 + 0.15), 12, 0.3, 0.012];
    const velocity = Math.sqrt((2 * 9.81 * head) / (1 + 0.9 + (19.63 * n * n * L) / (D / 4) ** (4 / 3)));
    expect(law(1.5) / ((velocity * Math.PI * D * D) / 4)).toBeGreaterThan(0.8);
    expect(law(1.5) / ((velocity * Math.PI * D * D) / 4)).toBeLessThan(1.1);
    expect(law(1, 0.9)).toBeLessThan(law(1, -1));
    expect(law(0.5, 1)).toBe(0);
    let before = 0;
    for (let h = 0.02; h < 2; h += 0.02) {
      expect(law(h)).toBeGreaterThanOrEqual(before);
      before = law(h);
    }
  });
  it('blocked passes less, wholly blocked nothing', () => {
    const at = (blockedPercent: number, of: PipeOutlet = ONE): number => pipeLaw({ ...of, blockedPercent })(0.8);
    for (const one of [ONE, RISER]) {
      expect(at(30, one)).toBeLessThan(at(0, one));
      expect(at(60, one)).toBeLessThan(at(30, one));
      expect(at(100, one)).toBeCloseTo(0, 9);
    }
  });
  it('a standing pipe is a weir round its edge until its pipe runs full; a square box has a longer edge', () => {
    const law = pipeLaw(RISER);
    expect([law(0), law(-0.5)]).toEqual([0, 0]);
    const wide = pipeLaw(withAt(withAt(RISER, 'dimensions.diameterM', 1.5), 'dimensions.mouthM', 1));
    const box = pipeLaw({ ...withAt(withAt(RISER, 'dimensions.diameterM', 1.5), 'dimensions.mouthM', 1), form: 'box' });
    expect(box(0.02) / wide(0.02)).toBeCloseTo(4 / Math.PI, 2);
    // Under head the pipe decides, whatever its mouth.
    const [h, D, L, n] = [2.5 - (-1.5 + 0.15), 0.3, 12, 0.012];
    const full = DROP_INLET.evaluate({ D, h, Ke: 0.5, Kb: 0.5, n, L });
    expect(law(2.5) / full).toBeGreaterThan(0.8);
    expect(law(2.5) / full).toBeLessThan(1.2);
  });
  it('begins at its inlet, or at its outlet where that lies higher', () => {
    const [outlet] = placed.outlets;
    expect(outlet).toMatchObject({
      id: 'pipe',
      kind: 'rated',
      levelM: 0,
      drownsM: -0.3,
      dischargeAt: [132, 87],
      exit: { shape: 'pipe', widthM: 0.3 },
    });
    expect(onHost(pipeOutlet, withAt(ONE, 'levels.outletM', 0.2)).placed.outlets[0].levelM).toBe(0.2);
    expect(onHost(pipeOutlet, withAt(RISER, 'levels.outletM', 0.2)).placed.outlets[0].levelM).toBe(0);
    expect(outlet.flowAt(0.4)).toBe(pipeLaw(ONE)(0.4));
    expect(onHost(pipeOutlet, ONE, null).placed.outlets).toEqual([]);
    expect(placed.pegs(5, null)).toEqual([{ name: 'inlet', role: 'invert', x: 132, y: 101, levelM: 0, groundM: 0 }]);
    expect(placed.marks.map((m) => [m.id, m.role, m.levelM, m.path])).toEqual([
      ['pipe:sill', 'sill', 0, 'levels.sillM'],
      ['pipe:outlet', 'floor', -0.3, 'levels.outletM'],
    ]);
    expect([placed.host, placed.stores([])]).toEqual([null, []]);
  });
  it('tells its fall and what it passes with water at the crest', () => {
    const store = { crestM: 0.8 } as never;
    const through = onHost(pipeOutlet, ONE);
    expect(through.figure('slope')).toBeCloseTo(0.025, 12);
    expect(through.figure('mostM3s', { store })).toBe(pipeLaw(ONE)(0.8));
    expect(through.figure('mostM3s')).toBeNull();
    expect(through.formulas()).toEqual(['hydraulics.full-pipe']);
    expect(through.formulas({ links: [linkOf('pipe', 0.05)] })).toEqual(['hydraulics.full-pipe', 'hydraulics.apron-stone']);
    expect(through.formulas({ links: [linkOf('pipe', 0)] })).toEqual(['hydraulics.full-pipe']);
    expect(onHost(pipeOutlet, withAt(ONE, 'levels.outletM', 0)).formulas()).toEqual([]);
    expect(onHost(pipeOutlet, RISER).formulas({ store })).toEqual(['hydraulics.drop-inlet']);
    expect(onHost(pipeOutlet, RISER).formulas({ store: { crestM: -1.4 } as never })).toEqual([]);
    expect(FULL_PIPE.evaluate({ D: 0.3, n: 0.012, S: 0.025 })).toBeGreaterThan(0.1);
  });
  it('draws pipe, standing pipe and the water over its inlet', () => {
    expect(placed.section?.(null).parts.map((p) => p.role)).toEqual(['pipe']);
    expect(placed.section?.(0).parts).toHaveLength(1);
    expect(placed.section?.(0.5).parts.map((p) => p.role)).toEqual(['pipe', 'water']);
    expect(placed.section?.(0.5).parts[0].points).toEqual([
      [0, 0],
      [12, -0.3],
      [12, 0],
      [0, 0.3],
    ]);
    const riser = onHost(pipeOutlet, RISER).placed.section?.(0.5);
    expect(riser?.parts.map((p) => p.role)).toEqual(['pipe', 'pipe', 'water']);
    expect(riser?.parts[1].points).toEqual([
      [-0.3, expect.closeTo(-1.38, 9)],
      [0.3, expect.closeTo(-1.38, 9)],
      [0.3, 0],
      [-0.3, 0],
    ]);
    expect(riser?.parts[2].points[0]).toEqual([-3, 0.5]);
  });
  it('is refused with fields out of range, no host or a choice nobody knows', () => {
    expectFields(pipeOutlet, ONE);
    expect(wrong(pipeOutlet, { ...ONE, host: '' })).toEqual(['work.host@host']);
    for (const path of ['form', 'inlet', 'seal'] as const)
      expect(wrong(pipeOutlet, withAt(ONE, path, 'x'))).toEqual([`pipe.${path}@${path}`]);
    for (const { path, options } of pipeOutlet.choices ?? [])
      for (const { id } of options) expect(wrong(pipeOutlet, withAt(ONE, path, id))).toEqual([]);
    expect([hostOf(pipeOutlet, ONE), pipeOutlet.footprint(ONE), pipeOutlet.intakes(ONE)]).toEqual(['pond', [], []]);
    const key = (change: Partial<PipeOutlet>): string => JSON.stringify(pipeOutlet.groundKey({ ...ONE, ...change }));
    expect(key({ levels: { sillM: 9, outletM: 8 } })).toBe(key({}));
    for (const change of [{ atM: 3 }, { host: 'x' }, { dimensions: { ...ONE.dimensions, lengthM: 3 } }])
      expect(key(change)).not.toBe(key({}));
  });
});

describe('rules on pipe outlets', () => {
  const [outlet] = onHost(pipeOutlet, ONE).placed.outlets;
  const area = (Math.PI / 4) * 0.3 ** 2;
  const facts = (change: Partial<PipeFacts> = {}, pipe: PipeOutlet = ONE): PipeFacts => ({
    ...factsOf(SITE, { links: [linkOf('pipe', 0.05)] }),
    pipe,
    outlet,
    place: { at: [0, 0], hostLengthM: 140, groundM: 0, dischargeAt: [0, 0], slopeBelow: 0.1 },
    ...change,
  });
  testSides<PipeFacts>(PIPE_RULES, {
    'pipe-outlet.clogs': {
      at: (v) => facts({}, withAt(ONE, 'dimensions.diameterM', v)),
      limit: 0.15,
      judged: [
        [0.0999, 'mend', /150 mm or more/],
        [0.1, 'weigh'],
        [0.1499, 'weigh'],
        [0.15, 'fine', /^Keep a rack/],
      ],
    },
    'pipe-outlet.blocked': {
      at: (v) => facts({}, { ...ONE, blockedPercent: v }),
      limit: 0,
      judged: [
        [0, 'fine'],
        [0.1, 'weigh', /Clear it/],
        [29.9, 'weigh'],
        [30, 'mend'],
      ],
    },
    'pipe-outlet.fall': {
      at: (v) => facts({}, withAt(ONE, 'levels.outletM', -12 * v)),
      limit: 0.01,
      judged: [
        [-0.01, 'mend', /Lower its outlet/],
        [0, 'mend'],
        [0.0001, 'weigh'],
        [0.0099, 'weigh', /Lower its outlet/],
        [0.01001, 'fine'],
      ],
    },
    'pipe-outlet.apron': {
      at: (v) => facts({ links: [linkOf('pipe', v * area)] }),
      limit: 1.5,
      judged: [
        [1.4999, 'fine'],
        [1.5001, 'weigh', /Lay stone of 125 mm, 438 mm thick, 1\.20 m long, 1\.70 m wide at its end/],
        [9, 'mend', /stilling basin/],
      ],
      silent: [facts({ links: [] })],
    },
    'pipe-outlet.seepage-path': {
      at: (v) => facts({}, { ...ONE, seal: v === 0 ? 'filter' : 'collars' }),
      limit: 0,
      judged: [
        [0, 'fine'],
        [1, 'weigh', /sand filter/],
      ],
    },
  });
  const find = (id: string, on: PipeFacts) =>
    judgeBy(
      PIPE_RULES.find((r) => r.id === id)!,
      on,
    );
  it('a pipe with nothing round it is to mend', () => {
    expect(find('pipe-outlet.seepage-path', facts({}, { ...ONE, seal: 'none' }))).toMatchObject({ severity: 'mend', value: 1 });
  });
  it('its apron is that of the stone class next above; beyond the largest it is none', () => {
    // The velocity at which the stone asked is just that of the largest class.
    const asked = (v: number): number => APRON_STONE.evaluate({ Q: v * area, D: 0.3, TW: 0 });
    let [lo, hi] = [1.5, 30];
    for (let k = 0; k < 60; k++) {
      const mid = (lo + hi) / 2;
      if (apronOf({ stoneM: asked(mid), diameterM: 0.3 }).isBeyond) hi = mid;
      else lo = mid;
    }
    const at = (v: number) => find('pipe-outlet.apron', facts({ links: [linkOf('pipe', v * area)] }));
    expect([at(lo - 0.01)?.severity, at(hi + 0.01)?.severity]).toEqual(['weigh', 'mend']);
    expect(words(at(lo - 0.01)?.do)).toMatch(/Lay stone of 550 mm/);
    expect(at(2)?.at).toEqual(outlet.dischargeAt);
    expect(find('pipe-outlet.apron', facts({ site: siteOf(SITE.grid, { soilAt: () => null }) }))).not.toBeNull();
  });
});

describe('a pipe outlet to begin with', () => {
  it('lets its host out through its bore, and goes with it', () => {
    expect(pipeOutlet.traits(ONE)).toEqual({ ...NO_TRAITS, canBlock: true, isCut: true, wayOut: 'through', isConduit: true });
    expect(pipeOutlet.refs(ONE)).toEqual([{ role: 'host', id: ONE.host, path: 'host', whenGone: 'goes' }]);
    expect([pipeOutlet.draws.map((d) => [d.id, d.what, d.least, d.most]), pipeOutlet.family]).toEqual([
      [['pipe-outlet', 'on-host', 0, 1]],
      'way-out',
    ]);
  });
  it('is one of common practice, at its place and its level', () => {
    // 0.6 m under the crest of 0.35 m.
    expect(begunBy(pipeOutlet, { points: [[60, 90]], host: 'store' })).toEqual([{ id: 'pipe-outlet-1', kind: 'pipe-outlet', name: 'Pipe outlet', status: 'planned', host: 'store', atM: 28, form: 'riser', inlet: 'corrugated-projecting', seal: 'filter', levels: { sillM: -0.25, outletM: -1.45 }, dimensions: { diameterM: 0.2, mouthM: 0.4, lengthM: 15 }, roughness: 0.012, blockedPercent: 0 }]); // prettier-ignore
    expect(begunBy(pipeOutlet, { host: 'nobody' })).toBe('work.host');
    expect(pipeOutlet.validate(pipeOutlet.sample)).toEqual([]);
  });
});
