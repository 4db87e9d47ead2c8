import type { ChoiceSpec, FieldSpec, Problem, WorkBase } from '../../contract/index.ts';
import { INLETS, INLET_IDS, type InletId, culvertLaw, riserLaw, roundMouth, squareMouth } from '../../hydraulics/index.ts';
import { told } from '../../units/index.ts';
import { type FirstWayOut, mm } from '../beginning.ts';
import { checkFields } from '../fields.ts';
import { AT_FIELD, checkHost } from '../on-host.ts';

export const PIPE_FORMS = ['through', 'riser', 'box'] as const;
export const PIPE_SEALS = ['none', 'collars', 'filter'] as const;

export interface PipeOutlet extends WorkBase {
  readonly kind: 'pipe-outlet';
  readonly host: string;
  readonly atM: number;
  readonly form: (typeof PIPE_FORMS)[number];
  readonly inlet: InletId;
  /** What stops water along its outside. */
  readonly seal: (typeof PIPE_SEALS)[number];
  readonly levels: {
    /** Bottom of the inlet of a pipe through the wall, else the edge water falls over. */
    readonly sillM: number;
    readonly outletM: number;
  };
  readonly dimensions: { readonly diameterM: number; readonly mouthM: number; readonly lengthM: number };
  readonly roughness: number;
  /** Share of it found or thought blocked. */
  readonly blockedPercent: number;
}

export const PIPE_FIELDS: readonly FieldSpec[] = [
  {
    path: 'levels.sillM',
    label: 'Level water enters at',
    kind: 'level',
    min: -500,
    max: 9000,
    help: 'Bottom of a pipe’s inlet, or edge of a standing pipe or box.',
  },
  { path: 'levels.outletM', label: 'Bottom of its outlet', kind: 'level', min: -500, max: 9000, help: 'Where it lets water go, below.' },
  {
    path: 'dimensions.diameterM',
    label: 'Pipe, inside',
    kind: 'length',
    min: 0.03,
    max: 3,
    help: '150 mm at the least; 450 mm can be cleaned.',
  },
  {
    path: 'dimensions.mouthM',
    label: 'Standing pipe or box, inside',
    kind: 'length',
    min: 0.03,
    max: 6,
    help: 'Twice the pipe or more, with a rack over it.',
  },
  { path: 'dimensions.lengthM', label: 'Length', kind: 'length', min: 0.5, max: 300, help: 'From inlet to outlet.' },
  {
    path: 'roughness',
    label: 'Roughness (Manning)',
    kind: 'number',
    min: 0.008,
    max: 0.03,
    help: 'Smooth plastic 0.011, concrete 0.013, corrugated 0.024.',
  },
  { path: 'blockedPercent', label: 'Blocked', kind: 'percent', min: 0, max: 100, help: 'By debris, silt or crushing, as found.' },
  AT_FIELD,
];

/** A standing pipe with a filter round it to begin with: common practice, to be sized by its checks. */
export const newPipe = ({ sillM, ...first }: FirstWayOut): PipeOutlet => ({
  ...first,
  kind: 'pipe-outlet',
  form: 'riser',
  inlet: 'corrugated-projecting',
  seal: 'filter',
  levels: { sillM, outletM: mm(sillM - 1.2) },
  dimensions: { diameterM: 0.2, mouthM: 0.4, lengthM: 15 },
  roughness: 0.012,
  blockedPercent: 0,
});

export const PIPE_CHOICES: readonly ChoiceSpec[] = [
  {
    path: 'form',
    label: 'It is',
    options: [
      { id: 'through', name: 'a pipe through the wall' },
      { id: 'riser', name: 'a standing pipe' },
      { id: 'box', name: 'a box inlet' },
    ],
  },
  {
    path: 'seal',
    label: 'Round its outside',
    options: [
      { id: 'none', name: 'nothing' },
      { id: 'collars', name: 'collars' },
      { id: 'filter', name: 'a sand filter' },
    ],
  },
  { path: 'inlet', label: 'Inlet of the pipe', options: INLET_IDS.map((id) => ({ id, name: INLETS[id].name })) },
];

/** Everything wrong with one pipe on its own. */
export function validatePipe(pipe: PipeOutlet): Problem[] {
  const problems: Problem[] = [...checkFields(pipe, PIPE_FIELDS), ...checkHost(pipe)];
  const choice = (path: 'form' | 'inlet' | 'seal', allowed: readonly string[]): void => {
    if (allowed.includes(pipe[path])) return;
    problems.push({
      code: `pipe.${path}`,
      what: `${path} of "${pipe.name}" is ${told(pipe[path])}`,
      field: path,
      do: `Choose one of ${allowed.join(', ')}.`,
    });
  };
  choice('form', PIPE_FORMS);
  choice('inlet', INLET_IDS);
  choice('seal', PIPE_SEALS);
  return problems;
}

/** Flow by the level of the pond and of water below. */
export function pipeLaw({
  form,
  inlet,
  levels,
  dimensions,
  roughness,
  blockedPercent,
}: Omit<PipeOutlet, keyof WorkBase | 'host' | 'atM'>): (upM: number, downM?: number) => number {
  const { diameterM, mouthM, lengthM } = dimensions;
  const blocked = blockedPercent / 100;
  if (form === 'through') {
    const law = culvertLaw({
      barrels: 1,
      diameterM,
      lengthM,
      slope: 0,
      n: roughness,
      inlet,
      inletM: levels.sillM,
      outletM: levels.outletM,
      blocked,
    });
    // It lets the pond out; what stands below may hold it up, never fill it.
    return (upM, downM) => Math.max(0, law(upM, downM));
  }
  const mouth = form === 'riser' ? roundMouth(mouthM) : squareMouth(mouthM);
  return riserLaw({ crestM: levels.sillM, mouth, pipe: { diameterM, lengthM, n: roughness, outletM: levels.outletM }, blocked });
}
