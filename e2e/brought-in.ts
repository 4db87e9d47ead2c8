// What a person brings: maps drawn elsewhere, grids, notebooks; and the plan going out again.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from '@jest/globals';
import { decode, encode } from 'fast-png';
import { unzipSync } from 'fflate';
import { requireCrs, toLonLat } from '#core/formats';
import type { Point } from '#core/geometry';
import { type Bench, Visitor } from './driver.ts';
import { byMarks } from './marks.ts';
import { goingOn } from './bench.ts';
import { serious } from './axe.ts';
import { named } from './named.ts';

const [W, S] = [431000, 4612000];
const LAND = '/p/sallow-rise/land';

export function broughtIn(open: () => Bench): void {
  const on = goingOn(open);
  describe('a map drawn elsewhere', () => {
    const place = async (x: number, y: number): Promise<string> =>
      toLonLat(await requireCrs('EPSG:32626', 'here'), [W + x, S + y]).join(',');
    const places = async (list: readonly Point[]): Promise<string> => (await Promise.all(list.map(([x, y]) => place(x, y)))).join(' ');
    const placemark = (name: string, body: string): string => `<Placemark><name>${name}</name>${body}</Placemark>`;
    on(
      'dropped on the page lies where it was drawn, each folder as what it is said to be, and one undo takes it all back',
      LAND,
      async (v) => {
        await v.verdict(/3\.10 ha drains to Valley gate/);
        const before = (await v.kept()).features.length;
        const barn = await places([[300, 120], [318, 122], [317, 134], [299, 132], [300, 120]]); // prettier-ignore
        const brook = await places([[210, 300], [215, 290]]); // prettier-ignore
        const kml = `<kml xmlns="http://www.opengis.net/kml/2.2"><Document><Folder><name>Houses</name>${placemark('Old barn', `<Polygon><outerBoundaryIs><LinearRing><coordinates>${barn}</coordinates></LinearRing></outerBoundaryIs></Polygon>`)}</Folder>
        <Folder><name>Water</name>${placemark('Spring run', `<LineString><coordinates>${brook}</coordinates></LineString>`)}</Folder></Document></kml>`;
        await v.drop('farm.kml', new TextEncoder().encode(kml));
        await v.reads(
          '[role="dialog"]',
          /What is drawn in farm\.kml.*laid flat in EPSG:32626.*Houses\s*Old barn.*1 area.*Building.*Water\s*Spring run.*1 line.*Left out/s,
        );
        await v.choose('Water, taken as', 'Ditch');
        expect(await serious(v)).toEqual([]);
        await v.press('Take these 2 in');
        await v.reads('body', /2 of 2 shapes of farm\.kml are in/);
        const features = (await v.until(() => v.kept(), (p) => p.features.length === before + 2)).features.slice(before); // prettier-ignore
        expect(features.map((f) => [f.kind, f.name])).toEqual([['building', 'Old barn'], ['ditch', 'Spring run']]); // prettier-ignore
        const [corner] = features[0].ring!;
        expect(Math.hypot(corner[0] - W - 300, corner[1] - S - 120)).toBeLessThan(0.01);
        await v.press('Undo');
        await v.until(() => v.kept(), (p) => p.features.length === before); // prettier-ignore
        // Spoilt, it changes nothing, and says where.
        await v.drop('farm.kml', new TextEncoder().encode(kml.slice(0, 300)));
        await v.reads('body', /farm\.kml was not taken in; nothing has changed.*breaks off, or is spoilt/s);
        expect((await v.kept()).features).toHaveLength(before);
      },
    );
    on('the plan goes out again with its works, pegs and contours, in layers', '/p/sallow-rise/pegs', async (v) => {
      await v.reads('aside', /The plan for other programs/);
      await v.choose('Contours', 'every 5.00\u00a0m');
      await v.press('Plan as GeoJSON');
      const { features } = JSON.parse(new TextDecoder().decode(await v.downloaded('.geojson'))) as { features: { properties: { layer: string; name: string } }[] }; // prettier-ignore
      const layers = new Set(features.map((f) => f.properties.layer));
      for (const layer of ['Property line', 'Building', 'Works: Pond', 'Ways of water', 'Catchments', 'Pegs', 'Contours']) expect([...layers]).toContain(layer); // prettier-ignore
      expect(features.filter((f) => f.properties.layer === 'Contours').every((f) => Number.parseFloat(f.properties.name) % 5 === 0)).toBe(
        true,
      );
      await v.press('Plan as DXF');
      expect(new TextDecoder().decode(await v.downloaded('.dxf'))).toMatch(/CONTOURS[\s\S]*EOF\s*$/);
      await v.press('Tables as a spreadsheet');
      expect(Object.keys(unzipSync(await v.downloaded('.xlsx')))).toContain('xl/worksheets/sheet4.xml');
      await v.press('Ground as LandXML');
      expect(new TextDecoder().decode(await v.downloaded('.xml'))).toMatch(
        /epsgCode="32626"[\s\S]*<Surface name="Ground"[\s\S]*<F>\d+ \d+ \d+<\/F>/,
      );
      // The same with the works in it: what is to be made, by name.
      await v.page.$eval(named('With the works built into it', 'checkbox'), (e) => (e as HTMLElement).focus());
      await v.page.keyboard.press('Space');
      await v.press('Ground as ASCII grid');
      expect(Object.keys(unzipSync(await v.downloaded('built-ground.zip')))).toHaveLength(2);
      await v.reads('body', /Built into the ground: Ridge swale, Ridge swale sill, Back-up swale, Far sill, .*Emergency sill/);
      expect(await serious(v)).toEqual([]);
    });
    on('a survey of a part is laid into the ground there is, raised to it, and one undo takes it out', LAND, async (v) => {
      const before = (await v.kept()).terrain;
      // From a peg of its own: 30 m and more off, and tilted.
      const points = Array.from({ length: 42 }, (_, k) => [W + 300 + 6 * (k % 7), S + 300 + 6 * Math.floor(k / 7), 40 + 0.05 * (k % 7)]);
      const csv = ['x,y,z', ...points.map((p) => p.join(','))].join('\n');
      await v.drop('yard.csv', new TextEncoder().encode(csv));
      await v.reads('[role="dialog"]', /yard\.csv lies on the ground there is.*It lies [\d.]+ m below it in the middle of \d+ cells/s);
      expect(await serious(v)).toEqual([]);
      await v.reads('[role="dialog"]', /It is raised by \d+\.\d m/);
      await v.press('Lay it into the ground');
      await v.reads('body', /yard\.csv is laid into the ground; undo takes it out again/);
      const laid = (await v.until(() => v.kept(), (p) => p.terrain?.kind === 'asset' && / with yard\.csv$/.test(p.terrain.source))).terrain; // prettier-ignore
      expect(laid).not.toEqual(before);
      await v.verdict(/runs from \d\d+\.\d\d m/);
      // How near each of the two is known is the user's to say; works are held against it, and the plan shows it.
      await v.reads('aside', /Nobody has said how near its levels are known/);
      await v.choose('How yard.csv was levelled', 'level and staff (10\u00a0mm)');
      await v.reads(
        'aside',
        /It is said of less than 1\s% of the ground: half of that is known to \d+\smm or nearer, nine tenths to \d+\smm/,
      );
      await v.type('Levels of sallow-rise.tif known to', '400');
      const near = await v.reads('aside', /Half of the ground is known to 400\smm or nearer/);
      expect(near).toMatch(/Between its readings it is known less nearly: by \d+\smm where the nearest lies 10/);
      await v.press('Show it on the plan');
      await v.reads('main', /worse than 50\smm/);
      await v.page.locator('header button[aria-label^="Checks"]').click();
      await v.reads('[role="dialog"]', /Take levels along its line with a staff before it is pegged/);
      await v.page.keyboard.press('Escape');
      expect(await serious(v)).toEqual([]);
      await v.press('Hide it on the plan');
      for (let k = 0; k < 3; k++) await v.press('Undo');
      await v.until(() => v.kept(), (p) => JSON.stringify(p.terrain) === JSON.stringify(before)); // prettier-ignore
      await byMarks(v, csv, before);
    });
    it('ground that is ragged is smoothed, told how much it moved, and undone', async () => {
      const v = await Visitor.arrive(open(), '/start');
      const rows = Array.from({ length: 60 }, (_, r) => Array.from({ length: 60 }, (_c, c) => (100 + 0.05 * c - 0.03 * r + 0.15 * Math.sin(12.9898 * c + 78.233 * r) * Math.cos(39.4 * c * r)).toFixed(3)).join(' ')); // prettier-ignore
      const asc = `ncols 60\nnrows 60\nxllcorner 500000\nyllcorner 4000000\ncellsize 1\n${rows.join('\n')}\n`;
      await v.drop('ragged.asc', new TextEncoder().encode(asc));
      await v.reads('aside', /Cells stand \d+\smm off their neighbours: contours nearer/);
      const before = (await v.kept()).terrain;
      await v.press('Smooth the ground');
      await v.reads('body', /The ground is smoothed: its noise is \d+\smm, it was \d+\smm; no level moved by more than \d+\smm/);
      await v.until(() => v.kept(), (p) => p.terrain?.kind === 'asset' && p.terrain.source === 'ragged.asc, smoothed'); // prettier-ignore
      await v.press('Undo');
      await v.until(() => v.kept(), (p) => JSON.stringify(p.terrain) === JSON.stringify(before)); // prettier-ignore
      expect(await serious(v)).toEqual([]);
      expect(v.errors).toEqual([]);
    }, 180000);
    it('a stranger with contours is at the ground they make, and with a table of points at the ditch that was read', async () => {
      const v = await Visitor.arrive(open(), '/start');
      const contour = (y: number, ele: number): object => ({ type: 'Feature', properties: { ele }, geometry: { type: 'LineString', coordinates: Array.from({ length: 11 }, (_, k) => [15 + 0.0002 * k, 48 + y]) } }); // prettier-ignore
      const file = { type: 'FeatureCollection', features: [0, 1, 2, 3].map((k) => contour(0.0003 * k, 200 + 2 * k)) };
      await v.reads('body', /Bring in the ground/);
      await v.drop('contours.geojson', new TextEncoder().encode(JSON.stringify(file)));
      await v.reads('[role="dialog"]', /It bears levels/);
      await v.press('Make ground of its levels');
      await v.verdict(/runs from 200\.\d\d m to 20[56]\.\d\d m/);
      // A map in layers lies elsewhere: it is read, each layer from its own system, and left.
      await v.drop('map.gpkg', new Uint8Array(readFileSync(join(import.meta.dirname, '../core/formats/fixtures/map.gpkg'))));
      await v.reads('[role="dialog"]', /What is drawn in map\.gpkg.*contours.*3 lines.*houses\s*Shed.*2 areas.*wells\s*Old well/s);
      await v.press('Leave it');
      // A table of points in words of its own: a column and a code are put right, and no triangle dams the ditch.
      const bed = Array.from({ length: 9 }, (_, k) => `${10 * k},10,9,graben`);
      const sides = Array.from({ length: 33 }, (_, k) => `${2.5 * k},${k % 2 === 0 ? 0 : 20},10,`);
      const near = Array.from({ length: 16 }, (_, k) => `${5 * k + 2.5},${k % 2 === 0 ? 8 : 12},9.2,`);
      const table = [
        'hoch,rechts,hoehe,was',
        ...[...bed, ...sides, ...near].map((row) => row.replace(/^([^,]*),([^,]*)/, '$2,$1')),
        '5,40,14,dach',
      ];
      await v.drop('ditch.csv', new TextEncoder().encode(table.join('\n')));
      await v.reads(
        '[role="dialog"]',
        /ditch\.csv: what do its columns hold\?\s*59 points.*hoch\s*Easting.*graben\s*9\s*Single levels.*dach\s*1/s,
      );
      expect(await serious(v)).toEqual([]);
      await v.choose('hoch holds', 'Northing');
      await v.reads('[role="dialog"]', /Two columns are northings: one can be/);
      await v.choose('rechts holds', 'Easting');
      await v.choose('graben, taken as', 'One line, in this order');
      await v.choose('dach, taken as', 'No ground: left out');
      await v.press('Make ground of them');
      await v.press('Put it in place of the ground');
      await v.reads(
        'body',
        /ditch\.csv is in\. 1 point that is no ground was left out: dach.*No triangle crosses its 1 line: \d+ places were put along them/,
      );
      await v.verdict(/runs from 9\.0\d m to (9\.9\d|10\.00) m/);
      expect(v.errors).toEqual([]);
    }, 180000);
    it('a stranger with no levels tries land that is made up, and is told so until real levels take its place', async () => {
      const v = await Visitor.arrive(open(), '/start');
      await v.reads('body', /all that is worked out on it says so/);
      expect(await serious(v)).toEqual([]);
      await v.press('Ask the elevation service (simulated)');
      await v.verdict(/runs from [\s\S]*This land is not yours yet\./);
      await v.until(() => v.kept(), ({ terrain }) => terrain?.isMadeUp === true && terrain.kind === 'asset' && /simulated/.test(terrain.source)); // prettier-ignore
      await v.drop('levels.csv', new TextEncoder().encode('x,y,z\n900,900,10\n940,900,11\n900,940,12\n940,940,13'));
      await v.press('Put it in place of the ground');
      await v.until(() => v.kept(), ({ terrain }) => terrain?.isMadeUp === undefined); // prettier-ignore
      await v.until(() => v.text('[data-testid="verdict"]'), (said) => /runs from/.test(said) && !/not yours/.test(said)); // prettier-ignore
      expect(v.errors).toEqual([]);
    }, 180000);
    it('a stranger with a picture too large, or of several bands, sees it and takes the part, or the band, that holds the land', async () => {
      const v = await Visitor.arrive(open(), '/start');
      const fixture = (name: string): Uint8Array =>
        new Uint8Array(readFileSync(join(import.meta.dirname, '../core/formats/fixtures', name)));
      await v.reads('body', /Bring in the ground/);
      await v.drop('wide.tif', fixture('grid-wide.tif'));
      await v.reads(
        '[role="dialog"]',
        /wide\.tif: which part of it holds your land\?.*16\s400 by 1000 cells.*16\s000\s000 cells can come in/s,
      );
      expect(await serious(v)).toEqual([]);
      // Drawn by the pointer, moved by the arrow keys, its east edge typed.
      const picture = await v.page.waitForSelector('[role="application"]');
      const box = await picture?.boundingBox();
      if (!box) throw new Error('the picture is not shown');
      await v.page.mouse.move(box.x + 0.25 * box.width, box.y + 0.2 * box.height);
      await v.page.mouse.down();
      await v.page.mouse.move(box.x + 0.5 * box.width, box.y + 0.9 * box.height, { steps: 6 });
      await v.page.mouse.up();
      const edge = async (name: string): Promise<number> => Number(await v.page.$eval(named(name, 'textbox'), (e) => (e as HTMLInputElement).value)); // prettier-ignore
      const west = await edge('West edge');
      expect(Math.abs(west - 418_200)).toBeLessThan(400);
      await picture?.focus();
      for (const key of ['ArrowRight', 'ArrowRight', 'ArrowLeft'] as const) await v.page.keyboard.press(key);
      expect((await edge('West edge')) - west).toBeCloseTo(328, -1);
      await v.type('East edge', '420000');
      await v.reads('[role="dialog"]', /This part\s*\d+\sm by 1\d\d\d\sm.*cells\./s);
      await v.press('Bring in this part');
      await v.reads('body', /wide\.tif is in\. \d+ by \d+ of its 16400 by 1000 cells were read/);
      // Packed numbers, none of them a level before: of three bands the one that is called elevation is shown first.
      await v.drop('bands.tif', fixture('grid-bands.tif'));
      await v.reads('[role="dialog"]', /bands\.tif: which of its bands holds the levels\?.*Band 2, elevation.*100\.5 to 319\.5/s);
      expect(await serious(v)).toEqual([]);
      await v.choose('Levels are in', 'Band 1, slope in percent');
      await v.reads('[role="dialog"]', /5 to 5/);
      await v.choose('Levels are in', 'Band 2, elevation');
      await v.reads('[role="dialog"]', /100\.5 to 319\.5/);
      await v.press('Bring in this band');
      await v.reads('[role="dialog"]', /bands\.tif lies on the ground there is|bands\.tif lies nowhere on the ground there is/);
      await v.press('Put it in place of the ground');
      await v.reads('body', /bands\.tif is in\..*Band 2 was read as levels, as you said/);
      expect(v.errors).toEqual([]);
    }, 180000);
    it('a stranger with a grid in feet, its .prj beside it, and houses drawn, is asked what they must say and is at the ground', async () => {
      const v = await Visitor.arrive(open(), '/start');
      const fixture = (name: string): Uint8Array =>
        new Uint8Array(readFileSync(join(import.meta.dirname, '../core/formats/fixtures', name)));
      const grid = unzipSync(fixture('grid-feet.zip'));
      // The system by words, for a file that does not say it: by keyboard.
      const field = await v.page.waitForSelector('input[role="combobox"]');
      await field?.type('germany 33');
      await v.reads('[role="listbox"]', /UTM zone 33N[\s\S]*EPSG:/);
      await v.page.keyboard.press('ArrowDown');
      await v.page.keyboard.press('Enter');
      await v.until(() => v.page.$eval('input[role="combobox"]', (e) => (e).value), (text) => /zone 33N/.test(text)); // prettier-ignore
      expect(await serious(v)).toEqual([]);
      await v.page.$eval('input[role="combobox"]', (e) => e.select());
      await v.page.keyboard.press('Backspace');
      const trees = { type: 'FeatureCollection', features: [{ type: 'Feature', properties: { folder: 'Trees' }, geometry: { type: 'Point', coordinates: [-124.0101, 36.9976] } }] }; // prettier-ignore
      await v.dropAll({ 'trees.geojson': new TextEncoder().encode(JSON.stringify(trees)), 'feet.asc': grid['feet.asc'], 'feet.prj': grid['feet.prj'] }); // prettier-ignore
      await v.reads('body', /feet\.zip was not taken in; nothing has changed.*does not say whether its levels are/s);
      await v.press('Its levels are metres');
      // The ground is in, and what was dropped with it is asked about on it.
      await v.press('Take this one in');
      await v.verdict(/runs from 10\d\.\d\d m to 10\d\.\d\d m/);
      const { site, features } = await v.kept();
      expect([site.crs, features.map((f) => f.kind)]).toEqual(['EPSG:32610', ['tree']]);
      expect(v.errors).toEqual([]);
    }, 180000);
    it('a stranger with a notebook of readings is at the ground they make, told how it closes', async () => {
      const v = await Visitor.arrive(open(), '/start');
      await v.reads('body', /a level book/);
      const staff = (x: number, y: number): string => (1.5 - 0.03 * y + 0.01 * x).toFixed(3);
      const rows = Array.from({ length: 30 }, (_, k) => [6 * (k % 6), 6 * Math.floor(k / 6)] as const).map(
        ([x, y]) => `${x},${y},,${staff(x, y)},,`,
      );
      const book = ['x,y,bs,is,fs,level', ',,1.500,,,100', ...rows, ',,,,1.503,100'];
      await v.drop('book.csv', new TextEncoder().encode(book.join('\n')));
      await v.verdict(/runs from 99\.\d\d m to 100\.\d\d m/);
      await v.reads(
        'body',
        /1 set-up: back-sights 1\.500 m, fore-sights 1\.503 m; rises less falls -0\.003 m\. It closes 3 mm off, of 5 mm allowed/,
      );
      // Off by a decimetre it is refused, and what stands stays.
      await v.drop('book.csv', new TextEncoder().encode(book.join('\n').replace('1.503', '1.603')));
      await v.reads('body', /book\.csv was not taken in; nothing has changed.*closes 103 mm too low.*peg that moved/s);
      expect(v.errors).toEqual([]);
    }, 180000);
    it('a book is typed down its columns, closes or says which line is wrong, and is ground', async () => {
      const v = await Visitor.arrive(open(), '/start');
      await v.press('Begin a level book');
      await v.reads('main', /Nothing is read yet/);
      for (const [label, figure] of [
        ['Apart', '10'],
        ['In a row', '3'],
        ['Rows', '2'],
      ] as const)
        await v.type(label, figure);
      await v.press('Lay out the lines');
      await v.until(() => v.kept(), (p) => p.books?.[0]?.lines.length === 7); // prettier-ignore
      await v.type('known, line 1', '100');
      await v.type('back, line 1', '1.5');
      // Down the column by the keys alone; the seventh reading goes onto a line below.
      await v.page.locator('input[aria-label="inter, line 2"]').click();
      for (const [k, reading] of ['1.20', '1.25', '1.30', '1.42', '1.38', '1.31'].entries()) {
        await v.page.keyboard.type(reading);
        await v.page.keyboard.press('Enter');
        await v.until(() => v.page.evaluate(() => document.activeElement?.getAttribute('aria-label')), (now) => now === `inter, line ${k + 3}`); // prettier-ignore
      }
      await v.until(() => v.kept(), (p) => p.books?.[0]?.lines.length === 8); // prettier-ignore
      // Loaded anew the page is where it was.
      await v.page.reload();
      await v.reads('main', /7 levels, from 100\.00 m to 100\.30 m.*end on a known level/s);
      await v.type('fore, line 8', '1.4');
      await v.type('known, line 8', '100');
      await v.reads('main', /Line 8, [^:]*: it closes 100 mm too high; over 1 set-up 5 mm would do/);
      expect(await v.page.$eval('main button', (b) => b.disabled)).toBe(true);
      await v.type('fore, line 8', '1.503');
      await v.reads('main', /It closes 3 mm off, of 5 mm allowed/);
      // A reading taken out says so; undone it is there again.
      await v.page.locator('input[aria-label="inter, line 3"]').click();
      await v.page.$eval('input[aria-label="inter, line 3"]', (e) => e.select());
      await v.page.keyboard.press('Backspace');
      await v.page.keyboard.press('Tab');
      await v.reads('main', /Line 3, A2: nothing was read on it/);
      await v.press('Undo');
      await v.reads('main', /It closes 3 mm off/);
      // Other tape, same places; of what cannot be told so it says why.
      await v.choose('Places by', 'two tapes, from A and B');
      await v.reads('body', /Give the marks A and B first/);
      await v.choose('Places by', 'an angle and a tape, from A');
      expect(await v.valueOf('tape, line 3')).toBe('10.00');
      expect(await serious(v)).toEqual([]);
      await v.press('Make ground of it');
      await v.verdict(/runs from 100\.\d\d m to 100\.\d\d m/);
      await v.reads('body', /Levels are known to 5 mm at worst/);
      expect((await v.kept()).books).toHaveLength(1);
      expect(v.errors).toEqual([]);
    }, 180000);
  });

  describe('a picture under the plan', () => {
    /** A photograph of 200 by 200 pixels: a field, and a red roof over its middle. */
    const air = (): Uint8Array => {
      const data = new Uint8Array(200 * 200 * 3).map((_, k) => [120, 140, 100][k % 3]);
      for (let v = 80; v < 120; v++) for (let u = 80; u < 120; u++) data.set([230, 10, 10], 3 * (200 * v + u));
      return encode({ width: 200, height: 200, data, channels: 3, depth: 8 });
    };
    /** How much redder than green the plan is at a place. */
    const redAt = async (v: Visitor, at: Point): Promise<number> => {
      const { x, y } = await v.onPage(at);
      const shot = await v.page.screenshot({ clip: { x: x - 2, y: y - 2, width: 4, height: 4 } });
      const { data } = decode(shot);
      return data[0] - data[1];
    };
    on('lies by its world file, is hidden and shown, and a sketch is pinned by mouse and by keyboard', LAND, async (v) => {
      await v.verdict(/3\.10 ha drains to Valley gate/);
      const roof: Point = [W + 150, S + 150];
      const bare = await redAt(v, roof);
      const worldFile = new TextEncoder().encode(`0.5\n0\n0\n-0.5\n${W + 100.25}\n${S + 199.75}\n`);
      await v.dropAll({ 'air.png': air(), 'air.pgw': worldFile });
      await v.reads('body', /The picture air is in\..*taken as metres, in EPSG:32626/);
      await v.reads('aside', /It lies as air\.png says/);
      expect((await v.kept()).pictures?.[0].laying).toEqual([0.5, 0, W + 100, 0, -0.5, S + 200]);
      const red = await v.until(() => redAt(v, roof), (r) => r > bare + 60); // prettier-ignore
      expect(await redAt(v, [W + 120, S + 120])).toBeLessThan(red - 60);
      // Slid over a long way it is one step to undo.
      await v.page.$eval(named('How much of air is seen', 'slider'), (e) => (e as HTMLElement).focus());
      for (let k = 0; k < 4; k++) await v.page.keyboard.press('ArrowLeft');
      await v.until(() => v.kept(), (p) => p.pictures?.[0].opacityPercent === 30); // prettier-ignore
      await v.press('Undo');
      await v.until(() => v.kept(), (p) => p.pictures?.[0].opacityPercent === 70); // prettier-ignore
      await v.page.$eval(named('air', 'checkbox'), (e) => (e as HTMLElement).focus());
      await v.page.keyboard.press('Space');
      await v.until(() => redAt(v, roof), (r) => r < bare + 30); // prettier-ignore
      expect((await v.kept()).pictures?.[0].isHidden).toBe(true);
      await v.press('Remove air');
      // One that says nothing is pinned: a place by mouse, one by keyboard.
      await v.drop('sketch.png', air());
      await v.reads('aside', /Nobody has said where it lies/);
      await v.page.waitForSelector('[role="application"] img');
      const at = await v.middleOf('[role="application"] img');
      await v.page.mouse.click(at.x, at.y);
      await v.reads('aside', /Now click the same place on the plan/);
      await v.clickPlaces([roof]);
      await v.reads('aside', /Place 1 at/);
      expect(await serious(v)).toEqual([]);
      await v.page.focus('aside [role="application"]');
      for (let k = 0; k < 4; k++) {
        await v.page.keyboard.down('Shift');
        await v.page.keyboard.press('ArrowRight');
        await v.page.keyboard.up('Shift');
      }
      await v.page.keyboard.press('Enter');
      await v.page.type('input[aria-label="Type x, y"]', `${W + 190}, ${S + 150}`);
      await v.page.keyboard.press('Enter');
      await v.reads('aside', /It is pinned by two places: a third would show how well/);
      // While it is pinned a place that was found bears its mark.
      expect(await redAt(v, roof)).toBeLessThan(bare);
      await v.press('Undo');
      await v.reads('aside', /Nobody has said where it lies/);
      await v.press('Redo');
      await v.press('Done');
      await v.until(() => redAt(v, roof), (r) => r > bare + 60); // prettier-ignore
      const [{ pins }] = (await v.kept()).pictures ?? [];
      expect(pins?.map((p) => p.at.map(Math.round))).toEqual([roof.map(Math.round), [W + 190, S + 150]]);
      // What is no picture is refused, and nothing changes.
      await v.drop('torn.png', new TextEncoder().encode('torn'));
      await v.reads('[role="alert"]', /torn\.png was not taken in; nothing has changed.*no PNG or JPEG/s);
      expect((await v.kept()).pictures).toHaveLength(1);
    });
  });
}
