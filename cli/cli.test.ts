import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it } from '@jest/globals';
import { UserError } from '#core/project';
import { SWALE, planeProject } from '../core/testing/projects.ts';
import { COMMANDS } from './commands.ts';

const folder = mkdtempSync(join(tmpdir(), 'outlet-cli-'));
const path = (name: string): string => join(folder, name);
const put = (name: string, value: unknown): string => {
  writeFileSync(path(name), typeof value === 'string' ? value : JSON.stringify(value));
  return path(name);
};
const run = async <T>(name: string, ...words: string[]): Promise<T> => JSON.parse(await COMMANDS[name](words)) as T;
const refusal = async (name: string, ...words: string[]): Promise<string> => {
  try {
    await COMMANDS[name](words);
    return 'accepted';
  } catch (error) {
    return error instanceof UserError ? error.problems.map((p) => `${p.code}@${p.where.field ?? ''}`).join() : String(error);
  }
};

describe('the command line', () => {
  let project = '';
  beforeAll(() => {
    project = put('p.json', planeProject());
  });
  it('derives a project, the same every time, without NaN', async () => {
    const text = await COMMANDS.derive([project, '--json']);
    expect(await COMMANDS.derive([project, '--json'])).toBe(text);
    const out = JSON.parse(text) as Record<string, unknown>;
    expect(Object.keys(out)).toEqual(
      expect.arrayContaining([
        'format',
        'version',
        'option',
        'terrain',
        'catchments',
        'runoff',
        'stores',
        'links',
        'balance',
        'checks',
        'pegs',
        'verdicts',
        'worksheets',
      ]),
    );
    expect(text).not.toMatch(/NaN|Infinity/);
  });
  it('answers questions about ground and runoff by name, and refuses what has no catchment', async () => {
    type Reply<T> = { answer: T };
    const methods = await run<Reply<{ tcMin: number; times: { method: string; tcMin: number | null }[]; losses: { runoffMm: number }[] }>>(
      'ground',
      project,
      'methods',
      '{"of":"w1"}',
    );
    expect(methods.answer.times.find((t) => t.method === 'lag')?.tcMin).toBe(methods.answer.tcMin);
    expect(methods.answer.losses).toHaveLength(4);
    const picture = await run<Reply<{ now: { soaksMm: number; standsMm: number; runsMm: number } }[]>>(
      'ground',
      project,
      'picture',
      '{"rain":{"depthMm":30,"durationMin":60}}',
    );
    const { soaksMm, standsMm, runsMm } = picture.answer[0].now;
    expect(soaksMm + standsMm + runsMm).toBeCloseTo(30, 9);
    expect(await refusal('ground', project, 'methods', '{"of":"nothing"}')).toBe('catchment.missing@');
    expect(await refusal('ground', project, 'soil')).toBe('question.unknown@');
    expect(await refusal('ground', put('bare.json', planeProject({ ground: null })), 'methods', '{"of":"w1"}')).toBe('ground.missing@');
    // The demo's ring test is read from its file.
    const tests = await run<Reply<{ isSteady: boolean; design: { rateMmPerHour: number } }[]>>('ground', 'demo/demo.outlet', 'tests');
    expect(tests.answer.map((t) => t.isSteady)).toEqual([true]);
    expect(tests.answer[0].design.rateMmPerHour).toBeCloseTo(13, 9);
    const depth = await run<{ result: number }>('calc', 'runoff.green-ampt-depth', '{"K":6.5,"s":56.8,"t":1}');
    expect(Math.abs(depth.result - 31.7)).toBeLessThan(0.1);
  });
  it('answers questions about the land by name', async () => {
    type Reply<T> = { question: string; answer: T };
    const slope = await run<Reply<(number | null)[]>>('land', project, 'layer', '{"layer":"slope"}');
    expect(slope.answer).toHaveLength(101 * 101);
    expect(slope.answer[50 * 101 + 50]).toBeCloseTo(0.1, 4);
    const fall = await run<Reply<{ fallM: number; trench: { deepestM: number } }>>(
      'land',
      project,
      'fall',
      '{"from":[50,150],"to":[50,100],"gradeM":0.005}',
    );
    expect(fall.answer.fallM).toBeCloseTo(5, 2);
    expect(fall.answer.trench.deepestM).toBeCloseTo(0, 6);
    const hollows = await run<Reply<(number | null)[]>>('land', project, 'layer', '{"layer":"hollows"}');
    expect(hollows.answer.every((v) => v === null)).toBe(true);
    expect(await run<Reply<{ places: unknown[] }>>('land', project, 'places')).toMatchObject({
      question: 'places',
      answer: { places: [] },
    });
    expect(await refusal('land', project)).toBe('cli.missing@');
    expect(await refusal('land', project, 'weather')).toBe('question.unknown@');
    expect(await refusal('land', project, 'fall', '{"from":3}')).toBe('question.arguments@fall');
  });
  it('keeps the words of checks metric and without the pieces they are made of', async () => {
    const out = await run<{ checks: { do: string; said?: unknown }[] }>('derive', project);
    expect(out.checks.length).toBeGreaterThan(10);
    for (const check of out.checks) {
      expect(typeof check.do).toBe('string');
      expect(check.said).toBeUndefined();
    }
  });
  it('finds a terrain file beside the project', async () => {
    put('t.asc', 'ncols 4\nnrows 4\nxllcorner 0\nyllcorner 0\ncellsize 5\n4 4 4 4\n3 3 3 3\n2 2 2 2\n1 1 1 1\n');
    const file = put('f.json', { ...planeProject({}, []), terrain: { kind: 'grid', file: 't.asc' } });
    expect(await run('derive', file)).toMatchObject({ terrain: { cells: 16, minM: 1, maxM: 4, areaM2: 400 } });
  });
  it('applies commands and refuses the whole list when one is wrong', async () => {
    const ok = put('ok.json', [
      { type: 'pin.add', payload: { pin: { id: 'k', at: [50, 50] } } },
      { type: 'works.change', payload: { changes: [{ id: 's1', set: { 'dimensions.lengthM': 9 } }] } },
    ]);
    const changed = await run<{ pins: unknown[]; options: { works: { dimensions: { lengthM: number } }[] }[] }>('apply', project, ok);
    expect(changed.pins).toHaveLength(1);
    expect(changed.options[0].works[1].dimensions.lengthM).toBe(9);
    expect(await refusal('apply', project, put('bad.json', [{ type: 'pin.add', payload: { pin: { id: 'k', at: 'here' } } }]))).toBe(
      'project.isPoint@0.pins.0.at',
    );
    expect(
      await refusal(
        'apply',
        project,
        put('bad2.json', [{ type: 'works.change', payload: { changes: [{ id: 's1', set: { 'dimensions.lengthM': -1 } }] } }]),
      ),
    ).toBe('work.field-range@0.dimensions.lengthM');
    expect(await refusal('apply', project, put('bad3.json', [{ type: 'pin.add', payload: {} }]))).toBe('commands.payload@0');
    expect(await refusal('apply', project, put('bad4.json', { type: 'x' }))).toBe('commands.list@');
  });
  it('asks the rain: what storm a reading was, and what a gauge says', async () => {
    const which = await run<{ answer: { best: { years: number } } }>(
      'rain',
      project,
      'which',
      '{"depthMm":41,"durationMin":60,"by":"gauge"}',
    );
    expect(which.answer.best.years).toBeCloseTo(20, 3);
    expect(await refusal('rain', project, 'seasons')).toBe('gauge.missing@');
    expect(await refusal('rain', project, 'which', '{"depthMm":0,"durationMin":60,"by":"gauge"}')).toBe('rain.reading@');
    expect(await refusal('rain', project, 'snow')).toBe('question.unknown@');
    const demo = join(process.cwd(), 'demo/demo.outlet');
    const quality = await run<{ answer: { years: unknown[]; wholeYears: number } }>('rain', demo, 'quality');
    expect([quality.answer.years.length, quality.answer.wholeYears]).toEqual([30, 29]);
    expect(await run('import', join(process.cwd(), 'demo/sample-gauge.csv'), '--json')).toMatchObject({
      kind: 'gauge',
      stepMin: 1440,
      tooShort: false,
    });
  });
  it('says what it understood of a file', async () => {
    expect(
      await run(
        'import',
        put('u.asc', 'ncols 2\nnrows 2\nxllcorner 10\nyllcorner 20\ncellsize 5\n1 2\n3 4\n'),
        '--crs',
        'EPSG:32633',
        '--json',
      ),
    ).toMatchObject({ kind: 'terrain', crs: 'EPSG:32633', extent: { west: 10, south: 20, east: 20, north: 30 }, cells: 4 });
    expect(await run('import', put('r.csv', 'duration_h,2,20\n1,20,41\n2,26,52\n'))).toMatchObject({
      kind: 'rain',
      table: {
        durationsMin: [60, 120],
        depthMm: [
          [20, 26],
          [41, 52],
        ],
      },
    });
  });
  it('says what is drawn in a file and what each is likely to be, and makes ground of its levels where it is asked to', async () => {
    const contours = [0, 1, 2].map((k) => ({ type: 'Feature', properties: { layer: 'Farm tracks', ele: 100 + k }, geometry: { type: 'LineString', coordinates: [[500000, 5300000 + 9 * k], [500030, 5300000 + 9 * k]] } })); // prettier-ignore
    const file = put('map.geojson', JSON.stringify({ type: 'FeatureCollection', features: contours }));
    expect(await run('import', file, '--crs', 'EPSG:32633')).toMatchObject({
      kind: 'shapes',
      crs: 'EPSG:32633',
      canBeGround: true,
      shapes: [{ group: 'Farm tracks', form: 'line', likely: 'track', levelsM: [100, 100] }, {}, {}],
    });
    const ground = await run<Record<string, unknown>>('import', file, '--crs', 'EPSG:32633', '--as', 'terrain');
    expect(ground).toMatchObject({ kind: 'terrain', crs: 'EPSG:32633', minM: expect.any(Number) });
    expect(await refusal('import', file, '--as', 'picture')).toBe('cli.as@');
  });
  it('exports pegs with staff readings', async () => {
    const lines = (await COMMANDS.export([project, '--pegs', 'csv', '--hi', '112', '--interval', '50'])).trim().split('\n');
    expect(lines).toHaveLength(1 + 4 + 3);
    expect(lines[1]).toBe('Upper,0 m,32.000,101.000,110.100,109.750,0.350,2.250');
    expect(await refusal('export', project, '--pegs', 'gpx')).toBe('crs.none@site.crs');
    expect(await refusal('export', project, '--pegs', 'csv', '--hi', 'high')).toBe('cli.number@');
  });
  it('exports the whole plan as a drawing, with contours where an interval is given', async () => {
    const rows = (await COMMANDS.export([project, '--to', 'csv', '--contours', '5'])).trim().split('\n').map((l) => l.split(',')[0]); // prettier-ignore
    for (const layer of ['Works: Level swale', 'Pegs', 'Contours']) expect(rows).toContain(layer);
    expect((await COMMANDS.export([project, '--to', 'dxf'])).includes('CONTOURS')).toBe(false);
    expect(await refusal('export', project, '--to', 'xyz')).toBe('cli.format@');
    expect(await refusal('export', project, '--to', 'csv', '--contours', '0')).toBe('cli.contours@');
    expect(await refusal('export', project, '--to', 'kml')).toBe('crs.none@site.crs');
  });
  it('exports the ground, and lays a survey into it', async () => {
    const out = path('ground.asc');
    const told = await run<{ cells: number; minM: number; crs: null }>('export', project, '--to', 'asc', '--out', out);
    const again = await run<{ kind: string; minM: number; extent: { west: number; south: number } }>('import', out);
    expect([told.crs, again.kind, again.minM]).toEqual([null, 'terrain', expect.closeTo(told.minM, 3)]);
    expect(await refusal('export', project, '--to', 'tif')).toBe('cli.out@');
    const built = await run<{ made: string[]; left: string[]; minM: number; cells: number }>('export', project, '--to', 'asc', '--ground', 'built', '--out', path('built.asc')); // prettier-ignore
    expect([built.made, built.left, built.cells > told.cells]).toEqual([['w1', 's1'], [], true]);
    expect(await refusal('export', project, '--to', 'asc', '--ground', 'bare', '--out', out)).toBe('cli.ground@');
    // A survey 2 m above the ground, from a peg of its own.
    const { west, south } = again.extent;
    const points = Array.from({ length: 25 }, (_, k) => [west + 20 + 5 * (k % 5), south + 20 + 5 * Math.floor(k / 5)] as const);
    const survey = put('yard.csv', ['x,y,z', ...points.map(([x, y]) => `${x},${y},500`)].join('\n'));
    const made = path('patched.tif');
    const laid = await run<{ differs: { medianM: number }; shiftM: number; featherM: number; written: string }>('patch', project, survey, '--shift', 'ground', '--feather', '4', '--out', made); // prettier-ignore
    expect([laid.shiftM, laid.featherM, laid.written]).toEqual([-laid.differs.medianM, 4, made]);
    expect((await run<{ kind: string }>('import', made)).kind).toBe('terrain');
    expect((await run<{ written: null; shiftM: number }>('patch', project, survey)).written).toBeNull();
    expect(await refusal('patch', project)).toBe('cli.missing@');
    expect(await refusal('patch', project, survey, '--feather', '-1')).toBe('cli.feather@');
    const far = put('far.csv', 'x,y,z\n900000,900000,1\n900009,900000,1\n900000,900009,2\n');
    expect(await refusal('patch', project, far)).toMatch(/^terrain\.apart@/);
    expect(await refusal('import', out, '--levels', 'yards')).toBe('cli.levels@');
    // A part of it, in its own coordinates; another band than it has is refused.
    const part = [west + 10, south + 10, west + 60, south + 40].join(',');
    const cut = await run<{ warnings: string[] }>('import', made, '--band', '1', '--part', part);
    expect(cut.warnings.join(' ')).toMatch(/\b25 by 15 of its 101 by 101 cells were read: the part you asked for/);
    const bad = [['--part', '1,2,3'], ['--part', '5,5,1,9'], ['--part', '1,2,,4'], ['--band', '0'], ['--band', 'x']]; // prettier-ignore
    expect(await Promise.all(bad.map((words) => refusal('import', out, ...words)))).toEqual([...Array<string>(3).fill('cli.part@'), 'cli.band@', 'cli.band@']); // prettier-ignore
    expect(await refusal('import', made, '--band', '2')).toMatch(/^bands\.none@/);
    expect(await refusal('import', survey, '--part', part)).toMatch(/^file\.whole-only@/);
    const tables = await run<{ sheets: { name: string; rows: number }[] }>('export', project, '--to', 'xlsx', '--out', path('t.xlsx'));
    expect(tables.sheets.map((t) => t.name)).toEqual(['Stores', 'Quantities', 'Pegs', 'Checks']);
    expect(tables.sheets.every((t) => t.rows > 0)).toBe(true);
  });
  it('lists formulas and evaluates one, with its range', async () => {
    const list = await run<{ id: string; symbols: Record<string, { unit: string }> }[]>('formulas', '--json');
    expect(list.find((f) => f.id === 'runoff.curve-number')?.symbols.P.unit).toBe('mm');
    expect(await run('calc', 'runoff.curve-number', '{"P":127,"CN":80}')).toMatchObject({ unit: 'mm', inRange: true });
    expect((await run<{ result: number }>('calc', 'runoff.curve-number', '{"P":127,"CN":80}')).result / 25.4).toBeCloseTo(2.89, 2);
    expect(await run('calc', 'runoff.curve-number', '{"P":127,"CN":20}')).toMatchObject({ inRange: false });
    expect(await refusal('calc', 'runoff.curve-number', '{"P":127}')).toBe('formula.input@runoff.curve-number');
    expect(await refusal('calc', 'no.such', '{}')).toBe('formula.unknown@');
  });
  it('calc takes lists and words, and gives lists', async () => {
    const inputs = '{"P":[2,3,1],"U":[404,1079,2343]}';
    expect(await run('calc', 'runoff.convolution', inputs)).toMatchObject({ result: [808, 3370, 8327, 8108, 2343], unit: 'm³/s' });
    expect(await run('calc', 'rain.day-share', '{"type":"II","t":12}')).toMatchObject({ result: 0.663, inRange: true });
    expect(await refusal('calc', 'rain.day-share', '{"type":"X","t":12}')).toBe('formula.input@rain.day-share');
  });
  it('refuses what it does not know', async () => {
    expect(await refusal('derive', path('nothing.json'))).toBe('file.missing@');
    expect(await refusal('derive', project, '--option', 'zz')).toBe('option.missing@option');
    expect(await refusal('derive', project, '--colour', 'red')).toBe('cli.option@');
  });
});

describe('the works together', () => {
  const demo = fileURLToPath(new URL('../demo/demo.outlet', import.meta.url));
  it('derive --case gives the case, and refuses one that is not there', async () => {
    type Out = { stores: { id: string; freeboardM: number }[] };
    const left = (d: Out): number => d.stores.find((s) => s.id === 'pond')?.freeboardM ?? NaN;
    expect(left(await run<Out>('derive', demo, '--case', 'blocked-old-pipe'))).toBeLessThan(left(await run<Out>('derive', demo)));
    expect(await refusal('derive', demo, '--case', 'nope')).toBe('case.missing@case');
  });
  it('failure-order lists every way out and crest of the demo, and what is wrong in it', async () => {
    const told = await run<{ steps: { outlet: string }[]; wrong: { first: string; before: string; byM: number }[] }>('failure-order', demo);
    expect(told.steps.map((s) => s.outlet)).toEqual(
      expect.arrayContaining(['old-pipe', 'far-sill', 'emergency', 'back-up#fuse', 'pond#crest', 'ford#pipe']),
    );
    const found = told.wrong.find((w) => w.first === 'pond#crest' && w.before === 'back-up#fuse');
    expect(found?.byM).toBeGreaterThan(0.02);
    expect(found?.byM).toBeLessThan(0.3);
  });
  it('derive takes a scenario: nothing found otherwise is worse than the worst of the set, and what it cannot mean is refused', async () => {
    interface Told {
      readonly set: { readonly durationsMin: readonly number[]; readonly conditions: readonly string[] } | null;
      readonly stores: readonly {
        readonly id: string;
        readonly peakLevelM: number;
        readonly worst: Record<string, { readonly value: number }>;
      }[];
    }
    const whole = await run<Told>('derive', demo);
    expect(whole.set).toMatchObject({ conditions: ['found', 'full', 'blocked', 'wet', 'bare'] });
    const full = await run<Told>('derive', demo, '--scenario', '{"conditions":{"full":true,"bare":false}}');
    full.stores.forEach((store, k) => {
      expect(whole.stores[k].worst.peakLevelM.value).toBeGreaterThanOrEqual(store.peakLevelM - 1e-9);
      expect(store.peakLevelM).toBeGreaterThanOrEqual(whole.stores[k].peakLevelM - 1e-9);
    });
    for (const [scenario, code] of [
      ['{"stage":"s"}', 'scenario.member@stage'],
      ['{"conditions":{"soggy":true}}', 'scenario.conditions@conditions.soggy'],
      ['{"conditions":{"full":1}}', 'scenario.conditions@conditions.full'],
      ['{"case":7}', 'scenario.case@case'],
      ['[]', 'scenario.shape@'],
    ])
      expect(await refusal('derive', demo, '--scenario', scenario)).toBe(code);
  });
  it('network asks any question by name, and refuses what it does not know', async () => {
    const mark = await run<{ answer: { years: number | null } }>('network', demo, 'whichStorm', '{"store":"pond","levelM":108.9}');
    expect(mark.answer.years).toBeGreaterThan(20);
    expect(await refusal('network', demo, 'whichStorm', '{"store":"barn","levelM":108.4}')).toBe('network.store@');
    expect(await refusal('network', demo, 'weather')).toBe('question.unknown@');
  });
  it('season and size tell water day by day, and refuse what cannot be', async () => {
    interface Told {
      readonly years: number;
      readonly stores: readonly { readonly id: string; readonly inM3: number; readonly suppliedShare: number | null }[];
      readonly demands: readonly { readonly id: string; readonly suppliedShare: number }[];
      readonly balance: { readonly errorM3: number };
      readonly series: { readonly dates: readonly string[]; readonly volumeM3: Readonly<Record<string, readonly number[]>> } | null;
    }
    const told = await run<Told>('season', demo, '--years', '2004..2006', '--daily');
    expect([told.years, told.series!.dates.length, told.series!.volumeM3.cistern.length]).toEqual([3, 1096, 1096]);
    expect(told.balance.errorM3).toBeLessThan(0.001);
    const cistern = told.stores.find((s) => s.id === 'cistern')!;
    expect(cistern.suppliedShare!).toBeGreaterThan(0.4);
    expect(told.demands.map((d) => d.id)).toEqual(['house', 'garden', 'herd']);
    const sizes = await run<{ rows: { litres: number; suppliedShare: number; costPer1000L: number }[] }>('size', demo, 'cistern', '{"litres":[5000,50000]}'); // prettier-ignore
    expect(sizes.rows.map((r) => r.litres)).toEqual([5000, 50000]);
    expect(sizes.rows[1].suppliedShare).toBeGreaterThan(sizes.rows[0].suppliedShare);
    expect(await refusal('size', demo, 'cistern', '{"litres":[-5]}')).toBe('size.litres@');
    expect(await refusal('size', demo, 'barn')).toBe('size.store@');
    expect(await refusal('size', demo)).toBe('cli.missing@');
    expect(await refusal('season', demo, '--years', '2006..2004')).toBe('cli.years@');
    expect(await refusal('season', demo, '--years', 'soon')).toBe('cli.years@');
    expect((await run<{ result: number[] }>('calc', 'season.use-after-spill', '{"Q":[3,0],"D":[2,2],"S":4,"V0":0}')).result).toEqual([
      0, 2,
    ]);
  });
  it('asks what a comma means where nothing tells, and takes the user’s word', async () => {
    const rows = Array.from({ length: 20 }, (_, i) => `${(i % 5) * 10};${Math.floor(i / 5) * 10};1,${204 + i}`);
    const file = put('doubtful.csv', `x;y;z\n${rows.join('\n')}\n`);
    expect(await refusal('import', file)).toBe('number.doubtful@');
    const highest = async (word: string): Promise<number> =>
      (JSON.parse(await COMMANDS.import([file, '--decimal', word, '--json'])) as { maxM: number }).maxM;
    expect(await highest('comma')).toBeLessThan(1.3);
    expect(await highest('point')).toBeGreaterThan(1200);
    expect(await refusal('import', file, '--decimal', 'dot')).toBe('cli.decimal@');
  });
  it('names works that are not computed, and computes the rest', async () => {
    const off = {
      ...SWALE,
      id: 'off',
      name: 'Off',
      line: [
        [900, 101],
        [990, 101],
      ],
    };
    const { uncomputed, stores } = JSON.parse(await COMMANDS.derive([put('off.json', planeProject({}, [SWALE, off]))])) as {
      uncomputed: { work: string; why: string; offM: number }[];
      stores: { id: string }[];
    };
    expect(uncomputed).toMatchObject([{ work: 'off', why: 'ground', offM: 698 }]);
    expect(stores.map((s) => s.id)).toEqual(['w1']);
  });
});

describe('kinds, and works begun', () => {
  it('lists kinds of work with a sample that its own begin could have made', async () => {
    const kinds = await run<{ kind: string; draws: { id: string }[]; fields: unknown[]; traits: object; sample: { kind: string } }[]>(
      'kinds',
      '--json',
    );
    expect(kinds.map((k) => k.kind)).toContain('swale');
    for (const k of kinds)
      expect([k.sample.kind, k.draws.length > 0, k.fields.length > 0, Object.keys(k.traits).length >= 7]).toEqual([
        k.kind,
        true,
        true,
        true,
      ]);
  });
  it('begins a work from a drawing, which works.add then takes', async () => {
    const project = put('plane.json', planeProject());
    type Made = { id: string; kind: string; host?: string };
    const works = await run<Made[]>('begin', 'swale', project, '[[40,131],[160,131]]', '--json');
    expect(works.map((w) => [w.kind, w.host])).toEqual([
      ['swale', undefined],
      ['level-sill', 'swale-1'],
    ]);
    const commands = put('begun.json', [{ type: 'works.add', payload: { works } }]);
    const changed = put('with.json', await run('apply', project, commands));
    const [way] = await run<Made[]>('begin', 'cut-spillway', changed, '[]', '--host', 'swale-1');
    expect(way).toMatchObject({ kind: 'cut-spillway', host: 'swale-1' });
    expect(await refusal('begin', 'moat', project, '[]')).toBe('work.unknown-kind@');
    expect(await refusal('begin', 'swale')).toBe('cli.missing@');
    expect(await refusal('begin', 'swale', project, '[[1]]')).toBe('begin.points@');
    expect(await refusal('begin', 'level-sill', project, '[]', '--host', 'nobody')).toBe('work.host@host');
  });
});
