import { type Draft, type Patch, applyPatches, current, enablePatches, produceWithPatches } from 'immer';
import {
  type Ground,
  type Option,
  type Project,
  UserError,
  type UserProblem,
  isForbiddenKey,
  requireWithin,
  surveysOf,
} from '../project/index.ts';
import { documentProblems } from '../project/guard.ts';
import type { WorkBase } from '../contract/index.ts';
import type { Catalogue } from '../works/index.ts';
import { told } from '../units/index.ts';
import { PAYLOADS } from './payloads.ts';
import type { Command, CommandType, PayloadOf } from './types.ts';

enablePatches();

export interface Change {
  readonly project: Project;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
}

type Recipe<T extends CommandType> = (draft: Draft<Project>, payload: PayloadOf<T>, registry: Catalogue) => void;

function refuse(code: string, what: string, hint: string): never {
  throw new UserError([{ code, what, where: {}, do: hint }]);
}

function refuseNoStore(store: unknown, code: string): void {
  if (typeof store !== 'string' || isForbiddenKey(store)) refuse(code, `there is no store ${told(store)}`, 'Name a store.');
}

function option(draft: Draft<Project>): Draft<Option> {
  const found = draft.options.find((o) => o.id === draft.activeOption);
  return found ?? refuse('option.missing', `there is no option "${draft.activeOption}"`, 'Choose another option.');
}

function indexIn(list: readonly { readonly id: string }[], id: string): number {
  const at = list.findIndex((item) => item.id === id);
  return at >= 0 ? at : refuse('id.missing', `there is nothing with the id "${id}"`, 'It may have been removed: choose another.');
}

function requireFree(list: readonly { readonly id: string }[], id: string): void {
  if (list.some((item) => item.id === id)) refuse('id.taken', `the id "${id}" is taken`, 'Use another id.');
}

function groundIn(draft: Draft<Project>): Draft<Ground> {
  return draft.ground ?? refuse('ground.missing', 'the ground is not described yet', 'Describe the ground of the whole property first.');
}

/** Members that mean something by being null. */
const KEPT_NULL: readonly string[] = ['curveNumber', 'runoffC', 'zone'];

/** Values by dotted path, as a command gives them. */
function entriesOf(set: unknown): [string, unknown][] {
  if (typeof set !== 'object' || set === null || Array.isArray(set))
    refuse('commands.payload', `"set" is ${told(set)}`, 'Give values by the name of their field.');
  return Object.entries(set);
}

/** A place in a list is an index it has, or the next; nothing else of a list can be set. */
const isPlaceIn = (list: readonly unknown[], key: string): boolean => /^\d{1,6}$/.test(key) && Number(key) <= list.length;

/** Writes a value at a dotted path whose parents exist; null takes it away, save where null says something. */
function setPath(target: object, [path, value]: readonly [path: string, value: unknown], kept: readonly string[] = []): void {
  const noPath = (): never => refuse('work.path', `there is no "${path}" to change`, 'Check the name of the field.');
  const keys = path.split('.');
  if (keys.some((key) => key === '' || isForbiddenKey(key))) noPath();
  const last = keys.pop() ?? '';
  let at: unknown = target;
  for (const key of keys) {
    const next: unknown = Object.hasOwn(at as object, key) ? (at as Record<string, unknown>)[key] : null;
    if (typeof next !== 'object' || next === null) noPath();
    at = next;
  }
  if (path === 'id' || path === 'kind') refuse('work.path', `"${path}" never changes`, 'Remove it and add another.');
  const isGone = value === undefined || (value === null && !kept.includes(path));
  if (Array.isArray(at) && (isGone || !isPlaceIn(at, last))) noPath();
  const owner = at as Record<string, unknown>;
  if (isGone) delete owner[last];
  else owner[last] = value;
}

/** What is brought in lies in a system: the project's, or from then on it is. */
function lieIn(d: Draft<Project>, crs: string | undefined, code: string): void {
  if (crs === undefined) return;
  if (d.site.crs !== null && d.site.crs !== crs)
    refuse(code, `these lie in ${told(crs)}, the project in ${told(d.site.crs)}`, 'Bring them in again in the system of the project.');
  d.site.crs = crs;
}

const asDraft = <T>(value: T): Draft<T> => value as Draft<T>;

const RECIPES: { readonly [T in CommandType]: Recipe<T> } = {
  'project.rename': (d, { name }) => {
    d.name = name;
  },
  'site.set': (d, payload) => {
    if (payload.crs !== undefined) d.site.crs = payload.crs;
    if (payload.outline !== undefined) d.site.outline = asDraft([...payload.outline]);
    if (payload.zeroLevelM !== undefined) d.site.zeroLevelM = payload.zeroLevelM;
  },
  'terrain.set': (d, { terrain, crs }) => {
    d.terrain = asDraft(terrain);
    d.site.crs = crs;
  },
  'survey.known': (d, { survey, levelsM }) => {
    if (d.terrain) d.terrain.surveys ??= asDraft([...surveysOf(d.terrain)]);
    const part = d.terrain?.surveys?.[survey];
    if (!part) refuse('survey.none', `the ground is made of no survey ${told(survey)}`, 'Choose one of those under Land.');
    else if (levelsM === null) delete part.levelsM;
    else part.levelsM = levelsM;
  },
  'pin.add': (d, { pin }) => {
    requireFree(d.pins, pin.id);
    d.pins.push(asDraft(pin));
  },
  'pin.move': (d, { id, at }) => {
    d.pins[indexIn(d.pins, id)].at = asDraft(at);
  },
  'pin.remove': (d, { id }) => {
    d.pins.splice(indexIn(d.pins, id), 1);
  },
  'feature.add': (d, { feature }) => {
    requireFree(d.features, feature.id);
    d.features.push(asDraft(feature));
  },
  'features.add': (d, { features, outline, crs }) => {
    const given: unknown = features;
    if (!Array.isArray(given)) refuse('features.list', `what is to be added is ${told(features)}`, 'Give a list of features.');
    for (const feature of features) {
      requireFree(d.features, feature.id);
      d.features.push(asDraft(feature));
    }
    if (outline !== undefined) d.site.outline = asDraft([...outline]);
    lieIn(d, crs, 'features.crs');
  },
  'feature.remove': (d, { id }) => {
    d.features.splice(indexIn(d.features, id), 1);
  },
  'feature.change': (d, { id, set }) => {
    const feature = d.features[indexIn(d.features, id)];
    for (const entry of entriesOf(set)) setPath(feature, entry);
  },
  'land.set': (d, { land }) => {
    d.land = land;
  },
  'rain.set': (d, { rain }) => {
    d.rain = asDraft(rain);
  },
  'rain.set-storm': (d, { storm }) => {
    if (!d.rain) refuse('rain.missing', 'there is no rain table yet', 'Give a rain table first.');
    else d.rain.storm = asDraft(storm);
  },
  'gauge.set': (d, { gauge }) => {
    d.gauge = gauge;
  },
  'climate.set': (d, { climate }) => {
    if (climate) d.climate = asDraft(climate);
    else delete d.climate;
  },
  'supply.set': (d, { supply }) => {
    if (supply) d.supply = asDraft(supply);
    else delete d.supply;
  },
  'ground.set': (d, { ground }) => {
    d.ground = asDraft(ground);
  },
  'zone.add': (d, { zone }) => {
    const ground = groundIn(d);
    const zones = (ground.zones ??= []);
    requireFree(zones, zone.id);
    zones.push(asDraft(zone));
  },
  'zone.change': (d, { id, set }) => {
    const { zones = [] } = groundIn(d);
    const zone = zones[indexIn(zones, id)];
    for (const entry of entriesOf(set)) setPath(zone, entry, KEPT_NULL);
  },
  'zone.remove': (d, { id }) => {
    const ground = groundIn(d);
    const { zones = [], tests = [] } = ground;
    zones.splice(indexIn(zones, id), 1);
    // What was read stays, for the whole property.
    for (const test of tests) if (test.zone === id) test.zone = null;
  },
  'test.add': (d, { test }) => {
    const ground = groundIn(d);
    const tests = (ground.tests ??= []);
    requireFree(tests, test.id);
    tests.push(asDraft(test));
  },
  'test.change': (d, { id, set }) => {
    const { tests = [] } = groundIn(d);
    const test = tests[indexIn(tests, id)];
    for (const entry of entriesOf(set)) setPath(test, entry, KEPT_NULL);
  },
  'test.remove': (d, { id }) => {
    const ground = groundIn(d);
    const { tests = [], zones = [] } = ground;
    tests.splice(indexIn(tests, id), 1);
    // The rates taken from it stay, but nothing stands behind them any more.
    for (const soil of [ground, ...zones]) if (soil.rateFrom === id) delete soil.rateFrom;
  },
  'runoff.set': (d, { runoff }) => {
    d.runoff = asDraft(runoff);
  },
  'case.add': (d, payload) => {
    const cases = (d.cases ??= []);
    requireFree(cases, payload.case.id);
    cases.push(asDraft(payload.case));
  },
  'case.change': (d, { id, set }) => {
    const { cases = [] } = d;
    const one = cases[indexIn(cases, id)];
    for (const entry of entriesOf(set)) setPath(one, entry);
  },
  'case.remove': (d, { id }) => {
    const { cases = [] } = d;
    cases.splice(indexIn(cases, id), 1);
  },
  'link.set': (d, { outlet, to }) => {
    const target = option(d);
    if (typeof outlet !== 'string' || isForbiddenKey(outlet))
      refuse('link.outlet', `there is no outlet ${told(outlet)}`, 'Name an outlet of a work.');
    const links = (target.links ??= {});
    if (to === null) delete links[outlet];
    else links[outlet] = to;
  },
  'start.set': (d, { store, levelM }) => {
    const target = option(d);
    refuseNoStore(store, 'start.store');
    const starts = (target.starts ??= {});
    if (levelM === null) delete starts[store];
    else starts[store] = levelM;
  },
  'hazard.set': (d, { store, hazard }) => {
    const target = option(d);
    refuseNoStore(store, 'hazard.store');
    const hazards = (target.hazards ??= {});
    if (hazard === null) delete hazards[store];
    else hazards[store] = hazard;
  },
  'option.copy': (d, { from, id, name }) => {
    requireFree(d.options, id);
    const copy = current(d.options[indexIn(d.options, from)]);
    d.options.push(asDraft({ ...copy, id, name }));
    d.activeOption = id;
  },
  'option.rename': (d, { id, name }) => {
    d.options[indexIn(d.options, id)].name = name;
  },
  'option.choose': (d, { id }) => {
    indexIn(d.options, id);
    d.activeOption = id;
  },
  'option.remove': (d, { id }) => {
    const at = indexIn(d.options, id);
    if (d.options.length === 1) refuse('option.last', 'it is the only option there is', 'Make another one first.');
    d.options.splice(at, 1);
    if (d.activeOption === id) d.activeOption = d.options[Math.max(0, at - 1)].id;
  },
  'survey.set': (d, { survey }) => {
    d.survey = survey;
  },
  'book.set': (d, { book }) => {
    const books = (d.books ??= []);
    const at = books.findIndex((known) => known.id === book.id);
    books.splice(at < 0 ? books.length : at, 1, asDraft(book));
  },
  'book.remove': (d, { id }) => {
    const { books = [] } = d;
    books.splice(indexIn(books, id), 1);
    if (books.length === 0) delete d.books;
  },
  'picture.add': (d, { picture, crs }) => {
    const pictures = (d.pictures ??= []);
    requireFree(pictures, picture.id);
    pictures.push(asDraft(picture));
    lieIn(d, crs, 'picture.crs');
  },
  'picture.change': (d, { id, set }) => {
    const { pictures = [] } = d;
    const picture = pictures[indexIn(pictures, id)];
    for (const entry of entriesOf(set)) setPath(picture, entry, ['laying']);
  },
  'picture.remove': (d, { id }) => {
    const { pictures = [] } = d;
    pictures.splice(indexIn(pictures, id), 1);
    if (pictures.length === 0) delete d.pictures;
  },
  'works.add': (d, { works }) => {
    const target = option(d);
    for (const work of works) {
      requireFree(target.works, work.id);
      target.works.push(asDraft(work));
    }
  },
  'works.change': (d, { changes }) => {
    const target = option(d);
    for (const { id, set } of changes) {
      const work = target.works[indexIn(target.works, id)];
      for (const entry of entriesOf(set)) setPath(work, entry);
    }
  },
  'works.remove': (d, { ids }, registry) => {
    const target = option(d);
    for (const id of ids) indexIn(target.works, id);
    const gone = goneWith(ids, target.works, registry);
    target.works = target.works.filter((work) => !gone.has(work.id));
    for (const work of target.works)
      for (const { id, path, whenGone } of registry.describe(work).refs)
        if (gone.has(id) && whenGone === 'lets-go') setPath(work, [path, undefined]);
  },
};

/** Works that go when some are taken away: those that cannot be without them, and those that cannot be without these. */
function goneWith(ids: readonly string[], works: readonly WorkBase[], registry: Catalogue): Set<string> {
  const gone = new Set(ids);
  for (let grew = true; grew;) {
    const before = gone.size;
    for (const work of works) {
      const { refs } = registry.describe(work);
      if (refs.some((ref) => ref.whenGone === 'goes' && gone.has(ref.id))) gone.add(work.id);
    }
    grew = gone.size > before;
  }
  return gone;
}

function isStorable(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  if (typeof value !== 'object' || value === null) return true;
  return Object.values(value).every(isStorable);
}

/** The members a command needs and may have: what it does not know would be passed over without a word. */
function requirePayload(type: CommandType, payload: unknown): void {
  if (typeof payload !== 'object' || payload === null || Array.isArray(payload))
    refuse('commands.payload', `${type} has ${told(payload)} for a payload`, 'Give an object with its members.');
  const members: Readonly<Record<string, 'needs' | 'may'>> = PAYLOADS[type];
  const names = Object.keys(members);
  const missing = names.find((name) => members[name] === 'needs' && !Object.hasOwn(payload, name));
  if (missing !== undefined) refuse('commands.payload', `${type} has no "${missing}"`, `Give ${names.join(', ')}.`);
  const odd = Object.keys(payload).find((name) => !names.includes(name));
  if (odd !== undefined) refuse('commands.payload', `${type} knows no "${odd}"`, `Give ${names.join(', ')}.`);
}

function changedBy(project: Project, command: Command, registry: Catalogue): Change {
  const recipe = RECIPES[command.type] as Recipe<CommandType>;
  try {
    const [next, patches, inverse] = produceWithPatches(project, (draft) => {
      recipe(draft, command.payload, registry);
    });
    return { project: next, patches, inverse };
  } catch (error) {
    if (error instanceof UserError) throw error;
    // A member of the payload is not of the kind its recipe works with.
    return refuse('commands.payload', `the payload of ${command.type} cannot be used`, 'Check the members of its payload.');
  }
}

/** A command names the work or feature it is about: the place in it is what helps, not its place in the document. */
function asOfCommand(problem: UserProblem): UserProblem {
  const field = problem.where.field?.replace(/^(options\.\d+\.works|features)\.\d+\./, '');
  return field === undefined ? problem : { ...problem, where: { ...problem.where, field } };
}

/**
 * Applies one command. @throws UserError, with the project untouched, when the command cannot be applied or would leave a
 * document that a file reader refuses.
 */
export function applyCommand(project: Project, command: Command, registry: Catalogue): Change {
  if (!Object.hasOwn(RECIPES, command.type))
    refuse('command.unknown', `there is no command ${told(command.type)}`, `Use one of ${Object.keys(RECIPES).join(', ')}.`);
  requireWithin(command.payload);
  // A file cannot hold NaN or Infinity: what goes in must come out of it the same.
  if (!isStorable(command.payload)) refuse('command.number', 'a value is not a finite number', 'Give a number.');
  requirePayload(command.type, command.payload);
  const change = changedBy(project, command, registry);
  const problems = documentProblems(change.project, registry, project);
  if (problems.length > 0) throw new UserError(problems.map(asOfCommand));
  return change;
}

export function patched(project: Project, patches: readonly Patch[]): Project {
  return applyPatches(project, patches as Patch[]);
}
