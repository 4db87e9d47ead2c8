// The ground about the head of a gully: its lip, which way water drops, and where the drop ends.
import type { Site } from '../../contract/index.ts';
import { type Line, type Point, pointAlong } from '../../geometry/index.ts';
import { levelAt } from '../../terrain/index.ts';
import { type LipGround, downhillAt, measureLip } from '../lip.ts';

/** How far above and below the lip the ground is looked at, and how finely [m]. */
export const [ABOVE_M, BELOW_M, STEP_M] = [8, 30, 0.5];
/** Fall that is only the slope of a gully, not of its head [m/m]: a head is steeper than three in ten. */
const GENTLE = 0.3;

export interface HeadGround {
  readonly lip: LipGround;
  /** The lowest place of the lip, its level, and the way water leaves it. */
  readonly atM: number;
  readonly at: Point;
  readonly lipM: number;
  /** Ground at the lower end of the lip as drawn [m]. */
  readonly endsM: number;
  readonly down: Point;
  /** Ground along that way, from above the lip to below it; NaN where unknown. */
  readonly profileM: Float64Array;
  /** Where the drop ends, from the lip, and the ground there; null where the ground below is not known. */
  readonly foot: { readonly awayM: number; readonly levelM: number } | null;
}

/** Measures lip and drop. @throws UnknownGround where nothing is known of the ground under the lip. */
export function measureHead(line: Line, { grid }: Pick<Site, 'grid'>): HeadGround {
  const lip = measureLip(line, { grid });
  const lowest = lip.groundM.reduce((best, v, i) => (v < lip.groundM[best] ? i : best), 0);
  const atM = lip.atM[lowest];
  const { point: at } = pointAlong(line, atM);
  const down = downhillAt(line, lip, atM);
  const count = Math.round((ABOVE_M + BELOW_M) / STEP_M);
  const profileM = Float64Array.from({ length: count + 1 }, (_, k) => {
    const away = k * STEP_M - ABOVE_M;
    return away === 0 ? lip.groundM[lowest] : levelAt(grid, [at[0] + down[0] * away, at[1] + down[1] * away]);
  });
  const lipM = lip.groundM[lowest];
  let foot: HeadGround['foot'] = null;
  let most = 0;
  for (let away = STEP_M; away <= BELOW_M; away += STEP_M) {
    const levelM = profileM[Math.round((ABOVE_M + away) / STEP_M)];
    if (Number.isNaN(levelM)) break;
    // The drop ends where the ground, the slope of a gully left out, lies deepest under the lip.
    const fall = lipM - levelM - GENTLE * away;
    if (foot === null || fall > most) [foot, most] = [{ awayM: away, levelM }, fall];
  }
  const endsM = Math.min(lip.groundM[0], lip.groundM[lip.groundM.length - 1]);
  return { lip, atM, at, lipM, endsM, down, profileM, foot };
}
