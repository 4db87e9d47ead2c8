// What the page does with ground: changes a soil wherever it stands, and asks the worker about it.
import type { AnswerOf, ArgsOf, FAMILIES } from '#core/derive';
import { contains, type Point } from '#core/geometry';
import type { FieldTest, Soil } from '#core/ground';
import { testKind } from '#core/ground';
import { type Ground, type Project, type RunoffSettings, nextName } from '#core/project';
import { catchesOf, groundKey, idOf, useAnswer } from './ask.ts';
import { newId, useProject } from './selectors.ts';
import { dispatch, notify, select, useApp } from './store.ts';

/** A start to correct, never used unless the user takes it. */
export const START: Ground = {
  soilGroup: 'C',
  cover: 'pasture-fair',
  curveNumber: null,
  runoffC: null,
  infiltrationMmPerHour: 10,
  soilDepthM: 1,
  isExample: true,
};

const groundNow = (): Ground | null => useApp.getState().history?.project.ground ?? null;

/** Members with a value; those set to undefined are left out, so that files stay as small as what was said. */
function without<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, v]) => v !== undefined)) as T;
}

type Part<T> = { readonly [K in keyof T]?: T[K] | undefined };

/** Changes the ground of the property: what was a start to correct is the user's own then. */
export function setGround(change: Part<Ground>, gesture?: string): boolean {
  return dispatch(
    {
      type: 'ground.set',
      payload: { ground: without<Part<Ground>>({ ...(groundNow() ?? START), isExample: undefined, ...change }) as Ground },
    },
    gesture,
  );
}

/** Changes a soil: the property's, or a zone's by id. */
export function setSoil(zone: string | null, change: Part<Soil>): boolean {
  if (zone === null) return setGround(change);
  const set = Object.fromEntries(Object.entries(change).map(([k, v]) => [k, v ?? null]));
  return dispatch({ type: 'zone.change', payload: { id: zone, set } });
}

export function setRunoff(change: Part<RunoffSettings>): boolean {
  const runoff = useApp.getState().history?.project.runoff ?? {};
  return dispatch({ type: 'runoff.set', payload: { runoff: without({ ...runoff, ...change }) } });
}

/** The soil looked at: that of the selected zone, or of a selected test's zone, else the property's. */
export function useSoil(): { readonly zone: string | null; readonly name: string; readonly soil: Soil | null } {
  const { ground } = useProject();
  const selected = useApp((s) => s.selected);
  const test = ground?.tests?.find((t) => t.id === selected);
  const zone = ground?.zones?.find((z) => z.id === (test ? test.zone : selected));
  return { zone: zone?.id ?? null, name: zone?.name ?? 'The property', soil: zone ?? ground };
}

/** Draws a zone with the ground it lies on, to be corrected. */
export function addZone(ring: readonly Point[]): void {
  const ground = groundNow();
  if (!ground) {
    notify({ tone: 'mend', title: 'Describe the ground of the property first: a zone is what differs from it', problems: [] });
    return;
  }
  const { zones = [], soilGroup, cover, curveNumber, runoffC, infiltrationMmPerHour, soilDepthM } = ground;
  const { waterDepthM, texture, seen, compaction, healing } = ground;
  const more = without({ waterDepthM, texture, seen, compaction, healing }) as Partial<Soil>;
  const soil: Soil = { soilGroup, cover, curveNumber, runoffC, infiltrationMmPerHour, soilDepthM, ...more };
  const id = newId('zone');
  if (dispatch({ type: 'zone.add', payload: { zone: { ...soil, id, name: nextName('Zone', zones), ring } } })) select(id);
}

/** Adds a field test, for the zone its place lies in. */
export function addTest(kind: string, at?: Point): void {
  const ground = groundNow();
  const known = testKind(kind);
  if (!ground || !known) {
    notify({ tone: 'mend', title: 'Describe the ground of the property first: a test then corrects its rate', problems: [] });
    return;
  }
  const { tests = [], zones = [] } = ground;
  const selected = useApp.getState().selected;
  const zone = at ? [...zones].reverse().find((z) => contains(z.ring, at)) : zones.find((z) => z.id === selected);
  const id = newId('test');
  const sizes = Object.fromEntries(known.sizes.map((s) => [s.id, s.start]));
  const test: FieldTest = {
    id,
    kind,
    name: nextName(known.title, tests),
    zone: zone?.id ?? null,
    sizes,
    readings: [],
    ...(at ? { at } : {}),
  };
  if (dispatch({ type: 'test.add', payload: { test } })) select(id);
}

type GroundQuestion = keyof (typeof FAMILIES)['ground'];

/** What answers about ground and runoff hang on: levels of works change none of them. */
function keyOf(project: Project): string {
  const { id, terrain, features, land, pins } = project;
  return [id, ...[terrain, features, land, pins].map(idOf), groundKey(project), ...catchesOf(project)].join('.');
}

/** An answer that follows the document; undefined while it is worked out, null where there is none. `args` null asks nothing. */
export function useAskGround<K extends GroundQuestion>(name: K, args: ArgsOf<K> | null): AnswerOf<K> | null | undefined {
  const project = useApp((s) => s.history?.project);
  return useAnswer(args && { name, args }, { key: project?.ground ? [keyOf(project)] : null, keeps: true, tells: false });
}
