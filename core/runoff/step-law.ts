/** What of a step's rain does not soak in [mm], asked step after step: the law remembers what has soaked in before. */
export type StepLaw = (rainMm: number, hours: number) => number;

/** A law over a storm of even steps. */
export function excessOf(law: StepLaw, stepsMm: Float64Array, stepH: number): Float64Array {
  const out = new Float64Array(stepsMm.length);
  for (let i = 0; i < out.length; i++) if (stepsMm[i] > 0) out[i] = law(stepsMm[i], stepH);
  return out;
}

/** Sum of a series: a plain loop, since draws of doubt ask for it by the million. */
export function total(series: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < series.length; i++) sum += series[i];
  return sum;
}
