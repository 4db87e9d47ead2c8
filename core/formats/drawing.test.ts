// The plan written for others, and read again: places, levels, layers and names are what they were.
import { describe, expect, it } from '@jest/globals';
import { strToU8 } from 'fflate';
import Papa from 'papaparse';
import { Graph, ask, derive } from '../derive/index.ts';
import { SILL, noGrid, planeProject } from '../testing/projects.ts';
import type { ContourLines } from '../terrain/index.ts';
import { catalogue, registry } from '../works/index.ts';
import { requireCrs } from './crs.ts';
import { DRAWING_FORMATS, type DrawnThing, type ImportedShapes, drawingOf, importFile, writeDrawing } from './index.ts';

const UTM = 'EPSG:32633';
/** The plane of the tests, laid in the middle of a zone so that its places are degrees too. */
const [EAST, NORTH] = [500_000, 5_300_000];
const project = planeProject({
  pins: [{ id: 'k', name: 'Gate & stile', at: [101, 31] }],
  features: [
    { id: 'h', kind: 'building', name: '=House', ring: [[20, 20], [30, 20], [30, 28], [20, 28]] },
    { id: 't', kind: 'tree', at: [50, 50] },
    { id: 'o', kind: 'odd thing', line: [[1, 1], [2, 2]] },
  ],
  site: { crs: UTM, outline: [[0, 0], [199, 0], [199, 119], [0, 119]], zeroLevelM: 0 },
}); // prettier-ignore
const context = { registry, grids: noGrid, graph: new Graph() };
const { derived } = derive(project, context);
const contours = ask('contours', { project, context: { ...context, records: () => { throw new Error('none'); } }, args: { intervalM: 2 } }) as ContourLines; // prettier-ignore
const drawn = drawingOf(project, derived, { catalogue, contours });
const moved = drawn.map((thing): DrawnThing => ({ ...thing, places: thing.places.map(([x, y, z]) => [x + EAST, y + NORTH, z]) }));
const inLayer = (layer: string): readonly DrawnThing[] => drawn.filter((t) => t.layer === layer);

describe('the plan as one drawing', () => {
  it('holds the land, the works with what they hold, ways of water, catchments, pegs and contours', () => {
    expect([...new Set(drawn.map((t) => t.layer))]).toEqual([
      'Property line', 'Building', 'Tree', 'odd thing', 'Pins', 'Works: Level swale', 'Works: Level sill', 'Ways of water', 'Catchments', 'Pegs', 'Contours',
    ]); // prettier-ignore
    expect(inLayer('Works: Level swale')[0].says).toMatchObject({ status: 'planned', heldM3: derived.stores[0].heldM3 });
    expect(inLayer('Pegs')).toHaveLength(derived.pegs.length);
    expect(inLayer('Pegs')[0].places[0][2]).toBe(derived.pegs[0].levelM);
    const [sill] = inLayer('Works: Level sill');
    expect([sill.form, sill.places[0][2]]).toEqual(['point', (SILL.levels as { sillM: number }).sillM]);
    for (const { places, says } of inLayer('Contours')) expect(places.every((p) => p[2] === says.levelM)).toBe(true);
    // Without contours all else is there.
    expect(drawingOf(project, derived, { catalogue, contours: null })).toEqual(drawn.filter((t) => t.layer !== 'Contours'));
  });
  it('tells what all stores of a work hold and keep free at the least, and leaves out what is of the past', () => {
    const [store] = derived.stores;
    const part = (id: string, heldM3: number, value: number | null) => ({ ...store, id, heldM3, least: value === null ? null : { ...store.least!, value } }); // prettier-ignore
    const says = (...stores: readonly (typeof store)[]) => {
      const told = drawingOf(project, { ...derived, stores }, { catalogue, contours: null });
      return told.find((t) => t.layer === 'Works: Level swale')?.says;
    };
    expect(says(part('a', 10, 0.3), part('b', 5, 0.1))).toEqual({ status: 'planned', heldM3: 15, stores: 2, leastFreeboardM: 0.1 });
    expect(says(part('a', 10, 0.3), part('b', 5, null))).toMatchObject({ heldM3: 15, leastFreeboardM: null });
    expect(says()).toEqual({ status: 'planned' });
    const [option] = project.options;
    const past = { ...project, options: [{ ...option, works: option.works.map((w) => ({ ...w, status: 'retired' as const })) }] };
    expect(drawingOf(past, derived, { catalogue, contours: null }).some((t) => t.layer.startsWith('Works'))).toBe(false);
    // A catchment is called as its pin or its store is.
    expect(inLayer('Catchments').map((t) => t.name)).toEqual(['Gate & stile', derived.stores[0].name]);
  });
  it.each(['geojson', 'kml', 'gpx'] as const)('as %s it comes back where it was, to the millimetre, by layer and name', async (format) => {
    const text = writeDrawing(moved, format, await requireCrs(UTM, 'here'));
    const read = (await importFile({ name: `plan.${format}`, bytes: strToU8(text) }, { crs: UTM })) as ImportedShapes;
    expect(read.shapes).toHaveLength(moved.length);
    const key = (s: { readonly name: string; readonly group?: string; readonly layer?: string }): string => `${s.group ?? s.layer}|${s.name}`;
    const by = new Map<string, ImportedShapes['shapes'][number][]>();
    for (const shape of read.shapes) by.set(key(shape), [...(by.get(key(shape)) ?? []), shape]);
    for (const thing of moved) {
      const found = by.get(key(thing))?.find(({ points }) => Math.hypot(points[0][0] - thing.places[0][0], points[0][1] - thing.places[0][1]) < 1e-3);
      expect([key(thing), found?.points.length === thing.places.length || (format === 'gpx' && thing.form === 'ring')]).toEqual([key(thing), true]);
      if (thing.form !== 'ring') thing.places.forEach(([x, y], k) => expect(Math.hypot(found!.points[k][0] - x, found!.points[k][1] - y)).toBeLessThan(1e-3));
      if (thing.places.every((p) => p[2] !== null)) thing.places.forEach((p, k) => expect(found!.levelsM![k]).toBeCloseTo(p[2]!, 3));
    }
  }); // prettier-ignore
  it('as DXF in layers, in metres: with levels where they are told, and saying so where none are', () => {
    const lines = writeDrawing(drawn, 'dxf', null).split('\n').map((l) => l.trim()); // prettier-ignore
    const count = (word: string): number => lines.filter((l, k) => l === word && lines[k - 1] === '0').length;
    const flat = drawn.filter((t) => t.form !== 'point' && t.places.some((p) => p[2] === null));
    expect(count('LWPOLYLINE')).toBe(flat.length);
    expect(count('POLYLINE')).toBe(drawn.filter((t) => t.form !== 'point').length - flat.length);
    expect(count('POINT')).toBe(drawn.filter((t) => t.form === 'point').length);
    for (const layer of ['PEGS', 'CONTOURS', 'WAYS_OF_WATER', 'WORKS_LEVEL_SWALE_2D', 'BUILDING_2D', 'PROPERTY_LINE_2D'])
      expect(lines).toContain(layer);
    expect(lines).not.toContain('PEGS_2D');
    // Units of the drawing are metres.
    expect(lines[lines.indexOf('$INSUNITS') + 2]).toBe('6');
    const [{ places }] = inLayer('Contours');
    const at = lines.indexOf('VERTEX', lines.indexOf('POLYLINE'));
    expect(at).toBeGreaterThan(0);
    expect(lines.filter((l) => Number(l) === places[0][2]).length).toBeGreaterThan(1);
  });
  it('as DXF comes back by layer, in metres, with the levels it was written with and none where none were', async () => {
    const read = (await importFile({ name: 'plan.dxf', bytes: strToU8(writeDrawing(drawn, 'dxf', null)) })) as ImportedShapes;
    expect([read.crs, read.shapes.length]).toEqual([null, drawn.length]);
    expect(read.notes.join(' ')).toMatch(/taken as local metres.*\d+ of the kind TEXT were left out/);
    for (const layer of ['Contours', 'Pegs', 'Ways of water'] as const) {
      const [wanted, found] = [inLayer(layer), read.shapes.filter((s) => s.group === layer.toUpperCase().replaceAll(' ', '_'))];
      expect(found).toHaveLength(wanted.length);
      wanted.forEach(({ places }, k) =>
        places.forEach(([x, y, z], c) => {
          expect(Math.hypot(found[k].points[c][0] - x, found[k].points[c][1] - y)).toBeLessThan(1e-6);
          expect(found[k].levelsM![c]).toBeCloseTo(z!, 6);
        }),
      );
    }
    expect(read.shapes.find((s) => s.group === 'BUILDING_2D')).toMatchObject({ form: 'ring', points: [[20, 20], [30, 20], [30, 28], [20, 28]], levelsM: null });
    expect(((await importFile({ name: 'plan.dxf', bytes: strToU8(writeDrawing(drawn, 'dxf', null)) }, { crs: UTM })) as ImportedShapes).crs).toBe(UTM);
  }); // prettier-ignore
  it('as CSV, a row a corner; a name that a spreadsheet would run stands as text', () => {
    const { data } = Papa.parse<Record<string, string>>(writeDrawing(drawn, 'csv', null).trim(), { header: true });
    expect(data).toHaveLength(drawn.reduce((n, t) => n + t.places.length, 0));
    const house = data.filter((r) => r.layer === 'Building');
    expect(house.map((r) => [r.name, r.drawn_as, r.corner, r.x_m, r.y_m, r.level_m])).toEqual([
      ["'=House", 'area', '1', '20.000', '20.000', ''], ["'=House", 'area', '2', '30.000', '20.000', ''],
      ["'=House", 'area', '3', '30.000', '28.000', ''], ["'=House", 'area', '4', '20.000', '28.000', ''],
    ]); // prettier-ignore
  });
  it('in local metres has no degrees: those formats are refused in words, the others written', () => {
    for (const format of DRAWING_FORMATS) {
      const write = (): string => writeDrawing(drawn, format, null);
      if (format === 'dxf' || format === 'csv') expect(write().length).toBeGreaterThan(100);
      else expect(write).toThrow(/no latitude and longitude/);
    }
  });
});
