// Rules on what is laid in a trench: the footing beside it, roots, and what lies buried already.
import type { Rule, Site } from '../contract/index.ts';
import { type Line, type Point, crossingsAlong, pointAlong } from '../geometry/index.ts';
import { levelAt } from '../terrain/index.ts';
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
  /** What it lays at a place along its line: from its lowest to its highest [m]. */
  readonly laidAt: (facts: F, atM: number) => { readonly lowM: number; readonly topM: number };
  /** Whether it is laid at a footing by intent. */
  readonly isAtFooting?: (facts: F) => boolean;
}

/** What lies buried already, and how near it may be passed: a hand to dig between, and hardly less [m]. */
const BURIED: ReadonlySet<string> = new Set(['buried-cable', 'buried-pipe']);
const [CLEAR_M, TIGHT_M] = [0.3, 0.1];

interface Crossed {
  readonly gapM: number | null;
  readonly at: Point;
  readonly name: string;
}

/** Where a line crosses what lies buried, and how far over or under it passes there; null where nobody said how deep that lies. */
function crossed(
  { features, grid }: Site,
  line: Line,
  laidAt: (atM: number) => { readonly lowM: number; readonly topM: number },
): Crossed[] {
  return features
    .filter((f) => BURIED.has(f.kind))
    .flatMap(({ line: other = [], depthM, name = 'what lies buried' }) =>
      crossingsAlong(line, other).map((atM): Crossed => {
        const at = pointAlong(line, atM).point;
        if (depthM === undefined) return { gapM: null, at, name };
        const { lowM, topM } = laidAt(atM);
        const level = levelAt(grid, at) - depthM;
        return { gapM: Math.max(level - topM, lowM - level), at, name };
      }),
    );
}

/** Four rules of a technique that digs a trench, under its own name. */
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
  const crosses: Rule<F> = {
    id: `${kind}.crosses`,
    title: 'Over or under what lies buried',
    why: 'Laid onto a cable or a pipe it wears through; met by the spade it is cut.',
    unit: 'm',
    kind: 'difference',
    sense: 'min',
    source: { ...COMMON_PRACTICE, locator: '0.3 m between them; by whoever owns it, more' },
    find: (facts) => {
      const all = crossed(facts.site, on.lineOf(facts), (atM) => on.laidAt(facts, atM));
      if (all.length === 0) return null;
      const unsaid = all.find((one) => one.gapM === null);
      if (unsaid)
        return { value: null, limit: CLEAR_M, at: unsaid.at, severity: 'unknown', do: say`Find out how deep ${unsaid.name} lies there.` };
      const nearest = all
        .flatMap(({ gapM, at, name }) => (gapM === null ? [] : [{ gapM, at, name }]))
        .reduce((a, b) => (b.gapM < a.gapM ? b : a));
      const value = nearest.gapM;
      return {
        value,
        limit: CLEAR_M,
        at: nearest.at,
        title: say`Over or under ${nearest.name}`,
        severity: gradeMin(value, TIGHT_M, CLEAR_M),
        do: value < CLEAR_M ? say`Lay it ${metres(CLEAR_M - value)} further from it, or have that moved; dig there by hand.` : 'Nothing.',
      };
    },
  };
  return [footing, roots, services, crosses];
}
