import { describe, expect, it } from '@jest/globals';
import { Graph, derive } from '#core/derive';
import type { DeriveResult } from '#core/derive';
import type { Project } from '#core/project';
import { registry } from '#core/works';
import { noGrid, planeProject } from '../../core/testing/projects.ts';
import { plane } from '../../core/testing/grids.ts';
import { manyProject, sillMoved } from '../../core/testing/many.ts';
import { BACKUP, BACKUP_SILL, CUT, POND, POND_SILL, valleyProject } from '../../core/testing/valley.ts';
import { Packer, Unpacker } from './parts.ts';

const graph = new Graph();
const results = (project: Project): DeriveResult => derive(project, { registry, grids: noGrid, graph });
const WORKS = [POND, POND_SILL, CUT, BACKUP, BACKUP_SILL];
const crest = (crestM: number): Project =>
  valleyProject(WORKS.map((w) => (w.id === 'pond' ? { ...POND, levels: { ...POND.levels, crestM } } : w)));

describe('answers in parts', () => {
  it('come out as they went in, whatever came before', () => {
    const [packer, unpacker] = [new Packer(), new Unpacker()];
    for (const project of [
      crest(106.5),
      crest(106.8),
      planeProject(),
      planeProject({ rain: null }),
      planeProject({ terrain: null }),
      crest(106.8),
      crest(106.5),
    ]) {
      const result = results(project);
      // A message is cloned on its way.
      expect(unpacker.unpack(structuredClone(packer.pack(result)))).toEqual(result);
    }
  });
  it('send again only what differs, and leave the rest the same objects', () => {
    const [packer, unpacker] = [new Packer(), new Unpacker()];
    const first = packer.pack(results(crest(106.5)));
    const before = unpacker.unpack(first);
    const second = packer.pack(results(crest(106.52)));
    const after = unpacker.unpack(second);
    expect(second.fresh.length).toBeLessThan(first.fresh.length / 2);
    expect(after.derived.catchments).toBe(before.derived.catchments);
    expect(after.derived.stores).not.toBe(before.derived.stores);
    expect(after.derived.checks.filter((c) => before.derived.checks.includes(c)).length).toBeGreaterThan(after.derived.checks.length / 2);
    const again = packer.pack(results(crest(106.52)));
    expect(again.fresh).toEqual([]);
    expect(unpacker.unpack(again).derived.checks).toBe(after.derived.checks);
  });
  it('are kept no longer than they are of use, and sent again when they come back', () => {
    const result = results(crest(106.5));
    const [one, ...rest] = result.view.series;
    const withLevel = (by: number): DeriveResult => ({
      ...result,
      // Every part is another thing each time, most say the same.
      derived: structuredClone(result.derived),
      view: {
        ...result.view,
        series: [{ ...one, levelM: one.levelM.map((m) => m + by) }, ...rest],
        order: [...result.view.order, `${by}`],
      },
    });
    const parts = new Packer().pack(withLevel(0)).fresh.length;
    const [sent, got] = [new Packer(), new Unpacker()];
    for (let k = 0; k < 2 * parts; k++) {
      const parcel = sent.pack(withLevel(k));
      if (k > 0) expect(parcel.fresh.length).toBe(2);
      expect(got.unpack(structuredClone(parcel)).view.order.at(-1)).toBe(`${k}`);
    }
    expect([sent.size < 3 * parts, got.size < 3 * parts]).toEqual([true, true]);
    const back = withLevel(1);
    expect(got.unpack(structuredClone(sent.pack(back)))).toEqual(back);
  });
  it('tell flat numbers apart by every one of them', () => {
    const packer = new Packer();
    const result = results(crest(106.5));
    packer.pack(result);
    const [one, ...rest] = result.view.series;
    for (const k of [0, 7, one.levelM.length - 1]) {
      const levelM = one.levelM.slice();
      levelM[k] += 1e-9;
      const changed = { ...result, view: { ...result.view, series: [{ ...one, levelM }, ...rest] } };
      const { fresh } = packer.pack(changed);
      expect(fresh).toHaveLength(1);
    }
  });
  it('send little for one sill of two hundred', () => {
    const grid = plane(0.05, -70, { cells: 300, cellM: 3 });
    const works = manyProject(grid, 200);
    const on = { registry, grids: () => grid, graph: new Graph() };
    const packer = new Packer();
    packer.pack(derive(works, on));
    const parcel = packer.pack(derive(sillMoved(works, -0.01), on));
    const bytes = parcel.fresh.reduce((sum, { json, arrays }) => sum + json.length + flatBytes(arrays), 0);
    const shapes = [...Object.values(parcel.derived), ...Object.values(parcel.view)];
    const lists = shapes.reduce((sum, s) => sum + ('list' in s ? s.list.byteLength : 4) + ('keys' in s ? s.keys.join().length : 0), 0);
    expect(bytes + lists).toBeLessThan(200_000);
    expect(bytes).toBeGreaterThan(1000);
  });
});

const flatBytes = (arrays: Readonly<Record<string, { readonly byteLength: number }>> | null): number =>
  Object.values(arrays ?? {}).reduce((sum, a) => sum + a.byteLength, 0);
