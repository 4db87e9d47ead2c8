// What joins a drain from above, and the street that takes it: by hand.
import { describe, expect, it } from '@jest/globals';
import { gridOf } from '../../testing/grids.ts';
import { derived, planeProject } from '../../testing/projects.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { newRoof } from '../index.ts';
import { DRAIN_LISTS, newDrain, validateDrain } from './index.ts';
import { streetLeft } from './joining-checks.ts';
import { measureDrain } from './ground.ts';
import { joinsAt, spoutsAt } from './model.ts';
import { sectionOf } from './section.ts';

const LID = { atM: 0, invertM: 99.4, pipeM: 0.1, grateLongM: 0, grateWideM: 0, sumpM: 0 };
const DRAIN = newDrain('d', 'Drain', {
  line: [[5, 20], [25, 20]],
  basins: [{ ...LID, spouts: 2 }, { ...LID, atM: 10, invertM: 99.3, drips: 1 }, { ...LID, atM: 15, invertM: 99.25 }],
  levels: { outletM: 99.2 },
  ends: 'street',
}); // prettier-ignore
const GROUND = measureDrain(DRAIN, { grid: gridOf(() => 100, { cells: 81, cellM: 0.5 }) });

const ROOF = newRoof('r', 'Roof', { ring: [[5, 24], [15, 24], [15, 30], [5, 30]] }); // prettier-ignore

describe('what joins a drain from above', () => {
  it('is in its bill by hand, and in its steps; where nothing joins, nothing is', () => {
    const of = (work: typeof DRAIN) => new Map(quantitiesOf(work, GROUND).map((l) => [l.item, l.likely]));
    const items = of(DRAIN);
    // Two risers from 99.4 and one from 99.3 to 150 mm over the ground at 100.
    expect(items.get('riser')).toBeCloseTo(2 * 0.75 + 0.85, 9);
    expect(['branch', 'adapter', 'trap'].map((item) => items.get(item))).toEqual([3, 2, 1]);
    const bare = of({ ...DRAIN, basins: DRAIN.basins.map((b) => ({ ...b, spouts: 0, drips: 0 })) });
    expect(['riser', 'branch', 'adapter', 'trap'].some((item) => bare.has(item))).toBe(false);
    const drips = of({ ...DRAIN, basins: [LID, { ...LID, atM: 10, invertM: 99.3, drips: 2 }] });
    expect([drips.has('adapter'), drips.get('trap')]).toEqual([false, 2]);
    const risers = (work: typeof DRAIN) => sectionOf(work, GROUND, null).parts.filter((p) => p.role === 'pipe' && p.points.length === 2);
    expect(risers(DRAIN).map((p) => p.points)).toEqual([[[0, 99.4], [0, 100.15]], [[10, 99.3], [10, 100.15]]]); // prettier-ignore
    expect(risers({ ...DRAIN, basins: [LID] })).toEqual([]);
    expect(stepsOf(DRAIN, GROUND).map((s) => s.id)).toContain('join');
    expect(stepsOf({ ...DRAIN, basins: [LID] }, GROUND).map((s) => s.id)).not.toContain('join');
  });
  it('is counted whole, and is not taken on to a basin that is added', () => {
    expect(DRAIN.basins.map((b) => [spoutsAt(b), joinsAt(b)])).toEqual([[2, 2], [0, 1], [0, 0]]); // prettier-ignore
    expect(validateDrain(DRAIN)).toEqual([]);
    for (const spouts of [-1, 7, 1.5, NaN])
      expect(validateDrain({ ...DRAIN, basins: [{ ...LID, spouts }] })).toMatchObject([{ field: 'basins.0.spouts' }]);
    const [{ start }] = DRAIN_LISTS;
    const added = (start as (work: typeof DRAIN) => object)({ ...DRAIN, basins: [{ ...LID, spouts: 2, drips: 1 }] });
    expect(Object.keys(added).sort()).toEqual(['atM', 'grateLongM', 'grateWideM', 'invertM', 'pipeM', 'sumpM']);
  });
  it('a roof that is led to its joint answers the question which one; one led elsewhere does not', () => {
    const z = Array.from({ length: 81 * 81 }, () => 100);
    const project = (links: Readonly<Record<string, string>>) => {
      const base = planeProject({ terrain: { kind: 'grid', ncols: 81, nrows: 81, west: 0, south: 0, cellM: 0.5, rows: 'north-first', z }, site: { crs: null, outline: [], zeroLevelM: 0 } } as never, [DRAIN, ROOF] as never); // prettier-ignore
      return { ...base, options: [{ ...base.options[0], links }] };
    };
    const severity = (links: Readonly<Record<string, string>>) =>
      derived(project(links) as never).derived.checks.find((c) => c.id === 'piped-drain.roof-led')?.severity;
    expect([severity({}), severity({ 'r#down': 'd:pipe2' }), severity({ 'r#down': 'd' })]).toEqual(['unknown', 'unknown', 'fine']);
  });
});

describe('the street that takes it', () => {
  it('has left what its pipe carries full, less what runs in it; never more than was allowed', () => {
    const known = { ...DRAIN, streetPipeM: 0.3, streetFall: 0.01, streetOwnM3s: 0.05 };
    // Manning by hand: R = 0.075 m, V = 0.075^(2/3)·0.1/0.013 = 1.368 m/s over 0.0707 m2.
    const carries = (Math.PI / 4) * 0.09 * ((0.075 ** (2 / 3) * 0.1) / 0.013);
    expect(streetLeft(known)).toBeCloseTo(carries - 0.05, 12);
    expect(carries).toBeCloseTo(0.0967, 3);
    expect(streetLeft({ ...known, mayGiveM3s: 0.02 })).toBe(0.02);
    expect(streetLeft({ ...known, mayGiveM3s: 1 })).toBeCloseTo(carries - 0.05, 12);
    expect(streetLeft({ ...DRAIN, mayGiveM3s: 0.02 })).toBe(0.02);
    for (const part of ['streetPipeM', 'streetFall', 'streetOwnM3s'] as const)
      expect(streetLeft({ ...known, [part]: undefined })).toBeNull();
  });
});
