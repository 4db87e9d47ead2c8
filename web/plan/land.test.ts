import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import LineString from 'ol/geom/LineString.js';
import { LAYERS, type Section } from '#core/derive';
import { SLOPE_CLASSES, contourLines, levelsEvery } from '#core/terrain';
import { plane } from '../../core/testing/grids.ts';
import { planeProject } from '../../core/testing/projects.ts';
import { SEEN_KINDS } from '#core/seen';
import { startHistory } from '#core/commands';
import { setLand, useLand } from '../app/land.ts';
import { useApp } from '../app/store.ts';
import { THEMES } from '../app/theme.ts';
import { contourFeatures, niceInterval } from './contours.ts';
import { planItems } from './items.ts';
import { landItems, nearestInSection } from './land-items.ts';
import { OVERLAYS } from './overlay.ts';
import { itemStyle } from './styles.ts';
import { TOOLS } from './tools.ts';
import Feature from 'ol/Feature.js';

const themes = Object.values(THEMES);
const drawing = (project = planeProject()) => ({
  project,
  result: null,
  selected: null,
  levelText: String,
  flowText: String,
  showPegs: false,
});

describe('layers', () => {
  it('each has a title, an explanation and a legend without doubles, in every theme and both unit systems', () => {
    for (const layer of LAYERS)
      for (const theme of themes)
        for (const system of ['metric', 'us'] as const) {
          const { title, says, legend } = OVERLAYS[layer].style(theme, system);
          expect(title.length).toBeGreaterThan(3);
          expect(says.length).toBeGreaterThan(20);
          expect(legend.length).toBeGreaterThan(2);
          expect(new Set(legend.map((l) => l.label)).size).toBe(legend.length);
          for (const { colour } of legend) expect(colour).toMatch(/^rgba\(\d+,\d+,\d+,[\d.]+\)$/);
        }
  });
  it('colours every value in range of a byte, or leaves the ground as it is', () => {
    fc.assert(
      fc.property(fc.constantFrom(...LAYERS), fc.double({ min: -5, max: 1e6, noNaN: true }), (layer, value) => {
        const v = layer === 'aspect' ? Math.abs(value) % 360 : layer === 'slope' ? Math.abs(value) : value;
        const colour = OVERLAYS[layer].style(THEMES.paper, 'metric').colour(v);
        if (colour) for (const c of colour) expect(c).toBeGreaterThanOrEqual(0);
        if (colour) for (const c of colour) expect(c).toBeLessThanOrEqual(255);
      }),
      { seed: 71 },
    );
  });
  it('paints a slope in the colour its legend line has', () => {
    const { colour, legend } = OVERLAYS.slope.style(THEMES.paper, 'metric');
    SLOPE_CLASSES.forEach((c, k) => {
      const slope = Number.isFinite(c.toSlope) ? c.toSlope - 0.001 : 2;
      const [r, g, b] = colour(slope) ?? [0, 0, 0];
      expect(legend[k].colour.startsWith(`rgba(${r},${g},${b},`)).toBe(true);
      expect(legend[k].says).toBe(c.says);
    });
  });
  it('leaves dry ground unpainted and paints more for more', () => {
    const { colour } = OVERLAYS.area.style(THEMES.paper, 'metric');
    expect(colour(100)).toBeNull();
    expect(colour(1e6)?.[3]).toBeGreaterThan(colour(600)?.[3] ?? 0);
    expect(OVERLAYS.plan.style(THEMES.paper, 'metric').colour(0)).toBeNull();
    expect(OVERLAYS.hollows.style(THEMES.paper, 'metric').colour(0.01)).toBeNull();
  });
});

describe('contours on the plan', () => {
  it('fall on round levels of the reader’s own unit, about forty over the relief', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 1500, noNaN: true }), fc.constantFrom('metric' as const, 'us' as const), (relief, system) => {
        const interval = niceInterval(relief, system);
        const shown = system === 'metric' ? interval : interval / 0.3048;
        expect([0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100].some((v) => Math.abs(v - shown) < 1e-9)).toBe(true);
        if (shown < 99) expect(relief / interval).toBeLessThanOrEqual(40.0001);
      }),
      { seed: 72 },
    );
  });
  it('label each fifth in that unit and no other', () => {
    const grid = plane(0.1, -90);
    const feet = niceInterval(20, 'us');
    const features = contourFeatures(contourLines(grid, levelsEvery(grid, feet)), feet, 'us');
    const labels = features.map((f) => f.get('label') as string).filter((l) => l !== '');
    expect(labels.length).toBeGreaterThan(2);
    for (const label of labels) expect(Number(label) % 10).toBeCloseTo(0, 6);
    expect(features.filter((f) => f.get('isIndex') === true)).toHaveLength(labels.length);
  });
});

describe('what was seen, on the plan', () => {
  it('every kind has a tool, a shape of its own effect and a style in every theme', () => {
    for (const kind of SEEN_KINDS) {
      expect(TOOLS[kind.kind]).toMatchObject({ group: 'seen', name: kind.title, least: kind.shape === 'point' ? 1 : 2 });
      const shape =
        kind.shape === 'point'
          ? { at: [50, 50] as const }
          : {
              line: [
                [20, 20],
                [60, 60],
              ] as [number, number][],
            };
      const [item] = planItems(drawing(planeProject({ features: [{ id: 'f', kind: kind.kind, name: kind.title, ...shape }] }, []))).filter(
        (i) => i.id === 'feature:f',
      );
      expect(item.look.label).toBe(kind.title);
      for (const theme of themes) {
        const feature = new Feature(item.geometry);
        feature.set('look', item.look);
        expect(itemStyle(feature, 1, theme).length).toBeGreaterThan(0);
      }
    }
  });
  it('every tool says what to do, and its points suffice to finish it', () => {
    for (const [id, tool] of Object.entries(TOOLS)) {
      expect(tool.hint.length).toBeGreaterThan(10);
      expect(tool.most ?? tool.least).toBeGreaterThanOrEqual(tool.least);
      expect(['first', 'work', 'draw', 'seen', 'ask', 'suits']).toContain(tool.group);
      expect(id).not.toContain(':');
    }
  });
});

describe('answers on the plan', () => {
  const section: Section = {
    points: [0, 10, 20].map((atM) => ({ atM, levelM: 100 - atM / 10, at: [atM, 0] as [number, number] })),
    lengthM: 20,
    fallM: 2,
    ends: 'line',
  };
  const nothing = { places: null, shown: null, answer: null, storage: null, fallLine: null, from: [], live: [] };
  it('a section is linked with places near it only', () => {
    expect(nearestInSection(section, [9, 1])?.atM).toBe(10);
    expect(nearestInSection(section, [9, 40])).toBeNull();
    expect(nearestInSection({ ...section, points: [] }, [0, 0])).toBeNull();
  });
  it('show what gauges say where their stores stand, doubted ones as such, and nothing once they are not watched', () => {
    const live = [
      { id: 'a', at: [1, 2], text: '72 %', isBelieved: true },
      { id: 'b', at: [3, 4], text: 'silent; 4 s ago 10 %', isBelieved: false },
    ] as const;
    expect(landItems({ ...nothing, live }).map((i) => [i.id, i.look])).toEqual([
      ['live:a', { role: 'live', label: '72 %' }],
      ['live:b', { role: 'live-doubted', label: 'silent; 4 s ago 10 %' }],
    ]);
  });
  it('draw the section, the wall with its water, the contour and the places, each once', () => {
    expect(landItems(nothing)).toEqual([]);
    const wall = landItems({
      ...nothing,
      shown: { title: 'x', section },
      answer: {
        kind: 'wall',
        line: [
          [0, 0],
          [10, 0],
        ],
      },
      storage: {
        ring: [
          [0, 0],
          [10, 0],
          [10, 10],
        ],
      },
    });
    expect(wall.map((i) => i.look.role)).toEqual(['section', 'hollow-water', 'wall']);
    const contour = landItems({
      ...nothing,
      answer: {
        kind: 'contour',
        levelM: 3,
        line: [
          [0, 0],
          [5, 5],
        ],
      },
    });
    expect(contour[0].geometry).toBeInstanceOf(LineString);
    const places = landItems({
      ...nothing,
      places: {
        valleys: [
          {
            points: [
              [0, 0],
              [5, 5],
            ],
            areaM2: 10,
          },
        ],
        ridges: [
          {
            points: [
              [0, 0],
              [5, 5],
            ],
          },
        ],
        places: [
          {
            kind: 'choke',
            at: [1, 1],
            levelM: 0,
            areaM2: 1,
            score: 1,
            facts: {},
            wall: [
              [0, 0],
              [2, 2],
            ],
          },
        ],
      },
    });
    expect(places.map((i) => i.look.role)).toEqual(['ridge', 'valley', 'wall', 'choke']);
    expect(new Set(places.map((i) => i.id)).size).toBe(places.length);
  });
});

describe('what the land answered', () => {
  it('is put away when another property is opened, and stays through an edit of the same', () => {
    const place = { ring: [[0, 0], [9, 0], [9, 9]] } as const; // prettier-ignore
    const open = (id: string, name = 'Plane'): void => useApp.setState({ history: startHistory({ ...planeProject(), id, name }) });
    open('first');
    setLand({ answer: { kind: 'advice', place } });
    open('first', 'Renamed');
    expect(useLand.getState().answer).toEqual({ kind: 'advice', place });
    open('second');
    expect(useLand.getState().answer).toBeNull();
  });
});
