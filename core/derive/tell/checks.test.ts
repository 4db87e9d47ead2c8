import { describe, expect, it } from '@jest/globals';
import type { Feature, WorkBase } from '../../contract/index.ts';
import { type Fixtures, found, testChecks } from '../../testing/checks.ts';
import { LIP_M, SILL, SWALE, planeLevels, planeProject } from '../../testing/projects.ts';
import { EXIT_RULES, GROUND_RULES, KNOWN_RULES, RAIN_RULES, WAY_RULES } from '../../checks/index.ts';
import type { Project, Rain } from '../../project/index.ts';
import type { DesignStorm, RainTable } from '../../rain/index.ts';
import { SILL_RULES } from '../../works/level-sill/index.ts';
import { JOIN_RULES, SWALE_RULES } from '../../works/swale/index.ts';

const BIG = { ...SWALE, levels: { floorM: LIP_M - 0.5, bankCrestM: LIP_M + 0.35 }, dimensions: { ...SWALE.dimensions, floorWidthM: 3 } };
const GOOD_SILL = { ...SILL, dimensions: { lengthM: 10, crestWidthM: 1.2 } };
const HOUSE = (x: number, y: number) => ({
  id: 'h',
  kind: 'building',
  ring: [
    [x, y],
    [x + 8, y],
    [x + 8, y + 6],
    [x, y + 6],
  ] as [number, number][],
});
const AREA = (kind: string, x: number, y: number): Feature => ({ ...HOUSE(x, y), id: 'a', kind });
const ROAD = (x0: number, x1: number): Feature => ({
  id: 'r',
  kind: 'road',
  line: [
    [x0, 60],
    [x1, 60],
  ],
});
/** A plane with a ridge right across above the swale, so that its catchment ends inside the map. */
const ridged = planeLevels().map((z, i) => {
  const y = (101 - Math.floor(i / 101) - 0.5) * 2;
  const beyond = Math.max(0, y - 150);
  return z - 0.3 * beyond;
});

const works = (swale: object = {}, sill: object = {}, more: WorkBase[] = []): WorkBase[] =>
  [{ ...BIG, ...swale }, { ...GOOD_SILL, ...sill }, ...more] as WorkBase[];
const project = (w: WorkBase[] = works(), change: Partial<Project> = {}): Project => {
  const base = planeProject(change, w);
  return base.terrain && 'z' in base.terrain
    ? { ...base, terrain: { ...base.terrain, z: change.terrain && 'z' in change.terrain ? change.terrain.z : ridged } }
    : base;
};
const SECOND = (levelM: number): WorkBase => ({ ...GOOD_SILL, id: 's2', name: 'Second', atM: 60, levels: { sillM: levelM } }) as WorkBase;
const SMALL_STORM = {
  rain: { table: { durationsMin: [60], returnYears: [2], depthMm: [[20]] }, storm: { returnYears: 2, durationMin: 60 } },
};
const low = (levelM: number) => ({ lowPlaces: [{ atM: 84, lengthM: 6, levelM }] });

/** For each rule: a project in which it says so, and one in which it is silent or content. */
/** A daily gauge's table. */
const DAILY: RainTable = {
  durationsMin: [1440, 2880],
  returnYears: [2, 20],
  depthMm: [
    [60, 70],
    [90, 104],
  ],
};
const TABLE_TO_A_DAY = {
  durationsMin: [10, 60, 1440],
  returnYears: [2, 20],
  depthMm: [
    [12, 25, 45],
    [20, 42, 80],
  ],
};
/** The same rain, judged by the worst of a set. */
const asSet = ({ storm: { returnYears }, ...rain }: Rain): Rain => ({ ...rain, storm: { returnYears } });
const rainOf = (storm: Partial<DesignStorm>, rain: Partial<Rain> = {}): Partial<Project> => {
  const base = planeProject().rain as Rain;
  return { rain: { ...base, ...rain, storm: { ...base.storm, ...storm } } };
};

const CASES: Fixtures = {
  'swale.way-out': [project([BIG] as WorkBase[]), 'mend', project()],
  'swale.low-bank': [project(works(low(LIP_M - 0.045))), 'mend', project()],
  'swale.bank-freeboard': [project(works({ levels: { floorM: LIP_M - 0.1, bankCrestM: LIP_M + 0.06 } })), 'mend', project()],
  'swale.far-end': [
    planeProject({}, works({ dimensions: { ...SWALE.dimensions, floorWidthM: 0.3 } }, { atM: 6 })),
    'weigh',
    project(works({}, { atM: 70 })),
  ],
  'swale.held-volume': [
    project(works({ levels: { floorM: LIP_M - 0.1, bankCrestM: LIP_M + 0.3 } })),
    'weigh',
    project(works(), SMALL_STORM),
  ],
  'swale.drain-down': [project(works(), { ground: { ...planeProject().ground!, infiltrationMmPerHour: 1 } }), 'mend', project()],
  'swale.ground-slope': [
    planeProject(
      { terrain: { ...planeProject().terrain!, z: planeLevels(0.25) } as Project['terrain'] },
      works({ levels: { floorM: 124.75, bankCrestM: 125.6 } }, { levels: { sillM: 125.25 } }),
    ),
    'mend',
    project(),
  ],
  'swale.cut-daylight': [
    planeProject(
      { terrain: { ...planeProject().terrain!, z: planeLevels(0.35) } as Project['terrain'] },
      works(
        { levels: { floorM: 134.85, bankCrestM: 135.7 }, dimensions: { ...BIG.dimensions, sideSlopeHV: 3 } },
        { levels: { sillM: 135.35 } },
      ),
    ),
    'mend',
    project(),
  ],
  'swale.soil-depth': [project(works(), { ground: { ...planeProject().ground!, soilDepthM: 0.4 } }), 'mend', project()],
  'swale.on-contour': [
    project(
      works({
        line: [
          [32, 101],
          [172, 108],
        ],
      }),
    ),
    'mend',
    project(),
  ],
  'swale.ends': [project(works({ levels: { floorM: LIP_M - 0.5, bankCrestM: LIP_M + 2 } })), 'weigh', project()],
  'swale.earth-balance': [project(works({ levels: { floorM: LIP_M - 0.1, bankCrestM: LIP_M + 0.9 } })), 'weigh', project()],
  'swale.building-distance': [project(works(), { features: [HOUSE(90, 93)] }), 'mend', project(works(), { features: [HOUSE(20, 40)] })],
  'swale.well-distance': [
    project(works(), { features: [{ id: 'w', kind: 'well', at: [100, 96] }] }),
    'mend',
    project(works(), { features: [{ id: 'w', kind: 'well', at: [20, 20] }] }),
  ],
  'swale.septic-distance': [
    project(works(), { features: [AREA('septic', 90, 90)] }),
    'mend',
    project(works(), { features: [AREA('septic', 20, 20)] }),
  ],
  'swale.boundary-distance': [
    project(
      works({
        line: [
          [4, 101],
          [172, 101],
        ],
      }),
    ),
    'mend',
    project(),
  ],
  'swale.track-crossing': [
    project(works(), {
      features: [
        {
          id: 't',
          kind: 'track',
          line: [
            [60, 60],
            [60, 140],
          ],
        },
      ],
    }),
    'weigh',
    project(works(), {
      features: [
        {
          id: 't',
          kind: 'track',
          line: [
            [60, 60],
            [60, 90],
          ],
        },
      ],
    }),
  ],
  'swale.catchment-edge': [
    planeProject({}, works()),
    'weigh',
    project(
      works(
        {
          line: [
            [80, 101],
            [120, 101],
          ],
        },
        { atM: 20 },
      ),
    ),
  ],
  'sill.length': [project(works({}, { dimensions: { lengthM: 1, crestWidthM: 1 } })), 'mend', project()],
  'sill.exit-velocity': [project(works({}, { dimensions: { lengthM: 0.8, crestWidthM: 1 } })), 'mend', project()],
  'sill.cover-below': [project(works(), { ground: { ...planeProject().ground!, cover: 'bare' } }), 'weigh', project()],
  'sill.second-step': [project(works({}, {}, [SECOND(LIP_M + 0.03)])), 'mend', project(works({}, {}, [SECOND(LIP_M + 0.2)]))],
  'sill.below-bank': [project(works({}, { levels: { sillM: LIP_M + 0.3 } })), 'mend', project()],
  'sill.above-floor': [project(works({}, { levels: { sillM: LIP_M - 0.55 } })), 'mend', project()],
  'sill.out-of-level': [
    project(works({}, { asFound: { lowM: LIP_M - 0.02, highM: LIP_M + 0.02 } })),
    'mend',
    project(works({}, { asFound: { lowM: LIP_M, highM: LIP_M + 0.005 } })),
  ],
  'sill.on-fill': [project(works({}, { levels: { sillM: LIP_M + 0.15 } })), 'mend', project()],
  'sill.crest-width': [project(works({}, { dimensions: { lengthM: 10, crestWidthM: 0.5 } })), 'weigh', project()],
  'sill.place': [project(works({}, { atM: 2 })), 'weigh', project()],
  'way.neighbour': [project(works({ levels: { floorM: LIP_M - 0.1, bankCrestM: LIP_M + 0.5 } })), 'weigh', project(works(), SMALL_STORM)],
  'way.building': [project(works(), { features: [HOUSE(148, 60)] }), 'mend', project(works(), { features: [HOUSE(20, 40)] })],
  'rain.peak-before-table': [project(works(), rainOf({}, { table: DAILY })), 'mend', project()],
  'rain.storm-beyond-table': [project(works(), rainOf({ durationMin: 720 })), 'weigh', project()],
  'rain.one-storm': [project(), 'weigh', project(works(), { rain: asSet(planeProject().rain as Rain) })],
  'rain.set-too-short': [
    project(works(), { rain: asSet(planeProject().rain as Rain) }),
    'weigh',
    project(works(), { rain: asSet({ ...(planeProject().rain as Rain), table: { ...TABLE_TO_A_DAY } }) }),
  ],
  'rain.not-yours': [project(works(), rainOf({}, { basis: 'simulated' })), 'mend', project()],
  'rain.guess': [project(works(), rainOf({}, { basis: 'memory' })), 'weigh', project()],
  'rain.even': [
    project(works(), rainOf({ shape: { kind: 'uniform' } })),
    'weigh',
    project(works(), rainOf({ shape: { kind: 'own', name: '', stepMin: 2, stepsMm: [3, 9, 4] } })),
  ],
  'runoff.time-method': [project(works(), { runoff: { time: 'kirpich' } }), 'weigh', project()],
  'runoff.peak-method': [project(works(), { runoff: { peak: 'graphical' } }), 'weigh', project(works(), { runoff: { peak: 'rational' } })],
  'runoff.losses-apart': [
    project(works(), { ground: { ...planeProject().ground!, infiltrationMmPerHour: 200, texture: { id: 'sand', by: 'shares' } as never } }),
    'weigh',
    project(works(), { ground: { ...planeProject().ground!, cover: 'paved' } }),
  ],
  'runoff.soil-full': [
    project(works(), { ground: { ...planeProject().ground!, soilDepthM: 0.1 }, runoff: { loss: 'green-ampt' } }),
    'weigh',
    project(works(), { ground: { ...planeProject().ground!, soilDepthM: 0.1 } }),
  ],
  'ground.not-yours': [project(works(), { ground: { ...planeProject().ground!, isExample: true } }), 'mend', project()],
  'terrain.not-yours': [project(works(), { terrain: { ...planeProject().terrain!, isMadeUp: true } }), 'mend', project()],
  'ground.known': [
    project(works(), { terrain: { ...planeProject().terrain!, surveys: [{ name: 'phone', levelsM: 3 }] } }),
    'weigh',
    project(works(), { terrain: { ...planeProject().terrain!, surveys: [{ name: 'staff', levelsM: 0.01 }] } }),
  ],
  'ground.rate-tested': [project(), 'unknown', project(works(), { ground: { ...planeProject().ground!, rateFrom: 't1' } })],
  'ground.silt': [
    project(works(), { ground: { ...planeProject().ground!, cover: 'bare', erosion: { annualMm: 1400 } } }),
    'mend',
    project(works(), { ground: { ...planeProject().ground!, cover: 'pasture-good', erosion: { annualMm: 600 } } }),
  ],
  'way.well': [
    project(works(), { features: [{ id: 'w', kind: 'well', at: [150, 60] }] }),
    'mend',
    project(works(), { features: [{ id: 'w', kind: 'well', at: [20, 40] }] }),
  ],
  'way.septic': [
    project(works(), { features: [AREA('septic', 148, 60)] }),
    'mend',
    project(works(), { features: [AREA('septic', 20, 40)] }),
  ],
  'way.pool': [project(works(), { features: [AREA('pool', 148, 60)] }), 'mend', project(works(), { features: [AREA('pool', 20, 40)] })],
  'way.road': [project(works(), { features: [ROAD(20, 190)] }), 'weigh', project(works(), { features: [ROAD(20, 60)] })],
  // Water led out of another's catchment: a bank turns ground above it to the swale's sill.
  'network.exit-peak': [
    project(works({ levels: { floorM: LIP_M - 0.02, bankCrestM: LIP_M + 0.5 } }, { dimensions: { lengthM: 60, crestWidthM: 1 } }), {
      features: [{ id: 's', kind: 'spring', at: [100, 104], flowM3s: 0.4 }],
    }),
    'mend',
    project(works({ levels: { floorM: LIP_M - 0.6, bankCrestM: LIP_M + 0.5 } }), SMALL_STORM),
  ],
  'way.terrain-edge': [project(works(), { site: { crs: null, outline: [], zeroLevelM: 0 } }), 'weigh', project()],
};

describe('each check', () => {
  // Rules of joined swales, ponds and all that lets them out stand in a valley: checks-valley.test.ts.
  const all = [...SWALE_RULES, ...SILL_RULES, ...WAY_RULES, ...RAIN_RULES, ...GROUND_RULES, ...KNOWN_RULES, ...EXIT_RULES].filter(
    (r) => !JOIN_RULES.includes(r as never),
  );
  testChecks(CASES, all);
  it('knows that a finished sill has not been levelled yet', () => {
    expect(found(project(works({}, { status: 'built' })), 'sill.out-of-level')[0].severity).toBe('unknown');
  });
  it('does not judge by a ground that nobody has described', () => {
    const bare = planeProject({ ground: null }, works());
    expect(found(bare, 'swale.ground-slope')[0].severity).toBe('fine');
    for (const id of ['swale.drain-down', 'swale.soil-depth', 'sill.cover-below', 'sill.length'])
      expect(found(bare, id)).toMatchObject([{ severity: 'unknown', value: null, do: expect.stringContaining('Describe the ground') }]);
  });
});
