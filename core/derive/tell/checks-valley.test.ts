import { describe, expect, it } from '@jest/globals';
import type { WorkBase } from '../../contract/index.ts';
import { NETWORK_RULES } from '../../checks/index.ts';
import type { Project } from '../../project/index.ts';
import { type Fixtures, found, testChecks } from '../../testing/checks.ts';
import { planeProject } from '../../testing/projects.ts';
import { BACKUP, BACKUP_SILL, CUT, DAMS, DRAIN, PIPE, POND, POND_SILL, PUMP, ROAD, TRENCH, valleyProject } from '../../testing/valley.ts';
import { TANK } from '../../testing/valley-fields.ts';
import { CROSSING_RULES } from '../../works/crossing/index.ts';
import { CUT_RULES } from '../../works/cut-spillway/index.ts';
import { DIVERSION_RULES } from '../../works/diversion/index.ts';
import { PIPE_RULES } from '../../works/pipe-outlet/index.ts';
import { POND_RULES } from '../../works/pond/index.ts';
import { PUMP_RULES } from '../../works/pump-back/index.ts';
import { TRENCH_RULES } from '../../works/stone-trench/index.ts';
import { JOIN_RULES } from '../../works/swale/index.ts';

type Part = 'levels' | 'dimensions' | 'pipe';
/** A work with some members changed, within its levels and dimensions too. */
const but = <W extends WorkBase>(work: W, change: { readonly [P in Part]?: object } & Readonly<Record<string, unknown>>): W => ({
  ...work,
  ...Object.fromEntries(
    Object.entries(change).map(([k, v]) => [
      k,
      ['levels', 'dimensions', 'pipe'].includes(k) ? { ...(work[k as keyof W] as object), ...(v as object) } : v,
    ]),
  ),
});
const SOUND = [but(POND, { levels: { crestM: 106.9 }, dimensions: { topWidthM: 2.5 }, settlementPercent: 6 }), POND_SILL, CUT];
const project = (works: readonly WorkBase[] = SOUND, change: Partial<Project> = {}): Project => valleyProject(works, change);
const swap = (work: WorkBase): WorkBase[] => SOUND.map((w) => (w.id === work.id ? work : w));
const AT = (kind: string, x: number, y: number): Partial<Project> => ({
  features: [
    {
      id: 'f',
      kind,
      ring: [
        [x, y],
        [x + 6, y],
        [x + 6, y + 5],
        [x, y + 5],
      ],
    },
  ],
});
/** A cistern high on the side of the valley, and where water is led by a word. */
const ledTo = (links: Readonly<Record<string, string>>): Project => {
  const one = project([...SOUND, TANK]);
  return { ...one, options: [{ ...one.options[0], links }] };
};
const WET: Partial<Project> = {
  rain: {
    table: { durationsMin: [10, 60, 120], returnYears: [20], depthMm: [[40, 110, 160]] },
    storm: { returnYears: 20, durationMin: 120 },
  },
};
const SMALL: Partial<Project> = {
  rain: { table: { durationsMin: [60], returnYears: [2], depthMm: [[12]] }, storm: { returnYears: 2, durationMin: 60 } },
};
const FAR = AT('building', 190, 190);
const JOINED = [but(POND, { levels: { crestM: 106.9 } }), POND_SILL, CUT, BACKUP, BACKUP_SILL];
const joined = (change: Parameters<typeof but>[1], more: Partial<Project> = {}): Project =>
  project(
    JOINED.map((w) => (w.id === 'backup' ? but(w, change) : w)),
    more,
  );
const with1 = (work: WorkBase, change: Partial<Project> = {}): Project => project([...SOUND, work], change);
const GOOD_PIPE = but(PIPE, { seal: 'filter', dimensions: { diameterM: 0.3 }, levels: { outletM: 105.2 }, roughness: 0.012 });
const GOOD_ROAD = but(ROAD, { form: 'dip', levels: { dipM: 108.4 }, dimensions: { diameterM: 0.6, dipLengthM: 12 } });
const GOOD_DRAIN = but(DRAIN, { levels: { startM: 111.6, endM: 111.4 }, dimensions: { floorWidthM: 1.5, depthM: 0.6 } });

/** The valley with no levels known just below the wall: its outer foot stands on none. */
function nearEdge(): Project {
  const whole = project();
  const { terrain } = whole;
  if (terrain?.kind !== 'grid' || !('z' in terrain)) throw new Error('the valley has inline terrain');
  const rowOf = (i: number): number => terrain.nrows - 1 - Math.floor(i / terrain.ncols);
  const z = terrain.z.map((v, i) => (terrain.south + (rowOf(i) + 0.5) * terrain.cellM < 78 ? null : v));
  return { ...whole, terrain: { ...terrain, z } };
}

const CASES: Fixtures = {
  'pond.freeboard': [project(swap(but(SOUND[0], { levels: { crestM: 106.1 } })), WET), 'mend', project()],
  'pond.foot-unknown': [nearEdge(), 'unknown', project()],
  'pond.auxiliary-height': [
    project(swap(but(SOUND[0], { levels: { crestM: 106.3 } }))),
    'weigh',
    project(swap(but(SOUND[0], { levels: { crestM: 106.9 } }))),
  ],
  'pond.pipe-below': [with1(but(GOOD_PIPE, { levels: { sillM: 105.8 } })), 'weigh', with1(GOOD_PIPE)],
  'pond.way-out': [project([SOUND[0], but(PIPE, {})]), 'mend', project()],
  'pond.ends': [
    project(
      swap(
        but(SOUND[0], {
          wall: [
            [95, 81],
            [107, 81],
          ],
        }),
      ),
    ),
    'mend',
    project(),
  ],
  'pond.top-width': [project(swap(but(SOUND[0], { dimensions: { topWidthM: 1 } }))), 'mend', project()],
  'pond.sides': [project(swap(but(SOUND[0], { dimensions: { backSlopeHV: 1.5 } }))), 'mend', project()],
  'pond.key': [project(swap(but(SOUND[0], { dimensions: { keyDepthM: 0.2 } }))), 'mend', project()],
  'pond.settlement': [project(swap(but(SOUND[0], { settlementPercent: 1 }))), 'mend', project()],
  'pond.clay': [project(swap(but(SOUND[0], { clayPercent: 6 }))), 'mend', project()],
  'pond.regulated': [project(swap(but(SOUND[0], { levels: { crestM: 108 } }))), 'weigh', project([POND, POND_SILL, CUT])],
  'pond.losses': [project(swap(but(SOUND[0], { seepageMmPerDay: 14 }))), 'mend', project()],
  'pond.borrow': [project(swap(but(SOUND[0], { borrow: 'inside' }))), 'weigh', project()],
  'pond.depth': [
    project(),
    'weigh',
    project(
      swap(but(POND_SILL, { levels: { sillM: 106.5 } })).map((w) =>
        w.id === 'cut' ? but(w as typeof CUT, { levels: { sillM: 106.7 } }) : w,
      ),
    ),
  ],
  'pond.catchment': [
    project([
      SOUND[0],
      POND_SILL,
      CUT,
      but(ROAD, {
        line: [
          [60, 90],
          [142, 90],
        ],
      }),
    ]),
    'weigh',
    project(),
  ],
  'pond.boundary-distance': [
    project(
      swap(
        but(SOUND[0], {
          wall: [
            [8, 81],
            [121, 81],
          ],
        }),
      ),
    ),
    'mend',
    project(),
  ],
  'pond.building-distance': [project(SOUND, AT('building', 112, 82)), 'mend', project(SOUND, FAR)],
  'pond.well-distance': [
    project(SOUND, { features: [{ id: 'w', kind: 'well', at: [101, 88] }] }),
    'mend',
    project(SOUND, { features: [{ id: 'w', kind: 'well', at: [180, 180] }] }),
  ],
  'pond.tree-distance': [
    project(SOUND, { features: [{ id: 't', kind: 'tree', at: [101, 81] }] }),
    'mend',
    project(SOUND, { features: [{ id: 't', kind: 'tree', at: [180, 180] }] }),
  ],
  'pond.septic-distance': [project(SOUND, AT('septic', 112, 82)), 'mend', project(SOUND, AT('septic', 180, 180))],
  'cut-spillway.control': [project(swap(but(CUT, { dimensions: { controlLengthM: 2 } }))), 'mend', project()],
  'cut-spillway.sides': [project(swap(but(CUT, { dimensions: { sideSlopeHV: 1 } }))), 'mend', project()],
  'cut-spillway.exit-velocity': [
    project([SOUND[0], but(CUT, { levels: { sillM: 104.5 }, dimensions: { bottomWidthM: 0.5, sideSlopeHV: 1 } })], {
      ...WET,
      ground: { ...planeProject().ground!, cover: 'bare' },
    }),
    'mend',
    project(SOUND, SMALL),
  ],
  'cut-spillway.on-fill': [project(swap(but(CUT, { atM: 20 }))), 'mend', project()],
  'stone-trench.levels': [with1(but(TRENCH, { levels: { rockTopM: 105.75 } })), 'mend', with1(TRENCH)],
  'stone-trench.fall': [with1(but(TRENCH, { levels: { floorM: 105.9 } })), 'mend', with1(TRENCH)],
  'stone-trench.stone': [
    project(
      [SOUND[0], but(TRENCH, { levels: { sillM: 105.3, rockTopM: 105.4, floorM: 105.1 }, dimensions: { widthM: 0.5, stoneM: 0.02 } })],
      WET,
    ),
    'mend',
    with1(TRENCH),
  ],
  'stone-trench.exit-velocity': [
    project([SOUND[0], but(TRENCH, { levels: { sillM: 105.3, rockTopM: 105.4, floorM: 105.1 }, dimensions: { widthM: 0.4 } })], WET),
    'mend',
    with1(TRENCH),
  ],
  'stone-trench.on-fill': [with1(but(TRENCH, { atM: 20 })), 'mend', with1(TRENCH)],
  'pipe-outlet.clogs': [with1(but(GOOD_PIPE, { dimensions: { diameterM: 0.08 } })), 'mend', with1(GOOD_PIPE)],
  'pipe-outlet.blocked': [with1(but(GOOD_PIPE, { blockedPercent: 60 })), 'mend', with1(GOOD_PIPE)],
  'pipe-outlet.fall': [with1(but(GOOD_PIPE, { levels: { outletM: 105.6 } })), 'mend', with1(GOOD_PIPE)],
  'pipe-outlet.apron': [with1(but(GOOD_PIPE, { levels: { sillM: 104.8, outletM: 104.2 } }), WET), 'weigh', with1(GOOD_PIPE, SMALL)],
  'pipe-outlet.seepage-path': [with1(but(GOOD_PIPE, { seal: 'none' })), 'mend', with1(GOOD_PIPE)],
  'crossing.relief': [project([ROAD]), 'mend', project([GOOD_ROAD])],
  'crossing.headwater': [project([but(ROAD, { dimensions: { diameterM: 0.3 } })], WET), 'mend', project([ROAD], SMALL)],
  'crossing.road-freeboard': [
    project([but(ROAD, { levels: { roadM: 107.6, dipM: 107.5 }, dimensions: { diameterM: 0.2 } })], WET),
    'mend',
    project([ROAD]),
  ],
  'crossing.pipe-top': [
    project([...JOINED, but(ROAD, { joins: ['backup', 'pond'], levels: { inletM: 105.6, outletM: 105.6 } })]),
    'weigh',
    project([...JOINED, but(ROAD, { joins: ['backup', 'pond'], levels: { inletM: 105.25, outletM: 105.25 } })]),
  ],
  'crossing.cover': [project([but(ROAD, { levels: { roadM: 107.8, dipM: 107.8 } })]), 'mend', project([ROAD])],
  'crossing.pipe-size': [project([but(ROAD, { dimensions: { diameterM: 0.2 } })]), 'mend', project([ROAD])],
  'crossing.pipe-velocity': [
    project([but(ROAD, { dimensions: { diameterM: 0.2 }, levels: { outletM: 106.2 } })], WET),
    'mend',
    project([but(ROAD, { dimensions: { diameterM: 0.4 } })]),
  ],
  'crossing.pipe-fall': [project([but(ROAD, { levels: { outletM: 107.3 } })]), 'mend', project([ROAD])],
  'crossing.building-distance': [project([ROAD], AT('building', 113, 142)), 'mend', project([ROAD], FAR)],
  'crossing.well-distance': [
    project([ROAD], { features: [{ id: 'w', kind: 'well', at: [101, 148] }] }),
    'mend',
    project([ROAD], { features: [{ id: 'w', kind: 'well', at: [190, 20] }] }),
  ],
  'crossing.septic-distance': [project([ROAD], AT('septic', 113, 142)), 'mend', project([ROAD], AT('septic', 180, 20))],
  'diversion.freeboard': [project([but(GOOD_DRAIN, { dimensions: { depthM: 0.1 } })], WET), 'mend', project([GOOD_DRAIN])],
  'diversion.velocity': [project([but(GOOD_DRAIN, { lining: 'earth', levels: { startM: 112.2 } })], WET), 'mend', project([GOOD_DRAIN])],
  'diversion.fall': [project([but(GOOD_DRAIN, { levels: { startM: 111.4 } })]), 'mend', project([GOOD_DRAIN])],
  'diversion.near-critical': [
    project([but(GOOD_DRAIN, { lining: 'earth', levels: { startM: 112.4 } })], WET),
    'weigh',
    project([GOOD_DRAIN]),
  ],
  'diversion.end': [project([but(GOOD_DRAIN, { levels: { startM: 113, endM: 112.8 } })]), 'mend', project([GOOD_DRAIN, ...SOUND])],
  'diversion.building-distance': [project([GOOD_DRAIN], AT('building', 70, 106)), 'mend', project([GOOD_DRAIN], FAR)],
  'diversion.well-distance': [
    project([GOOD_DRAIN], { features: [{ id: 'w', kind: 'well', at: [70, 106] }] }),
    'mend',
    project([GOOD_DRAIN], { features: [{ id: 'w', kind: 'well', at: [190, 20] }] }),
  ],
  'diversion.septic-distance': [project([GOOD_DRAIN], AT('septic', 70, 106)), 'mend', project([GOOD_DRAIN], AT('septic', 180, 20))],
  'pump-back.pipe-loss': [
    project([...SOUND, ROAD, but(PUMP, { pipe: { diameterM: 0.025 } })]),
    'mend',
    project([...SOUND, ROAD, but(PUMP, { pipe: { diameterM: 0.08 } })]),
  ],
  'pump-back.velocity': [project([...SOUND, ROAD, but(PUMP, { pipe: { diameterM: 0.025 } })]), 'mend', project([...SOUND, ROAD, PUMP])],
  'pump-back.lift': [project([...SOUND, ROAD, but(PUMP, { levels: { deliveryM: 104 } })]), 'mend', project([...SOUND, ROAD, PUMP])],
  'swale.mouth-freeboard': [
    joined({ levels: { bankCrestM: 105.98 }, fuse: undefined }, WET),
    'mend',
    joined({ levels: { bankCrestM: 106.6 } }, SMALL),
  ],
  'swale.fuse': [joined({ fuse: { fromM: 30, toM: 38, crestM: 106.44 } }), 'mend', joined({ levels: { bankCrestM: 106.5 } })],
  'swale.joined-bank': [joined({ fuse: undefined }), 'weigh', joined({})],
  'network.spill-order': [project(swap(but(CUT, { levels: { sillM: 105.92 } }))), 'mend', project()],
  'network.way-out-built': [
    project(swap(but(SOUND[0], { status: 'built' }))),
    'mend',
    project([{ ...SOUND[0], status: 'built' }, { ...POND_SILL, status: 'built' }, CUT]),
  ],
  'network.bank-before-wall': [joined({ levels: { bankCrestM: 107 }, fuse: undefined }), 'mend', joined({})],
  'network.ready-again': [
    project([SOUND[0], but(PIPE, { form: 'riser', levels: { sillM: 105.5 }, dimensions: { diameterM: 0.03, mouthM: 0.1 } })]),
    'mend',
    project(SOUND, SMALL),
  ],
  'network.house-below': [project(SOUND, AT('building', 104, 40)), 'mend', project(SOUND, FAR)],
  'network.led-uphill': [ledTo({ ps: 'tank' }), 'mend', ledTo({ 'tank#over': 'pond' })],
  'network.wall-below': [
    project([
      but(ROAD, { levels: { roadM: 109.8, inletM: 109.2, outletM: 109.1, dipM: 109.8 } }),
      but(POND, { levels: { crestM: 106.1 } }),
      POND_SILL,
      CUT,
    ]),
    'weigh',
    project([ROAD, ...SOUND]),
  ],
};

describe('each check in the valley', () => {
  const all = [
    ...POND_RULES,
    ...CUT_RULES,
    ...TRENCH_RULES,
    ...PIPE_RULES,
    ...CROSSING_RULES,
    ...DIVERSION_RULES,
    ...PUMP_RULES,
    ...JOIN_RULES,
    ...NETWORK_RULES,
  ];
  testChecks(CASES, all);
  it('tells once of a work of several stores what is asked of their catchments, and whose ground it is, on no line of its own', () => {
    const on = project([DAMS], { ground: { ...project().ground!, isExample: true } });
    const all = found(on, 'ground.not-yours');
    expect(all.map((c) => [c.on, c.severity])).toEqual([['dams', 'mend']]);
    for (const id of ['runoff.time-method', 'runoff.losses-apart', 'rain.not-yours', 'rain.set-too-short'])
      expect(found(on, id).filter((c) => c.on !== 'dams')).toEqual([]);
    expect(found(on, 'runoff.time-method')).toHaveLength(1);
    expect(found(on, 'ground.rate-tested')).toHaveLength(1);
  });
  it('asks for what is not known: clay nobody has tested', () => {
    expect(found(project(swap(but(SOUND[0], { clayPercent: undefined }))), 'pond.clay')[0].severity).toBe('unknown');
  });
  it('stops calling a great dam a do-it-yourself work', () => {
    const [check] = found(
      project([
        but(POND, {
          wall: [
            [20, 81],
            [182, 81],
          ],
          levels: { crestM: 119.5 },
        }),
      ]),
      'pond.regulated',
    );
    expect(check.severity).toBe('mend');
    expect(check.do).toMatch(/not a do-it-yourself work.*engineer/);
  });
});
