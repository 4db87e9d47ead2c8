// Each slot on the real ground: where it runs along a valley and where along a ridge, and which way water runs in it.
import type { Plot } from '../../contract/index.ts';
import { type Line, type Point, lineLength, pointAlong } from '../../geometry/index.ts';
import { type Grid, levelAt } from '../../terrain/index.ts';
import { UnknownGround } from '../unknown-ground.ts';
import { slotLines } from './lines.ts';
import type { Ripping } from './model.ts';

/** A stretch from a valley out to a ridge. */
export interface Lead {
  readonly fromM: number;
  readonly toM: number;
  /** Fall from the valley to the ridge [m/m]: less than nothing where water runs back into the valley. */
  readonly fall: number;
  /** Its middle. */
  readonly at: Point;
}

export interface Slot {
  readonly line: Line;
  readonly lengthM: number;
  readonly stepM: number;
  readonly groundM: Float64Array;
  readonly leads: readonly Lead[];
  /** Steepest it runs over ten metres [m/m], and where. */
  readonly steepest: number;
  readonly steepestAt: Point;
}

export interface RipGround {
  readonly slots: readonly Slot[];
  /** Mean and greatest fall of the ground across the key line [m/m]. */
  readonly slope: number;
}

/** So far to both sides ground is looked at for valley and ridge; how much lower or higher it must lie [m]; the run falls are told by. */
const [LOOK_M, STANDS_OUT_M, RUN_M] = [15, 0.08, 10];

/** How much lower ground lies than straight between what lies to its left and right along a line [m]; NaN where one is not known. */
function hollow(grid: Grid, { point: [x, y], direction: [dx, dy] }: ReturnType<typeof pointAlong>): number {
  const side = (away: number): number => levelAt(grid, [x + dx * away, y + dy * away]);
  return (side(LOOK_M) + side(-LOOK_M)) / 2 - levelAt(grid, [x, y]);
}

/** Valleys and ridges along a line in turn, each where it stands out most. */
function turnsOf(hollows: readonly number[]): readonly { readonly at: number; readonly isValley: boolean }[] {
  const turns: { at: number; isValley: boolean }[] = [];
  hollows.forEach((v, i) => {
    if (Number.isNaN(v) || Math.abs(v) < STANDS_OUT_M) return;
    const last = turns[turns.length - 1];
    if (!last || last.isValley !== v > 0) turns.push({ at: i, isValley: v > 0 });
    else if (Math.abs(v) > Math.abs(hollows[last.at])) last.at = i;
  });
  return turns;
}

function slotOf(line: Line, grid: Grid): Slot {
  const lengthM = lineLength(line);
  const count = Math.max(4, Math.ceil(lengthM / Math.max(1, grid.cellM)));
  const stepM = lengthM / count;
  const along = Array.from({ length: count + 1 }, (_, k) => pointAlong(line, k * stepM));
  const groundM = Float64Array.from(along, ({ point }) => levelAt(grid, point));
  if (groundM.some((v) => Number.isNaN(v))) throw new UnknownGround('No level is known under one of its lines');
  const turns = turnsOf(along.map((at) => hollow(grid, at)));
  const leads = turns.slice(1).flatMap((turn, k): Lead[] => {
    const before = turns[k];
    const [valley, ridge] = turn.isValley ? [turn.at, before.at] : [before.at, turn.at];
    const apart = Math.abs(valley - ridge) * stepM;
    if (apart < RUN_M) return [];
    const [from, to] = [Math.min(valley, ridge), Math.max(valley, ridge)];
    return [
      {
        fromM: from * stepM,
        toM: to * stepM,
        fall: (groundM[valley] - groundM[ridge]) / apart,
        at: along[Math.round((from + to) / 2)].point,
      },
    ];
  });
  const run = Math.min(count, Math.max(1, Math.round(RUN_M / stepM)));
  let [steepest, where] = [0, 0];
  for (let i = 0; i + run <= count; i++) {
    const fall = Math.abs(groundM[i + run] - groundM[i]) / (run * stepM);
    if (fall > steepest) [steepest, where] = [fall, i + Math.floor(run / 2)];
  }
  return { line, lengthM, stepM, groundM, leads, steepest, steepestAt: along[where].point };
}

/** @throws UnknownGround where one of its lines leaves what is known. */
export function measureRipping(work: Ripping, { grid }: Plot): RipGround {
  const slots = slotLines(work).map((line) => slotOf(line, grid));
  const length = lineLength(work.line);
  const count = Math.max(2, Math.ceil(length / 5));
  const falls = Array.from({ length: count }, (_, k) => {
    const { point, direction } = pointAlong(work.line, (length * (k + 0.5)) / count);
    const reach = Math.max(3, 1.5 * grid.cellM);
    const side = (s: number): number => levelAt(grid, [point[0] + direction[1] * reach * s, point[1] - direction[0] * reach * s]);
    return Math.abs(side(-1) - side(1)) / (2 * reach);
  }).filter((v) => !Number.isNaN(v));
  if (falls.length === 0) throw new UnknownGround('No level is known beside it');
  return { slots, slope: falls.reduce((a, v) => a + v, 0) / falls.length };
}
