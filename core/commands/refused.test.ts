// Commands are judged as a file is, before they enter: what is refused changes nothing, and nothing passes without a word.
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { type Project, UserError, canonicalJson } from '../project/index.ts';
import { documentProblems, readProject } from '../project/guard.ts';
import { SILL, SWALE, planeProject } from '../testing/projects.ts';
import { POND, POND_SILL, valleyProject } from '../testing/valley.ts';
import { type Tree, pathsIn, replacedAt } from '../testing/trees.ts';
import { registry } from '../works/index.ts';
import { type Command, applyCommand } from './index.ts';
import { PAYLOADS } from './payloads.ts';

const START = planeProject({ terrain: null });
const change = (set: object): unknown => ({ type: 'works.change', payload: { changes: [{ id: 'w1', set }] } });

function refusal(command: unknown, project: Project = START): string {
  const before = canonicalJson(project);
  try {
    const done = applyCommand(project, command as Command, registry).project;
    // What is taken must be what a file reader takes.
    readProject(JSON.parse(JSON.stringify(done)), registry);
    return 'done';
  } catch (error) {
    if (!(error instanceof UserError)) throw error;
    expect(canonicalJson(project)).toBe(before);
    return error.problems[0].code;
  }
}

const BOOK = { id: 'book', name: 'Yard', tool: 'level', placing: 'xy', side: 'right', lines: [{ name: 'sill', knownM: 100, backM: 1.2 }, { name: 'a', p: 3, q: 4, interM: 1.5, note: 'by the gate' }] } as const; // prettier-ignore
const PICTURE = { id: 'air', name: 'Air', sha256: 'a'.repeat(64), kind: 'image/png', widthPx: 400, heightPx: 200, source: 'air.png', laying: [0.5, 0, 0, 0, -0.5, 100], opacityPercent: 70 } as const; // prettier-ignore
const picture = (set: object): unknown => ({ type: 'picture.add', payload: { picture: { ...PICTURE, ...set } } });
const NEED = { id: 'n1', name: 'House', store: 'pond', kind: 'daily', count: 4, each: 50 } as const;

describe('a command', () => {
  it('with a picture brings its system where the project has none, and is refused in another', () => {
    const add = { type: 'picture.add', payload: { picture: PICTURE, crs: 'EPSG:2056' } };
    expect(applyCommand({ ...START, site: { ...START.site, crs: null } }, add as Command, registry).project.site.crs).toBe('EPSG:2056');
    expect(refusal(add, { ...START, site: { ...START.site, crs: 'EPSG:2056' } })).toBe('done');
    expect(refusal(add, { ...START, site: { ...START.site, crs: 'EPSG:32633' } })).toBe('picture.crs');
  });
  it.each([
    ['an unknown name', { type: 'works.paint', payload: {} }, 'command.unknown'],
    ['a name every object has', { type: 'constructor', payload: {} }, 'command.unknown'],
    ['a name that is none', { type: 7, payload: {} }, 'command.unknown'],
    ['no payload', { type: 'pin.add' }, 'commands.payload'],
    ['a list for a payload', { type: 'pin.add', payload: [] }, 'commands.payload'],
    ['a member it does not know', { type: 'site.set', payload: { crss: 'EPSG:32633' } }, 'commands.payload'],
    ['a member missing', { type: 'pin.move', payload: { id: 'k' } }, 'commands.payload'],
    ['values that are none', change('abc' as never), 'commands.payload'],
    ['a payload of the wrong kind', { type: 'works.change', payload: { changes: 7 } }, 'commands.payload'],
    ['a pin at "x"', { type: 'pin.add', payload: { pin: { id: 'k', at: 'x' } } }, 'project.isPoint'],
    ['a status that is none', change({ status: 'nonsense' }), 'project.isIn'],
    ['a name that is no text', { type: 'project.rename', payload: { name: 7 } }, 'project.isString'],
    ['an outline of one point', { type: 'site.set', payload: { outline: [[1, 2]] } }, 'project.isRing'],
    ['a zero level that is no number', { type: 'site.set', payload: { zeroLevelM: 'low' } }, 'project.isNumber'],
    [
      'a survey of another shape',
      { type: 'survey.set', payload: { survey: { heightOfCollimationM: null, pegIntervalM: -1 } } },
      'project.min',
    ],
    ['a book read with a tool that is none', { type: 'book.set', payload: { book: { ...BOOK, tool: 'spyglass' } } }, 'project.isIn'],
    [
      'a staff read at a hundred metres',
      { type: 'book.set', payload: { book: { ...BOOK, lines: [{ name: 'a', backM: 101 }] } } },
      'project.max',
    ],
    ['a picture without its file', picture({ sha256: 'none' }), 'project.matches'],
    ['a picture of a kind that is not shown', picture({ kind: 'image/gif' }), 'project.isIn'],
    ['a picture drawn out to a line', picture({ laying: [1, 1, 0, 1, 1, 0] }), 'project.isLaying'],
    ['a picture laid by five numbers', picture({ laying: [1, 0, 0, 0, -1] }), 'project.isLaying'],
    ['a picture seen by more than all of it', picture({ opacityPercent: 101 }), 'project.max'],
    ['a picture seen by all of it, over the least ground', picture({ opacityPercent: 100, laying: [0.001, 0, 0, 0, -0.001, 0] }), 'done'],
    ['a picture over less ground', picture({ laying: [0.001, 0, 0, 0, -0.0009, 0] }), 'project.isLaying'],
    ['a picture over the most ground', picture({ opacityPercent: 0, laying: [1000, 0, 0, 0, -1000, 0] }), 'done'],
    ['a picture over more ground', picture({ laying: [1000, 0, 0, 0, -1001, 0] }), 'project.isLaying'],
    ['a picture seen by less than nothing', picture({ opacityPercent: -1 }), 'project.min'],
    ['a picture pinned by four places', picture({ pins: [1, 2, 3, 4].map((k) => ({ px: [k, 0], at: [k, 0] })) }), 'done'],
    [
      'a picture pinned by five places',
      picture({ pins: [1, 2, 3, 4, 5].map((k) => ({ px: [k, 0], at: [k, 0] })) }),
      'project.arrayMaxSize',
    ],
    ['a picture pinned nowhere', picture({ pins: [{ px: [1, 1] }] }), 'project.isPoint'],
    ['a picture that is not there', { type: 'picture.change', payload: { id: 'air', set: { name: 'x' } } }, 'id.missing'],
    ['one mark alone', { type: 'book.set', payload: { book: { ...BOOK, baseM: [[0, 0]] } } }, 'project.isBase'],
    ['a book that is not there', { type: 'book.remove', payload: { id: 'nowhere' } }, 'id.missing'],
    ['a gauge without its sha', { type: 'gauge.set', payload: { gauge: { sha256: 'x', source: 's' } } }, 'gauge.asset'],
    ['eleven months', { type: 'climate.set', payload: { climate: { evaporationMm: Array(11).fill(90) } } }, 'project.isMonthly'],
    ['a month twice', { type: 'supply.set', payload: { supply: { needs: [{ ...NEED, months: [3, 3] }] } } }, 'project.isMonths'],
    ['a need that never stops', { type: 'supply.set', payload: { supply: { needs: [{ ...NEED, each: Infinity }] } } }, 'command.number'],
    ['two needs of one id', { type: 'supply.set', payload: { supply: { needs: [NEED, NEED] } } }, 'need.same-id'],
    ['land made up by half', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'a'.repeat(64), source: 'hill', isMadeUp: 'yes' }, crs: null } }, 'terrain.made-up'], // prettier-ignore
    ['a survey there is not', { type: 'survey.known', payload: { survey: 0, levelsM: 0.1 } }, 'survey.none'],
    ['a survey known to nothing', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'a'.repeat(64), source: 'hill', surveys: [{ name: 'hill', levelsM: 0 }] }, crs: null } }, 'terrain.surveys'], // prettier-ignore
    ['a survey whose distances are no asset', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'a'.repeat(64), source: 'hill', surveys: [{ name: 'hill', away: 'b' }] }, crs: null } }, 'terrain.surveys'], // prettier-ignore
    ['surveys that are no list', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'a'.repeat(64), source: 'hill', surveys: 'two' }, crs: null } }, 'terrain.surveys'], // prettier-ignore
    ['a survey without a name', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'a'.repeat(64), source: 'hill', surveys: [{}] }, crs: null } }, 'terrain.surveys'], // prettier-ignore
    ['a survey that strays beyond all ground', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'a'.repeat(64), source: 'hill', surveys: [{ name: 'h', growsBy: 11 }] }, crs: null } }, 'terrain.surveys'], // prettier-ignore
    ['a survey that passes into the ground backwards', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'a'.repeat(64), source: 'hill', surveys: [{ name: 'h', featherM: -1 }] }, crs: null } }, 'terrain.surveys'], // prettier-ignore
    ['terrain of another kind', { type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: 'x' }, crs: null } }, 'terrain.asset'],
    ['a work of an id that is taken', { type: 'works.add', payload: { works: [SWALE] } }, 'id.taken'],
    ['a work at the property edge', { type: 'works.add', payload: { works: [{ ...SWALE, id: 'property-edge' }] } }, 'project.isId'],
    [
      'a payload too deep',
      { type: 'ground.set', payload: { ground: JSON.parse(`${'['.repeat(60)}${']'.repeat(60)}`) as unknown } },
      'json.too-deep',
    ],
  ])('with %s is refused', (_, command, code) => {
    expect(refusal(command)).toBe(code);
  });
  it.each([
    '__proto__.polluted',
    'levels.__proto__.polluted',
    'constructor.prototype.polluted',
    'toString.polluted',
    '__proto__',
    'levels..floorM',
    '',
    'line.length',
    'line.9',
    'line.-1',
  ])('cannot set %j', (path) => {
    expect(refusal(change({ [path]: 9 }))).toMatch(/^work\.path$|^json\.key$/);
    expect(({} as Record<string, unknown>).polluted).toBeUndefined();
    expect([].length).toBe(0);
  });
  it('may set a place that is there', () => {
    expect(refusal(change({ 'line.1': [170, 101], 'levels.floorM': 109.7 }))).toBe('done');
    expect(refusal(change({ 'line.1': null }))).toBe('work.path');
  });
  it('whatever is in its payload, leaves a document that the reader takes, or changes nothing', () => {
    const start: Project = { ...valleyProject([POND, POND_SILL, { ...SWALE, id: 'w1' }, SILL]), terrain: null };
    const sound: readonly Command[] = [
      { type: 'pin.add', payload: { pin: { id: 'k', at: [5, 5] } } },
      { type: 'feature.add', payload: { feature: { id: 'f', kind: 'spring', at: [9, 9], flowM3s: 0.001 } } },
      { type: 'features.add', payload: { features: [{ id: 'g', kind: 'track', line: [[1, 1], [9, 9]] }], outline: [[0, 0], [9, 0], [9, 9]] } }, // prettier-ignore
      { type: 'works.add', payload: { works: [{ ...SWALE, id: 'w9' }, { ...SILL, id: 's9', host: 'w9' } as typeof SILL] } },
      { type: 'works.change', payload: { changes: [{ id: 'pond', set: { borrow: 'inside', clayPercent: 25 } }] } },
      { type: 'case.add', payload: { case: { id: 'c', name: 'C', blockedPercent: { pond: 50 } } } },
      { type: 'ground.set', payload: { ground: start.ground! } },
      { type: 'rain.set', payload: { rain: start.rain! } },
      {
        type: 'site.set',
        payload: {
          outline: [
            [1, 1],
            [90, 1],
            [90, 90],
          ],
          crs: null,
          zeroLevelM: 3,
        },
      },
      { type: 'link.set', payload: { outlet: 'ps', to: 'ground' } },
      { type: 'climate.set', payload: { climate: { evaporationMm: Array<number>(12).fill(90), rainTimes: 0.9, source: 'typed' } } },
      {
        type: 'supply.set',
        payload: {
          supply: {
            needs: [NEED],
            topUps: [{ store: 'pond', toM3: 4, mostM3PerDay: 1 }],
            order: 'before',
            price: { fixed: 90, perM3: 70 },
          },
        },
      },
      { type: 'start.set', payload: { store: 'pond', levelM: 105 } },
      { type: 'survey.set', payload: { survey: { heightOfCollimationM: 108, pegIntervalM: 5 } } },
      { type: 'book.set', payload: { book: BOOK } },
    ];
    const odd = fc.oneof(
      fc.constantFrom<unknown>(null, -1, 1e300, '', '__proto__', 'ground', [], {}, true, [[1, 2]], 'planned'),
      fc.jsonValue({ maxDepth: 2 }),
    );
    fc.assert(
      fc.property(fc.constantFrom(...sound), fc.nat(), odd, (command, at, value) => {
        const tree = command as unknown as Tree;
        const paths = pathsIn(tree).filter((p) => p !== 'type');
        refusal(replacedAt(tree, paths[at % paths.length], value), start);
      }),
      { seed: 14, numRuns: 1500 },
    );
  });
  it('has its members named for every command there is', () => {
    for (const command of Object.keys(PAYLOADS)) expect(refusal({ type: command, payload: { nothing: 1 } })).toBe('commands.payload');
  });
});

describe('judging what changed', () => {
  it('finds the same as judging the whole', () => {
    const whole: Project = { ...valleyProject([POND, POND_SILL, { ...SWALE, id: 'w1' }, SILL]), terrain: null };
    const paths = pathsIn(whole as unknown as Tree).filter((p) => !/^terrain|^format|^version/.test(p));
    fc.assert(
      fc.property(fc.constantFrom(...paths), fc.constantFrom<unknown>(null, -1, '', 'x', [], {}, 'built', [[1, 2]]), (path, value) => {
        // Parts off the path stay the same objects, as a command leaves them.
        const keys = path.split('.');
        const put = (node: unknown, k: number): unknown => {
          if (k === keys.length) return value;
          const copy: unknown = Array.isArray(node) ? [...(node as unknown[])] : { ...(node as object) };
          (copy as Tree)[keys[k]] = put((node as Tree)[keys[k]], k + 1);
          return copy;
        };
        const next = put(whole, 0) as Project;
        const codes = (before?: Project): string[] =>
          documentProblems(next, registry, before).map((p) => `${p.code} ${p.where.field ?? ''}`);
        expect(codes(whole)).toEqual(codes());
      }),
      { seed: 15, numRuns: 600 },
    );
  });
});
