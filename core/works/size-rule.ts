// A size that must be so much at the least, with the cure that makes it so.
import type { Rule, WorkBase } from '../contract/index.ts';
import { type Said, say } from '../units/index.ts';
import { valueAt } from './fields.ts';
import { cureBy, gradeMin, upToMm } from './rules.ts';

interface Size<F> {
  /** The decision, by dotted path in its work. */
  readonly path: string;
  readonly workOf: (facts: F) => WorkBase;
  readonly limitFor: (facts: F) => number;
  /** What is to be done, said so that it may be pressed; and what is added where it is only told. */
  readonly says: (m: number) => Said;
  readonly also?: string;
  /** Under this share of the limit it is to be mended. */
  readonly mendUnder: number;
  /** A length by its centimetres, or a difference by its millimetres; left out, a length. */
  readonly kind?: 'length' | 'difference';
}

/** The limit itself where it is a whole millimetre, else the next. */
function wholeMm(limit: number): number {
  const whole = Math.round(1000 * limit) / 1000;
  return whole >= limit && whole - limit < 1e-9 ? whole : upToMm(limit);
}

export const leastRule = <F extends object>(
  card: Pick<Rule<F>, 'id' | 'title' | 'why' | 'source'> & Pick<Partial<Rule<F>>, 'applies'>,
  { path, workOf, limitFor, says, also = '', mendUnder, kind = 'length' }: Size<F>,
): Rule<F> => ({
  ...card,
  unit: 'm',
  kind,
  sense: 'min',
  find: (facts) => {
    const work = workOf(facts);
    const value = valueAt(work, path);
    if (typeof value !== 'number' || card.applies?.(facts) === false) return null;
    const limit = limitFor(facts);
    const to = wholeMm(limit);
    return {
      value,
      limit,
      severity: gradeMin(value, mendUnder * limit, limit),
      do: value < limit ? say`${says(to)}${also}.` : 'Nothing.',
      ...cureBy(value < limit, { work: work.id, set: { [path]: to }, says: says(to) }),
    };
  },
});
