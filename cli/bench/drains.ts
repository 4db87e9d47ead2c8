// A tree of pipes under a storm, and the falls of a long drain.
import type { Conduit } from '#core/contract';
import { type RoutedStore, conduitStore, route } from '#core/network';
import { type Basin, fallsFor, grateLaw, newDrain } from '#core/works';

const [PIPES, INLETS, STEP_S, HOURS] = [200, 60, 10, 2];

/** Two hundred pipes in a tree, each leading to one nearer the end, sixty with a yard over them. */
function tree(): RoutedStore[] {
  const parent = (k: number): number => Math.floor((k - 1) / 2);
  const depth = (k: number): number => Math.floor(Math.log2(k + 1));
  const pipes = Array.from({ length: PIPES }, (_, k): Conduit => {
    const upperM = 100 + 0.25 * depth(k);
    return { id: `p${k}`, work: 'd', name: `p${k}`, diameterM: k < 15 ? 0.3 : 0.15, lengthM: 15, n: 0.011, inlet: 'concrete-square-headwall', upperM, lowerM: upperM - 0.2, rimM: upperM + 1, rimLengthM: 1, shaftM2: 0.1, outletAt: [0, 0], rimAt: [0, 0], isUnder: k >= PIPES - INLETS }; // prettier-ignore
  });
  const steps = (HOURS * 3600) / STEP_S;
  const none = new Float64Array(steps);
  const rain = Float64Array.from({ length: steps }, (_, i) => 0.004 * Math.exp(-(((i * STEP_S - 2400) / 900) ** 2)));
  const basin: Basin = { atM: 0, invertM: 0, pipeM: 0.15, grateLongM: 0.4, grateWideM: 0.4, sumpM: 0.15 };
  const drain = newDrain('d', 'Drain', { line: [[0, 0], [1, 0]], basins: [basin], levels: { outletM: 0 } }); // prettier-ignore
  const laid = pipes.map((pipe, k): RoutedStore => {
    const { stage, outlets } = conduitStore(pipe);
    const to = k === 0 ? 'ground' : `p${parent(k)}`;
    return {
      id: pipe.id,
      stage,
      inflow: none,
      outlets: [{ id: `${pipe.id}#pipe`, to, lagS: 0, flowAt: outlets[0].flowAt, isJoint: k > 0 }],
    };
  });
  const yards = pipes.slice(PIPES - INLETS).map((pipe): RoutedStore => {
    const levelM = Float64Array.from({ length: 13 }, (_, i) => pipe.rimM + 0.05 * i);
    const stage = { levelM, volumeM3: levelM.map((v) => 40 * (v - pipe.rimM)), wettedM2: levelM.map(() => 40) };
    const flowAt = grateLaw(drain, basin, pipe.rimM);
    return {
      id: `y-${pipe.id}`,
      stage,
      inflow: rain,
      outlets: [{ id: `y-${pipe.id}#grate`, to: pipe.id, lagS: 0, flowAt, isJoint: true }],
    };
  });
  return [...laid, ...yards];
}

/** Two hours of storm through all of it, at ten seconds [ms]. */
export function drainTree(): { readonly pipes: number; readonly inlets: number; readonly ms: number; readonly lostM3: number } {
  const stores = tree();
  const steps = (HOURS * 3600) / STEP_S;
  const times = [1, 2, 3].map(() => {
    const start = performance.now();
    route({ stores, stepS: STEP_S, steps });
    return performance.now() - start;
  });
  const { balance } = route({ stores, stepS: STEP_S, steps });
  return { pipes: PIPES, inlets: INLETS, ms: times.sort((a, b) => a - b)[1], lostM3: balance.inM3 - balance.leftM3 - balance.storedM3 };
}

/** Falls found on two hundred pipes [ms]. */
export function longFalls(): number {
  const basins = Array.from({ length: PIPES }, (_, k): Basin => ({ atM: 10 * k, invertM: 0, pipeM: 0.15, grateLongM: 0, grateWideM: 0, sumpM: 0 })); // prettier-ignore
  const groundM = Float64Array.from({ length: 4001 }, (_, i) => 120 - 0.005 * i + 0.4 * Math.sin(i / 37));
  const ground = { lengthM: 2000, stepM: 0.5, groundM, atBasins: basins.map((b) => groundM[2 * b.atM]), endM: groundM[4000], falls: [], yards: [], taker: null }; // prettier-ignore
  const start = performance.now();
  fallsFor({ basins, over: 'grass', ends: 'street' }, ground);
  return performance.now() - start;
}
