// Times and dates as the rain sheet says them.
import { DAY_MIN, civil, dayOf } from '#core/rain';

/** "45 min", "2 h", "3 days". */
export function minutesText(minutes: number): string {
  if (minutes % DAY_MIN === 0 && minutes > DAY_MIN) return `${minutes / DAY_MIN} days`;
  return minutes < 60 || minutes % 30 !== 0 ? `${Math.round(minutes)} min` : `${minutes / 60} h`;
}

export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** "14 November 2017". */
export function dayText(day: number): string {
  const { year, month, day: d } = civil(day);
  return `${d} ${MONTHS[month - 1]} ${year}`;
}

export const momentText = (minutes: number): string => dayText(dayOf(minutes));
