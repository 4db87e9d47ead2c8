// Benches as they are cut and filled: level or falling across, a riser behind them and one before them, their edge on top of it.
import type { Built } from '../../contract/index.ts';
import { boxAround, builtTogether, runsOut, seenFrom, sideUp } from '../built.ts';
import { type Terraces, inwardOf } from './model.ts';
import { type Bench, edgeOf } from './standing.ts';

/** The edge falls towards the bench so far out per 1 down. */
const EDGE_HV = 1;

function benchBuilt(work: Terraces, bench: Bench): Built {
  const { benchM, riserHV } = work.dimensions;
  const { line, ground, middleM, innerM } = bench;
  const half = benchM / 2;
  const edgeM = edgeOf(bench, work);
  const see = seenFrom(line);
  const side = { sideHV: riserHV, slope: ground.steepestSlope };
  const rises = ground.groundM.reduce((a, v) => Math.max(a, v), innerM) + ground.steepestSlope * half - innerM;
  const falls = edgeM - ground.groundM.reduce((a, v) => Math.min(a, v), edgeM) + ground.steepestSlope * half;
  const reach = Math.max(runsOut(riserHV * rises, side), runsOut(riserHV * falls, side));
  return {
    box: boxAround(line, half + reach + 1),
    levelAt: (at, { madeM }) => {
      const { asideM, beyondM } = see(at);
      if (beyondM > 0) return madeM;
      // Downhill more than 0.
      const outM = -asideM * ground.downhillSide;
      if (outM < -half) return Math.min(madeM, innerM + sideUp(-half - outM, riserHV));
      if (outM > half) return Math.max(madeM, edgeM - sideUp(outM - half, riserHV));
      return Math.max(middleM + inwardOf(work) * outM, edgeM - sideUp(half - outM, EDGE_HV));
    },
  };
}

/** All benches, the highest first: each is cut into what the one above it heaped up, and none heaps up on one above. */
export const terracesBuilt = (work: Terraces, benches: readonly Bench[]): Built =>
  builtTogether([...benches].sort((a, b) => b.middleM - a.middleM).map((bench) => benchBuilt(work, bench)));
