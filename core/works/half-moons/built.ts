// Half-moons as they are dug, each with its bund on the arc below it; pits with their spoil spread.
import type { Built } from '../../contract/index.ts';
import { pointAlong } from '../../geometry/index.ts';
import { boxAround, builtTogether, runsOut, sideUp } from '../built.ts';
import { downhillAt, groundAlong } from '../lip.ts';
import { type HalfMoons, placesIn } from './model.ts';
import type { Row } from './standing.ts';

function pitBuilt({ dimensions: { radiusM, dugM } }: HalfMoons, row: Row, atM: number): Built {
  const [x0, y0] = pointAlong(row.line, atM).point;
  return {
    box: boxAround([[x0, y0]], radiusM),
    levelAt: ([x, y], { groundM, madeM }) => (Math.hypot(x - x0, y - y0) > radiusM ? madeM : Math.min(madeM, groundM - dugM)),
  };
}

function moonBuilt({ dimensions }: HalfMoons, row: Row, atM: number): Built {
  const { radiusM, dugM, overTipsM, bundTopM, bundSlopeHV } = dimensions;
  const [x0, y0] = pointAlong(row.line, atM).point;
  const [dx, dy] = downhillAt(row.line, row.ground, atM);
  const topM = groundAlong(row.ground, atM) + overTipsM;
  const highM = overTipsM + row.ground.steepestSlope * (radiusM + bundTopM);
  const out = bundTopM / 2 + runsOut(bundSlopeHV * highM, { sideHV: bundSlopeHV, slope: row.ground.steepestSlope });
  return {
    box: boxAround([[x0, y0]], radiusM + out + 1),
    levelAt: ([x, y], { groundM, madeM }) => {
      const downM = (x - x0) * dx + (y - y0) * dy;
      const awayM = Math.hypot(x - x0, y - y0);
      const dug = downM >= 0 && awayM < radiusM ? Math.min(madeM, groundM - dugM) : madeM;
      // Past its tips the bund runs out as its sides do.
      const asideM = downM >= 0 ? Math.abs(awayM - radiusM) : Math.hypot(downM, Math.abs((x - x0) * dy - (y - y0) * dx) - radiusM);
      return Math.max(dug, topM - sideUp(asideM - bundTopM / 2, bundSlopeHV));
    },
  };
}

/** Row by row, the highest first; null where none has room. */
export function moonsBuilt(work: HalfMoons, rows: readonly Row[]): Built | null {
  const each = work.form === 'pit' ? pitBuilt : moonBuilt;
  const made = rows.flatMap((row, k) => {
    const parts = placesIn(work, k).map((atM) => each(work, row, atM));
    return parts.length > 0 ? [builtTogether(parts)] : [];
  });
  return made.length > 0 ? builtTogether(made) : null;
}
