// Single rains within a record: told apart by dry hours, ranked, and turned into storms.
import type { StormSteps } from './design.ts';
import { type RainRecord, DAY_MIN, dateText, dayOf } from './record.ts';

/** Rains are told apart by this many hours without any (common practice: 6 h; whole days for a daily gauge). */
export const DRY_BETWEEN_H = 6;

export interface RainEvent {
  readonly fromMin: number;
  readonly durationMin: number;
  readonly depthMm: number;
  /** Most in one step [mm]. */
  readonly wettestStepMm: number;
  /** Place of its first and last wet step in the record's list. */
  readonly first: number;
  readonly last: number;
}

/** All rains of a record that bring at least `leastMm`, deepest first. */
export function eventsOf({ startMin, stepMin, wet, mm }: RainRecord, leastMm = 5): RainEvent[] {
  const gap = Math.max(1, Math.ceil((DRY_BETWEEN_H * 60) / stepMin));
  const out: RainEvent[] = [];
  for (let first = 0; first < wet.length;) {
    let last = first;
    let [depthMm, wettestStepMm] = [mm[first], mm[first]];
    while (last + 1 < wet.length && wet[last + 1] - wet[last] <= gap) {
      last++;
      depthMm += mm[last];
      wettestStepMm = Math.max(wettestStepMm, mm[last]);
    }
    if (depthMm >= leastMm) {
      const durationMin = (wet[last] - wet[first] + 1) * stepMin;
      out.push({ fromMin: startMin + wet[first] * stepMin, durationMin, depthMm, wettestStepMm, first, last });
    }
    first = last + 1;
  }
  return out.sort((a, b) => b.depthMm - a.depthMm || a.fromMin - b.fromMin);
}

/** The steps of a rain, for use as a storm; null where it is longer than a storm may be. */
export function stormOfEvent({ stepMin, wet, mm }: RainRecord, event: RainEvent, mostMin: number): StormSteps | null {
  if (event.durationMin > mostMin || stepMin > DAY_MIN) return null;
  const stepsMm = new Array<number>(Math.round(event.durationMin / stepMin)).fill(0);
  for (let k = event.first; k <= event.last; k++) stepsMm[wet[k] - wet[event.first]] = Number(mm[k].toFixed(3));
  return { stepMin, stepsMm, name: `the rain of ${dateText(dayOf(event.fromMin))}` };
}
