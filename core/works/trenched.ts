// Rules on what is laid in a trench: the footing beside it, roots, and what lies buried already.
import type { Rule, Site } from '../contract/index.ts';
import type { Line } from '../geometry/index.ts';
import { say } from '../units/index.ts';
import { COMMON_PRACTICE, gradeMin, metres } from './rules.ts';
import { FINE, saidRule } from './said-rule.ts';
import { nearestFeature } from './setbacks.ts';

interface Trenched<F> {
  readonly lineOf: (facts: F) => Line;
  /** The deepest it is dug [m]. */
  readonly dugOf: (facts: F) => number;
  readonly isAsked: (facts: F) => boolean;
  /** What else to do beside a footing, and near a tree. */
  readonly besideWall: string;
  readonly nearTree: string;
  /** Whether it is laid at a footing by intent. */
  readonly isAtFooting?: (facts: F) => boolean;
}

/** Three rules of a technique that digs a trench, under its own name. */
export function trenchRules<F extends { readonly site: Site }>(kind: string, on: Trenched<F>): readonly Rule<F>[] {
  const near = ({ site }: F, line: Line, what: string) =>
    nearestFeature(
      line,
      site.features.filter((f) => f.kind === what),
    );
  const footing: Rule<F> = {
    id: `${kind}.footing`,
    title: 'Its trench and the nearest footing',
    why: 'A trench dug beside a footing and deeper than it takes away what the wall stands on.',
    unit: 'ratio',
    kind: 'number',
    sense: 'min',
    // Earth under a footing spreads its load down and out, one to one at the steepest: a trench within that takes it away.
    source: { ...COMMON_PRACTICE, locator: 'as far off as it is deep, and more' },
    applies: (facts) => on.isAtFooting?.(facts) !== true,
    find: (facts) => {
      const found = near(facts, on.lineOf(facts), 'building');
      if (!found) return null;
      const dug = on.dugOf(facts);
      const value = found.distanceM / Math.max(0.1, dug);
      return {
        value,
        limit: 1.5,
        at: found.at,
        severity: gradeMin(value, 1, 1.5),
        do: value < 1.5 ? say`Keep ${metres(1.5 * dug)} away where it is deep${on.besideWall}` : 'Nothing.',
      };
    },
  };
  const roots: Rule<F> = {
    id: `${kind}.roots`,
    title: 'Distance to the nearest tree',
    why: 'Roots find every joint and hole, and a cut root kills the tree or throws it.',
    unit: 'm',
    kind: 'length',
    sense: 'min',
    source: { ...COMMON_PRACTICE, locator: '3 m; more from willows and poplars' },
    find: (facts) => {
      const found = near(facts, on.lineOf(facts), 'tree');
      if (!found) return null;
      const value = found.distanceM;
      return { value, limit: 3, at: found.at, severity: gradeMin(value, 1, 3), do: value < 3 ? on.nearTree : 'Nothing.' };
    },
  };
  const services = saidRule<F>(
    {
      id: `${kind}.services`,
      title: 'Buried cables and pipes',
      why: 'A spade through a cable kills; through gas it takes the house.',
      source: { ...COMMON_PRACTICE, locator: 'ask before you dig: the law in many places' },
    },
    (facts) =>
      on.isAsked(facts) ? FINE : { severity: 'unknown', do: 'Have them located and marked before anybody digs; dig by hand near them.' },
  );
  return [footing, roots, services];
}
