// What was seen, held against what is computed: where they disagree, the likeliest cause and what to look at next.
import type { Check, Feature, Rule } from '../contract/index.ts';
import { type Line, type Point, distance, lineLength, nearestOnLine } from '../geometry/index.ts';
import { type Flow, type Grid, cellAt, gradientAt, levelAt, profile, traceDown } from '../terrain/index.ts';
import { seenKind } from '../seen/index.ts';
import { amount, say } from '../units/index.ts';
import { COMMON_PRACTICE, gradeMax, runRules } from '../works/rules.ts';

export interface SeenFacts {
  readonly feature: Feature;
  readonly grid: Grid;
  readonly surface: Grid;
  readonly filled: Float64Array;
  readonly flow: Flow;
  readonly features: readonly Feature[];
}

/** An arrow counts as disagreeing from this angle on [degrees]; an eighth of a turn is within what an eye tells. */
const ARROW_DEGREES = 45;
/** Ground flatter than this may run either way by what a survey misses [m/m]. */
const NEARLY_LEVEL = 0.01;
/** How near a line must be to be the likely cause [m]. */
const NEAR_M = 15;

const degreesBetween = (a: Point, b: Point): number => {
  const cos = (a[0] * b[0] + a[1] * b[1]) / (Math.hypot(...a) * Math.hypot(...b));
  return (Math.acos(Math.min(1, Math.max(-1, cos))) * 180) / Math.PI;
};

/** Where the computed path has gone after the length of an arrow. */
function computedDirection(facts: SeenFacts, line: Line): Point | null {
  const { grid, flow } = facts;
  const reach = lineLength(line);
  const { path } = traceDown({ grid, flow }, line[0], () => false);
  const far = path.find(([x, y]) => distance([x, y], line[0]) >= reach) ?? path[path.length - 1];
  const to: Point | null = far ? [far[0] - line[0][0], far[1] - line[0][1]] : null;
  return to && Math.hypot(...to) > 0 ? to : null;
}

/** The likeliest reason that water was seen to run another way. */
function likelyCause({ feature, grid, surface, filled, features }: SeenFacts, at: Point): string {
  const cell = cellAt(grid, at);
  if (cell >= 0 && filled[cell] - surface.z[cell] > 0.02)
    return 'Here the map shows a hollow: water stands until it spills, and may then run your way.';
  const near = features.find(
    (f) => f.id !== feature.id && (f.kind === 'track' || f.kind === 'road') && f.line && nearestOnLine(at, f.line).distanceM <= NEAR_M,
  );
  if (near) return `${near.name ?? 'The track'} is near: its ruts may carry the water. Draw it as a track that carries water.`;
  if (Math.hypot(...gradientAt(grid, at)) < NEARLY_LEVEL)
    return 'The ground is nearly level here: a few centimetres decide, and the survey may miss them.';
  return 'Something the map does not show turns it: walk uphill from here and look for a windrow, a furrow, a wall or a pipe.';
}

const arrow: Rule<SeenFacts> = {
  id: 'seen.flow-arrow',
  title: 'Water was seen to run another way',
  why: 'What you saw in the rain is true; the map is a model. Until they agree, catchments near here are in doubt.',
  unit: '',
  kind: 'number',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: (facts) => {
    const { line } = facts.feature;
    if (facts.feature.kind !== 'flow-arrow' || !line) return null;
    const seen: Point = [line[line.length - 1][0] - line[0][0], line[line.length - 1][1] - line[0][1]];
    const computed = computedDirection(facts, line);
    if (!computed) return null;
    const value = degreesBetween(seen, computed);
    const agrees = value <= ARROW_DEGREES;
    return {
      value,
      limit: ARROW_DEGREES,
      at: line[0],
      severity: agrees ? 'fine' : 'weigh',
      title: agrees ? 'Seen and computed flow agree' : `Water was seen to run ${Math.round(value)}° off the computed way`,
      do: agrees ? 'Nothing.' : likelyCause(facts, line[0]),
    };
  },
};

const wetEnd: Rule<SeenFacts> = {
  id: 'seen.wet-end',
  title: 'The wet end of a ditch',
  why: 'A level ditch is wet alike from end to end; one that is wet at its higher end is blocked, or fed there and soaking away.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ feature, grid }) => {
    const { line } = feature;
    if (!feature.wetEnd || !line) return null;
    const [start, end] = [levelAt(grid, line[0]), levelAt(grid, line[line.length - 1])];
    if (Number.isNaN(start + end)) return null;
    // Above zero: the wet end is the higher one.
    const value = feature.wetEnd === 'start' ? start - end : end - start;
    return {
      value,
      limit: 0.025,
      at: feature.wetEnd === 'start' ? line[0] : line[line.length - 1],
      severity: gradeMax(value, 0.025, Infinity),
      title: value > 0.025 ? say`Wet at its higher end, by ${amount(value, 'difference')}` : 'Wet where it should be',
      do:
        value > 0.025
          ? 'Look for a blockage or silt between the ends, for a spring, and whether the catchment feeds this end only.'
          : 'Nothing.',
    };
  },
};

const debris: Rule<SeenFacts> = {
  id: 'seen.debris-line',
  title: 'Level of a debris line',
  why: 'Marks at one level were left by standing water; marks that fall along their line were left by running water.',
  unit: 'm',
  kind: 'difference',
  sense: 'max',
  source: COMMON_PRACTICE,
  find: ({ feature, grid }) => {
    if (feature.kind !== 'debris-line' || !feature.line) return null;
    // A line on the ground itself is given no height.
    const { heightM = 0 } = feature;
    const levels = profile(grid, feature.line, grid.cellM)
      .map((p) => p.levelM + heightM)
      .filter((v) => !Number.isNaN(v));
    if (levels.length < 2) return null;
    const [low, high] = [Math.min(...levels), Math.max(...levels)];
    const isLevel = high - low <= 0.15;
    return {
      value: high - low,
      limit: 0.15,
      at: feature.line[0],
      severity: 'fine',
      title: isLevel
        ? say`Water stood at ${amount((low + high) / 2, 'level')}`
        : say`Water ran here, from ${amount(high, 'level')} down to ${amount(low, 'level')}`,
      do: isLevel
        ? 'Hold it against the levels of your works and floors.'
        : 'Its fall is about the slope of the water: use it to judge the flow.',
    };
  },
};

const ledUphill: Rule<SeenFacts> = {
  id: 'seen.led-uphill',
  title: 'A pipe that would have to run uphill',
  why: 'Water runs from the first end drawn to the last. Where that is higher, nothing flows, or it was drawn the wrong way round.',
  unit: 'm',
  kind: 'difference',
  sense: 'min',
  source: COMMON_PRACTICE,
  find: ({ feature, grid, flow }) => {
    if (seenKind(feature.kind)?.effect !== 'led' || !feature.line) return null;
    const [from, to] = [feature.line[0], feature.line[feature.line.length - 1]];
    const value = levelAt(grid, from) - levelAt(grid, to);
    if (Number.isNaN(value)) return null;
    const isTaken = flow.jumps.get(cellAt(grid, from)) === cellAt(grid, to);
    return {
      value,
      limit: 0,
      at: from,
      severity: isTaken ? 'fine' : 'mend',
      title: isTaken ? say`Falls ${amount(value, 'difference')} from end to end` : 'Water cannot run from its first end to its last',
      do: isTaken
        ? 'Nothing.'
        : 'Draw it from the inlet to the outlet, and check the level of both: its outlet must lie lower than the ground or hollow at its inlet.',
    };
  },
};

export const SEEN_RULES: readonly Rule<SeenFacts>[] = [arrow, wetEnd, debris, ledUphill];

/** Checks on one thing that was seen. */
export function checkSeen(facts: SeenFacts): Check[] {
  return runRules(SEEN_RULES, facts, facts.feature.id);
}
