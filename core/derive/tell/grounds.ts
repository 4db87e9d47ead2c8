// What a rain does on each kind of ground of the property, as it is now and healed.
import { NOW, type SoilFacts } from '../../ground/index.ts';
import type { Ground, Project } from '../../project/index.ts';
import type { Storm } from '../../rain/index.ts';
import { type LossChoice, partRain } from '../../runoff/index.ts';
import { lossChoiceOf } from '../run/hydrology.ts';
import type { Graph } from '../graph/graph.ts';
import { type SurfaceMap, healedState, stateOf, surfacesOf } from '../world/surfaces.ts';
import type { GroundModel } from '../world/ground-model.ts';
import type { DerivedGround } from '../types.ts';

/** Rain in even steps. */
export type RainSteps = Pick<Storm, 'stepMin' | 'stepsMm'>;

/** A rain parted on one kind of ground [mm]. */
export interface Does {
  readonly rainMm: number;
  readonly soaksMm: number;
  readonly standsMm: number;
  readonly runsMm: number;
  readonly infiltrationMmPerHour: number;
  readonly curveNumber: number;
}

export interface GroundDoes {
  readonly id: string;
  readonly name: string;
  readonly now: Does;
  /** Null where no plan is made for its healing. */
  readonly healed: Does | null;
}

function doesOn(facts: SoilFacts, rain: RainSteps, choice: LossChoice): Does {
  const { rainMm, soaksMm, standsMm, runoffMm } = partRain(rain.stepsMm, rain.stepMin / 60, { soil: facts, choice });
  const { infiltrationMmPerHour, curveNumber } = facts;
  return { rainMm, soaksMm, standsMm, runsMm: runoffMm, infiltrationMmPerHour, curveNumber };
}

/** What a rain does on every kind of ground. */
export function groundsDo(project: Pick<Project, 'features' | 'runoff'> & { readonly ground: Ground }, rain: RainSteps): GroundDoes[] {
  const choice = lossChoiceOf(project);
  const healed = surfacesOf(project, healedState(project.ground));
  return surfacesOf(project, NOW).map(({ id, name, facts }, k) => ({
    id,
    name,
    now: doesOn(facts, rain, choice),
    healed: facts.soil.healing ? doesOn(healed[k].facts, rain, choice) : null,
  }));
}

export interface GroundsInput {
  readonly model: GroundModel;
  readonly graph: Graph;
  readonly map: SurfaceMap;
  readonly inside: Uint8Array;
  readonly storm: Storm | null;
}

/** Area of each surface within the property line, or on the whole map without one [m2]. */
const surfaceAreas = ({ model, graph, map, inside }: GroundsInput): readonly number[] =>
  graph.step('surface-areas', [map, inside, model.grid.cellM], ({ surfaces, index }, within, cellM) => {
    const count = new Float64Array(surfaces.length);
    for (let i = 0; i < within.length; i++) if (within[i] === 1) count[index[i]]++;
    return Array.from(count, (n) => n * cellM ** 2);
  });

const UNKNOWN = { rainMm: null, soaksMm: null, standsMm: null, runsMm: null, runsNowMm: null, runsHealedMm: null };

export function groundsOf(
  { ground, features, runoff }: Pick<Project, 'features' | 'runoff'> & { readonly ground: Ground },
  on: GroundsInput,
): readonly DerivedGround[] {
  const { map, storm, graph } = on;
  const isHealed = stateOf(ground).as === 'healed';
  return graph.step('grounds', [map, surfaceAreas(on), { ground, features, runoff, storm }], ({ surfaces }, areas, known) => {
    const does = known.storm ? groundsDo(known, known.storm) : null;
    return surfaces.map(({ id, name, facts }, k): DerivedGround => {
      const { curveNumber, infiltrationMmPerHour, soilDepthM } = facts;
      const told = { id, name, areaM2: areas[k], curveNumber, infiltrationMmPerHour, soilDepthM };
      if (!does) return { ...told, ...UNKNOWN };
      const { now, healed } = does[k];
      const { rainMm, soaksMm, standsMm, runsMm } = (isHealed ? healed : null) ?? now;
      const both = { runsNowMm: healed ? now.runsMm : null, runsHealedMm: healed ? healed.runsMm : null };
      return { ...told, rainMm, soaksMm, standsMm, runsMm, ...both };
    });
  });
}
