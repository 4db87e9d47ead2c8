// Everything that can be drawn on the land besides works, and the words other maps name it by.
import { SEEN_KINDS } from './kinds.ts';

export type ThingForm = 'point' | 'line' | 'ring';

export interface Thing {
  readonly kind: string;
  readonly title: string;
  readonly form: ThingForm;
}

/** What stands on most maps, in the order it is offered in. */
export const ON_MAPS: readonly Thing[] = [
  { kind: 'building', title: 'Building', form: 'ring' },
  { kind: 'pool', title: 'Pool', form: 'ring' },
  { kind: 'septic', title: 'Septic field', form: 'ring' },
  { kind: 'wood', title: 'Wood', form: 'ring' },
  { kind: 'tree', title: 'Tree', form: 'point' },
  { kind: 'well', title: 'Well', form: 'point' },
  { kind: 'track', title: 'Track', form: 'line' },
  { kind: 'road', title: 'Road', form: 'line' },
  { kind: 'line', title: 'Row or old bank', form: 'line' },
];

export const THINGS: readonly Thing[] = [...ON_MAPS, ...SEEN_KINDS.map(({ kind, title, shape }): Thing => ({ kind, title, form: shape }))];

/** The property line, which is no thing on the land. */
export const OUTLINE = 'outline';

/** Words a thing is called by elsewhere, the surest first. */
const WORDS: readonly (readonly [kind: string, words: RegExp])[] = [
  [OUTLINE, /\b(bound|propert|parcel|outline|perimeter|lot line)/i],
  ['septic', /\b(septic|drain ?field|leach)/i],
  ['downspout', /\b(down ?(spout|pipe)|gutter)/i],
  ['building', /\b(build|house|home|roof|shed|barn|garage|school|hall|stable)/i],
  ['pool', /\bpool/i],
  ['tree', /\btrees?\b/i],
  ['wood', /\b(wood|forest|orchard|copse|grove|thicket)/i],
  ['well', /\b(wells?|bore ?(hole)?)\b/i],
  ['spring', /\bspring/i],
  ['culvert', /\bculvert/i],
  ['buried-cable', /\b(cable|power|electric|telephone|fibre|fiber)/i],
  ['buried-pipe', /\b(gas|water main|mains?|irrigation|water line)\b/i],
  ['pipe', /\bpipe/i],
  ['kerb', /\b(kerb|curb)/i],
  ['wall', /\bwall/i],
  ['windrow', /\bwindrow/i],
  ['bank', /\b(bank|berm|bund|levee|dyke|dike)/i],
  ['ditch', /\b(ditch|swale|drain|channel)/i],
  ['debris-line', /\b(debris|wrack|high water)/i],
  ['flow-arrow', /\b(stream|creek|river|brook|flow|gully)/i],
  ['road', /\b(road|street|highway|avenue)/i],
  ['track', /\b(track|path|drive|lane|trail|route)/i],
  ['line', /\b(fence|hedge|row)/i],
];

/** Whether a kind is drawn so. */
const fits = (kind: string, form: ThingForm): boolean =>
  kind === OUTLINE ? form === 'ring' : THINGS.some((thing) => thing.kind === kind && thing.form === form);

/** What a shape is likely to be, by what it is called and how it is drawn; null where nothing tells. */
export const likelyThing = (words: string, form: ThingForm): string | null =>
  WORDS.find(([kind, pattern]) => pattern.test(words) && fits(kind, form))?.[0] ?? null;
