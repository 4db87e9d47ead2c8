// What the readings of each kind of test come to.
import type { Formula, Inputs, Worksheet } from '../../formula/index.ts';
import { AUGER_HOLE, PERCOLATION, RING_DIVISOR, RING_RATE, SINGLE_RING, SOAKAGE_PIT } from './formulas.ts';
import { type Fall, intervalsOf, steadyOf } from './steady.ts';
import type { FieldTest, Interval, Reduce } from './types.ts';

const mm = (m: number): number => 1000 * m;

type RateOf = (fall: Fall, sizes: FieldTest['sizes'], sheet?: Worksheet) => number;

/** A formula's value, recorded where there is a sheet to record it on. */
const worked = <S extends string>(formula: Formula<S>, inputs: Inputs<S>, sheet?: Worksheet): number =>
  sheet ? sheet.use(formula, inputs) : formula.evaluate(inputs);

/** Of a test whose water falls between readings; the working shown is that of the last interval, which the result rests on. */
function falling(rateOf: RateOf): Reduce {
  return (test, sheet) => {
    const intervals = intervalsOf(test, (fall) => rateOf(fall, test.sizes));
    const last = intervals[intervals.length - 1];
    if (last) rateOf({ minutes: last.toMin - last.fromMin, fromM: last.fromMm / 1000, toM: last.toMm / 1000 }, test.sizes, sheet);
    return steadyOf(intervals);
  };
}

const ringRate: RateOf = ({ minutes, fromM, toM }, _, sheet) => worked(RING_RATE, { dH: mm(fromM - toM), t: minutes }, sheet);

const doubleRing = falling(ringRate);

const singleRing = falling((fall, sizes, sheet) => {
  const i = ringRate(fall, sizes, sheet);
  const inputs = { H: 50 * (fall.fromM + fall.toM), d: 100 * sizes['drivenM'], a: 100 * sizes['radiusM'], α: sizes['suction'] };
  return worked(SINGLE_RING, { i, G: worked(RING_DIVISOR, inputs, sheet) }, sheet);
});

const percolation = falling(({ minutes, fromM, toM }, sizes, sheet) =>
  worked(PERCOLATION, { dH: mm(fromM - toM), r: mm(sizes['radiusM']), t: minutes, H: mm((fromM + toM) / 2) }, sheet),
);

const auger = falling(({ minutes, fromM, toM }, sizes, sheet) =>
  worked(AUGER_HOLE, { r: mm(sizes['radiusM']), h0: mm(fromM), h1: mm(toM), t: minutes }, sheet),
);

/** When the falling water passed a depth, straight between readings; null when it did not [min]. */
function whenAt(fill: readonly { readonly min: number; readonly mm: number }[], depthMm: number): number | null {
  for (let k = 1; k < fill.length; k++) {
    const [a, b] = [fill[k - 1], fill[k]];
    if (a.mm >= depthMm && b.mm <= depthMm && a.mm > b.mm) return a.min + ((a.mm - depthMm) / (a.mm - b.mm)) * (b.min - a.min);
  }
  return null;
}

/** Readings of each filling, the refill as its first. */
function fillings({ readings }: FieldTest): { min: number; mm: number }[][] {
  const fills: { min: number; mm: number }[][] = [[]];
  for (const r of readings) {
    fills[fills.length - 1].push({ min: r.min, mm: r.mm });
    if (r.refilledMm !== undefined) fills.push([{ min: r.min, mm: r.refilledMm }]);
  }
  return fills.filter((f) => f.length > 1);
}

const FILLINGS = 3;

const pit: Reduce = (test, sheet) => {
  const { lengthM, widthM } = test.sizes;
  const inputsOf = (fill: { min: number; mm: number }[]): { V: number; a: number; t: number; from: number; to: number } | null => {
    const full = fill[0].mm;
    const [from, to] = [whenAt(fill, 0.75 * full), whenAt(fill, 0.25 * full)];
    if (from === null || to === null || to <= from) return null;
    const base = lengthM * widthM;
    const sides = 2 * (lengthM + widthM) * (full / 2000);
    return { V: (base * full) / 2000, a: base + sides, t: 60 * (to - from), from, to };
  };
  const done = fillings(test).flatMap((fill) => {
    const found = inputsOf(fill);
    return found ? [{ full: fill[0].mm, ...found }] : [];
  });
  const intervals = done.map(({ full, V, a, t, from, to }): Interval => ({
    fromMin: from,
    toMin: to,
    fromMm: 0.75 * full,
    toMm: 0.25 * full,
    fallMmPerHour: (3600 * full) / 2 / t,
    rateMmPerHour: SOAKAGE_PIT.evaluate({ V, a, t }),
  }));
  if (done.length === 0)
    return { intervals, isSteady: false, rateMmPerHour: null, says: 'Read on until the pit has fallen from full to a quarter.' };
  const least = done.reduce((a, b) => (SOAKAGE_PIT.evaluate(b) < SOAKAGE_PIT.evaluate(a) ? b : a));
  const rateMmPerHour = sheet.use(SOAKAGE_PIT, { V: least.V, a: least.a, t: least.t });
  const left = FILLINGS - done.length;
  return {
    intervals,
    isSteady: left <= 0,
    rateMmPerHour,
    says: left > 0 ? `Fill it ${left === 1 ? 'once' : 'twice'} more: the slowest of three counts.` : 'The slowest of three fillings.',
  };
};

/** What readings come to, by the kind of their test. */
export const REDUCES: ReadonlyMap<string, Reduce> = new Map([
  ['double-ring', doubleRing],
  ['single-ring', singleRing],
  ['percolation', percolation],
  ['auger', auger],
  ['pit', pit],
]);
