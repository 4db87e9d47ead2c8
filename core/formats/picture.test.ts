// Pictures under the plan: written by an independent program (fixtures/README.md), and each way one is refused.
import { describe, expect, it } from '@jest/globals';
import { decode, encode } from 'fast-png';
import { strToU8, zipSync } from 'fflate';
import { writeArrayBuffer } from 'geotiff';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { derive } from '../derive/index.ts';
import { type Laying, type Pinned, type Point, laidAt } from '../geometry/index.ts';
import { type Picture, type Project, UserError, assetName, assetsOf, layingOf, workedAssetsOf } from '../project/index.ts';
import { readProject } from '../project/guard.ts';
import { noGrid, planeProject } from '../testing/projects.ts';
import { registry } from '../works/index.ts';
import { type ImportHow, type ImportedPicture, importFile, openProjectFile, writeProjectFile } from './index.ts';

const kept = (name: string): Uint8Array => new Uint8Array(readFileSync(join(import.meta.dirname, 'fixtures', name)));
const read = async (name: string, bytes: Uint8Array, how: ImportHow = {}): Promise<ImportedPicture> => (await importFile({ name, bytes }, how)) as ImportedPicture; // prettier-ignore
const refusal = async (name: string, bytes: Uint8Array, how: ImportHow = {}): Promise<string> =>
  read(name, bytes, how).then(
    (r) => `accepted as ${r.kind}`,
    (e: unknown) => (e instanceof UserError ? e.problems.map((p) => `${p.code} (${p.where.file ?? ''}): ${String(p.what)}. ${p.do}`).join('; ') : String(e)),
  ); // prettier-ignore

/** The middle of what is red in a PNG [px]. */
function redIn(bytes: Uint8Array): Point {
  const { width, data, channels } = decode(bytes);
  const red = Array.from({ length: data.length / channels }, (_, k) => k).filter((k) => data[channels * k] > 180 && data[channels * k + 1] < 90); // prettier-ignore
  const mean = (of: (k: number) => number): number => red.reduce((sum, k) => sum + of(k), 0) / red.length + 0.5;
  return [mean((k) => k % width), mean((k) => Math.floor(k / width))];
}

/** The middle of the red roof, as the fixtures were made. */
const ROOF: Point = [410_034, 4_095_030];
const offRoof = ({ laying, picture }: ImportedPicture): number => {
  const [x, y] = laidAt(laying as Laying, redIn(picture.bytes));
  return Math.hypot(x - ROOF[0], y - ROOF[1]);
};

const SMALL = encode({ width: 4, height: 2, data: new Uint8Array(24), channels: 3, depth: 8 });
const world = (text: string, more: Readonly<Record<string, Uint8Array>> = {}): Uint8Array => zipSync({ 'p.png': SMALL, 'p.pgw': strToU8(text), ...more }); // prettier-ignore

describe('a picture with its world file', () => {
  it('lies where an independent program put it: its roof is where it was painted', async () => {
    const photo = await read('photo.zip', kept('photo.zip'));
    expect([photo.crs, photo.picture.kind, photo.picture.widthPx, photo.picture.heightPx, photo.source]).toEqual(['EPSG:32610', 'image/png', 120, 80, 'photo.png']); // prettier-ignore
    expect(photo.laying).toEqual([0.5, 0, 410_000, 0, -0.5, 4_095_040]);
    expect(offRoof(photo)).toBeLessThan(1e-6);
  });
  it('in degrees is laid flat where it is, whether beside a JPEG or in a GeoTIFF', async () => {
    const tiff = await read('photo-degrees.tif', kept('photo-degrees.tif'), { crs: 'EPSG:32610' });
    expect(offRoof(tiff)).toBeLessThan(0.4);
    const jpeg = await read('photo-degrees.zip', kept('photo-degrees.zip'), { crs: 'EPSG:32610' });
    expect(jpeg.picture.kind).toBe('image/jpeg');
    expect(jpeg.notes.join()).toMatch(/longitudes and latitudes were laid flat in EPSG:32610/);
    const corners: Point[] = [[0, 0], [jpeg.picture.widthPx, jpeg.picture.heightPx]]; // prettier-ignore
    for (const px of corners) {
      const [[x, y], [u, v]] = [laidAt(jpeg.laying as Laying, px), laidAt(tiff.laying as Laying, px)];
      expect(Math.hypot(x - u, y - v)).toBeLessThan(0.02);
    }
    // Nobody said a system: the zone of its middle.
    expect((await read('photo-degrees.zip', kept('photo-degrees.zip'))).crs).toBe('EPSG:32610');
  });
  it('turned, is laid by its two turns: by hand, from the middle of its first pixel to its corner', async () => {
    const { laying } = await read('p.zip', world('3\n4\n4\n-3\n103.5\n200.5\n'));
    expect(laying).toEqual([3, 4, 100, 4, -3, 200]);
    expect(laidAt(laying as Laying, [0.5, 0.5])).toEqual([103.5, 200.5]);
  });
  it('that names no system is taken in that of the project, and says so; small numbers there are degrees', async () => {
    const metres = await read('p.zip', world('1\n0\n0\n-1\n410000\n4095000'), { crs: 'EPSG:32610' });
    expect([metres.crs, metres.notes.join()]).toEqual(['EPSG:32610', expect.stringMatching(/taken as metres, in EPSG:32610/)]);
    const local = await read('p.zip', world('0.01\n0\n0\n-0.01\n12\n40'));
    expect([local.crs, local.laying?.[2]]).toEqual([null, 12 - 0.005]);
    const degrees = await read('p.zip', world('0.00001\n0\n0\n-0.00001\n-123\n37'), { crs: 'EPSG:32610' });
    expect(degrees.notes.join()).toMatch(/longitudes and latitudes were laid flat/);
  });
});

const colours = (of: object, samples = 3): Uint8Array => {
  const values = new Uint8Array(6 * 4 * samples).map((_, k) => (k % samples === 3 && k < 40 ? 0 : 200));
  return new Uint8Array(writeArrayBuffer(values, { width: 6, height: 4, SamplesPerPixel: [samples], BitsPerSample: Array<number>(samples).fill(8), PhotometricInterpretation: 2, GTRasterTypeGeoKey: 1, ...of })); // prettier-ignore
};
const placedAt = (x: number, y: number, cell: number): object => ({ ModelPixelScale: [cell, cell, 0], ModelTiepoint: [0, 0, 0, x, y, 0] });

describe('a GeoTIFF of colours', () => {
  it('is a picture, not levels: JPEG in tiles by an independent program', async () => {
    const photo = await read('photo.tif', kept('photo.tif'));
    expect([photo.kind, photo.crs, photo.picture.kind, photo.picture.widthPx]).toEqual(['picture', 'EPSG:32610', 'image/png', 120]);
    // JPEG smears the roof's edges, alike on all sides.
    expect(offRoof(photo)).toBeLessThan(0.25);
  });
  it('turned, or told of the middles of its pixels, or clear in places', async () => {
    const geo = { GTModelTypeGeoKey: 1, ProjectedCSTypeGeoKey: 32610 };
    const made = (of: object, samples = 3): Promise<ImportedPicture> => read('t.tif', colours({ ...geo, ...of }, samples));
    const straight = placedAt(410_000, 4_095_000, 0.5);
    expect((await made(straight)).laying).toEqual([0.5, 0, 410_000, 0, -0.5, 4_095_000]);
    expect((await made({ ...straight, GTRasterTypeGeoKey: 2 })).laying).toEqual([0.5, 0, 409_999.75, 0, -0.5, 4_095_000.25]);
    const turned = [3, 4, 0, 410_000, 4, -3, 0, 4_095_000, 0, 0, 0, 0, 0, 0, 0, 1];
    expect((await made({ ModelTransformation: turned })).laying).toEqual([3, 4, 410_000, 4, -3, 4_095_000]);
    const clear = decode((await made({ ...straight, ExtraSamples: [2] }, 4)).picture.bytes);
    expect([clear.channels, clear.data[3], clear.data[clear.data.length - 1]]).toEqual([4, 0, 200]);
  });
  it('says what it lies in, or is asked: no datum far off, no projection unnamed, no degrees taken as metres', async () => {
    const degrees = { GTModelTypeGeoKey: 2, ...placedAt(-123, 37, 0.00001) };
    expect((await read('t.tif', colours({ ...degrees, GeographicTypeGeoKey: 4326 }))).crs).toBe('EPSG:32610');
    expect(await refusal('t.tif', colours({ ...degrees, GeographicTypeGeoKey: 4267 }))).toMatch(/^crs\.datum/);
    const unnamed = colours({ GTModelTypeGeoKey: 1, ProjectedCSTypeGeoKey: 32767, ...placedAt(410_000, 4_095_000, 0.5) });
    expect(await refusal('t.tif', unnamed)).toMatch(/^crs\.unknown.*Give its EPSG code/);
    expect((await read('t.tif', unnamed, { crs: 'EPSG:32610' })).notes.join()).toMatch(/taken as metres, in EPSG:32610/);
    const silent = await read(
      't.tif',
      colours({ GTModelTypeGeoKey: 32767, ProjectedCSTypeGeoKey: 32767, ...placedAt(-123, 37, 0.00001) }),
      { crs: 'EPSG:32610' },
    );
    expect(silent.notes.join()).toMatch(/longitudes and latitudes were laid flat/);
  });
  it('larger than a screen shows is kept with fewer pixels over the same ground', async () => {
    const [width, height] = [6000, 30];
    const values = new Uint8Array(width * height * 3);
    const keys = { ModelPixelScale: [0.1, 0.1, 0], ModelTiepoint: [0, 0, 0, 410_000, 4_095_000, 0], GTModelTypeGeoKey: 1, ProjectedCSTypeGeoKey: 32610, GTRasterTypeGeoKey: 1 }; // prettier-ignore
    const bytes = new Uint8Array(writeArrayBuffer(values, { width, height, SamplesPerPixel: [3], BitsPerSample: [8, 8, 8], PhotometricInterpretation: 2, ...keys })); // prettier-ignore
    const { picture, laying, notes } = await read('wide.tif', bytes);
    expect([picture.widthPx, picture.heightPx]).toEqual([4000, 20]);
    expect(laidAt(laying as Laying, [4000, 20])[0]).toBeCloseTo(410_600, 6);
    expect(laidAt(laying as Laying, [4000, 20])[1]).toBeCloseTo(4_094_997, 6);
    expect(notes.join()).toMatch(/4000 by 20 of its 6000 by 30 pixels/);
  });
});

describe('a picture alone', () => {
  it('lies nowhere until somebody pins it', async () => {
    const { laying, crs, notes } = await read('sketch.png', SMALL);
    expect([laying, crs]).toEqual([null, null]);
    expect(notes.join()).toMatch(/pin it by places you know/);
  });
  it.each<[what: string, is: readonly [name: string, bytes: Uint8Array], says: RegExp]>([
    ['none at all', ['p.png', strToU8('not a picture')], /^picture\.unreadable \(p\.png\).*Export it again/],
    ['another kind under its name', ['p.jpg', strToU8('GIF89a\u0004\u0000\u0002\u0000')], /^picture\.unreadable/],
    ['one too large', ['p.png', pngHeader(9000, 9000)], /^picture\.too-big.*9000 by 9000 pixels; the limit is 60 million/],
    ['a world file of five numbers', ['p.zip', world('1 0 0 -1 5')], /^world\.numbers \(p\.pgw\): it holds 5 words/],
    ['a world file of words', ['p.zip', world('a b c d e f')], /^world\.numbers/],
    ['a world file that covers nothing', ['p.zip', world('1 1 1 1 5 5')], /^world\.flat/],
    ['a system nobody knows', ['p.zip', world('1 0 0 -1 5 5', { 'p.prj': strToU8('LOCAL_CS["site"]') })], /^prj\.unknown/],
  ])('%s is refused in words', async (_, [name, bytes], says) => {
    expect(await refusal(name, bytes)).toMatch(says);
  });
  it('is as large as its limits, and no larger', async () => {
    for (const [wide, high] of [[20_000, 3000], [3000, 20_000], [1, 1]] as const) expect((await read('p.png', pngHeader(wide, high))).picture.widthPx).toBe(wide); // prettier-ignore
    for (const [wide, high] of [[20_001, 1], [1, 20_001], [20_000, 3001]] as const) expect(await refusal('p.png', pngHeader(wide, high))).toMatch(/^picture\.too-big/); // prettier-ignore
  });
  it('held by a camera on its side is refused, not shown lying', async () => {
    expect(await refusal('p.jpg', sideways())).toMatch(/^picture\.turned.*Turn it in a picture editor/);
  });
  it('laid flat as a whole tells how far it is off, and is refused beyond two metres', async () => {
    const prj = strToU8('GEOGCS["GCS_WGS_1984",DATUM["D_WGS_1984",SPHEROID["WGS_1984",6378137,298.257223563]],PRIMEM["Greenwich",0],UNIT["Degree",0.0174532925199433]]'); // prettier-ignore
    const across = (cell: number): Uint8Array => world(`${cell}\n0\n0\n-${cell}\n-120\n37`, { 'p.prj': prj });
    const told = (cell: number): Promise<string> => read('p.zip', across(cell)).then((r) => r.notes.join(), (e: UserError) => String(e.problems[0].what)); // prettier-ignore
    expect(await told(0.0001)).toMatch(/were laid flat in EPSG:32611 \([^)]*\)\.$/);
    expect(await told(0.006)).toMatch(/were laid flat .*, up to 0\.3 m off/);
    expect(await told(0.0138)).toMatch(/were laid flat .*, up to 1\.\d m off/);
    expect(await told(0.0152)).toMatch(/as a whole it would lie 2 m off in places/);
  });
});

describe('a picture of a project', () => {
  const bytes = kept('photo.tif');
  const picture: Picture = { id: 'air', name: 'Air', sha256: assetName(bytes), kind: 'image/png', widthPx: 120, heightPx: 80, source: 'photo.tif', laying: [0.5, 0, 0, 0, -0.5, 100], opacityPercent: 70 }; // prettier-ignore
  const project: Project = { ...planeProject(), pictures: [picture] };
  it('goes with its file, opens again, and changes nothing that is worked out', () => {
    expect(assetsOf(project)).toEqual([picture.sha256]);
    expect(workedAssetsOf(project)).toEqual([]);
    const { json, assets } = openProjectFile('p.outlet', writeProjectFile(project, new Map([[picture.sha256, bytes]])));
    expect(readProject(json, registry).pictures).toEqual([picture]);
    expect(assets.get(picture.sha256)).toEqual(bytes);
    expect(derive(project, { registry, grids: noGrid }).derived).toEqual(derive(planeProject(), { registry, grids: noGrid }).derived);
  });
  it('lies by its file until two places pin it; by two that are one it lies nowhere', () => {
    const pin = (u: number, x: number): Pinned => ({ px: [u, 0], at: [x, 0] });
    expect(layingOf(picture)).toBe(picture.laying);
    expect(layingOf({ ...picture, pins: [pin(0, 5)] })).toBe(picture.laying);
    expect(layingOf({ ...picture, pins: [pin(0, 5), pin(10, 15)] })).toEqual([1, 0, 5, 0, -1, 0]);
    expect(layingOf({ ...picture, pins: [pin(3, 5), pin(3, 15)] })).toBeNull();
  });
});

/** Only the header of a PNG. */
function pngHeader(width: number, height: number): Uint8Array {
  const bytes = SMALL.slice();
  const view = new DataView(bytes.buffer);
  view.setUint32(16, width);
  view.setUint32(20, height);
  return bytes;
}

/** A JPEG header of 4 by 2 pixels whose Exif says: turned by a quarter. */
function sideways(): Uint8Array {
  const tiff = [0x49, 0x49, 42, 0, 8, 0, 0, 0, 1, 0, 0x12, 0x01, 3, 0, 1, 0, 0, 0, 6, 0, 0, 0, 0, 0, 0, 0];
  const exif = [0x45, 0x78, 0x69, 0x66, 0, 0, ...tiff];
  const frame = [0xff, 0xc0, 0, 17, 8, 0, 2, 0, 4, 3, 1, 0x22, 0, 2, 0x11, 1, 3, 0x11, 1];
  return Uint8Array.from([0xff, 0xd8, 0xff, 0xe1, 0, exif.length + 2, ...exif, ...frame, 0xff, 0xd9, 0, 0, 0, 0]);
}
