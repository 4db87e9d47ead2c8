import { describe, expect, it } from '@jest/globals';
import { PIPE_WALLS } from '../../hydraulics/index.ts';
import { PUMP } from '../../testing/valley.ts';
import { begunBy, expectFields, hostOf, landOf, NO_TRAITS, onHost, othersOf, SITE, storeSeen, wrong } from '../../testing/guests.ts';
import { factsOf, testSides, withAt } from '../../testing/rules.ts';
import { PUMP_RULES, type PumpBack, headsOf, pumpBack } from './index.ts';

type Facts = Parameters<(typeof PUMP_RULES)[number]['find']>[0];
const ONE: PumpBack = { ...PUMP, levels: { stopM: 0, deliveryM: 4 } };
const SUN: PumpBack = { ...ONE, drive: 'sun' };

/** Head lost by Darcy and Colebrook, going round until the friction factor holds: not the explicit formula. */
function colebrook({ flowM3s: Q, pipe }: PumpBack): number {
  const [D, L, e] = [pipe.diameterM, pipe.lengthM, PIPE_WALLS[pipe.wall]];
  const V = Q / ((Math.PI / 4) * D * D);
  const Re = (V * D) / 1.0e-6;
  let f = 0.02;
  for (let k = 0; k < 60; k++) f = (-2 * Math.log10(e / D / 3.7 + 2.51 / (Re * Math.sqrt(f)))) ** -2;
  return (f * (L / D) * V * V) / (2 * 9.81);
}

describe('a pump back', () => {
  const { placed, figure, formulas } = onHost(pumpBack, ONE);
  it('lifts from where it stops to where its pipe ends, and loses head as Colebrook has it', () => {
    for (const wall of Object.keys(PIPE_WALLS) as (keyof typeof PIPE_WALLS)[]) {
      const one = withAt(ONE, 'pipe.wall', wall);
      expect(headsOf(one).lossM / colebrook(one)).toBeGreaterThan(0.93);
      expect(headsOf(one).lossM / colebrook(one)).toBeLessThan(1.07);
    }
    expect(headsOf(ONE).liftM).toBe(4);
    expect(headsOf(withAt(ONE, 'levels.deliveryM', -1)).liftM).toBe(0);
    expect(headsOf(ONE).velocityMs).toBeCloseTo(0.002 / (Math.PI * 0.025 ** 2), 12);
  });
  it('takes power for lift and loss; panels for a day of it', () => {
    const head = headsOf(ONE).liftM + headsOf(ONE).lossM;
    expect(figure('powerW')).toBeCloseTo((1000 * 9.81 * 0.002 * head) / 0.45, -1);
    expect(figure('dayM3')).toBeCloseTo(0.002 * 3600 * 5, 9);
    expect([figure('liftM'), figure('lossM'), figure('arrayW')]).toEqual([4, headsOf(ONE).lossM, undefined]);
    const sun = onHost(pumpBack, SUN);
    // Energy of a day over the hours of sun and what panels give.
    expect(sun.figure('arrayW')).toBeCloseTo((1000 * 9.81 * 36 * head) / 3600 / 0.45 / 5 / 0.75, -1);
    expect(formulas()).toEqual(['hydraulics.darcy-loss', 'hydraulics.pump-power']);
    expect(sun.formulas()).toHaveLength(3);
  });
  it('by mains runs in a storm, softly over its first five centimetres; by sun it stands still', () => {
    const [way] = placed.outlets;
    expect(way).toMatchObject({ id: 'pump', kind: 'joint', levelM: 0, to: 'road', dischargeAt: [102, 101] });
    expect([way.flowAt(-1), way.flowAt(0), way.flowAt(0.025), way.flowAt(0.05), way.flowAt(3)]).toEqual([0, 0, 0.001, 0.002, 0.002]);
    expect(onHost(pumpBack, SUN).placed.outlets).toEqual([]);
    expect(onHost(pumpBack, ONE, null).placed.outlets).toEqual([]);
  });
  it('stores nothing, is not pegged, and marks where it stops', () => {
    expect([placed.host, placed.stores([]), placed.pegs(1, null)]).toEqual([null, [], []]);
    expect(placed.marks).toMatchObject([{ id: 'pump:stop', role: 'floor', levelM: 0, path: 'levels.stopM' }]);
    expect([hostOf(pumpBack, ONE), othersOf(pumpBack, ONE), pumpBack.footprint(ONE), pumpBack.intakes(ONE)]).toEqual([
      'pond',
      ['road'],
      [],
      [],
    ]);
    expect(pumpBack.groundKey(ONE)).toBeNull();
  });
  it('is refused with fields out of range, one store for two, a drive or a wall nobody knows', () => {
    expectFields(pumpBack, ONE);
    for (const change of [{ host: '' }, { to: '' }, { to: 'pond' }, { to: 3 }, { host: undefined }])
      expect(wrong(pumpBack, { ...ONE, ...change } as PumpBack)).toEqual(['pump.stores@to']);
    expect(wrong(pumpBack, withAt(ONE, 'drive', 'wind'))).toEqual(['pump.drive@drive']);
    expect(wrong(pumpBack, withAt(ONE, 'pipe.wall', 'toString'))).toEqual(['pump.wall@pipe.wall']);
    expect(wrong(pumpBack, withAt(ONE, 'pipe.wall', undefined))).toEqual(['pump.wall@pipe.wall']);
    expect(wrong(pumpBack, { ...ONE, pipe: undefined } as never)).toContain('pump.wall@pipe.wall');
    for (const { path, options } of pumpBack.choices ?? [])
      for (const { id } of options) expect(wrong(pumpBack, withAt(ONE, path, id))).toEqual([]);
  });
  testSides<Facts>(PUMP_RULES, {
    'pump-back.pipe-loss': {
      at: (v) => ({ ...factsOf(SITE), pump: ONE, heads: { liftM: 4, lossM: 4 * v, velocityMs: 1 } }),
      limit: 0.2,
      judged: [
        [0.2, 'fine'],
        [0.2001, 'weigh', /wider/],
        [1, 'weigh'],
        [1.0001, 'mend'],
      ],
      silent: [{ ...factsOf(SITE), pump: ONE, heads: { liftM: 0, lossM: 1, velocityMs: 1 } }],
    },
    'pump-back.velocity': {
      at: (v) => ({ ...factsOf(SITE), pump: ONE, heads: { liftM: 4, lossM: 1, velocityMs: v } }),
      limit: 1.5,
      judged: [
        [1.5, 'fine'],
        [1.5001, 'weigh', /wider/],
        [3, 'weigh'],
        [3.0001, 'mend'],
      ],
    },
    'pump-back.lift': {
      at: (v) => ({ ...factsOf(SITE), pump: withAt(ONE, 'levels.deliveryM', v), heads: { liftM: 4, lossM: 1, velocityMs: 1 } }),
      limit: 0,
      judged: [
        [-1.5, 'mend', /1\.50 m higher/],
        [0, 'mend'],
        [0.001, 'fine'],
      ],
    },
  });
});

describe('a pump to begin with', () => {
  const high = storeSeen({ id: 'high', line: [[32, 161], [172, 161]], crestM: 8 }); // prettier-ignore
  const land = landOf({ stores: [storeSeen(), high] });
  it('lifts from the store nearest to the first place to that nearest to the second', () => {
    expect(begunBy(pumpBack, { points: [[60, 90], [60, 170]] }, land)).toMatchObject([{ id: 'pump-1', name: 'Pump 1', host: 'store', to: 'high', drive: 'sun', levels: { stopM: 0.15, deliveryM: 8.2 }, pipe: { lengthM: 60 } }]); // prettier-ignore
    expect(begunBy(pumpBack, { points: [[60, 90], [60, 170]], host: 'store' }, land)).toMatchObject([{ host: 'store', to: 'high' }]); // prettier-ignore
    const near = landOf({ stores: [storeSeen(), { ...high, line: [[32, 103], [172, 103]] }] }); // prettier-ignore
    expect(begunBy(pumpBack, { points: [[60, 90], [60, 170]] }, near)).toMatchObject([{ pipe: { lengthM: 5 } }]); // prettier-ignore
  });
  it('needs two different stores', () => {
    for (const points of [[[60, 90], [60, 91]], [[60, 90]], []] as const) expect(begunBy(pumpBack, { points: points }, land)).toBe('pump.stores'); // prettier-ignore
    expect(begunBy(pumpBack, { points: [[60, 90], [60, 170]], host: 'nobody' }, land)).toBe('pump.stores'); // prettier-ignore
    expect(begunBy(pumpBack, { points: [[60, 90], [60, 170]] }, landOf({ stores: [] }))).toBe('pump.stores'); // prettier-ignore
  });
  it('is a lift that needs both', () => {
    expect(pumpBack.traits(ONE)).toEqual({ ...NO_TRAITS, isConduit: true, wayOut: 'lifted' });
    expect(pumpBack.refs(ONE).map((r) => [r.role, r.id, r.whenGone])).toEqual([
      ['host', 'pond', 'goes'],
      ['to', 'road', 'goes'],
    ]);
    expect(pumpBack.references?.map((r) => r.path)).toEqual(['to']);
    expect(pumpBack.validate(pumpBack.sample)).toEqual([]);
  });
});
