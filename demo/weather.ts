// Thirty invented years of daily rain for the demo holding: a wet winter, a dry summer, and what happens to real records.
import { civil, dateText, daysTo, randomFrom } from '#core/rain';

const FIRST_YEAR = 1994;
const LAST_YEAR = 2023;
/** Chance of rain on a day of each month. */
const WET = [0.42, 0.38, 0.33, 0.26, 0.16, 0.07, 0.03, 0.04, 0.12, 0.28, 0.39, 0.43];
/** The day after rain it rains more easily, after a dry day less. */
const STICKS = 1.35;

/** The record as its keeper typed it: tenths of a millimetre, T for a trace, nothing where nobody looked, a sum after a holiday. */
export function gaugeCsv(): string {
  const random = randomFrom(1994);
  const rows = ['date,rain_mm'];
  let wasWet: boolean = true;
  let owed = 0;
  for (let day = daysTo(FIRST_YEAR, 1, 1); day < daysTo(LAST_YEAR + 1, 1, 1); day++) {
    const { year, month, day: d } = civil(day);
    const chance: number = WET[month - 1] * (wasWet ? STICKS : 0.78);
    const isWet: boolean = random() < chance;
    wasWet = isWet;
    const mm = isWet ? 9.2 * (-Math.log(1 - random())) ** 1.15 : 0;
    // The winter of 2003 the gauge was broken; in a week of most springs it was read once at the end.
    if (year === 2003 && (month === 11 || month === 12)) rows.push(`${dateText(day)},`);
    else if (month === 4 && d >= 10 && d < 14 && year % 3 === 0) {
      owed += mm;
      rows.push(`${dateText(day)},S`);
    } else if (owed > 0) {
      rows.push(`${dateText(day)},${(owed + mm).toFixed(1)}A`);
      owed = 0;
    } else rows.push(`${dateText(day)},${mm > 0 && mm < 0.15 ? 'T' : mm.toFixed(1)}`);
  }
  return `${rows.join('\n')}\n`;
}
