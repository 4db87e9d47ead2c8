import type { LevelMark, WorkBase } from '#core/contract';
import { type DeriveResult, highestOf } from '#core/derive';

export interface StackMark extends LevelMark {
  /** Place down the picture, 0 at the top to 1. */
  readonly place: number;
  /** Height above the mark below it [m]; null for the lowest. */
  readonly stepM: number | null;
}

/** What of the picture is shared out evenly, so that names can be read; the rest goes by true distances. The more marks, the more of it. */
const evenShare = (marks: number): number => Math.min(0.9, Math.max(0.5, 0.075 * (marks - 1)));

/** The level as decided, which is ahead of the last result while the worker works; a result's own level where nothing is decided. */
export function currentLevel(works: readonly WorkBase[], mark: LevelMark): number {
  const work = works.find((w) => w.id === mark.work);
  const value =
    mark.path === null
      ? undefined
      : mark.path.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], work);
  return typeof value === 'number' ? value : mark.levelM;
}

/** Water of joined stores this near together is told once [m]. */
const SAME_WATER_M = 0.02;

/** Marks of a chain, highest first, with the storm's water level. */
export function chainMarks(result: DeriveResult | null, works: readonly WorkBase[], ids: readonly string[]): LevelMark[] {
  const marks = (result?.view.marks ?? []).filter((m) => ids.includes(m.work)).map((m) => ({ ...m, levelM: currentLevel(works, m) }));
  const water = (result?.derived.stores ?? [])
    .map((s) => ({ id: s.id, floorM: s.floorM, highestM: highestOf(s) }))
    .filter((s) => ids.includes(s.id) && s.highestM !== null && s.highestM > s.floorM + 1e-6)
    .map((s): LevelMark => ({
      id: `${s.id}:water`,
      work: s.id,
      name: 'Highest water',
      role: 'water',
      levelM: s.highestM ?? 0,
      path: null,
    }));
  // Joined stores stand level: one mark tells of both.
  const apart = water.filter((w, k) => water.findIndex((other) => Math.abs(other.levelM - w.levelM) < SAME_WATER_M) === k);
  return [...marks, ...apart].sort((a, b) => b.levelM - a.levelM);
}

/** True vertical order; distances true in part, evened out so that millimetres stay legible beside metres. */
export function stackOf(marks: readonly LevelMark[]): StackMark[] {
  if (marks.length === 0) return [];
  const total = marks[0].levelM - marks[marks.length - 1].levelM;
  const even = 1 / Math.max(1, marks.length - 1);
  const share = evenShare(marks.length);
  let place = 0;
  return marks.map((mark, i) => {
    const below = marks[i + 1];
    const stepM = below ? mark.levelM - below.levelM : null;
    const at = place;
    if (stepM !== null) place += share * even + (1 - share) * (total > 0 ? stepM / total : even);
    return { ...mark, place: at, stepM };
  });
}
