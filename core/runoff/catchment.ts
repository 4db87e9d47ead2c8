// A catchment of several kinds of ground: each sheds by its own law, and what they shed is added, never averaged beforehand.
import { defineFormula } from '../formula/index.ts';
import { type LossChoice, type LossSoil, type Parted, partRain } from './losses.ts';
import { total } from './step-law.ts';

/** One kind of ground in a catchment. */
export interface GroundPart {
  readonly soil: LossSoil;
  readonly areaM2: number;
}

/** What a storm does on a catchment [mm over all of it]. */
export interface CatchmentParted extends Parted {
  /** Depth run off each part [mm over that part]. */
  readonly byPart: readonly number[];
}

export function partCatchment(
  stepsMm: Float64Array,
  stepH: number,
  on: { readonly parts: readonly GroundPart[]; readonly choice: LossChoice },
): CatchmentParted {
  const { parts, choice } = on;
  const area = parts.reduce((a, p) => a + p.areaM2, 0);
  const runsMm = new Float64Array(stepsMm.length);
  let [standsMm, soaksMm] = [0, 0];
  const byPart = parts.map(({ soil, areaM2 }) => {
    const parted = partRain(stepsMm, stepH, { soil, choice });
    const share = area > 0 ? areaM2 / area : 0;
    for (let i = 0; i < runsMm.length; i++) runsMm[i] += share * parted.runsMm[i];
    standsMm += share * parted.standsMm;
    soaksMm += share * parted.soaksMm;
    return parted.runoffMm;
  });
  return { runsMm, standsMm, soaksMm, byPart, runoffMm: total(runsMm), rainMm: total(stepsMm) };
}

/** A value of each part, weighed by area; of parts without any area, that of the first. */
export function weighed<S>(parts: readonly { readonly soil: S; readonly areaM2: number }[], valueOf: (soil: S) => number): number {
  const area = parts.reduce((a, p) => a + p.areaM2, 0);
  return area === 0 ? valueOf(parts[0].soil) : parts.reduce((a, p) => a + p.areaM2 * valueOf(p.soil), 0) / area;
}

export const RUNOFF_ADDED = defineFormula(
  {
    id: 'runoff.added',
    title: 'Runoff of all kinds of ground together',
    statement: 'Q = 1000 · V / A',
    symbols: {
      V: { means: 'runoff of each kind of ground, added', unit: 'm³', domain: 'nonNegative' },
      A: { means: 'area of the catchment', unit: 'm²', domain: 'positive' },
    },
    result: { symbol: 'Q', means: 'runoff depth', unit: 'mm' },
    source: { key: 'tr55', locator: 'chapter 2: add runoff where curve numbers differ much', fromMemory: true },
  },
  ({ V, A }) => (1000 * V) / A,
);
