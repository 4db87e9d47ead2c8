// Works held against each other by the water they hold for an hour of work.
import type { Figure, WorkBase } from '../../contract/index.ts';

export interface LabourRow {
  readonly work: string;
  readonly name: string;
  /** What it holds open to its way out [m3], and what one person works at it [h]. */
  readonly holdsM3: number | null;
  readonly hours: number | null;
  /** Litres for an hour: of one fill, of a year where it is known how often it fills, and in its silt once it is full of it. */
  readonly aFill: number;
  readonly aYear: number | null;
  readonly inSilt: number | null;
}

const valueOf = (figures: readonly Figure[], ids: readonly string[]): number | null =>
  ids.map((id) => figures.find((f) => f.id === id)?.value ?? null).find((v) => v !== null) ?? null;

/** All works that tell it, the best first. */
export function labourRows(works: readonly WorkBase[], figures: Readonly<Record<string, readonly Figure[]>>): readonly LabourRow[] {
  return works
    .flatMap(({ id, name }): LabourRow[] => {
      const own = figures[id] ?? [];
      const aFill = valueOf(own, ['litresAnHour']);
      if (aFill === null) return [];
      return [
        {
          work: id,
          name,
          holdsM3: valueOf(own, ['openM3', 'roomM3']),
          hours: valueOf(own, ['hours']),
          aFill,
          aYear: valueOf(own, ['litresAnHourAYear']),
          inSilt: valueOf(own, ['litresAnHourSilted']),
        },
      ];
    })
    .sort((a, b) => b.aFill - a.aFill);
}
