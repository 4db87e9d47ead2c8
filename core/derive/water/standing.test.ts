// Ground that is not known stays unknown: a work on it is named and nothing is computed of it; and one bad work stops no other.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { Check, WorkBase } from '../../contract/index.ts';
import type { Line, Point } from '../../geometry/index.ts';
import type { Project, TerrainInline } from '../../project/index.ts';
import { derive } from '../index.ts';
import { SILL, SWALE, derived, noGrid, planeProject } from '../../testing/projects.ts';
import { BACKUP, BACKUP_SILL, CUT, DRAIN, PIPE, POND, POND_SILL, PUMP, ROAD, TRENCH, valleyProject } from '../../testing/valley.ts';
import { withFaults } from '../../testing/trees.ts';
import { type Registry, registry } from '../../works/index.ts';

const moved = (line: Line, by: Point): Line => line.map(([x, y]): Point => [x + by[0], y + by[1]]);
const checksOf = (p: Project, on: string): readonly Check[] => derived(p).derived.checks.filter((c) => c.on === on);
/** With plain spaces between figures and their units. */
const plain = (text: string): string => text.replace(/[\u00a0\u202f]/g, ' ');
const storeIds = (p: Project): string[] => derived(p).derived.stores.map((s) => s.id);
/** The plane with no levels where `isOff` says so. */
function without(p: Project, isOff: (x: number, y: number) => boolean): Project {
  const terrain = p.terrain as TerrainInline;
  const { ncols, nrows, cellM } = terrain;
  const z = terrain.z.map((v, i) => (isOff(((i % ncols) + 0.5) * cellM, (nrows - 0.5 - Math.floor(i / ncols)) * cellM) ? null : v));
  return { ...p, terrain: { ...terrain, z } };
}

describe('a work off the terrain', () => {
  const off = planeProject({}, [{ ...SWALE, line: moved(SWALE.line, [1000, -1000]) } as typeof SWALE, SILL]);
  it('is named with how far off it is, and holds, keeps and sheds nothing', () => {
    const { derived: d, view } = derived(off);
    // From the terrain's corner at 202, 0 to the line's end at 1032, -899.
    const [check] = d.checks.filter((c) => c.on === 'w1');
    expect(check).toMatchObject({ id: 'work.off-terrain', severity: 'unknown', value: expect.closeTo(Math.hypot(1032 - 202, 899), 6) });
    expect(plain(check.title)).toBe('Off the terrain, 1224 m beyond its edge');
    expect(d.stores).toEqual([]);
    expect(d.links).toEqual([]);
    expect(d.catchments).toEqual([]);
    expect(d.pegs).toEqual([]);
    expect(view.figures).toEqual({});
    expect(d.checks.filter((c) => c.severity === 'fine')).toEqual([]);
    // Its sill is not judged either, and says what it waits for.
    expect(checksOf(off, 's1').map((c) => [c.id, c.severity, c.title])).toEqual([
      ['work.needs-another', 'unknown', 'It hangs on “Upper”, which is not computed'],
    ]);
    for (const stage of ['works', 'levels', 'storm', 'pegs'])
      expect(plain(d.verdicts[stage])).toBe('Upper is not computed: off the terrain, 1224 m beyond its edge.');
    expect(d.uncomputed.map((u) => [u.work, u.why])).toEqual([
      ['w1', 'ground'],
      ['s1', 'needs'],
    ]);
  });
  it('by hardly anything is off; wholly on it is computed', () => {
    const at = (east: number): string[] =>
      storeIds(
        planeProject({}, [
          {
            ...SWALE,
            line: [
              [32, 101],
              [east, 101],
            ],
          } as typeof SWALE,
          SILL,
        ]),
      );
    expect(at(201.9)).toEqual(['w1']);
    expect(at(204)).toEqual([]);
  });
  it('partly off says which part', () => {
    const p = planeProject({}, [
      {
        ...SWALE,
        line: [
          [102, 101],
          [252, 101],
        ],
      } as typeof SWALE,
    ]);
    const [check] = checksOf(p, 'w1');
    expect(check.severity).toBe('unknown');
    // The terrain ends at x = 202: 100 m along.
    expect(plain(check.title)).toMatch(/^Partly off the known ground: from (99|100)(\.\d)? m to 150(\.0)? m along it no level is known$/);
  });
  it('on no data is as unknown; a gap of two cells is bridged and told, one of three is not', () => {
    const hole = (cells: number): Project =>
      without(planeProject({}, [SWALE, SILL]), (x, y) => Math.abs(y - 101) < 1.1 && x >= 80 && x < 80 + 2 * cells);
    const told = (p: Project): string[] => checksOf(p, 'w1').flatMap((c) => (c.id.startsWith('work.') ? [`${c.id} ${c.severity}`] : []));
    for (const cells of [1, 2]) expect(told(hole(cells))).toEqual(['work.gap-in-ground weigh']);
    for (const cells of [3, 4]) expect(told(hole(cells))).toEqual(['work.off-terrain unknown']);
    expect(told(planeProject({}, [SWALE, SILL]))).toEqual([]);
    expect(
      checksOf(
        without(planeProject({}, [SWALE]), () => false),
        'w1',
      ).some((c) => c.id === 'work.gap-in-ground'),
    ).toBe(false);
    // All of the ground under it gone, within the frame of the terrain.
    const [all] = checksOf(
      without(planeProject({}, [SWALE]), (_, y) => Math.abs(y - 101) < 12),
      'w1',
    );
    expect(all.title).toBe('On ground the terrain has no level for');
  });
  it('leaves the others as they would be without it', () => {
    const below = {
      ...SWALE,
      id: 'w2',
      name: 'Lower',
      line: moved(SWALE.line, [0, -40]),
      levels: { floorM: SWALE.levels.floorM - 4, bankCrestM: SWALE.levels.bankCrestM - 4 },
    };
    const far = { ...SWALE, line: moved(SWALE.line, [1000, 0]) };
    const alone = derived(planeProject({}, [below])).derived;
    const beside = derived(planeProject({}, [far, below])).derived;
    expect(beside.stores).toEqual(alone.stores);
    expect(beside.balance).toEqual(alone.balance);
    expect(beside.verdicts.works).toContain('Upper is not computed');
  });
  it('a pin off it says so', () => {
    expect(checksOf(planeProject({ pins: [{ id: 'k', at: [900, 5] }] }), 'k')).toMatchObject([
      { id: 'pin.off-terrain', severity: 'unknown' },
    ]);
    expect(checksOf(planeProject({ pins: [{ id: 'k', at: [90, 5] }] }), 'k')).toEqual([]);
  });
});

describe('a way out onto ground without a level', () => {
  it('has no slope, no velocity and no “fine”', () => {
    const p = without(planeProject({}, [SWALE, SILL]), (_, y) => y < 92);
    const onSill = checksOf(p, 's1');
    for (const id of ['sill.exit-velocity', 'sill.cover-below'])
      expect(onSill.find((c) => c.id === id)).toMatchObject({ severity: 'unknown', value: null });
    expect(derived(p).derived.outlets.find((o) => o.id === 's1')).toMatchObject({ velocityMs: null, lining: 'unknown' });
    const whole = checksOf(planeProject({}, [SWALE, SILL]), 's1');
    for (const id of ['sill.exit-velocity', 'sill.cover-below']) expect(whole.find((c) => c.id === id)?.severity).not.toBe('unknown');
  });
});

describe('any work, anywhere', () => {
  const ALL: readonly WorkBase[] = [POND, POND_SILL, CUT, TRENCH, PIPE, ROAD, DRAIN, PUMP, BACKUP, BACKUP_SILL];
  const shifted = (work: WorkBase, by: Point): WorkBase =>
    Object.fromEntries(
      Object.entries(work).map(([k, v]) => [
        k,
        ['line', 'wall', 'pit'].includes(k) && Array.isArray(v) ? moved(v as Line, by) : (v as unknown),
      ]),
    ) as unknown as WorkBase;
  it('is computed on known ground or says what is not known; never a figure that is none, never “fine” off the terrain', () => {
    fc.assert(
      fc.property(fc.integer({ min: -260, max: 260 }), fc.integer({ min: -260, max: 260 }), (dx, dy) => {
        const p = valleyProject(ALL.map((w) => shifted(w, [dx, dy])));
        const { derived: d } = derived(p);
        expect(withFaults(d)).not.toContain('NOT FINITE');
        const left = new Set(d.uncomputed.map((u) => u.work));
        expect(d.uncomputed.filter((u) => u.why === 'fault')).toEqual([]);
        expect(d.stores.filter((s) => left.has(s.id))).toEqual([]);
        expect(d.pegs.filter((g) => left.has(g.work))).toEqual([]);
        for (const check of d.checks) if (left.has(check.on)) expect(check.severity).toBe('unknown');
        // Every work is either computed or named.
        const told = new Set([...d.checks.map((c) => c.on), ...left]);
        for (const { id } of ALL) expect(told.has(id)).toBe(true);
      }),
      { seed: 7, numRuns: 24 },
    );
  });
});

describe('one bad work', () => {
  /** The registry with one technique that fails at one part of its work. */
  const failing = (part: 'measure' | 'place' | 'stores' | 'figures' | 'checks' | 'pegs'): Registry => ({
    ...registry,
    bind: (work) => {
      const bound = registry.bind(work);
      if (work.id !== 'bad') return bound;
      const fail = (): never => {
        throw new TypeError('a fault of ours');
      };
      if (part === 'measure') return { ...bound, measure: fail };
      if (part === 'place') return { ...bound, place: fail };
      return { ...bound, place: (ground, host) => ({ ...bound.place(ground, host), [part]: fail }) };
    },
  });
  const bad = {
    ...SWALE,
    id: 'bad',
    name: 'Bad',
    line: moved(SWALE.line, [0, -50]),
    levels: { floorM: SWALE.levels.floorM - 5, bankCrestM: SWALE.levels.bankCrestM - 5 },
  };
  it.each(['measure', 'place', 'stores', 'figures', 'checks', 'pegs'] as const)(
    'failing at its %s is named, and the rest is computed',
    (part) => {
      const project = planeProject({}, [SWALE, SILL, bad]);
      const { derived: d } = derive(project, { registry: failing(part), grids: noGrid });
      expect(d.checks.filter((c) => c.on === 'bad' && c.id === 'work.not-computed')).toMatchObject([
        { severity: 'mend', title: 'Bad could not be computed' },
      ]);
      const sound = derived(planeProject({}, [SWALE, SILL])).derived;
      const upper = d.stores.find((s) => s.id === 'w1');
      expect(upper?.heldM3).toBe(sound.stores[0].heldM3);
      expect(upper?.peakLevelM).toBe(sound.stores[0].peakLevelM);
      expect(d.verdicts.works).toContain('Bad is not computed');
    },
  );
  it('a catchment without a cell of its own is timed by its path as by any other way', () => {
    // Two works over the same cells: the second catches nothing.
    const twin = { ...SWALE, id: 'w2' };
    const p = planeProject({ runoff: { time: 'path' } }, [SWALE, twin]);
    expect(derived(p).derived.uncomputed).toEqual([]);
    expect(derived(p).derived.catchments.find((c) => c.of === 'w2')?.areaM2).toBe(0);
  });
});
