// A seepage drain: a holed pipe in gravel that takes what seeps through the ground, slowly, and never what runs over it.
import type { ChoiceSpec, FieldSpec, ListSpec, Problem, WorkBase } from '../../contract/index.ts';
import { type Line, lineLength } from '../../geometry/index.ts';
import { amount, say } from '../../units/index.ts';
import { checkChoices, checkEntries, checkFields, checkLine, choice, option } from '../fields.ts';

/** A level read along it as it lies. */
export interface Reading {
  readonly atM: number;
  readonly levelM: number;
}

export interface SeepDrain extends WorkBase {
  readonly kind: 'seep-drain';
  /** From its upper end to where it ends. */
  readonly line: Line;
  readonly into?: string;
  readonly purpose: 'yard' | 'footing' | 'wall' | 'slope';
  readonly wrap: 'none' | 'gravel' | 'pipe' | 'bundle';
  readonly soil: 'not-known' | 'sand' | 'silt' | 'clay';
  readonly top: 'earth' | 'open';
  readonly downspouts: 'not-said' | 'none' | 'sump' | 'straight';
  readonly mouth: 'open' | 'grille';
  readonly asked: 'not-asked' | 'asked';
  readonly services: 'not-asked' | 'asked';
  readonly levels: { readonly upperM: number; readonly outletM: number };
  readonly dimensions: {
    readonly widthM: number;
    readonly pipeM: number;
    /** Gravel over the pipe, and under it. */
    readonly overM: number;
    readonly underM: number;
  };
  /** Water that came into a metre of trench left open overnight [m3/s], and how deep the ground water stands in the wet season. */
  readonly seepM3s?: number;
  readonly waterTableM?: number;
  /** Rate at which water moves through the soil down there. */
  readonly soilMmPerHour?: number;
  /** Several side by side: how far apart, with what must drain in a day and how deep the soil goes on below. */
  readonly apartM?: number;
  readonly laid?: readonly Reading[];
  readonly labour: { readonly mPerDay: number };
}

export const SEEP_FIELDS: readonly FieldSpec[] = [
  { path: 'levels.upperM', label: 'Invert at its upper end', kind: 'level', min: -500, max: 9000, help: 'Lowest of the bore.' },
  { path: 'levels.outletM', label: 'Invert where it ends', kind: 'level', min: -500, max: 9000, help: 'Lowest of the bore, where its water leaves.' },
  { path: 'dimensions.widthM', label: 'Trench, wide', kind: 'length', min: 0.1, max: 2, help: 'A spade or a bucket; the pipe and 75 mm of gravel on both sides.' },
  { path: 'dimensions.pipeM', label: 'Pipe, inside', kind: 'difference', min: 0.03, max: 0.6, help: '100 mm: not for its flow, for its cleaning.' },
  { path: 'dimensions.overM', label: 'Gravel over the pipe', kind: 'difference', min: 0, max: 3, help: '150 mm at least; to the ground where it is to take wet from above.' },
  { path: 'dimensions.underM', label: 'Gravel under the pipe', kind: 'difference', min: 0, max: 0.5, help: 'A thin bed brought to its fall.' },
  { path: 'seepM3s', label: 'Comes into a metre of open trench', kind: 'tapFlow', min: 0, max: 0.05, help: 'Dig a metre, leave it overnight, empty it, and time how it fills.', optional: { offer: 'You have watched a trench fill', start: 0.00001 } },
  { path: 'waterTableM', label: 'Ground water stands', kind: 'length', min: 0, max: 30, help: 'Under the ground, in the wet season.', optional: { offer: 'You know how deep the ground water is', start: 0.3 } },
  { path: 'soilMmPerHour', label: 'Water moves through the soil there', kind: 'intensity', min: 0.01, max: 5000, help: 'By a hole test below the water, or its texture: clay 1, loam 20, sand 200.', optional: { offer: 'You know how fast', start: 20 } },
  { path: 'apartM', label: 'The next one lies', kind: 'length', min: 1, max: 200, help: 'Where several drain a field.', optional: { offer: 'Several lie side by side', start: 10 } },
  { path: 'labour.mPerDay', label: 'One person lays in a day', kind: 'distance', min: 0.5, max: 200, help: 'By hand 5 to 8 m with gravel and turf.' },
]; // prettier-ignore

export const SEEP_CHOICES: readonly ChoiceSpec[] = [
  choice('purpose', 'It keeps dry', [option('yard', 'wet ground'), option('footing', 'a footing or a cellar'), option('wall', 'the back of a wall'), option('slope', 'what lies below a slope')]),
  { ...choice('wrap', 'Cloth is wrapped', [option('none', 'round nothing'), option('gravel', 'round the gravel'), option('pipe', 'round the pipe, a sock'), option('bundle', 'round a ready bundle of light fill')]), help: 'Most wrap the gravel: much cloth, slow to clog. A sock is quick and good in clean sand alone. A bundle needs no gravel carried and holds less.' },
  choice('soil', 'The soil about it', [option('not-known', 'not looked at yet'), option('sand', 'clean sand or gravel'), option('silt', 'silty'), option('clay', 'clay')]),
  choice('top', 'Over its gravel', [option('earth', 'earth and turf'), option('open', 'nothing: gravel to the ground')]),
  choice('downspouts', 'Roof water', [option('not-said', 'not said yet'), option('none', 'goes elsewhere'), option('sump', 'comes in through a basin with a sump'), option('straight', 'is led straight into it')]),
  choice('mouth', 'Its end is', [option('open', 'open'), option('grille', 'closed to animals by a grille or a flap')]),
  choice('asked', 'Whose ground or drain takes it', [option('not-asked', 'was not asked yet'), option('asked', 'was asked, and allows it')]),
  choice('services', 'Buried cables and pipes', [option('not-asked', 'not asked yet'), option('asked', 'asked for, and marked')]),
]; // prettier-ignore

const READING: readonly FieldSpec[] = [
  { path: 'atM', label: 'Along it', kind: 'distance', min: 0, max: 20_000, help: 'From its upper end.' },
  { path: 'levelM', label: 'Invert read', kind: 'level', min: -500, max: 9000, help: 'As it lies, before it is covered.' },
];

export const SEEP_LISTS: readonly ListSpec[] = [
  {
    path: 'laid',
    title: 'As laid',
    each: 'Reading',
    words: { none: 'Nothing read yet: a reading every 2 m before it is covered.', add: 'Add a reading', remove: 'Take it away' },
    fields: READING,
    start: ({ laid = [], levels }: SeepDrain) => ({ ...(laid[laid.length - 1] ?? { atM: 0, levelM: levels.upperM }) }),
  },
];

/** Everything wrong with one drain on its own. */
export function validateSeep(work: SeepDrain): Problem[] {
  const shape = [...checkFields(work, SEEP_FIELDS), ...checkLine(work, work.line), ...checkChoices(work, SEEP_CHOICES)];
  if (shape.length > 0) return shape;
  const entries = checkEntries(work, { path: 'laid', fields: READING, each: 'reading' });
  if (entries.length > 0) return entries;
  const { name, levels, line, laid = [], into, id, dimensions } = work;
  if (into === id)
    return [{ code: 'seep-drain.ring', field: 'into', what: `"${name}" leads into itself`, do: 'Say what else takes it, or that it ends in the open.' }];
  const rise = levels.outletM - levels.upperM;
  if (rise > 1e-6)
    return [{ code: 'seep-drain.climbs', field: 'levels.outletM', what: say`"${name}" would climb ${amount(rise, 'difference')} from its upper end to where it ends`, do: 'Give inverts that fall, or draw it the other way round.' }];
  if (dimensions.widthM < dimensions.pipeM)
    return [{ code: 'seep-drain.width', field: 'dimensions.widthM', what: say`the trench of "${name}" is ${amount(dimensions.widthM, 'difference')} wide, its pipe ${amount(dimensions.pipeM, 'difference')}`, do: 'Make it as wide as the pipe and gravel on both sides.' }];
  const far = laid.findIndex((r) => r.atM > lineLength(line) + 0.05);
  return far < 0 ? [] : [{ code: 'seep-drain.laid', field: `laid.${far}.atM`, what: say`reading ${String(far + 1)} of "${name}" lies at ${amount(laid[far].atM, 'length')}, beyond its end`, do: 'Measure from its upper end.' }];
} // prettier-ignore
