// Hours works take: by book, or as they were written down while they were made.
import type { FieldSpec, Figure } from '../contract/index.ts';

/** What every work made by hand may note. */
export interface Logged {
  /** Hours of all who worked at it, breaks and walking with them. */
  readonly loggedHours?: number;
}

export const LOGGED_HOURS: FieldSpec = {
  path: 'labour.loggedHours',
  label: 'It took, as logged',
  kind: 'hours',
  min: 0.1,
  max: 100_000,
  help: 'Hours of all who worked at it, breaks and walking with them.',
  optional: { offer: 'Its hours were logged', start: 8 },
};

/** What it took where somebody wrote that down, else what it takes by book [h]. */
export const hoursWorked = <H extends number | null>({ loggedHours }: Logged, byBook: H): H | number => loggedHours ?? byBook;

/** Its hours, and beside those that were logged the ones by book. */
export const hourFigures = (labour: Logged, byBook: number | null): readonly Figure[] =>
  labour.loggedHours === undefined
    ? [{ id: 'hours', label: 'Hours of one person', value: byBook, kind: 'hours' }]
    : [
        { id: 'hours', label: 'Hours it took, as logged', value: labour.loggedHours, kind: 'hours' },
        { id: 'hoursByBook', label: 'By book it takes', value: byBook, kind: 'hours' },
      ];

/** Litres for an hour of work; null where either is not known or no work is done. */
export const litresAnHour = (m3: number | null, hours: number | null): number | null =>
  m3 === null || hours === null || hours <= 0 ? null : (1000 * m3) / hours;
