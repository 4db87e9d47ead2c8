// A water line: what runs through it against other laws of pipes, where air and water stay, what it begins with.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { Worksheet } from '../../formula/index.ts';
import { HAZEN_WILLIAMS, PUMP_POWER, SOLAR_ARRAY } from '../../hydraulics/index.ts';
import { beginWorks, derive, Graph } from '../../derive/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { noGrid, planeProject } from '../../testing/projects.ts';
import { factsOf, siteOf, withAt, words } from '../../testing/rules.ts';
import { ROOF, TANK, TO_TAP } from '../../testing/valley-fields.ts';
import { valleyProject } from '../../testing/valley.ts';
import { type Tank, registry } from '../index.ts';
import { DRIPPER, FITTING_LOSS, MANY_OUTLETS } from './formulas.ts';
import { type LineGround, measureSupplyLine } from './ground.ts';
import { type SupplyLine, newSupplyLine, validateSupplyLine, supplyLine } from './index.ts';
import { bucketS } from './making.ts';
import {
  areaOf,
  drippersOf,
  dripsOf,
  flowBy,
  gives,
  headsAlong,
  leastHead,
  lossAt,
  pipeFor,
  pipeLevels,
  pumpHead,
  restHead,
  staysM3,
  undrained,
  unvented,
} from './standing.ts';

const SLOPE = gridOf((x) => 110 - 0.05 * x, { cells: 201, cellM: 1 });
const ONE = newSupplyLine('line', 'Line', {
  line: [[20, 100], [120, 100]],
  levels: { drawM: 110, endM: 104.6 },
  drive: 'fall',
  serves: 'tap',
  flowM3s: 0.0003,
  endHeadM: 1,
  diameterM: 0.026,
}); // prettier-ignore
const on = (heightAt: (x: number) => number, work: SupplyLine = ONE): LineGround =>
  measureSupplyLine(work, siteOf(gridOf((x) => heightAt(x), { cells: 201, cellM: 1 })));
const GROUND = measureSupplyLine(ONE, siteOf(SLOPE));

/**
 * Head lost along a pipe by another hand: the wall law solved by trial (Colebrook), no explicit factor. Water at 15 °C.
 * Colebrook, C. F. (1939), Turbulent flow in pipes; from memory.
 */
function byColebrook({ Q, D, L, e }: { readonly Q: number; readonly D: number; readonly L: number; readonly e: number }): number {
  const V = Q / ((Math.PI * D * D) / 4);
  const Re = (V * D) / 1.14e-6;
  let root = 0.02 ** -0.5;
  for (let k = 0; k < 60; k++) root = -2 * Math.log10(e / (3.7 * D) + (2.51 * root) / Re);
  return (L * V * V) / (root * root * D * 2 * 9.81);
}

describe('head lost in a pipe', () => {
  it('by the explicit factor is within three in a hundred of the wall law solved by trial, and of Hazen-Williams in wide pipe', () => {
    for (const [Q, D] of [
      [0.0003, 0.026],
      [0.001, 0.041],
      [0.0005, 0.033],
      [0.004, 0.066],
    ] as const) {
      const pipe = { ...ONE.pipe, diameterM: D, bends: 0 };
      expect(lossAt(Q, { pipe }, 100) / byColebrook({ Q, D, L: 100, e: 1e-5 })).toBeCloseTo(1, 1.5);
    }
    const wide = { ...ONE.pipe, diameterM: 0.1, bends: 0 };
    expect(lossAt(0.01, { pipe: wide }, 100) / HAZEN_WILLIAMS.evaluate({ Q: 0.01, D: 0.1, L: 100, C: 150 })).toBeCloseTo(1, 1);
  });
  it('grows by fittings: nine tenths of the velocity head each', () => {
    const V = 0.0003 / areaOf(0.026);
    expect(FITTING_LOSS.evaluate({ n: 4, k: 0.9, V })).toBeCloseTo(3.6 * ((V * V) / 19.62), 9);
    const bare = { pipe: { ...ONE.pipe, bends: 0 } };
    expect(lossAt(0.0003, ONE, 100) - lossAt(0.0003, bare, 100)).toBeCloseTo((3.6 * V * V) / 19.62, 9);
  });
  it('the flow found by a head loses just that head; a wider pipe gives more, a longer one less', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 80, noNaN: true }),
        fc.constantFrom(0.012, 0.02, 0.041, 0.1),
        fc.double({ min: 1, max: 3000, noNaN: true }),
        (headM, diameterM, lengthM) => {
          const work = { pipe: { ...ONE.pipe, diameterM } };
          const Q = flowBy(headM, work, lengthM);
          expect(Math.abs(lossAt(Q, work, lengthM) / headM - 1)).toBeLessThan(1e-3);
          expect(flowBy(headM, { pipe: { ...work.pipe, diameterM: diameterM * 1.2 } }, lengthM)).toBeGreaterThan(Q);
          expect(flowBy(headM, work, lengthM * 1.2)).toBeLessThan(Q);
        },
      ),
      { seed: 15, numRuns: 60 },
    );
    expect([flowBy(0, ONE, 100), flowBy(-1, ONE, 100)]).toEqual([0, 0]);
  });
  it('names the narrowest usual pipe that does: the one before it loses too much', () => {
    expect(pipeFor(0.0003, 4.4, { ...ONE, lengthM: 100 })).toBe(0.026);
    const narrower = { pipe: { ...ONE.pipe, diameterM: 0.02 } };
    expect(lossAt(0.0003, narrower, 100)).toBeGreaterThan(4.4);
    expect(lossAt(0.0003, ONE, 100)).toBeLessThan(4.4);
    expect([pipeFor(0.5, 0.01, { ...ONE, lengthM: 3000 }), pipeFor(0.001, 0, { ...ONE, lengthM: 10 })]).toEqual([null, null]);
  });
});

describe('on its ground', () => {
  it('is as long as the ground, laid under it by its cover, with its ends where they are said to be', () => {
    expect(GROUND.planM).toBeCloseTo(100, 9);
    expect(GROUND.lengthM).toBeCloseTo(100 * Math.hypot(1, 0.05), 6);
    const levels = pipeLevels(ONE, GROUND);
    expect([levels[0], levels[levels.length - 1]]).toEqual([110, 104.6]);
    expect(levels[50]).toBeCloseTo(110 - 0.05 * 70 - 0.45, 6);
  });
  it('the head along it falls evenly from the water it draws from, and is what is left of it over the pipe', () => {
    const heads = headsAlong(ONE, GROUND);
    const lost = lossAt(0.0003, ONE, GROUND.lengthM);
    expect(heads[0]).toBeCloseTo(0, 9);
    expect(heads[50]).toBeCloseTo(110 - lost / 2 - pipeLevels(ONE, GROUND)[50], 9);
    // A rise of the ground in its middle comes near to it.
    const hill = on((x) => 110 - 0.05 * x + (Math.abs(x - 70) < 6 ? 3 : 0));
    expect(leastHead(ONE, hill).value).toBeLessThan(leastHead(ONE, GROUND).value);
    expect(Math.abs(leastHead(ONE, hill).atM - 50)).toBeLessThan(7);
  });
  it('at rest the lowest place carries the whole store over it', () => {
    const dip = on((x) => 110 - 0.05 * x - (Math.abs(x - 100) < 4 ? 8 : 0));
    expect(restHead(ONE, dip).value).toBeCloseTo(0.05 * 103 + 8 + 0.45, 6);
    const full = { ...dip, from: { name: 'Tank', floorM: 109.9, fullM: 112, roofM2: null } };
    expect(restHead(ONE, full).value - restHead(ONE, dip).value).toBeCloseTo(2, 9);
  });
  it('tells every top without a vent and every dip without a drain, and no more once they are noted', () => {
    const waves = on((x) => 106 - 0.02 * x + Math.cos((2 * Math.PI * (x - 20)) / 40));
    const [tops, dips] = [unvented(ONE, waves), undrained(ONE, waves)];
    // Its own ends are neither: over a hundred metres waves of forty have tops at 40 and 80, dips at 20, 60.
    expect(tops.map((m) => Math.round(m / 10))).toEqual([4, 8]);
    expect(dips.map((m) => Math.round(m / 10))).toEqual([2, 6]);
    const noted = { ...ONE, vents: tops.map((atM) => ({ atM: atM + 4 })), drains: [{ atM: dips[1] }] };
    expect(unvented(noted, waves)).toEqual([]);
    expect(undrained(noted, waves)).toEqual([dips[0]]);
    expect([unvented(ONE, GROUND), undrained(ONE, GROUND)]).toEqual([[], []]);
  });
  it('keeps as much water as lies under what is highest on both sides of it', () => {
    // A dip of a hundred steps of which half lie lower than its lower lip: counted place by place by another loop.
    const waves = on((x) => 106 - 0.02 * x + Math.cos((2 * Math.PI * (x - 20)) / 40));
    const levels = pipeLevels(ONE, waves);
    let wet = 0;
    for (let k = 0; k < levels.length; k++) {
      const left = Math.max(...levels.slice(0, k + 1));
      const right = Math.max(...levels.slice(k));
      if (Math.min(left, right) > levels[k] + 1e-9) wet++;
    }
    expect(wet).toBeGreaterThan(20);
    expect(staysM3(ONE, waves)).toBeCloseTo((areaOf(0.026) * wet * waves.lengthM) / (levels.length - 1), 9);
  });
});

describe('a pump', () => {
  const UP: SupplyLine = {
    ...ONE,
    drive: 'pump',
    levels: { drawM: 104, endM: 124 },
    endHeadM: 0,
    flowM3s: 0.001,
    pipe: { ...ONE.pipe, diameterM: 0.052 },
  };
  it('works against lift, losses and what is left at the end; 1 L/s by 20 m at a half takes 392 W', () => {
    const H = pumpHead(UP, GROUND);
    expect(H).toBeCloseTo(20 + lossAt(0.001, UP, GROUND.lengthM), 9);
    // Weight of water times height: 9.81 N a litre.
    expect(PUMP_POWER.evaluate({ Q: 0.001, H: 20, eta: 0.5 })).toBeCloseTo(392.4, 1);
    // Panels for 5 m3 a day over 30 m with 5 hours of sun, 0.4 and 0.75: 272 W (handbook section 5: common practice).
    expect(SOLAR_ARRAY.evaluate({ V: 5, H: 30, eta: 0.4, h: 5, PR: 0.75 })).toBeCloseTo(272.5, 0);
    const heads = headsAlong(UP, GROUND);
    expect(heads[heads.length - 1]).toBeCloseTo(0, 9);
  });
});

describe('drip lines', () => {
  const DRIP: SupplyLine = { ...ONE, serves: 'drip' };
  it('have so many drippers, each by the root of its head', () => {
    expect(drippersOf(DRIP)).toBe(4 * 50);
    expect(DRIPPER.evaluate({ q10: 2, h: 10 })).toBe(2);
    expect(DRIPPER.evaluate({ q10: 2, h: 2.5 })).toBeCloseTo(1, 9);
    // Christiansen's share for many outlets goes to 1/(m+1); for one it is all of it.
    expect(MANY_OUTLETS.evaluate({ N: 1 })).toBe(1);
    expect(MANY_OUTLETS.evaluate({ N: 10_000 })).toBeCloseTo(1 / 2.75, 3);
  });
  it('let out what a line followed dripper by dripper from its far end does', () => {
    for (const [headM, lengthM] of [
      [1, 20],
      [1, 60],
      [3, 80],
      [0.5, 30],
    ] as const) {
      const work = { ...DRIP, drip: { ...DRIP.drip, lengthM } };
      const [D, each] = [DRIP.drip.diameterM, Math.floor(lengthM / 0.4)];
      // The other way round: the head at the last dripper is tried until that at the first is the one given.
      const headAtFirst = (last: number): { readonly head: number; readonly flow: number } => {
        let [head, flow] = [last, 0];
        for (let k = 0; k < each; k++) {
          flow += (2 * Math.sqrt(head / 10)) / 3.6e6;
          const V = flow / ((Math.PI / 4) * D * D);
          const Re = (V * D) / 1.14e-6;
          const f = Re < 2000 ? 64 / Re : 0.316 / Re ** 0.25;
          head += (f * 0.4 * V * V) / (D * 19.62);
        }
        return { head, flow };
      };
      let [lo, hi] = [0, headM as number];
      for (let k = 0; k < 60; k++) {
        const mid = (lo + hi) / 2;
        if (headAtFirst(mid).head < headM) lo = mid;
        else hi = mid;
      }
      const { allM3s, less } = dripsOf(work, headM);
      expect(Math.abs(allM3s / 4 / headAtFirst(lo).flow - 1)).toBeLessThan(0.03);
      expect(Math.abs(less - (1 - Math.sqrt(lo / headM)))).toBeLessThan(0.03);
    }
  });
});

describe('a line as it stands', () => {
  it('tells its figures with their working, sections and pegs', () => {
    const placed = supplyLine.place(ONE, GROUND, null);
    const sheet = new Worksheet('line');
    const figures = new Map(placed.figures(factsOf(siteOf(SLOPE)), sheet).map((f) => [f.id, f.value]));
    expect(figures.get('givesM3s')).toBeCloseTo(gives(ONE, GROUND), 12);
    expect(figures.get('fallM')).toBeCloseTo(5.4, 9);
    expect(figures.get('bucketS')).toBeCloseTo(0.01 / flowBy(5.4, ONE, GROUND.lengthM), 6);
    expect(sheet.lines.map((l) => l.formula)).toEqual(['hydraulics.darcy-loss', 'supply-line.fittings', 'supply-line.time-to-fill']);
    const { parts, isLong } = placed.section!(null);
    expect([isLong, parts.map((p) => p.role)]).toEqual([true, ['ground', 'pipe', 'water']]);
    const pumped: SupplyLine = { ...ONE, drive: 'pump' };
    expect(supplyLine.place(pumped, GROUND, null).section!(null).parts.map((p) => p.role)).toEqual(['ground', 'pipe']);
    expect(placed.pegs(25, null).map((p) => Math.round(p.x))).toEqual([20, 45, 70, 95, 120]);
    const amounts = new Map(placed.quantities(factsOf(siteOf(SLOPE))).map((q) => [q.item, q.likely]));
    expect(amounts.get('pipe')).toBeCloseTo(1.05 * GROUND.lengthM, 6);
    expect(amounts.get('cut')).toBeCloseTo(GROUND.lengthM * 0.3 * 0.476, 6);
    const steps = placed.buildSteps();
    expect(words(steps.find((s) => s.id === 'try')?.does)).toContain(`they take ${bucketS(ONE, GROUND)!.toFixed(0)} s`);
    expect(steps[0].cautions).toHaveLength(1);
    expect(supplyLine.place(withAt(ONE, 'pipe.coverM', 0), GROUND, null).buildSteps()[0].cautions).toEqual([]);
  });
  it('is refused where it ends at what it draws from, or a number is none', () => {
    expect(validateSupplyLine(ONE)).toEqual([]);
    expect(validateSupplyLine({ ...ONE, from: 'a', to: 'a' }).map((p) => p.code)).toEqual(['supply-line.ring']);
    expect(validateSupplyLine(withAt(ONE, 'flowM3s', 0)).map((p) => p.field)).toEqual(['flowM3s']);
    expect(validateSupplyLine({ ...ONE, vents: [{ atM: -1 }] }).map((p) => p.field)).toEqual(['vents.0.atM']);
    expect(validateSupplyLine(withAt(ONE, 'drive', 'wish')).map((p) => p.field)).toEqual(['drive']);
  });
});

describe('begun from a drawing', () => {
  const context = { registry, grids: noGrid, graph: new Graph() };
  const begin = (project: ReturnType<typeof valleyProject>, points: SupplyLine['line'], how = 'supply-line') => {
    const { works, said } = beginWorks(project, context, { kind: 'supply-line', how, points });
    return { work: works[0] as SupplyLine, says: words(said ?? '') };
  };
  it('draws from the tank it begins at and runs by its fall, through the narrowest pipe that does', () => {
    const { work, says } = begin(valleyProject([TANK]), [[157, 24], [140, 40], [110, 60]]); // prettier-ignore
    // The floor of the tank stands 0.4 m over ground of 112.3 m, water a tenth over that; the tap 0.6 m over ground of 104.8 m.
    expect(work).toMatchObject({ from: 'tank', drive: 'fall', serves: 'tap', levels: { drawM: 112.8, endM: 105.4 } });
    expect(work.pipe.diameterM).toBe(0.016);
    expect(says).toMatch(/^It runs from Cistern by a fall of 7\.40 m, of which \d\.\d\d m are lost/);
  });
  it('with nothing to fall by puts a pump in and says what it lacks; into a tank it ends over its overflow', () => {
    const { work, says } = begin(valleyProject([TANK]), [[110, 60], [140, 40], [157, 23]]); // prettier-ignore
    expect(work).toMatchObject({ to: 'tank', drive: 'pump', serves: 'vessel' });
    expect(work.from).toBeUndefined();
    expect(work.levels.endM).toBeCloseTo(112.7 + 1.66 + 0.052, 3);
    expect(says).toMatch(/lacks 10\.0 m of head, so a pump is put in/);
    const on = derive(valleyProject([TANK, work]), context).derived.checks.filter((c) => c.on === work.id);
    expect(on.find((c) => c.id === 'supply-line.air-gap')?.severity).toBe('fine');
    expect(on.find((c) => c.id === 'supply-line.draws')?.severity).toBe('unknown');
  });
  it('from a roof only what fills a tank: a tap beside one draws from the tank there', () => {
    const near: Tank = { ...TANK, at: [158, 16] };
    const project = valleyProject([ROOF, near]);
    const tap = begin(project, [[162, 21], [140, 40], [110, 60]]).work; // prettier-ignore
    expect([tap.from, tap.serves]).toEqual(['tank', 'tap']);
    const filled = begin(project, [[162, 27], [158, 17]]).work; // prettier-ignore
    expect([filled.from, filled.to, filled.serves]).toEqual(['roof', 'tank', 'vessel']);
    expect(filled.levels.drawM).toBeGreaterThan(filled.levels.endM);
    // A tap a few steps from its tank does not fill it.
    const beside = begin(project, [[157, 15], [152, 19]]).work; // prettier-ignore
    expect([beside.from, beside.to, beside.serves]).toEqual(['tank', undefined, 'tap']);
  });
  it('drip lines ask for what their drippers let out', () => {
    const { work } = begin(planeProject({}, []), [[60, 120], [80, 100], [100, 60]], 'drip-line'); // prettier-ignore
    expect(work.serves).toBe('drip');
    expect(work.flowM3s - dripsOf(work).allM3s).toBeGreaterThanOrEqual(0);
    expect(work.flowM3s - dripsOf(work).allM3s).toBeLessThan(1e-6);
  });
  it('lets go of a store that is taken away, and stays', () => {
    const bound = registry.bind(TO_TAP);
    expect(bound.refs).toEqual([{ role: 'to', id: 'tank', path: 'from', whenGone: 'lets-go' }]);
  });
});
