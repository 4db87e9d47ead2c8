// What leaves the property, place by place, with the works and without them.
import type { Link } from '../contract/index.ts';
import { type RouteResult, delayed } from '../network/index.ts';
import type { Storm } from '../rain/index.ts';
import { nearestExit } from '../terrain/index.ts';
import type { ExitGround } from './catchments.ts';
import { peakOf } from './hydrology.ts';
import type { DerivedExit, FlowSeries, LeavingFlow } from './types.ts';
import { type Weather, runoffIn, timedIn } from './watersheds.ts';

const NOTHING: LeavingFlow = { volumeM3: 0, peakM3s: 0, peakAtS: null };

function told(flowM3s: Float64Array, stepS: number): LeavingFlow {
  const { peakM3s, peakAtS } = peakOf(flowM3s, stepS);
  if (peakM3s === 0) return NOTHING;
  return { volumeM3: stepS * flowM3s.reduce((a, v) => a + v, 0), peakM3s, peakAtS };
}

/** Sum of hydrographs of different length. */
function added(flows: readonly Float64Array[]): Float64Array {
  const sum = new Float64Array(Math.max(0, ...flows.map((f) => f.length)));
  for (const flow of flows) for (let i = 0; i < flow.length; i++) sum[i] += flow[i];
  return sum;
}

export interface ExitsInput {
  readonly weather: Weather;
  readonly storm: Storm;
  readonly grounds: readonly ExitGround[];
  readonly links: readonly Link[];
  readonly result: RouteResult | null;
}

/** Volume, peak and its time at each exit: of all its ground with nothing built, and of uncaught ground and overflows as it is. */
export function exitFlows({
  weather,
  storm,
  grounds,
  links,
  result,
}: ExitsInput): { readonly told: DerivedExit; readonly series: FlowSeries }[] {
  const { grid } = weather.model;
  const stepS = storm.stepMin * 60;
  const exits = grounds.map((g) => g.exit);
  const leaving = links.flatMap((link) => {
    const end = link.path[link.path.length - 1];
    const flow = result?.outlets.get(link.outlet)?.flowM3s;
    if (!end || !flow || (link.to !== 'property-edge' && link.to !== 'terrain-edge')) return [];
    return [{ exit: nearestExit(grid, exits, [end[0], end[1]]), flow: delayed(flow, link.lagS, stepS) }];
  });
  return grounds.map(({ exit, id, whole, uncaught }, k) => {
    const run = (which: typeof whole, step: string): Float64Array =>
      runoffIn(weather, timedIn(weather, which), { storm, step: `${step}:${id}` }).flowM3s;
    const without = run(whole, 'exit-without');
    const open = uncaught === whole ? without : uncaught.members.length === 0 ? new Float64Array(0) : run(uncaught, 'exit-with');
    const flowM3s = added([open, ...leaving.filter((l) => l.exit === k).map((l) => l.flow)]);
    const { at, isPlace, areaM2 } = exit;
    return {
      told: { id, at, isPlace, areaM2, without: told(without, stepS), with: told(flowM3s, stepS) },
      series: { id, stepS, flowM3s, withoutM3s: without },
    };
  });
}
