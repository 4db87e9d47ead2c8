// What is wrong with a document, part by part: the same for files, commands and what the browser kept.
import { validateSync } from 'class-validator';
import type { Feature, WorkBase } from '../contract/index.ts';
import type { Catalogue } from '../works/index.ts';
import { checkFeature } from '../seen/index.ts';
import { told } from '../units/index.ts';
import { FeatureShape, LevelBookShape, PinShape, ProjectShape, WorkShape } from './classes.ts';
import { caseProblems, hazardProblems, linkProblems, startProblems } from './cases.ts';
import { groundProblems } from './ground-problems.ts';
import { twiceProblems } from './ids.ts';
import type { Option, Project } from './model.ts';
import { PictureShape } from './picture-class.ts';
import { type UserProblem, problemOf } from './problem.ts';
import { rainProblems } from './rain-problems.ts';
import { shaped } from './shape.ts';
import { problemsOf } from './shape-problems.ts';
import { terrainProblems } from './terrain-problems.ts';
import { workProblems } from './work-problems.ts';

/** Members of a project that are objects, never lists: a list would pass for an object that has none of its members. */
const MEMBERS = ['site', 'rain', 'gauge', 'ground', 'runoff', 'survey', 'land', 'climate', 'supply'] as const;

type Shape = new () => object;

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null && !Array.isArray(value);

/** What is wrong with the shapes of a list's items; those that stood in the list before are sound already. */
function itemProblems(
  list: readonly unknown[],
  shape: Shape,
  on: { readonly field: string; readonly before: ReadonlySet<unknown> },
): UserProblem[] {
  return list.flatMap((item, i): UserProblem[] => {
    if (on.before.has(item)) return [];
    const field = `${on.field}.${i}`;
    if (!isObject(item))
      return [{ code: 'project.isObject', what: `${field} is ${told(item)}, not an object`, where: { field }, do: 'Take it out.' }];
    return problemsOf(validateSync(shaped(shape, item), { forbidUnknownValues: true }), undefined, field);
  });
}

function memberProblems(project: Project): UserProblem[] {
  const listed = MEMBERS.filter((key) => Array.isArray(project[key]));
  return listed.map((key) => ({
    code: 'project.member',
    what: `"${key}" is a list`,
    where: { field: key },
    do: 'Open an export of the project instead.',
  }));
}

/** The document but for its terrain and ground, which have judges of their own, and for what is in its lists. */
function shellProblems(project: Project): UserProblem[] {
  return problemsOf(
    validateSync(shaped(ProjectShape, { ...project, terrain: null, ground: null }), { forbidUnknownValues: true }),
    undefined,
  );
}

function featureProblems(features: readonly Feature[], before: ReadonlySet<unknown>): UserProblem[] {
  return features.flatMap((feature, i) =>
    before.has(feature)
      ? []
      : checkFeature(feature)
          .map(problemOf)
          .map((p) => ({ ...p, where: { field: `features.${i}.${p.where.field ?? ''}`.replace(/\.$/, '') } })),
  );
}

function gaugeProblems({ gauge }: Project): UserProblem[] {
  if (gauge === undefined || gauge === null) return [];
  const isSound = typeof gauge.sha256 === 'string' && /^[0-9a-f]{64}$/.test(gauge.sha256) && typeof gauge.source === 'string';
  return isSound
    ? []
    : [
        {
          code: 'gauge.asset',
          what: `gauge asset ${told(gauge.sha256)} is not a sha256 with its source`,
          where: { field: 'gauge' },
          do: 'Import the gauge’s record again.',
        },
      ];
}

/** Works whose own words may have changed: all of them once one was taken out, since others may have named it. */
function worksToJudge({ works }: Option, before: Option | undefined): (work: WorkBase) => boolean {
  if (!before) return () => true;
  const ids = new Set(works.map((w) => w.id));
  if (before.works.some((w) => !ids.has(w.id))) return () => true;
  const same = new Set(before.works);
  return (work) => !same.has(work);
}

function optionProblems(
  option: Option,
  before: Option | undefined,
  on: { readonly registry: Catalogue; readonly field: string },
): UserProblem[] {
  const { registry, field } = on;
  const shapes = itemProblems(option.works, WorkShape, { field: `${field}.works`, before: new Set(before?.works) });
  if (shapes.length > 0) return shapes;
  const isNew = worksToJudge(option, before);
  const own = option.works.flatMap((work, w) =>
    isNew(work)
      ? workProblems(work, option.works, registry).map((p) => {
          const at = `${field}.works.${w}`;
          return { ...p, where: { ...p.where, field: p.where.field ? `${at}.${p.where.field}` : at } };
        })
      : [],
  );
  return [
    ...linkProblems(option.links, `${field}.links`),
    ...startProblems(option.starts, `${field}.starts`),
    ...hazardProblems(option.hazards, `${field}.hazards`),
    ...own,
    ...twiceProblems(option.works, { of: 'works', code: 'work.same-id', field: `${field}.works` }),
  ];
}

function optionsProblems(project: Project, registry: Catalogue, before: Project | undefined): UserProblem[] {
  const { options, pins } = project;
  const found = options.flatMap((option, o) => {
    const earlier = before?.options.find((other) => other.id === option.id);
    return earlier === option ? [] : optionProblems(option, earlier, { registry, field: `options.${o}` });
  });
  if (!options.some((o) => o.id === project.activeOption)) {
    found.push({
      code: 'project.active-option',
      what: `the active option "${project.activeOption}" is not in the project`,
      where: { field: 'activeOption' },
      do: `Choose one of ${options.map((o) => o.id).join(', ')}.`,
    });
  }
  if (found.length > 0) return found;
  // Catchments are known by the id of their pin or work: the two must differ.
  const names = new Set(pins.map((p) => p.id));
  const shared = options.flatMap((option) => option.works).find((work) => names.has(work.id));
  if (shared)
    found.push({
      code: 'work.pin-id',
      what: `a pin and a work both have the id "${shared.id}"`,
      where: { field: 'pins' },
      do: 'Give each its own id.',
    });
  return [...found, ...twiceProblems(options, { of: 'options', code: 'option.same-id', field: 'options' })];
}

/**
 * Everything wrong with a document. With the sound document it was made from, only what differs is judged: its parts are
 * immutable, so what is the same object needs no second look.
 */
export function documentProblems(project: Project, registry: Catalogue, before?: Project): UserProblem[] {
  const shell = [...memberProblems(project), ...shellProblems(project)];
  if (shell.length > 0) return shell;
  const { pins, features, rain, terrain, books = [], pictures = [] } = project;
  const hasChanged = (...keys: readonly (keyof Project)[]): boolean => !before || keys.some((key) => before[key] !== project[key]);
  const items = [
    ...itemProblems(pins, PinShape, { field: 'pins', before: new Set(before?.pins) }),
    ...itemProblems(features, FeatureShape, { field: 'features', before: new Set(before?.features) }),
    ...itemProblems(books, LevelBookShape, { field: 'books', before: new Set(before?.books) }),
    ...itemProblems(pictures, PictureShape, { field: 'pictures', before: new Set(before?.pictures) }),
  ];
  if (items.length > 0) return items;
  return [
    ...(hasChanged('terrain') && terrain !== null ? terrainProblems(project) : []),
    ...(hasChanged('pins') ? twiceProblems(pins, { of: 'pins', code: 'pin.same-id', field: 'pins' }) : []),
    ...(hasChanged('features')
      ? [
          ...featureProblems(features, new Set(before?.features)),
          ...twiceProblems(features, { of: 'features', code: 'feature.same-id', field: 'features' }),
        ]
      : []),
    ...(hasChanged('books') ? twiceProblems(books, { of: 'level books', code: 'book.same-id', field: 'books' }) : []),
    ...(hasChanged('pictures') ? twiceProblems(pictures, { of: 'pictures', code: 'picture.same-id', field: 'pictures' }) : []),
    ...(hasChanged('rain') ? rainProblems(rain) : []),
    ...(hasChanged('gauge') ? gaugeProblems(project) : []),
    ...(hasChanged('ground', 'runoff') ? groundProblems(project) : []),
    ...(hasChanged('supply')
      ? twiceProblems(project.supply?.needs ?? [], { of: 'needs', code: 'need.same-id', field: 'supply.needs' })
      : []),
    ...(hasChanged('cases') ? caseProblems(project.cases) : []),
    ...(hasChanged('options', 'activeOption', 'pins') ? optionsProblems(project, registry, before) : []),
  ];
}
