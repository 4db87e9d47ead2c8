// A pipe that lets a pond out: through the wall, from a standing pipe, or from a box inlet.
import { pipeOutletDescriptor } from './descriptor.ts';
import type { Figure, Host, Outlet, PlacedWork, SectionShape, StormFacts, Technique } from '../../contract/index.ts';
import type { Worksheet } from '../../formula/index.ts';
import { APRON_STONE, DROP_INLET, FULL_PIPE } from '../../hydraulics/index.ts';
import { type HostPlace, pegAt, placeOnHost } from '../on-host.ts';
import { runRules } from '../rules.ts';
import { peakThrough } from '../ways-out.ts';
import { PIPE_RULES, type PipeFacts } from './checks.ts';
import { quantitiesOf, stepsOf } from './making.ts';
import { beginWayOut } from '../beginning.ts';
import { type PipeOutlet, newPipe, pipeLaw } from './model.ts';

export * from './model.ts';
export { PIPE_RULES } from './checks.ts';

function outletOf(pipe: PipeOutlet, place: HostPlace): Outlet {
  return {
    id: pipe.id,
    role: 'way',
    work: pipe.id,
    name: pipe.name,
    kind: 'rated',
    levelM: pipe.form === 'through' ? Math.max(pipe.levels.sillM, pipe.levels.outletM) : pipe.levels.sillM,
    dischargeAt: place.dischargeAt,
    flowAt: pipeLaw(pipe),
    drownsM: pipe.levels.outletM,
    exit: { at: place.dischargeAt, slope: place.slopeBelow, widthM: pipe.dimensions.diameterM, shape: 'pipe' },
  };
}

function figuresOf(pipe: PipeOutlet, facts: PipeFacts, sheet: Worksheet): Figure[] {
  const { diameterM: D, lengthM: L } = pipe.dimensions;
  const crest = facts.store?.crestM ?? null;
  const slope = (pipe.levels.sillM - pipe.levels.outletM) / L;
  if (pipe.form === 'through' && slope > 0) sheet.use(FULL_PIPE, { D, n: pipe.roughness, S: slope });
  const head = crest === null ? 0 : crest - pipe.levels.outletM - D / 2;
  if (pipe.form !== 'through' && head > 0) sheet.use(DROP_INLET, { D, h: head, Ke: 0.5, Kb: 0.5, n: pipe.roughness, L });
  const peak = peakThrough(facts);
  if (peak !== null && peak > 0) sheet.use(APRON_STONE, { Q: peak, D, TW: 0 });
  return [
    { id: 'slope', label: 'Fall of the pipe', value: slope, kind: 'slope' },
    { id: 'mostM3s', label: 'Passes with water at the crest', value: crest === null ? null : facts.outlet.flowAt(crest), kind: 'flow' },
  ];
}

function sectionOf(pipe: PipeOutlet, waterM: number | null): SectionShape {
  const { diameterM: D, mouthM, lengthM: L } = pipe.dimensions;
  const { sillM, outletM } = pipe.levels;
  const isThrough = pipe.form === 'through';
  const foot = isThrough ? sillM : outletM + 0.01 * L;
  const water =
    waterM === null || waterM <= sillM
      ? []
      : [
          {
            role: 'water' as const,
            points: [
              [-3, waterM],
              [0, waterM],
            ] as [number, number][],
          },
        ];
  return {
    title: 'Section along the pipe, pond left',
    parts: [
      {
        role: 'pipe',
        isArea: true,
        points: [
          [0, foot],
          [L, outletM],
          [L, outletM + D],
          [0, foot + D],
        ],
      },
      ...(isThrough
        ? []
        : [
            {
              role: 'pipe' as const,
              isArea: true,
              points: [
                [-mouthM / 2, foot],
                [mouthM / 2, foot],
                [mouthM / 2, sillM],
                [-mouthM / 2, sillM],
              ] as [number, number][],
            },
          ]),
      ...water,
    ],
    levels: [
      { name: 'in', levelM: sillM },
      { name: 'out', levelM: outletM },
    ],
  };
}

function placePipe(pipe: PipeOutlet, place: HostPlace, host: Host | null): PlacedWork {
  const outlet = outletOf(pipe, place);
  const factsOf = (facts: StormFacts): PipeFacts => ({ ...facts, pipe, place, outlet });
  return {
    host: null,
    stores: () => [],
    outlets: !host ? [] : [outlet],
    figures: (facts, sheet) => figuresOf(pipe, factsOf(facts), sheet),
    checks: (facts) => runRules(PIPE_RULES, factsOf(facts), pipe.id),
    quantities: (facts) => quantitiesOf(pipe, facts),
    buildSteps: () => stepsOf(pipe),
    pegs: () => [...pegAt(place, { name: 'inlet', role: 'invert', levelM: pipe.levels.sillM })],
    marks: [
      { id: `${pipe.id}:sill`, work: pipe.id, name: pipe.name, role: 'sill', levelM: pipe.levels.sillM, path: 'levels.sillM' },
      {
        id: `${pipe.id}:outlet`,
        work: pipe.id,
        name: `${pipe.name}: outlet`,
        role: 'floor',
        levelM: pipe.levels.outletM,
        path: 'levels.outletM',
      },
    ],
    section: (waterM) => sectionOf(pipe, waterM),
  };
}

export const pipeOutlet: Technique<PipeOutlet, HostPlace> = {
  ...pipeOutletDescriptor,
  formulas: [],
  rules: PIPE_RULES,
  begin: (drawn, land) => beginWayOut(drawn, land, { kind: 'pipe-outlet', title: 'Pipe outlet', work: newPipe }),
  measure: (work, site, host) => placeOnHost(work.atM, site, { host, lengthM: work.dimensions.lengthM }),
  place: placePipe,
};
