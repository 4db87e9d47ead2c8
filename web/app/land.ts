// What the land shows and answers: a way of looking, kept apart from the document.
import { create } from 'zustand';
import type { AnswerOf, ArgsOf, FAMILIES, LayerName, Section } from '#core/derive';
import type { Point } from '#core/geometry';
import type { Project } from '#core/project';
import { NORTH_WEST_SUN, type Sun } from '#core/terrain';
import type { Said } from '#core/units';
import { askNow, catchesOf, groundKey, idOf, useAnswer } from './ask.ts';
import { picking } from './pick.ts';
import { shapesOf } from './shapes.ts';
import { useApp } from './store.ts';

type LandQuestion = keyof (typeof FAMILIES)['land'];

export type Overlay = LayerName | 'none';

/** A long section shown below the plan, linked with it both ways. */
export interface ShownSection {
  readonly title: Said;
  readonly section: Section;
}

/** A place somebody asks about: a field by its outline, or a channel along its bed. */
export type AskedPlace = { readonly ring: readonly Point[] } | { readonly line: readonly Point[] };

/** An answer drawn on the plan and told in the sheet. */
export type LandAnswer =
  | { readonly kind: 'contour'; readonly levelM: number; readonly line: readonly Point[] }
  | { readonly kind: 'fall'; readonly from: Point; readonly to: Point }
  | { readonly kind: 'wall'; readonly line: readonly Point[] }
  | { readonly kind: 'hollow'; readonly at: Point }
  | { readonly kind: 'advice'; readonly place: AskedPlace };

/** What the gauge of a store says now, where it stands; not believed, it says the last that was. */
export interface LiveLevel {
  readonly id: string;
  readonly at: Point;
  readonly text: string;
  readonly isBelieved: boolean;
}

export interface LandView {
  readonly overlay: Overlay;
  /** Contour interval [m]; null chooses one. */
  readonly intervalM: number | null;
  readonly sun: Sun;
  readonly showsContours: boolean;
  readonly showsCatchments: boolean;
  readonly showsPlaces: boolean;
  readonly snaps: boolean;
  readonly shown: ShownSection | null;
  readonly answer: LandAnswer | null;
  /** A place pointed at in the section or on the plan. */
  readonly probe: Point | null;
  /** Levels as gauges tell them, while they are watched. */
  readonly live: readonly LiveLevel[];
}

export const useLand = create<LandView>(() => ({
  overlay: 'none',
  intervalM: null,
  sun: NORTH_WEST_SUN,
  showsContours: true,
  showsCatchments: true,
  showsPlaces: false,
  snaps: true,
  shown: null,
  answer: null,
  probe: null,
  live: [],
}));

export const useLandPick = picking(useLand);
export const setLand = (change: Partial<LandView>): void => useLand.setState(change);

// What one property answered says nothing of the next one.
useApp.subscribe((now, before) => {
  if (now.history?.project.id !== before.history?.project.id) setLand({ shown: null, answer: null, probe: null, live: [] });
});

/** What a question about the land depends on: the ground and what was seen, and the works where they count. */
function keyOf(project: Project, readsWorks: boolean): string {
  const { terrain, features, land, site, pins } = project;
  const ground = [project.id, idOf(terrain), idOf(features), idOf(land), shapesOf(project)];
  return (readsWorks ? [...ground, idOf(site), idOf(pins), ...catchesOf(project)] : ground).join('.');
}

/** Layers that depend on more than the shape of the land. */
const readsGround = (name: LandQuestion, args: unknown): boolean =>
  name === 'layer' && ['sheds', 'soil-loss'].includes((args as { layer: string }).layer);

const READS_WORKS: ReadonlySet<LandQuestion> = new Set(['runOn', 'compare', 'reopen', 'pathDown']);

/** Asks the worker; null when it cannot be answered, which is then told. */
export const ask = <K extends LandQuestion>(name: K, args: ArgsOf<K>): Promise<AnswerOf<K> | null> =>
  askNow({ name, args }, { tells: true });

/** An answer that follows the document; undefined while it is worked out, null where there is none. `args` null asks nothing. */
export function useAsk<K extends LandQuestion>(name: K, args: ArgsOf<K> | null): AnswerOf<K> | null | undefined {
  const project = useApp((s) => s.history?.project);
  const onGround = args !== null && readsGround(name, args);
  const key =
    args !== null && project?.terrain ? [keyOf(project, onGround || READS_WORKS.has(name)), onGround ? groundKey(project) : ''] : null;
  return useAnswer(args && { name, args }, { key, keeps: false, tells: true });
}
