import { describe, expect, it } from '@jest/globals';
import { checkFeature } from '#core/seen';
import { LEAVE, countOf, countWords, firstKind, groupsOf, kindsFor, offWords, takenAs } from './drawn.ts';

const shape = (name: string, group: string, form: 'point' | 'line' | 'ring') => ({
  name,
  group,
  form,
  points: Array.from({ length: form === 'point' ? 1 : 4 }, (_, k) => [k, k % 2] as const),
  levelsM: null,
});
const SHAPES = [
  shape('Barn', 'Houses', 'ring'),
  shape('Shed', 'Houses', 'ring'),
  shape('', 'Houses', 'point'),
  shape('Land', 'Property', 'ring'),
  shape('', '', 'line'),
  shape('Oak', 'Trees', 'point'),
];
let made = 0;
const idFor = (kind: string): string => `${kind}-${++made}`;

describe('what is drawn in a file', () => {
  const groups = groupsOf({ shapes: SHAPES });
  it('comes in groups that were filed together, are drawn alike and likely the same', () => {
    expect(groups.map((g) => [g.title, countWords(g), firstKind(g)])).toEqual([
      ['Houses', '2 areas', 'building'],
      ['Houses', '1 point', LEAVE],
      ['Property', '1 area', 'outline'],
      ['In no folder', '1 line', LEAVE],
      ['Trees', '1 point', 'tree'],
    ]);
    expect(groups.map((g) => g.names)).toEqual(['Barn, Shed', '', 'Land', '', 'Oak']);
    const many = ['a', 'b', 'b', 'c', 'd'].map((name) => shape(name, 'Trees', 'point'));
    expect(groupsOf({ shapes: many })[0].names).toBe('a, b, c …');
    // Two areas cannot both be the property line, and a line is no building.
    expect(kindsFor(groups[0]).map((k) => k.id)).not.toContain('outline');
    expect(kindsFor(groups[2]).map((k) => k.id)).toContain('outline');
    expect(kindsFor(groups[3]).map((k) => k.id)).not.toContain('building');
  });
  it('is taken as what is likely, or as was said; what is left out stays out', () => {
    const { features, outline } = takenAs(groups, new Map(), idFor);
    expect(features.map((f) => [f.kind, f.name, f.ring?.length ?? f.at])).toEqual([
      ['building', 'Barn', 4],
      ['building', 'Shed', 4],
      ['tree', 'Oak', [0, 0]],
    ]);
    expect(outline).toEqual(SHAPES[3].points);
    expect(new Set(features.map((f) => f.id)).size).toBe(3);
    const said = takenAs(groups, new Map([[groups[0].key, LEAVE], [groups[2].key, 'wood'], [groups[3].key, 'track']]), idFor); // prettier-ignore
    expect([said.features.map((f) => f.kind), said.outline]).toEqual([['wood', 'track', 'tree'], null]);
    // Every kind that can be chosen is one a document takes as it comes.
    for (const group of groups)
      for (const { id } of kindsFor(group))
        for (const feature of takenAs(groups, new Map(groups.map((g) => [g.key, g === group ? id : LEAVE])), idFor).features)
          expect([id, checkFeature(feature)]).toEqual([id, []]);
  });
  it('is counted as it is chosen, and by what of it lies off the ground', () => {
    const here = { ncols: 3, nrows: 3, cellM: 1, west: 0, south: 0 };
    const none = new Map(groups.map((g) => [g.key, LEAVE]));
    expect([countOf(groups, new Map(), here), countOf(groups, none, here)]).toEqual([{ taken: 4, off: 0 }, { taken: 0, off: 0 }]); // prettier-ignore
    // From its last corner on: the shapes reach from 0 to 3 east and 0 to 1 north, the points lie at 0.
    const sides = [{ west: 3, south: 0 }, { west: 3.01, south: 0 }, { west: -3, south: 0 }, { west: -3.01, south: 0 }, { west: 0, south: 1.01 }, { west: 0, south: -3.01 }]; // prettier-ignore
    expect(sides.map((at) => countOf(groups, new Map(), { ...here, ...at }).off)).toEqual([1, 4, 0, 4, 4, 4]);
    expect([offWords(1, 1), offWords(3, 3), offWords(1, 3), offWords(2, 3)]).toEqual([
      'It lies',
      'All 3 lie',
      '1 of these 3 lies',
      '2 of these 3 lie',
    ]);
    expect(countOf(groups, new Map(), null).off).toBe(0);
    expect(countOf(groups, new Map(), here).taken).toBe(takenAs(groups, new Map(), idFor).features.length + 1);
  });
  it('a walk keeps the corners that turn it, and no others', () => {
    const walk = { ...shape('', 'Tracks', 'line'), points: Array.from({ length: 500 }, (_, k) => [k, k < 250 ? 0 : k - 250] as const) };
    const [{ line }] = takenAs(groupsOf({ shapes: [walk] }), new Map(), idFor).features;
    expect(line!.length).toBeLessThan(6);
    expect([line![0], line![line!.length - 1]]).toEqual([walk.points[0], walk.points[499]]);
  });
});
