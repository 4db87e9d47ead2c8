// Works held against each other by the water they hold for an hour of work.
import type { Figure, WorkBase } from '../../contract/index.ts';

export interface LabourRow {
  readonly work: string;
  readonly name: string;
  /** What it holds open to its way out [m3], and what one person works at it [h]. */
  readonly holdsM3: number | null;
  readonly hours: number | null;
  /** Whether that runs on through it all along: slowed, not held. */
  readonly isSlowed: boolean;
  /** Litres for an hour: of one fill, of a year where it is known how often it fills, and in its silt once it is full of it. */
  readonly aFill: number;
  readonly aYear: number | null;
  readonly inSilt: number | null;
  /** Whether its hours were written down while it was made, not taken from a book. */
  readonly isLogged: boolean;
}

/** Works together, by the hours of all of them. */
export interface LabourSum extends Pick<LabourRow, 'aYear' | 'inSilt'> {
  readonly holdsM3: number;
  readonly hours: number;
  readonly aFill: number;
  /** How many of them by logged hours. */
  readonly logged: number;
  readonly of: number;
}

/** The first of some figures that is known; null where none is. */
export const figureIn = (figures: readonly Figure[], ids: readonly string[]): number | null =>
  ids.map((id) => figures.find((f) => f.id === id)?.value ?? null).find((v) => v !== null) ?? null;

/** What a work holds open to its way out, or slows where it holds none, by its figures [m3]; null where it tells neither. */
export function waterIn(figures: readonly Figure[]): Pick<LabourRow, 'holdsM3' | 'isSlowed'> {
  const holdsM3 = figureIn(figures, ['openM3', 'roomM3']);
  return { holdsM3, isSlowed: holdsM3 !== null && figureIn(figures, ['openM3']) === null };
}

/** All works that tell it, the best first. */
export function labourRows(works: readonly WorkBase[], figures: Readonly<Record<string, readonly Figure[]>>): readonly LabourRow[] {
  return works
    .flatMap(({ id, name }): LabourRow[] => {
      const own = figures[id] ?? [];
      const aFill = figureIn(own, ['litresAnHour']);
      if (aFill === null) return [];
      return [
        {
          work: id,
          name,
          ...waterIn(own),
          hours: figureIn(own, ['hours']),
          aFill,
          aYear: figureIn(own, ['litresAnHourAYear']),
          inSilt: figureIn(own, ['litresAnHourSilted']),
          isLogged: own.some((f) => f.id === 'hoursByBook'),
        },
      ];
    })
    .sort((a, b) => b.aFill - a.aFill);
}

/** What works hold together for an hour, those that only slow it left out: a year, or in silt, only where each of them tells it; null where none tells hours. */
export function labourSum(rows: readonly LabourRow[]): LabourSum | null {
  const known = rows.flatMap((r) =>
    r.isSlowed || r.hours === null || r.holdsM3 === null ? [] : [{ ...r, hours: r.hours, holdsM3: r.holdsM3 }],
  );
  if (known.length === 0) return null;
  const hours = known.reduce((sum, r) => sum + r.hours, 0);
  const holdsM3 = known.reduce((sum, r) => sum + r.holdsM3, 0);
  const each = (of: 'aYear' | 'inSilt'): number | null => {
    const litres = known.flatMap((r) => (r[of] === null ? [] : [r[of] * r.hours]));
    return litres.length < known.length ? null : litres.reduce((a, b) => a + b) / hours;
  };
  return {
    holdsM3,
    hours,
    aFill: (1000 * holdsM3) / hours,
    aYear: each('aYear'),
    inSilt: each('inSilt'),
    logged: known.filter((r) => r.isLogged).length,
    of: known.length,
  };
}
