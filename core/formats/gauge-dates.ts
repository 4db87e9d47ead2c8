// Dates and times of gauge files, in whichever order they are written.
import { DAY_MIN, daysTo } from '../rain/index.ts';

/** Order of year, month and day. */
export type DateOrder = 'ymd' | 'dmy' | 'mdy';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

export interface DateParts {
  /** Three numbers in the order of the text; a month in letters is already 1-12 and stands in `month`. */
  readonly parts: readonly [number, number, number];
  readonly month: number | null;
  /** Minutes of the day; null where the text has no time. */
  readonly time: number | null;
}

/** Splits "2014-05-03", "3/5/2014 13:30", "20140503", "3 May 2014 1:30 PM"; null when it is no date. */
export function splitDate(text: string): DateParts | null {
  const compact = /^(\d{4})(\d{2})(\d{2})(?:[T ]?(\d{2}):?(\d{2}))?$/.exec(text);
  const spread = /^(\d{1,4})[-/. ]([a-z]{3,9}|\d{1,2})[-/. ,]+(\d{1,4})(?:[T ,]+(.+))?$/i.exec(text);
  if (compact)
    return {
      parts: [Number(compact[1]), Number(compact[2]), Number(compact[3])],
      month: null,
      time: compact[4] === undefined ? null : 60 * Number(compact[4]) + Number(compact[5]),
    };
  if (!spread) return null;
  const time = spread[4] === undefined ? null : minutesOf(spread[4]);
  if (time !== null && Number.isNaN(time)) return null;
  const month = /\d/.test(spread[2]) ? null : MONTHS.indexOf(spread[2].slice(0, 3).toLowerCase()) + 1;
  if (month === 0) return null;
  return { parts: [Number(spread[1]), month ?? Number(spread[2]), Number(spread[3])], month, time };
}

/** Minutes of the day of "13:30", "1:30 pm", "24:00", "13:30:00Z"; NaN when it is no time. */
export function minutesOf(text: string): number {
  const match = /^(\d{1,2})(?::?(\d{2}))?(?::\d{2}(?:\.\d+)?)?\s*([ap]m)?\s*(?:z|utc|[+-]\d{2}:?\d{2})?$/i.exec(text.trim());
  if (!match) return NaN;
  const [h, m] = [Number(match[1]), Number(match[2] ?? 0)];
  if (m > 59) return NaN;
  if (match[3]) return h < 1 || h > 12 ? NaN : 60 * ((h % 12) + (/p/i.test(match[3]) ? 12 : 0)) + m;
  return h < 24 || (h === 24 && m === 0) ? 60 * h + m : NaN;
}

/** A date in one order, in minutes from 1970-01-01; NaN when there is no such day. Years of two digits are of 1970 to 2069. */
export function inOrder({ parts, month, time }: DateParts, order: DateOrder): number {
  const [a, b, c] = parts;
  const [y, m, d] =
    month !== null ? (a > 31 ? [a, month, c] : [c, month, a]) : order === 'ymd' ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b];
  const year = y >= 100 ? y : y >= 70 ? 1900 + y : 2000 + y;
  return m < 1 || m > 12 ? NaN : daysTo(year, m, d) * DAY_MIN + (time ?? 0);
}

/** Orders in which every date of a list is a day of the calendar. */
export function ordersOf(dates: readonly DateParts[]): DateOrder[] {
  if (dates.every((d) => d.month !== null || d.parts[0] > 31)) return ['ymd'];
  return (['dmy', 'mdy'] as const).filter((order) => dates.every((d) => !Number.isNaN(inOrder(d, order))));
}
