// What is not known is judged by nobody: no rain or ground is ever taken as nought or as some usual one.
import { describe, expect, it } from '@jest/globals';
import type { Check, WorkBase } from '../../contract/index.ts';
import { type Project, emptyProject } from '../../project/index.ts';
import { SILL, SWALE, derived, planeProject } from '../../testing/projects.ts';
import { EVERY_KIND, POND, valleyProject } from '../../testing/valley.ts';
import { registry } from '../../works/index.ts';

const ALL: readonly WorkBase[] = [
  ...EVERY_KIND,
  {
    ...POND,
    id: 'bare',
    name: 'No way out',
    status: 'built',
    wall: [
      [85, 171],
      [117, 171],
    ],
    levels: { crestM: 110.5, floorM: 108 },
  } as WorkBase,
];
const { rain: RAIN, ground: GROUND } = planeProject();
const WET: Project['rain'] = { ...RAIN!, table: { ...RAIN!.table, depthMm: RAIN!.table.depthMm.map((row) => row.map((d) => 2.5 * d)) } };
const HARD: Project['ground'] = { ...GROUND!, cover: 'bare', soilGroup: 'D', infiltrationMmPerHour: 1, soilDepthM: 0.3 };
/** Drawn, so that who lies below is known. */
const HUT = {
  id: 'h',
  kind: 'building',
  ring: [
    [60, 60],
    [66, 60],
    [66, 66],
  ],
} as const;
const valley = (change: Partial<Project>): Project => valleyProject(ALL, { features: [HUT], ...change });
/** Right across below: whatever comes down meets it. */
const LANE = { id: 'lane', kind: 'track', line: [[0, 40], [202, 40]] } as const; // prettier-ignore
const plane = (change: Partial<Project>): Project =>
  planeProject({ features: [LANE], ...change }, [SWALE, SILL, { ...SILL, id: 's2', atM: 60, levels: { sillM: 110.2 } } as WorkBase]);

const checksOf = (p: Project): readonly Check[] => derived(p).derived.checks;
/** What is judged, by rule and work; a rule may judge several places, and says the same of two only once. */
const judged = (checks: readonly Check[]): Map<string, string> => {
  const found = new Map<string, string>();
  for (const { id, on, severity, value, limit } of checks) {
    const key = `${id} ${on}`;
    const said = `|${severity} ${value} ${limit}`;
    const before = found.get(key) ?? '';
    if (!before.includes(said)) found.set(key, `${before}${said}`);
  }
  return found;
};

describe.each([
  ['in the valley', valley],
  ['on the plane', plane],
])('what is not known, %s', (_, project) => {
  it('has a work of every kind between the two', () => {
    const kinds = new Set([...ALL, SWALE, SILL].map((w) => w.kind));
    expect([...kinds].sort()).toEqual([...registry.kinds].sort());
  });
  it.each([
    ['rain', { rain: null }, { rain: WET }],
    ['ground', { ground: null }, { ground: HARD }],
  ])('what changes with the %s is unknown without it, and what does not is judged alike', (_what, without, other) => {
    const [here, there, lacking] = [project({}), project(other), project(without)].map((p) => judged(checksOf(p)));
    const moved = [...here].filter(([key, found]) => there.get(key) !== found).map(([key]) => key);
    expect(moved.length).toBeGreaterThan(5);
    for (const key of moved) {
      const found = lacking.get(key);
      // Either it is called unknown or, where nothing could be said of it at all, it is not there.
      if (found !== undefined) expect(`${key} ${found}`).toMatch(/\|unknown null null$/);
    }
    for (const [key, found] of lacking) if (!found.includes('unknown')) expect([key, here.get(key)]).toEqual([key, found]);
  });
  it('every rule of the storm says so, and what to give', () => {
    const whole = checksOf(project({}));
    const full = new Set(whole.map((c) => `${c.id} ${c.on}`));
    // What nobody knows, rain and ground or not: who lives below, what something stands on.
    const anyway = new Set(whole.flatMap((c) => (c.severity === 'unknown' ? [`${c.id} ${c.on}`] : [])));
    for (const [without, word] of [
      [{ rain: null }, 'Give the rain'],
      [{ ground: null }, 'Describe the ground'],
    ] as const) {
      const unknown = checksOf(project(without)).filter(
        (c) => c.severity === 'unknown' && c.value === null && c.limit === null && !anyway.has(`${c.id} ${c.on}`),
      );
      expect(unknown.length).toBeGreaterThan(5);
      for (const c of unknown) expect(c.do).toContain(word);
      const there = new Set(checksOf(project(without)).map((c) => `${c.id} ${c.on}`));
      const gone = [...full].filter((key) => !there.has(key) && /freeboard|velocity|length|neighbour|apron|relief|drain-down/.test(key));
      expect(gone).toEqual([]);
    }
  });
  it('no figure of a flow is told, and no way out is called dry', () => {
    const { derived: d, view } = derived(project({ rain: null }));
    expect(d.links.length).toBeGreaterThan(0);
    for (const link of d.links) expect([link.volumeM3, link.peakM3s]).toEqual([null, null]);
    expect(d.outlets).toEqual([]);
    // A figure that another rain would change is not told either.
    const figuresOf = (change: Partial<Project>): Map<string, number | null> =>
      new Map(
        Object.entries(derived(project(change)).view.figures).flatMap(([w, list]) => list.map((f) => [`${w} ${f.id}`, f.value] as const)),
      );
    const [here, wet] = [figuresOf({}), figuresOf({ rain: WET })];
    const told = new Map<string, number | null>(
      Object.entries(view.figures).flatMap(([w, list]) => list.map((f) => [`${w} ${f.id}`, f.value] as const)),
    );
    const moved = [...here].filter(([key, value]) => wet.get(key) !== value).map(([key]) => key);
    expect(moved.length).toBeGreaterThan(1);
    // The freeboard waves need grows with open water: at full water it is known without a storm.
    for (const key of moved) if (!key.endsWith('freeboardNeededM')) expect([key, told.get(key) ?? null]).toEqual([key, null]);
  });
});

it('an empty project has nothing to judge', () => {
  expect(checksOf(emptyProject('e', 'Empty'))).toEqual([]);
});
