import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { SILL, SWALE, planeProject } from '../testing/projects.ts';
import { type Project, UserError, canonicalJson, documentHash, emptyProject, nextName, nextNumber } from '../project/index.ts';
import { readProject } from '../project/guard.ts';
import { openProjectFile, writeProjectFile } from '../formats/index.ts';
import { registry } from '../works/index.ts';
import { type Command, type History, execute, redo, startHistory, undo } from './index.ts';

const ids = fc.constantFrom('a', 'b', 'c', 'w1', 's1', 'nobody');
const points = fc.tuple(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 200 }));
const numbers = fc.oneof(fc.double({ min: -5, max: 200, noNaN: true }), fc.constant(NaN));

const PICTURE = { name: 'Air', sha256: 'a'.repeat(64), kind: 'image/png', widthPx: 400, heightPx: 200, source: 'air.png', opacityPercent: 70 } as const; // prettier-ignore

/** Any command, sensible or not. */
const commands: fc.Arbitrary<Command> = fc.oneof(
  fc.string().map((name): Command => ({ type: 'project.rename', payload: { name } })),
  fc.array(points, { minLength: 3, maxLength: 6 }).map((outline): Command => ({ type: 'site.set', payload: { outline } })),
  fc.tuple(ids, points).map(([id, at]): Command => ({ type: 'pin.add', payload: { pin: { id, at } } })),
  fc.tuple(ids, points).map(([id, at]): Command => ({ type: 'pin.move', payload: { id, at } })),
  ids.map((id): Command => ({ type: 'pin.remove', payload: { id } })),
  fc
    .tuple(ids, fc.constantFrom(0.5, 0))
    .map(([id, across]): Command => ({
      type: 'picture.add',
      payload: { picture: { ...PICTURE, id, laying: [across, 0, 0, 0, -0.5, 100] } },
    })),
  fc
    .tuple(ids, points)
    .map(([id, at]): Command => ({ type: 'picture.change', payload: { id, set: { pins: [{ px: [1, 2], at }], isHidden: null } } })),
  ids.map((id): Command => ({ type: 'picture.remove', payload: { id } })),
  fc
    .tuple(ids, points)
    .map(([id, at]): Command => ({ type: 'feature.add', payload: { feature: { id, kind: 'track', line: [at, [1, 2]] } } })),
  ids.map((id): Command => ({ type: 'feature.remove', payload: { id } })),
  fc
    .constantFrom(2, 20, 7)
    .map((returnYears): Command => ({ type: 'rain.set-storm', payload: { storm: { returnYears, durationMin: 60 } } })),
  fc
    .tuple(ids, ids)
    .map(([id, sill]): Command => ({
      type: 'works.add',
      payload: { works: [{ ...SWALE, id }, { ...SILL, id: `${sill}x`, host: id } as typeof SILL] },
    })),
  fc
    .tuple(ids, fc.constantFrom('levels.floorM', 'levels.sillM', 'dimensions.lengthM', 'name', 'kind', 'no.such'), numbers)
    .map(([id, path, value]): Command => ({ type: 'works.change', payload: { changes: [{ id, set: { [path]: value } }] } })),
  fc
    .tuple(ids, numbers)
    .map(([id, levelM]): Command => ({
      type: 'works.change',
      payload: { changes: [{ id, set: { lowPlaces: [{ atM: 3, lengthM: 2, levelM }] } }] },
    })),
  fc.array(ids, { maxLength: 2 }).map((list): Command => ({ type: 'works.remove', payload: { ids: list } })),
);

/** Runs a sequence; refused commands must leave the history as it was. */
function run(start: Project, list: readonly Command[]): History {
  return list.reduce((history, command) => {
    const before = canonicalJson(history.project);
    try {
      return execute(history, command, { registry });
    } catch (error) {
      expect(error).toBeInstanceOf(UserError);
      expect(canonicalJson(history.project)).toBe(before);
      return history;
    }
  }, startHistory(start));
}

describe('how near a survey is known', () => {
  it('is said of the ground as it is, changed, taken back and undone', () => {
    const start = planeProject();
    const { project } = run(start, [{ type: 'survey.known', payload: { survey: 0, levelsM: 0.04 } }]);
    expect(project.terrain?.surveys).toEqual([{ name: 'the ground', levelsM: 0.04 }]);
    const history = run(project, [{ type: 'survey.known', payload: { survey: 0, levelsM: null } }]);
    expect(history.project.terrain?.surveys).toEqual([{ name: 'the ground' }]);
    const refused = (survey: number, levelsM: number) => () => execute(startHistory(project), { type: 'survey.known', payload: { survey, levelsM } }, { registry }); // prettier-ignore
    expect(refused(1, 1)).toThrow(/no survey 1/);
    expect(refused(0, 0.0009)).toThrow(/0\.001 to 100/);
    expect(refused(0, 100.1)).toThrow(/0\.001 to 100/);
    expect(refused(0, 100)).not.toThrow();
  });
});

describe('commands', () => {
  it('undone give the same document, redone the same again, for any sequence', () => {
    fc.assert(
      fc.property(fc.array(commands, { maxLength: 25 }), (list) => {
        const start = planeProject({ terrain: null });
        const end = run(start, list);
        let back = end;
        while (back.past.length > 0) back = undo(back);
        expect(back.project).toEqual(start);
        expect(documentHash(back.project)).toBe(documentHash(start));
        let forth = back;
        while (forth.future.length > 0) forth = redo(forth);
        expect(forth.project).toEqual(end.project);
      }),
      { seed: 31, numRuns: 120 },
    );
  });
  it('leave a document that a file reader takes, and that survives export and import bit for bit', () => {
    fc.assert(
      fc.property(fc.array(commands, { maxLength: 25 }), (list) => {
        const { project } = run(planeProject({ terrain: null }), list);
        const file = writeProjectFile(project, new Map());
        const { json } = openProjectFile('p.outlet', file);
        const read = readProject(json, registry);
        expect(read).toEqual(project);
        expect(writeProjectFile(read, new Map())).toEqual(file);
      }),
      { seed: 32, numRuns: 60 },
    );
  });
  it('make one step of a gesture', () => {
    const to = (floorM: number): Command => ({
      type: 'works.change',
      payload: { changes: [{ id: 'w1', set: { 'levels.floorM': floorM } }] },
    });
    let history = startHistory(planeProject());
    for (const level of [109.7, 109.6, 109.5]) history = execute(history, to(level), { registry, gesture: 'drag-1' });
    history = execute(history, to(109.4), { registry, gesture: 'drag-2' });
    expect(history.past).toHaveLength(2);
    expect(undo(undo(history)).project).toEqual(planeProject());
  });
  it('remove the sills with their swale', () => {
    const { project } = execute(startHistory(planeProject()), { type: 'works.remove', payload: { ids: ['w1'] } }, { registry });
    expect(project.options[0].works).toEqual([]);
  });
  it('say what is wrong and what to do', () => {
    const refusal = (command: Command): string => {
      try {
        execute(startHistory(planeProject()), command, { registry });
        return '';
      } catch (error) {
        return (error as UserError).problems.map((p) => `${p.code}: ${p.what} ${p.do}`).join();
      }
    };
    expect(refusal({ type: 'works.change', payload: { changes: [{ id: 'w1', set: { 'levels.floorM': 200 } }] } })).toMatch(
      /levels-order.*Raise the bank crest/,
    );
    expect(refusal({ type: 'works.add', payload: { works: [{ id: 'z', kind: 'moat', name: 'M', status: 'planned' }] } })).toMatch(
      /unknown-kind.*swale/,
    );
    expect(refusal({ type: 'rain.set-storm', payload: { storm: { returnYears: 7, durationMin: 60 } } })).toMatch(
      /1 in 7 years is not a row/,
    );
    expect(refusal({ type: 'works.add', payload: { works: [{ ...SILL, id: 'lost', host: 'gone' } as typeof SILL] } })).toMatch(/no-host/);
    expect(refusal({ type: 'option.remove', payload: { id: 'o1' } })).toMatch(/only option there is/);
    expect(refusal({ type: 'option.choose', payload: { id: 'zz' } })).toMatch(/id.missing/);
    expect(refusal({ type: 'option.copy', payload: { from: 'o1', id: 'o1', name: 'B' } })).toMatch(/id.taken/);
    expect(refusal({ type: 'option.copy', payload: { from: 'o1', id: 'o2', name: 4 as never } })).toMatch(/name/);
    expect(refusal({ type: 'nonsense', payload: {} } as unknown as Command)).toMatch(/command.unknown/);
  });
});

describe('options', () => {
  const at = (list: readonly Command[]) => list.reduce((h, c) => execute(h, c, { registry }), startHistory(planeProject()));
  const copied: Command = { type: 'option.copy', payload: { from: 'o1', id: 'o2', name: 'Two sills' } };
  it('a copy is looked at, and what is changed in it leaves the other as it was', () => {
    const { project } = at([copied, { type: 'works.change', payload: { changes: [{ id: 's1', set: { 'dimensions.lengthM': 9 } }] } }]);
    expect([project.activeOption, project.options.map((o) => o.name)]).toEqual(['o2', ['A', 'Two sills']]);
    expect(project.options.map((o) => (o.works[1] as typeof SILL).dimensions.lengthM)).toEqual([6, 9]);
    expect(at([copied, { type: 'option.rename', payload: { id: 'o1', name: 'One sill' } }]).project.options[0].name).toBe('One sill');
  });
  it('one that is removed gives way to the one before it; undone, all is as it was', () => {
    const three = at([copied, { type: 'option.copy', payload: { from: 'o2', id: 'o3', name: 'C' } }]);
    const gone = execute(three, { type: 'option.remove', payload: { id: 'o3' } }, { registry });
    expect([gone.project.activeOption, gone.project.options.length]).toEqual(['o2', 2]);
    const other = execute(three, { type: 'option.remove', payload: { id: 'o1' } }, { registry });
    expect([other.project.activeOption, other.project.options.map((o) => o.id)]).toEqual(['o3', ['o2', 'o3']]);
    expect(documentHash(undo(gone).project)).toBe(documentHash(three.project));
    expect(execute(three, { type: 'option.choose', payload: { id: 'o1' } }, { registry }).project.activeOption).toBe('o1');
  });
});

describe('a project file', () => {
  const good = JSON.parse(JSON.stringify(planeProject())) as Record<string, unknown>;
  const codes = (change: Record<string, unknown>): string => {
    try {
      readProject({ ...good, ...change }, registry, 'p.json');
      return 'accepted';
    } catch (error) {
      return (error as UserError).problems.map((p) => `${p.code}@${p.where.field ?? ''}`).join();
    }
  };
  it('is read whole, extra members kept', () => {
    expect(readProject({ ...good, diary: ['kept'] }, registry)).toEqual({ ...good, diary: ['kept'] });
    expect(readProject(JSON.parse(JSON.stringify(emptyProject('e', 'Empty'))), registry).terrain).toBeNull();
  });
  it.each([
    [{ format: 'other' }, 'project.not-a-project'],
    [{ version: 9 }, 'project.newer'],
    [{ pins: [{ id: 'k', at: [1] }] }, 'project.isPoint@pins.0.at'],
    [{ activeOption: 'zz' }, 'project.active-option@activeOption'],
    [{ site: null }, 'site'],
    [{ ground: { soilGroup: 'E' } }, 'ground.soilGroup'],
    [
      { rain: { table: { durationsMin: [10, 60], returnYears: [2], depthMm: [[9, 8]] }, storm: { returnYears: 2, durationMin: 60 } } },
      'rain.monotonic-duration@rain.table',
    ],
    [{ terrain: { kind: 'grid', ncols: 5000, nrows: 5000, west: 0, south: 0, cellM: 1, rows: 'north-first', z: [] } }, 'terrain.too-big'],
    [
      { terrain: { kind: 'grid', ncols: 2, nrows: 2, west: 0, south: 0, cellM: 1, rows: 'north-first', z: [1, 2, 'x', 4] } },
      'terrain.level@terrain.z.2',
    ],
    [{ options: [{ id: 'o1', name: 'A', works: [{ ...SWALE, line: [[0, 0]] }] }] }, 'work.line@options.0.works.0.line'],
    [
      { options: [{ id: 'o1', name: 'A', works: [{ id: 'q', kind: 'moat', name: 'Q', status: 'planned' }] }] },
      'work.unknown-kind@options.0.works.0.kind',
    ],
    [{ options: [{ id: 'o1', name: 'A', works: [SILL] }] }, 'work.no-host@options.0.works.0.host'],
    [{ options: [{ id: 'o1', name: 'A', works: [SWALE, SWALE] }] }, 'work.same-id@options.0.works.1.id'],
  ])('with %j is refused, naming %s', (change, expected) => {
    expect(codes(change)).toContain(expected);
  });
});

describe('the name of the next thing', () => {
  const among = (...names: string[]) => names.map((name) => ({ name }));
  it('bears a number past the highest there is, whatever was taken away and whatever else stands there', () => {
    expect(nextName('Swale', [])).toBe('Swale 1');
    expect(nextName('Swale', among('Field swale', 'Swales 9', 'Swale x', 'Swale 007', 'Swale -3', 'Swale 2.5'))).toBe('Swale 1');
    // The second stays after the first is taken away: a third is no second one.
    expect(nextName('Swale', among('Swale 2'))).toBe('Swale 3');
    expect(nextName('Swale', among('Swale 10', 'Swale 9', 'Pond 40'))).toBe('Swale 11');
    // Called so without a number, it is the first.
    expect(nextNumber('Tree', among('Tree'))).toBe(2);
    expect(nextNumber('Tree', [{}])).toBe(1);
  });
});
