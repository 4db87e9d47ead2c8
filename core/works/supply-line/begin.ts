import type { Begun, Drawn, Technique, WaterSeen } from '../../contract/index.ts';
import { type Point, contains, nearestOnLine } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { groundUnder, mm, offTerrain } from '../beginning.ts';
import { type FirstLine, newSupplyLine } from './create.ts';
import type { SupplyLine } from './model.ts';
import { dripsOf, fallOf, lossAt, pipeFor } from './standing.ts';

/** An end that comes so near to a store is at it [m]. */
const AT_STORE_M = 15;

/** The store an end lies at: within it, or nearest and near enough. */
function storeAt(at: Point, waters: readonly WaterSeen[]): WaterSeen | null {
  let best: WaterSeen | null = null;
  let least = AT_STORE_M;
  for (const water of waters)
    for (const line of water.lines) {
      const m = line.length > 3 && contains(line, at) ? 0 : nearestOnLine(at, line).distanceM;
      if (m <= least) [best, least] = [water, m];
    }
  return best;
}

/** The stores it draws from and fills. A roof keeps no water: only what fills another store begins at one. */
function endsOf(
  points: readonly Point[],
  fills: 'nothing' | 'what is there',
  waters: readonly WaterSeen[],
): { readonly from: WaterSeen | null; readonly to: WaterSeen | null } {
  const [start, end] = [points[0], points[points.length - 1]];
  const kept = waters.filter((w) => w.shafts === undefined);
  const keeping = kept.filter((w) => w.roofM2 === null);
  const nearest = storeAt(start, kept);
  const others = keeping.filter((w) => w.id !== nearest?.id);
  const to = fills === 'nothing' ? null : storeAt(end, others);
  const from = nearest?.roofM2 !== null && to === null ? storeAt(start, keeping) : nearest;
  return { from, to };
}

/** How high a tap, drip lines and a strainer stand; a can in half a minute [m, m3/s]: common practice. */
const [TAP_M, DRIP_M, DRAWN_M, A_CAN] = [0.6, 0.3, 0.1, 0.0002];
/** Head wanted at a tap, a float, drip lines [m]: common practice. */
const END_HEAD: Readonly<Record<SupplyLine['serves'], number>> = { tap: 1, vessel: 0.5, drip: 1 };
/** With less fall than that left for the pipe a pump is put in at first [m]. */
const LEAST_FALL_M = 0.3;
const WIDE_M = 0.052;

/** How it runs, how much, and through what pipe. */
function runs(first: Omit<FirstLine, 'drive' | 'flowM3s' | 'diameterM'>, name: string, lengthM: number): SupplyLine {
  const draft = newSupplyLine('', name, { ...first, drive: 'fall', flowM3s: A_CAN, diameterM: WIDE_M });
  const flowM3s = first.serves === 'drip' ? Math.ceil(1e6 * dripsOf(draft).allM3s) / 1e6 : A_CAN;
  const left = fallOf(draft) - draft.endHeadM;
  if (left > LEAST_FALL_M)
    return { ...draft, flowM3s, pipe: { ...draft.pipe, diameterM: pipeFor(flowM3s, left, { ...draft, lengthM }) ?? WIDE_M } };
  const useful = Math.max(0, -fallOf(draft)) + draft.endHeadM;
  return {
    ...draft,
    drive: 'pump',
    flowM3s,
    pipe: { ...draft.pipe, diameterM: pipeFor(flowM3s, 0.2 * useful, { ...draft, lengthM }) ?? WIDE_M },
  };
}

function said(
  work: SupplyLine,
  lengthM: number,
  waters: { readonly from: WaterSeen | null; readonly to: WaterSeen | null },
): Begun & object {
  const whence = waters.from ? `from ${waters.from.name} ` : '';
  const where = waters.to ? `to ${waters.to.name} ` : '';
  const lost = lossAt(work.flowM3s, work, lengthM);
  return {
    ok: true,
    works: [work],
    said:
      work.drive === 'fall'
        ? say`It runs ${whence}${where}by a fall of ${amount(fallOf(work), 'length')}, of which ${amount(lost, 'length')} are lost on the way.`
        : say`Nothing runs ${whence}${where}by itself: it lacks ${amount(Math.max(0, work.endHeadM - fallOf(work)), 'length')} of head, so a pump is put in.`,
  };
}

export const beginSupplyLine: Technique<SupplyLine, unknown>['begin'] = ({ how, points }: Drawn, land) => {
  const levels = groundUnder(points, land);
  if (!levels) return offTerrain('the line');
  const { waters = [] } = land;
  const isDrip = how === 'drip-line';
  const { from, to } = endsOf(points, isDrip ? 'nothing' : 'what is there', waters);
  const serves = isDrip ? 'drip' : to ? 'vessel' : 'tap';
  const last = levels[levels.length - 1];
  const drawM = from ? (from.roofM2 === null ? from.floorM + DRAWN_M : from.fullM) : levels[0] + DRAWN_M;
  const endM = to ? to.fullM + WIDE_M : last + (isDrip ? DRIP_M : TAP_M);
  const lengthM = groundLength(points, levels);
  const work = runs(
    {
      line: points,
      ...(from ? { from: from.id } : {}),
      ...(to ? { to: to.id } : {}),
      serves,
      levels: { drawM: mm(drawM), endM: mm(endM) },
      endHeadM: END_HEAD[serves],
    },
    land.nameFor('Water line'),
    lengthM,
  );
  return said({ ...work, id: land.idFor('supply-line') }, lengthM, { from, to });
};

/** Length along the ground of a line whose levels are known at even distances [m]. */
function groundLength(points: readonly Point[], levels: readonly number[]): number {
  const step = points.slice(1).reduce((a, [x, y], k) => a + Math.hypot(x - points[k][0], y - points[k][1]), 0) / (levels.length - 1);
  return levels.slice(1).reduce((a, level, k) => a + Math.hypot(step, level - levels[k]), 0);
}
