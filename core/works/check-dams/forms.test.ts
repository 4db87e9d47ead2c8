import { describe, expect, it } from '@jest/globals';
import type { Line } from '../../geometry/index.ts';
import { gridOf } from '../../testing/grids.ts';
import { siteOf, withAt, words } from '../../testing/rules.ts';
import { measureBed } from '../bed.ts';
import { type CheckDams, type Dam, checkDams } from './index.ts';
import { hoursOf } from './making.ts';
import { stoneOf } from './stone.ts';
import { standingDams } from './store.ts';

/** A gully that falls a tenth to the south: a bed a metre wide, sides of one to one, a metre and a half deep. */
const GULLY = siteOf(gridOf((x, y) => 0.1 * y + Math.min(1.5, Math.max(0, Math.abs(x - 50) - 0.5)), { cells: 201, cellM: 0.5 }));
const LINE: Line = [[50, 90], [50, 30]]; // prettier-ignore
const dam = (atM: number): Dam => ({ atM, heightM: 0.6, bedWidthM: 1, bankWidthM: 4, depthM: 1.5 });
const SAMPLE = checkDams.sample;
const series = (dams: readonly Dam[], change: Partial<CheckDams> = {}): CheckDams => ({
  ...SAMPLE,
  line: LINE,
  form: 'log',
  dams,
  dimensions: { ...SAMPLE.dimensions, notchWidthM: 1, pieceM: 0.2, apronM: 1.2 },
  ...change,
});
const bed = measureBed(LINE, GULLY);
const place = (work: CheckDams) => checkDams.place(work, { bed, channel: null }, null);

describe('dams of brush, logs and bags', () => {
  it('are laid, mended and held each in its own way, and last as long as they do', () => {
    const steps = (form: CheckDams['form'], change: Partial<CheckDams> = {}) => place(series([dam(60)], { form, ...change })).buildSteps();
    const said = (form: CheckDams['form'], id: string): string => words(steps(form).find((s) => s.id === id)?.does);
    expect(said('rock', 'body')).toMatch(/the largest below and outside/);
    expect(said('brush', 'body')).toMatch(/two rows of stakes.*wire it to the stakes/);
    expect(said('log', 'body')).toMatch(/keyed into both banks and wired to posts/);
    expect(said('sandbag', 'body')).toMatch(/like bricks/);
    expect(said('rock', 'after')).toMatch(/height of each\.$/);
    expect(said('brush', 'after')).toMatch(/rots in two to five years/);
    const held = withAt(series([dam(60)]), 'dimensions.heldKgM', 30);
    expect(words(place(held).buildSteps().find((s) => s.id === 'body')?.hold)).toMatch(/it holds what it must/); // prettier-ignore
    expect(steps('log').find((s) => s.id === 'body')?.hold).toBeUndefined();
    // Spaced by the gully rule their pools do not reach each other.
    const sight = (dams: readonly Dam[]): string => words(place(series(dams)).buildSteps().find((s) => s.id === 'peg')?.hold); // prettier-ignore
    expect(sight([dam(54), dam(60)])).toMatch(/they are level/);
    expect(sight([dam(40), dam(60)])).toMatch(/none is higher than the foot/);
  });
  it('weigh what they are made of: hours of carrying by hand', () => {
    const hours = (form: CheckDams['form']): number => {
      const work = series([dam(60)], { form });
      const dams = standingDams(work, bed);
      return hoursOf(work, dams) - 8 * stoneOf(work, dams[0]).allM3;
    };
    const walk = (tonnes: number): number => (tonnes / 0.06) * (0.1 / 2.5);
    const { bodyM3, keysM3, apronM3 } = stoneOf(series([dam(60)], { form: 'brush' }), standingDams(series([dam(60)]), bed)[0]);
    expect(hours('brush')).toBeCloseTo(walk(0.15 * (bodyM3 + keysM3 + apronM3)), 9);
    expect(hours('sandbag')).toBeCloseTo(walk(1.6 * (bodyM3 + keysM3) + 1.72 * apronM3), 9);
    // 19.2 m of logs as thick as a hand is long, worked out above.
    const wood = (Math.PI / 4) * 0.2 ** 2 * (2.6 + 3 + 3.4 + 2.8 + 3 + 4.4);
    expect(hours('log')).toBeCloseTo(walk(0.6 * wood + 1.72 * apronM3), 9);
  });
  it('of logs stand upright and as thick as a log, whatever faces they had as stone', () => {
    const [body] = place(series([dam(60)])).section!(null).parts.filter((p) => p.role === 'stone');
    const xs = body.points.map(([x]) => x);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([expect.closeTo(59.9, 9), expect.closeTo(60.1, 9)]);
    const shown = (form: CheckDams['form']) =>
      checkDams.fields.filter(({ shownWhen }) => shownWhen?.path !== 'form' || shownWhen.is?.includes(form)).map(({ path }) => path);
    expect(shown('log')).not.toContain('dimensions.upSlopeHV');
    expect(shown('log')).toContain('dimensions.heldKgM');
    expect(shown('rock')).not.toContain('dimensions.heldKgM');
  });
});
