// Stores followed day by day, for tests.
import type { DayStore } from '../season/index.ts';

/** What runs over has left. */
export const OUT = { to: -1, share: 1, lagDays: 0 };
/** A store of ten cubic metres, all that comes to it and is asked of it as told. */
export const dayStore = (comes: ArrayLike<number>, asks: ArrayLike<number>, change: Partial<DayStore> = {}): DayStore => ({
  id: 's',
  roomM3: 10,
  deadM3: 0,
  startM3: 0,
  volumeM3: Float64Array.of(0, 5, 10),
  areaM2: Float64Array.of(0, 4, 8),
  isCovered: true,
  rainedM2: 0,
  soaksMmPerDay: 0,
  comesM3: Float64Array.from(comes),
  asksM3: Float64Array.from(asks),
  topUp: null,
  spills: [OUT],
  returns: null,
  ...change,
});
/** Days without rain. */
export const dry = (n: number) => ({ rainMm: new Float64Array(n), evaporationMm: null });
