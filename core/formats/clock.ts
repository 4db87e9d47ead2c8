export const MINUTES_A_DAY = 1440;

/** Minutes since midnight of a clock time such as 9:05 or 14:35:30; null when it is none. */
export function clockMinutes(text: string): number | null {
  const found = /^(\d{1,2}):(\d{2})(?::(\d{2}))?$/.exec(text);
  if (!found) return null;
  const [h, m, s] = [Number(found[1]), Number(found[2]), Number(found[3] ?? 0)];
  return h > 23 || m > 59 || s > 59 ? null : 60 * h + m + s / 60;
}
