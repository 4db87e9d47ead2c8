// Point clouds: read by what the published layout says, held against another reader of the same files.
import { describe, expect, it } from '@jest/globals';
import { Las } from 'copc';
import fc from 'fast-check';
import type { UserError } from '../project/index.ts';
import { levelAt } from '../terrain/index.ts';
import { type Cloud, type CloudPoint, lasOf } from '../testing/las.ts';
import { type ImportHow, type ImportedTerrain, importFile } from './index.ts';

const read = async (cloud: Uint8Array, how: ImportHow = {}): Promise<ImportedTerrain> => (await importFile({ name: 'hill.las', bytes: cloud }, how)) as ImportedTerrain; // prettier-ignore
const refusal = (cloud: Uint8Array, how: ImportHow = {}): Promise<string> =>
  read(cloud, how).then(
    () => 'taken',
    (error: UserError) => error.problems.map((p) => `${p.code} ${p.what}`).join('; '),
  );

const [W, S] = [500_000, 5_000_000];
const plane = (x: number, y: number): number => 200 + 0.05 * (x - W) + 0.03 * (y - S);
/** Ground on a plane a metre and a half apart, trees 10 m over it, a withheld point of ground far below. */
function onPlane(ground: number, more: Partial<CloudPoint> = {}): CloudPoint[] {
  const points = Array.from({ length: 900 }, (_, k): CloudPoint => {
    const [x, y] = [W + 1.5 * (k % 30) + 0.3 * Math.sin(k), S + 1.5 * Math.floor(k / 30) + 0.3 * Math.cos(k)];
    const isTree = k % 7 === 3;
    return { x, y, z: plane(x, y) + (isTree ? 10 : 0), kind: isTree ? 5 : ground };
  });
  return [...points, { x: W + 20, y: S + 20, z: 150, kind: ground, isWithheld: true }, { ...points[0], ...more }];
}
const UTM33: Cloud['keys'] = [[1024, 1], [1025, 1], [3072, 32633], [4099, 9001]]; // prettier-ignore
const cloud = (more: Partial<Cloud> = {}): Cloud => ({ minor: 2, format: 1, points: onPlane(2), keys: UTM33, offset: [W, S, 0], ...more });
const off = ({ grid }: ImportedTerrain): number => Math.max(...[[10, 10], [20, 30], [33, 8]].map(([x, y]) => Math.abs(levelAt(grid, [W + x, S + y]) - plane(W + x, S + y)))); // prettier-ignore

describe('a point cloud', () => {
  it.each([0, 1, 2, 3, 6, 7, 8])('of format %i is the ground its ground points lie on, trees and withheld points left out', async (format) => {
    const found = await read(lasOf(cloud({ minor: format > 5 ? 4 : 2, format, extra: format % 2 })));
    expect(found.crs).toBe('EPSG:32633');
    expect(off(found)).toBeLessThan(0.01);
    expect(found.notes.join(' ')).toMatch(/Of 902 points 772 are ground; they were thinned to \d+, one in each square of 0\.25 m/);
    expect(found.known?.away).not.toBeNull();
  });

  it('before version 1.4 key points of a model are ground too; from format 6 class 8 is not', async () => {
    expect(off(await read(lasOf(cloud({ points: onPlane(8) }))))).toBeLessThan(0.01);
    expect(await refusal(lasOf(cloud({ minor: 4, format: 6, points: onPlane(8) })))).toMatch(/^las\.unclassified of its 902 points 0 are told to be ground/);
    expect(await refusal(lasOf(cloud({ points: onPlane(1) })))).toMatch(/^las\.unclassified/);
  });

  it('in words, in feet, in degrees, or in no system at all lies where it lies', async () => {
    const utm = 'PROJCS["WGS 84 / UTM zone 33N",GEOGCS["WGS 84",DATUM["WGS_1984",SPHEROID["WGS 84",6378137,298.257223563]]],PROJECTION["Transverse_Mercator"],UNIT["metre",1],AUTHORITY["EPSG","32633"]]';
    const words = await read(lasOf(cloud({ minor: 4, format: 6, keys: undefined, words: `COMPD_CS["both",${utm},VERT_CS["height",VERT_DATUM["d",2005],UNIT["US survey foot",0.304800609601219]]]` })));
    expect(words.crs).toBe('EPSG:32633');
    // Its levels are feet by their own words.
    expect(levelAt(words.grid, [W + 20, S + 30])).toBeCloseTo(plane(W + 20, S + 30) * (1200 / 3937), 2);
    const none = await read(lasOf(cloud({ keys: undefined })));
    expect([none.crs, off(none) < 0.01]).toEqual([null, true]);
    // In degrees, about 15 E on the zone's middle: a step of 1e-5 is 1.11 m north.
    const degrees = onPlane(2).map((p) => ({ ...p, x: 15 + (p.x - W) * 1e-5, y: 45 + (p.y - S) * 1e-5 }));
    const flat = await read(lasOf(cloud({ points: degrees, keys: [[1024, 2], [2048, 4326]], scale: [1e-8, 1e-8, 0.001], offset: [15, 45, 0] })));
    expect(flat.crs).toBe('EPSG:32633');
    expect(flat.grid.nrows * flat.grid.cellM).toBeGreaterThan(46);
    expect(flat.grid.nrows * flat.grid.cellM).toBeLessThan(51);
    expect(await refusal(lasOf(cloud({ points: degrees, keys: undefined, scale: [1e-8, 1e-8, 0.001], offset: [15, 45, 0] })))).toMatch(/^crs\.degrees/);
    // Feet in plan, and nobody says what its levels are.
    const feet = lasOf(cloud({ points: onPlane(2).map((p) => ({ ...p, x: 6_000_000 + (p.x - W) / 0.3048, y: 2_000_000 + (p.y - S) / 0.3048 })), keys: [[1024, 1], [3072, 2227]], offset: [6_000_000, 2_000_000, 0] }));
    expect(await refusal(feet)).toMatch(/^levels\.doubtful/);
    const laid = await read(feet, { levelsIn: 'm' });
    expect(laid.crs).toMatch(/^EPSG:326\d\d$/);
    expect(Math.abs(laid.grid.nrows * laid.grid.cellM - 44)).toBeLessThan(4);
    expect(await refusal(lasOf(cloud({ keys: [[1024, 1]] })))).toMatch(/^crs\.unknown/);
    // In degrees by its own word, and no place on earth.
    expect(await refusal(lasOf(cloud({ keys: [[1024, 2], [2048, 4326]] })))).toMatch(/^las\.nowhere its points lie nowhere on earth/);
    expect(await refusal(lasOf(cloud({ keys: [[1024, 2], [2048, 4230]] })))).toMatch(/^crs\.datum/);
  });

  it('packed, cut short, or saying of itself what is not so, is refused in words', async () => {
    const sound = lasOf(cloud());
    const with_ = (change: (view: DataView, bytes: Uint8Array) => void): Uint8Array => {
      const bytes = sound.slice();
      change(new DataView(bytes.buffer), bytes);
      return bytes;
    };
    expect(await refusal(with_((v) => v.setUint8(104, 0x81)))).toMatch(/^las\.packed its points are packed \(LAZ\)/);
    expect(await refusal(with_((_, b) => b.set(new TextEncoder().encode('laszip encoded\0'), 229)))).toMatch(/^las\.packed/);
    expect(await refusal(sound.slice(0, -1))).toMatch(/^las\.spoilt .*902 points of 28 bytes are more than the file holds/);
    expect(await refusal(sound.slice(0, 300))).toMatch(/^las\.spoilt/);
    expect(await refusal(with_((v) => v.setUint8(25, 5)))).toMatch(/version 1\.5/);
    expect(await refusal(with_((v) => v.setUint16(105, 19, true)))).toMatch(/points of format 1 in 19 bytes/);
    expect(await refusal(with_((v) => v.setFloat64(131, NaN, true)))).toMatch(/no number/);
    // Ten times as large as it says: outside of its own box.
    expect(await refusal(with_((v) => v.setFloat64(131, 0.1, true)))).toMatch(/^las\.box some of its points lie outside the box it says they lie in, 499999\.7 to 500043\.8 east/);
    const stray = { x: W + 1, y: S + 1, z: -3000, kind: 2 };
    expect(await refusal(lasOf(cloud({ points: [...onPlane(2), stray] })))).toMatch(/^survey\.level a level of -3000 m is far from all the others/);
    expect(await refusal(new TextEncoder().encode('LASF but no more'))).toMatch(/^las\.spoilt .*does not begin as one/);
  });

  it('property: another reader finds the same header, places and classes in it; spoilt, it is refused in words or taken', async () => {
    const point = fc.record({ x: fc.integer({ min: 0, max: 9000 }), y: fc.integer({ min: 0, max: 9000 }), z: fc.integer({ min: -500, max: 500 }), kind: fc.constantFrom(1, 2, 2, 2, 5), isWithheld: fc.boolean() });
    const format = fc.constantFrom(0, 1, 2, 3, 6, 7, 8);
    const change = fc.array(fc.tuple(fc.double({ min: 0, max: 0.9999, noNaN: true }), fc.nat(255)), { maxLength: 4 });
    await fc.assert(
      fc.asyncProperty(fc.array(point, { minLength: 6, maxLength: 30 }), format, change, async (list, of, spoils) => {
        const points = list.map((p) => ({ ...p, x: W + p.x / 100, y: S + p.y / 100, z: 200 + p.z / 1000 }));
        const bytes = lasOf({ minor: of > 5 ? 4 : 2, format: of, points, offset: [W, S, 0], keys: UTM33 });
        const header = Las.Header.parse(bytes);
        expect([header.pointCount, header.pointDataRecordFormat, header.vlrCount]).toEqual([points.length, of, 1]);
        expect(header.max[0]).toBeCloseTo(Math.max(...points.map((p) => p.x)), 6);
        const view = Las.View.create(bytes.slice(header.pointDataOffset), header);
        const [x, z, kind] = ['X', 'Z', 'Classification'].map((name) => view.getter(name));
        points.forEach((p, k) => expect([x(k), z(k), kind(k) & 0x1f]).toEqual([expect.closeTo(p.x, 6), expect.closeTo(p.z, 6), p.kind]));
        const ground = points.filter((p) => p.kind === 2 && !p.isWithheld).length;
        const said = await refusal(bytes);
        if (ground < 3) expect(said).toMatch(/^las\.unclassified/);
        else expect(said).toMatch(/^(taken|survey\.(in-line|few|level))/);
        const part = bytes.slice();
        for (const [at, to] of spoils) part[Math.floor(at * part.length)] = to;
        expect(await refusal(part)).not.toMatch(/^outlet\.internal/);
      }),
      { numRuns: 250, seed: 23 },
    );
  });
}); // prettier-ignore
