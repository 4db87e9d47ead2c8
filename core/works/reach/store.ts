// Each stretch as a store: water on its way, as deep as what leaves it makes it, and what goes over its banks.
import type { Outlet, Store } from '../../contract/index.ts';
import { type Point, pointAlong } from '../../geometry/index.ts';
import { Rating, grassedSillLaw, ratedLaw } from '../../hydraulics/index.ts';
import { type Standing, type Stretch, mostFlow, profileOf } from './standing.ts';

/** Flows its water line is worked out for: closer together where there is little. */
const ROWS = 18;
/** Past a bank water lands so far beyond it [m]. */
const BESIDE_M = 2;

interface Row {
  readonly flowM3s: number;
  /** Over the bed at both ends of each stretch, and on average [m]. */
  readonly depthsM: readonly number[];
  readonly meansM: readonly number[];
}

/** Where a quantity that goes down first is nothing, straight between rows; the last row's place where it never is. */
function whereNone(levels: readonly number[], left: readonly number[]): number {
  const to = left.findIndex((m) => m <= 0);
  if (to <= 0) return levels[to < 0 ? levels.length - 1 : 0];
  const share = left[to - 1] / (left[to - 1] - left[to]);
  return levels[to - 1] + share * (levels[to] - levels[to - 1]);
}

/** Straight between two lists, by the end beyond them. */
function straight(xs: readonly number[], ys: readonly number[], x: number): number {
  const to = xs.findIndex((v) => v >= x);
  if (to <= 0) return ys[to < 0 ? ys.length - 1 : 0];
  const share = (x - xs[to - 1]) / Math.max(1e-9, xs[to] - xs[to - 1]);
  return ys[to - 1] + share * (ys[to] - ys[to - 1]);
}

function outletsOf(standing: Standing, stretch: Stretch, on: { readonly wayOutM: number; readonly crestM: number; readonly rating: Rating }): Outlet[] {
  const { reach } = standing;
  const { upper, lower, store, name, lengthM } = stretch;
  const { wayOutM, crestM, rating } = on;
  const end = pointAlong(reach.line, lower.section.atM);
  const half = pointAlong(reach.line, (upper.section.atM + lower.section.atM) / 2);
  const { bedWidthM, leftOutM, leftHighM, rightOutM, rightHighM } = lower.section;
  const isLeft = leftHighM <= rightHighM;
  const away = (isLeft ? leftOutM : -rightOutM) + (isLeft ? 1 : -1) * (bedWidthM / 2 + BESIDE_M);
  const beside: Point = [half.point[0] - half.direction[1] * away, half.point[1] + half.direction[0] * away];
  return [
    {
      id: `${store}#end`,
      role: 'end',
      work: reach.id,
      name: `${name}: on down it`,
      kind: 'rated',
      levelM: wayOutM,
      dischargeAt: [end.point[0] + end.direction[0], end.point[1] + end.direction[1]],
      flowAt: ratedLaw(rating, wayOutM),
      staysIn: true,
    },
    {
      id: `${store}#bank`,
      role: 'bank',
      work: reach.id,
      name: `${name}: over its ${isLeft ? 'left' : 'right'} bank`,
      kind: 'bank',
      levelM: crestM,
      dischargeAt: beside,
      flowAt: grassedSillLaw({ lengthM, levelM: crestM }),
    },
  ];
} // prettier-ignore

function storeOf(standing: Standing, k: number, rows: readonly Row[]): Store {
  const stretch = standing.stretches[k];
  const { upper, lower, middle, lengthM, store: id, name } = stretch;
  const { bedM } = lower.section;
  const floorM = Math.min(bedM, upper.section.bedM);
  const levels = rows.map((r) => bedM + r.depthsM[k + 1]);
  const left = rows.map((r) => Math.min(upper.bankM - r.depthsM[k], lower.bankM - r.depthsM[k + 1]));
  const [wayOutM] = levels;
  const crestM = Math.max(wayOutM, whereNone(levels, left));
  const rating = Rating.by(ROWS, (share) => {
    const row = Math.round(share * ROWS);
    return [levels[row] - wayOutM, rows[row].flowM3s];
  });
  const volumes = rows.map((r) => lengthM * middle.area(r.meansM[k]));
  const widths = rows.map((r) => lengthM * middle.topWidth(r.meansM[k]));
  // What stands behind a hump lies below the lowest row.
  const hasPool = wayOutM > floorM + 1e-6;
  const under = hasPool ? [floorM] : [];
  return {
    id,
    work: standing.reach.id,
    name,
    floorM,
    sillM: wayOutM,
    wayOutM,
    crestM,
    heldM3: volumes[0],
    stage: {
      levelM: Float64Array.from([...under, ...levels]),
      volumeM3: Float64Array.from([...under.map(() => 0), ...volumes]),
      wettedM2: Float64Array.from([...under.map(() => widths[0]), ...widths]),
    },
    outlets: outletsOf(standing, stretch, { wayOutM, crestM, rating }),
    tilt: (levelM) => ({ riseM: 0, leftM: straight(levels, left, levelM) }),
    along: { channel: standing.reach.id, atM: lower.section.atM },
  };
}

/** All stretches from the upper end down, each letting go to the next. */
export function storesOf(standing: Standing): readonly Store[] {
  const most = mostFlow(standing);
  const rows = Array.from({ length: ROWS + 1 }, (_, k): Row => {
    const flowM3s = most * (k / ROWS) ** 2;
    return { flowM3s, ...profileOf(standing, () => flowM3s) };
  });
  return standing.stretches.map((_, k) => storeOf(standing, k, rows));
}
