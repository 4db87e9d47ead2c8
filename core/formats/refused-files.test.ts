// Files that once stopped the reader, filled the memory, or came in as something else: each is refused in words, or read right.
import { describe, expect, it } from '@jest/globals';
import { strToU8, zipSync } from 'fflate';
import { MOST_LISTED, MOST_QUOTED, UserError, type UserProblem, gridToBytes } from '../project/index.ts';
import { readProject } from '../project/guard.ts';
import { statsOf } from '../terrain/index.ts';
import { gridOf } from '../testing/grids.ts';
import { SWALE, planeProject } from '../testing/projects.ts';
import { PLACED, tiffOf } from '../testing/tiff.ts';
import { registry } from '../works/index.ts';
import { ZIP_LIMITS } from './project-file.ts';
import { type ImportedTerrain, importFile, openProjectFile, parseJson, writePegs, writeProjectFile } from './index.ts';

const bytesOf = (data: string | Uint8Array): Uint8Array => (typeof data === 'string' ? strToU8(data) : data);
const problemsOf = (run: () => unknown): readonly UserProblem[] => {
  try {
    run();
  } catch (error) {
    if (error instanceof UserError) return error.problems;
    throw error;
  }
  return [];
};
const codeOf = (run: () => unknown): string => problemsOf(run)[0]?.code ?? 'taken';
const imported = async (name: string, data: string | Uint8Array): Promise<string> =>
  importFile({ name, bytes: bytesOf(data) }).then(
    (read) => `taken as ${read.kind}`,
    (error: unknown) => {
      if (!(error instanceof UserError)) throw error;
      expect(error.problems[0].where.file).toBe(name);
      return error.problems[0].code;
    },
  );
const opened = (json: unknown): unknown => readProject(parseJson('p.json', strToU8(JSON.stringify(json))), registry, 'p.json');

describe('files with nothing or nonsense in them', () => {
  it.each([
    ['commas.csv', ',,,\n,,,\n', 'file.empty'],
    ['blank.csv', '\n \n\t\n', 'file.empty'],
    ['bom.csv', '\uFEFF', 'file.empty'],
    ['wide.csv', `${'1,'.repeat(1500)}\n`, 'csv.columns'],
    ['binary.csv', 'x,y,z\n\u0000\u0001', 'csv.binary'],
  ])('%s', async (name, text, code) => {
    expect(await imported(name, text)).toBe(code);
  });
  it('a GeoTIFF whose keys are spoilt is unreadable, not a fault', async () => {
    const sound = tiffOf(
      Int16Array.from({ length: 16 }, (_, i) => 100 + i),
      4,
      PLACED,
    );
    expect(await imported('t.tif', sound)).toBe('taken as terrain');
    for (const values of [[1, 1, 0, 60_000, 1024, 0, 1, 1], [1, 1, 0, 2, 3072, 34737, 900, 60_000], [1]]) {
      const spoilt = tiffOf(new Int16Array(16).fill(100), 4, [...PLACED.slice(0, 2), { id: 34735, type: 3, values }]);
      expect(await imported('t.tif', spoilt)).toMatch(/^(geotiff|crs)\.|taken as terrain/);
    }
  });
  it('line ends of old machines and wide characters are read like any others', async () => {
    const asc = 'ncols 3\nnrows 2\nxllcorner 100\nyllcorner 200\ncellsize 2\nNODATA_value -9999\n1 2 3\n4 5 -9999\n';
    const wide = Uint8Array.from([0xff, 0xfe, ...[...asc].flatMap((c) => [c.charCodeAt(0), 0])]);
    for (const data of [asc.replace(/\n/g, '\r'), asc.replace(/\n/g, '\r\n'), wide]) {
      const read = (await importFile({ name: 'a.asc', bytes: bytesOf(data) })) as ImportedTerrain;
      expect(statsOf(read.grid)).toMatchObject({ cells: 6, noData: 1, minM: 1, maxM: 5 });
    }
  });
});

describe('projects beyond all measure', () => {
  it('too deep, with keys of the machine, too long or too wordy are refused where they are', () => {
    const deep = `{"format":"outlet-project","version":1,"a":${'['.repeat(20_000)}${']'.repeat(20_000)}}`;
    expect(codeOf(() => parseJson('p.json', strToU8(deep)))).toBe('json.too-deep');
    const plain = JSON.stringify(planeProject());
    for (const key of ['__proto__', 'constructor', 'toString'])
      expect(problemsOf(() => parseJson('p.json', strToU8(plain.replace('"site":{', `"site":{"${key}":null,`))))).toMatchObject([
        { code: 'json.key', where: { file: 'p.json', field: `site.${key}` } },
      ]);
    // One corner too many, and many too many.
    const ring = Array.from({ length: 20_000 }, (_, i) => [i, i % 7]);
    expect(codeOf(() => opened({ ...planeProject(), features: [{ id: 'f', kind: 'building', ring }] }))).toBe('line.corners');
    expect(codeOf(() => opened({ ...planeProject(), features: [{ id: 'f', kind: 'building', ring: ring.slice(0, 5000) }] }))).toBe('taken');
    expect(codeOf(() => opened({ ...planeProject(), features: [{ id: 'f', kind: 'building', ring: ring.slice(0, 5001) }] }))).toBe(
      'line.corners',
    );
    expect(codeOf(() => opened({ ...planeProject(), name: 'x'.repeat(20_001) }))).toBe('json.text');
    expect(codeOf(() => opened({ ...planeProject(), name: 'x'.repeat(800) }))).toBe('taken');
  });
  it('a work that lacks what it cannot be without is refused by its name', () => {
    const pipe = { id: 'q', kind: 'pipe-outlet', name: 'P', status: 'planned', host: 'w1', atM: 5, levels: { sillM: 110, outletM: 109 } };
    expect(problemsOf(() => opened(planeProject({}, [SWALE, pipe as never])))).toMatchObject([
      { code: 'work.shape', what: expect.stringContaining('"P"') },
    ]);
    for (const kind of registry.kinds)
      expect(codeOf(() => opened(planeProject({}, [{ id: 'q', kind, name: 'Q', status: 'planned' }])))).toMatch(/^work\.|^[a-z-]+\./);
  });
  it.each(['property-edge', 'terrain-edge', 'ground', '__proto__', 'constructor', '', ' ', 'a#b', 'a\u0007', 'x'.repeat(101)])(
    'the id %j is refused wherever an id can come in',
    (id) => {
      const at = (change: object): string => codeOf(() => readProject({ ...planeProject(), ...change }, registry));
      for (const change of [
        { id },
        { pins: [{ id, at: [1, 2] }] },
        {
          features: [
            {
              id,
              kind: 'track',
              line: [
                [1, 2],
                [3, 4],
              ],
            },
          ],
        },
        { options: [{ id, name: 'A', works: [] }], activeOption: id },
        { options: [{ id: 'o1', name: 'A', works: [{ ...SWALE, id }] }] },
        { cases: [{ id, name: 'C' }] },
        {
          ground: {
            ...planeProject().ground,
            zones: [
              {
                ...planeProject().ground,
                id,
                name: 'Z',
                ring: [
                  [1, 1],
                  [2, 1],
                  [2, 2],
                ],
              },
            ],
          },
        },
      ])
        expect(at(change)).toMatch(/isId|case\.member/);
    },
  );
  it('ids that stand twice are refused: pins, features, works, options, a pin and a work', () => {
    const twice = (change: object): string => codeOf(() => readProject({ ...planeProject(), ...change }, registry));
    const pin = { id: 'a', at: [1, 2] };
    expect(twice({ pins: [pin, pin] })).toBe('pin.same-id');
    expect(
      twice({
        features: [
          { id: 'a', kind: 'note' },
          { id: 'a', kind: 'note' },
        ],
      }),
    ).toBe('feature.same-id');
    expect(twice({ options: [{ id: 'o1', name: 'A', works: [SWALE, SWALE] }] })).toBe('work.same-id');
    expect(
      twice({
        options: [
          { id: 'o1', name: 'A', works: [] },
          { id: 'o1', name: 'B', works: [] },
        ],
      }),
    ).toBe('option.same-id');
    expect(twice({ pins: [{ ...pin, id: 'w1' }] })).toBe('work.pin-id');
  });
  it('terrain beside the project is a plain name: no way to other places of the machine', () => {
    const beside = (file: unknown): string => codeOf(() => readProject({ ...planeProject(), terrain: { kind: 'grid', file } }, registry));
    for (const file of ['../hill.asc', '/etc/hill.asc', 'a\\b.asc', '..', 'c:hill.asc', '', 7]) expect(beside(file)).toBe('terrain.file');
    expect(beside('hill.asc')).toBe('taken');
  });
});

describe('zips', () => {
  const json = strToU8(JSON.stringify(planeProject({ terrain: null })));
  const zip = (entries: Record<string, Uint8Array>): Uint8Array => zipSync(entries, { level: 9 });
  /** Says of an entry that it unpacks to another size, in both of the places a zip says it. */
  const lying = (bytes: Uint8Array, says: number): Uint8Array => {
    const out = bytes.slice();
    const view = new DataView(out.buffer);
    for (let i = 0; i + 46 < out.length; i++) {
      if (view.getUint32(i, true) === 0x04034b50) view.setUint32(i + 22, says, true);
      if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, says, true);
    }
    return out;
  };
  it('are judged before they are unpacked: entries, sizes and ratio', () => {
    const many = Object.fromEntries(Array.from({ length: ZIP_LIMITS.entries + 1 }, (_, i) => [`assets/${i}`, json]));
    expect(codeOf(() => openProjectFile('p', zip({ 'project.json': json, ...many })))).toBe('zip.limits');
    const before = process.memoryUsage().arrayBuffers;
    const bomb = zip({ 'project.json': json, [`assets/${'a'.repeat(64)}`]: new Uint8Array(40_000_000) });
    expect(bomb.length).toBeLessThan(60_000);
    expect(codeOf(() => openProjectFile('p', bomb))).toBe('zip.limits');
    for (const says of [300e6, 2_000_000_000, 4_294_967_295])
      expect(codeOf(() => openProjectFile('p', lying(zip({ 'project.json': json }), says)))).toBe('zip.limits');
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(200e6);
  });
  it('that say less than they hold never fill more than they said', () => {
    const inside = { 'project.json': strToU8(JSON.stringify({ ...planeProject({ terrain: null }), note: 'x'.repeat(9000) })) };
    expect(codeOf(() => openProjectFile('p', lying(zip(inside), 10)))).toMatch(/project\.damaged|json\.syntax/);
  });
  it('of ground as flat as a table, which packs a thousandfold, open again', () => {
    const flat = gridToBytes(gridOf(() => 100, { cells: 900, cellM: 1 }));
    const name = 'b'.repeat(64);
    const file = writeProjectFile(planeProject({ terrain: null }), new Map([[name, flat]]));
    // Only its name is wrong here: the limits let it through.
    expect(codeOf(() => openProjectFile('p', file))).toBe('asset.damaged');
  });
});

describe('messages', () => {
  it('quote at most 80 characters of what they found, list ten and count the rest', () => {
    const long = 'n'.repeat(5000);
    const options = [
      { id: 'o1', name: 'A', works: Array.from({ length: 40 }, (_, i) => ({ ...SWALE, id: `w${i}`, name: long, levels: {} })) },
    ];
    const problems = problemsOf(() => readProject({ ...planeProject(), options }, registry, `${long}.json`));
    expect(problems).toHaveLength(MOST_LISTED + 1);
    expect(problems[MOST_LISTED].what).toMatch(/^and \d+ more/);
    for (const { what, where, do: advice } of problems) {
      for (const [quoted] of `${what} ${advice}`.matchAll(/n{20,}/g)) expect(quoted.length).toBeLessThanOrEqual(MOST_QUOTED);
      expect((where.file ?? '').length).toBeLessThanOrEqual(MOST_QUOTED);
      expect(what.length + advice.length).toBeLessThan(700);
    }
  });
});

describe('what is written for other programs', () => {
  const peg = (name: string) => ({
    id: 'p',
    role: 'floor' as const,
    toleranceM: 0.025,
    work: 'w1',
    name,
    x: 1,
    y: 2,
    levelM: 3,
    groundM: 2.5,
    cutM: -0.5,
    staffM: null,
  });
  it('has no cell that a spreadsheet would run, and keeps its negative numbers', () => {
    for (const name of ['=1+1', '+1', '-1', '@x', '\tx', '\rx']) {
      const text = writePegs([peg(name)], 'csv', { crs: null, workNames: new Map([['w1', name]]) });
      expect(text.split('\n')[1]).toMatch(/^"?'/);
      expect(text).toContain(',-0.500,');
    }
  });
  it('has no control character or half of a pair in XML', () => {
    const crs = { code: 'EPSG:32633', name: 'UTM 33', proj4: '+proj=utm +zone=33 +datum=WGS84 +units=m +no_defs' };
    const text = writePegs([peg('a\u0000\u0008b\ud800<&"\u001b')], 'gpx', { crs, workNames: new Map() });
    // oxlint-disable-next-line no-control-regex
    expect(text).not.toMatch(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ud800-\udfff]/);
    expect(text).toContain('<name>w1 ab&#60;&#38;&#34;</name>');
  });
});
