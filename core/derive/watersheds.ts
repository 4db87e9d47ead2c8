// Runoff of every catchment in the design storm: the hydrology of one derive.
import type { BoundWork } from '../contract/index.ts';
import { Worksheet, type WorksheetLine } from '../formula/index.ts';
import type { Line } from '../geometry/index.ts';
import type { Project, Rain } from '../project/index.ts';
import type { Storm } from '../rain/index.ts';
import { type Gathered, naturalCatchment } from './catchments.ts';
import { flowParts } from './flow-parts.ts';
import {
  type CatchmentRunoff,
  type Choice,
  type Watershed,
  choiceFor,
  concentrationOf,
  runoffOf,
  stepFor,
  stormFor,
  watershedOf,
} from './hydrology.ts';
import type { Memo } from './memo.ts';
import { type SurfaceMap, sharesOf } from './surfaces.ts';
import type { GroundModel } from './terrain-steps.ts';

export interface Basis {
  readonly project: Project;
  readonly model: GroundModel;
  readonly memo: Memo;
  /** Null while the ground is not described. */
  readonly map: SurfaceMap | null;
}

/** What is needed to work out runoff: rain, ground, and a storm in steps. Null while rain or ground is not known. */
export interface Weather extends Basis {
  readonly rain: Rain;
  readonly map: SurfaceMap;
  /** Names rain, ground and methods as they stand. */
  readonly key: string;
}

export function weatherOf(basis: Basis): Weather | null {
  const { project, map } = basis;
  if (!project.rain || !map) return null;
  const key = JSON.stringify([project.rain, map.surfaces.map((s) => s.facts), project.runoff]);
  return { ...basis, rain: project.rain, map, key };
}

/** A catchment with its kinds of ground and the way its water takes, each found once as long as neither changes. */
export function watershedIn({ model, memo, map }: Omit<Weather, 'rain' | 'key' | 'project'>, gathered: Gathered): Watershed {
  const id = gathered.key.split('@')[0];
  const key = `${gathered.key}|${memo.stamp('surfaces')}`;
  const shares = memo.step(`shares:${id}`, key, () => sharesOf(map, gathered.members, model.grid));
  const covers = JSON.stringify(map.surfaces.map((s) => s.facts.cover.surface));
  const flow = (): ReturnType<typeof flowParts> => memo.step(`path:${id}`, `${key}|${covers}`, () => flowParts(model, gathered, map));
  return watershedOf(gathered, map.surfaces, { shares, flow });
}

export interface Timed {
  readonly watershed: Watershed;
  readonly choice: Choice;
  readonly tcMin: number;
  /** Why the chosen way to the time should not be used here; empty where it may. */
  readonly unfit: readonly string[];
  readonly timing: readonly WorksheetLine[];
}

export function timedIn(weather: Weather, gathered: Gathered): Timed {
  const watershed = watershedIn(weather, gathered);
  const choice = choiceFor(weather.project, gathered.catchment.of);
  const sheet = new Worksheet(gathered.catchment.of);
  return { watershed, choice, ...concentrationOf(watershed, { rain: weather.rain, choice, sheet }), timing: sheet.lines };
}

/** Runoff of a catchment, kept while its shape, its ground, the rain and the methods stay. */
export function runoffIn(weather: Weather, timed: Timed, on: { readonly storm: Storm; readonly step: string }): CatchmentRunoff {
  const { watershed, choice, tcMin } = timed;
  const shares = watershed.parts.map((p) => p.areaM2).join();
  const key = `${weather.key}|${on.storm.stepMin}|${watershed.gathered.key}|${shares}|${tcMin}`;
  return weather.memo.step(on.step, key, () => runoffOf(watershed, { rain: weather.rain, storm: on.storm, choice, tcMin }));
}

export interface Hydrology {
  readonly weather: Weather | null;
  readonly storm: Storm | null;
  readonly runoff: ReadonlyMap<string, CatchmentRunoff>;
  readonly timed: ReadonlyMap<string, Timed>;
  /** Peak of each work's whole natural catchment [m3/s]. */
  readonly natural: ReadonlyMap<string, number>;
  readonly worksheets: readonly WorksheetLine[];
}

/** Storm and runoff of every catchment; empty while rain or ground is not known. */
export function hydrologyOf(
  basis: Basis,
  on: { readonly bound: readonly BoundWork[]; readonly catchments: readonly Gathered[]; readonly exits: readonly Gathered[] },
): Hydrology {
  const weather = weatherOf(basis);
  if (!weather) return { weather, storm: null, runoff: new Map(), timed: new Map(), natural: new Map(), worksheets: [] };
  const timed = on.catchments.map((gathered) => timedIn(weather, gathered));
  // With neither pin nor work what leaves the property is still told, in steps fit for it.
  const leading = timed.length > 0 ? timed : on.exits.map((gathered) => timedIn(weather, gathered));
  const storm = stormFor(weather.rain, stepFor(leading.map((t) => t.tcMin)));
  const done = timed.map((t) => {
    const { of } = t.watershed.gathered.catchment;
    return { of, timing: t.timing, result: runoffIn(weather, t, { storm, step: `runoff:${of}` }) };
  });
  const natural = on.bound.flatMap((work): [string, number][] => {
    if (work.interceptor === null) return [];
    const whole = naturalCatchment(basis.model, work as BoundWork & { interceptor: Line }, basis.memo);
    const result = runoffIn(weather, timedIn(weather, whole), { storm, step: `natural-peak:${work.work.id}` });
    return [[work.work.id, result.runoff.hydrographPeakM3s]];
  });
  return {
    weather,
    storm,
    natural: new Map(natural),
    runoff: new Map(done.map((d) => [d.of, d.result])),
    timed: new Map(timed.map((t) => [t.watershed.gathered.catchment.of, t])),
    worksheets: done.flatMap((d) => [...d.timing, ...d.result.lines]),
  };
}
