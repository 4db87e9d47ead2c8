// What suits a place: every technique weighs it, the best are tried there, and what each comes to is told side by side.
import { type Check, FITS_WELL, type Figure, type Place, type Suit, type WorkBase } from '../../contract/index.ts';
import { closed, nearestBetween } from '../../geometry/index.ts';
import { type Option as DesignOption, type Project, UserError, optionOf } from '../../project/index.ts';
import { type Said, amount, say, spoken } from '../../units/index.ts';
import { deriveSlowly } from '../derive.ts';
import type { Slowly } from '../graph/slowly.ts';
import { liveWorks } from '../scenario/scenario.ts';
import type { RoomContext } from '../set/laid.ts';
import { figureIn, waterIn } from '../tell/labour.ts';
import type { DeriveResult } from '../types.ts';
import { type PlaceAsked, placeOf } from './advise-place.ts';
import { beginWorks } from './begin.ts';

export interface Advised {
  readonly kind: string;
  readonly title: string;
  readonly score: number;
  readonly fits: 'well' | 'perhaps' | 'not';
  readonly speaksFor: readonly Said[];
  readonly against: readonly Said[];
  readonly asks: readonly string[];
  readonly not: Said | null;
  readonly school: string | null;
  /** How to have it begun there; null where it cannot be. */
  readonly draw: Suit['draw'];
  /** As it was tried there: what it holds to its way out [m3], hours of one person, what they cost, litres for an hour; null where it does not tell. */
  readonly holdsM3: number | null;
  /** Whether that runs on through it: slowed, not held. */
  readonly isSlowed: boolean;
  readonly hours: number | null;
  readonly costs: number | null;
  readonly litresAnHour: number | null;
  /** What its own checks would have mended at once. */
  readonly wrong: readonly Said[];
}

export interface MendFirst {
  readonly work: string;
  readonly name: string;
  readonly title: Said;
  readonly do: Said;
}

export interface Advice {
  readonly place: Pick<
    Place,
    | 'form'
    | 'areaM2'
    | 'lengthM'
    | 'slope'
    | 'aboveM2'
    | 'aboveIsCut'
    | 'runsMm'
    | 'soilDepthM'
    | 'rateMmPerHour'
    | 'widthM'
    | 'dropM'
    | 'peakM3s'
    | 'isBare'
  >;
  readonly mendFirst: readonly MendFirst[];
  /** Best first; those that are not for this place last. */
  readonly options: readonly Advised[];
  /** Where two schools of practice would begin with different works, and why. */
  readonly schools: Said | null;
  readonly said: Said;
  readonly says: string;
}

/** What is tried is kept beside the document, and let go. */
const ASIDE = 'advise';
/** Worth a thought from here on. */
const PERHAPS = 40;
/** So many are tried; schools differ where they come so near to each other; works this near are looked at first [m]; a week of one person [h]. */
const [MOST_TRIED, CLOSE, NEAR_M, WEEK_H] = [5, 14, 30, 40];
const MOST_WRONG = 3;
/** A week less than the work takes: so much less. */
const LATE_COSTS = 10;
const LEAST_M3 = 0.05;
/** Something that no change of its sizes mends: so much less, for so many of them. */
const [LASTING_COSTS, MOST_LASTING] = [8, 2];

const withWorks = (project: Project, added: readonly WorkBase[]): Project => {
  const inOption = (option: DesignOption): DesignOption =>
    option.id === optionOf(project).id ? { ...option, works: [...option.works, ...added] } : option;
  return { ...project, options: project.options.map(inOption) };
};

interface Tried {
  readonly works: readonly WorkBase[];
  readonly result: DeriveResult;
}

/** Begins a work there and works everything out with it; words where it cannot be begun. */
function* tried(
  project: Project,
  context: RoomContext,
  { kind, draw }: { readonly kind: string; readonly draw: NonNullable<Suit['draw']> },
): Slowly<Tried | Said> {
  try {
    const { works } = beginWorks(project, context, { kind, how: draw.how, points: draw.points });
    const result = yield* deriveSlowly(withWorks(project, works), { ...context, aside: ASIDE });
    return { works, result };
  } catch (error) {
    if (!(error instanceof UserError)) throw error;
    return error.problems[0].what;
  } finally {
    // Given up half way, it lets go of what it held.
    context.graph.forget(ASIDE);
  }
}

const figuresIn = ({ result, works }: Tried): readonly Figure[] => works.flatMap((w) => result.view.figures[w.id] ?? []);

function waterOf(one: Tried): Pick<Advised, 'holdsM3' | 'isSlowed'> {
  const told = waterIn(figuresIn(one));
  if (told.holdsM3 !== null) return told;
  const own = new Set(one.works.map((w) => w.id));
  const stores = one.result.derived.stores.filter((s) => own.has(s.work ?? s.id));
  const heldM3 = stores.reduce((a, s) => a + s.heldM3, 0);
  // What only passes water on holds none worth telling.
  return { holdsM3: heldM3 >= LEAST_M3 ? heldM3 : null, isSlowed: false };
}

const saidOf = (check: Check): Said => check.said?.title ?? check.title;

type Weighed = Suit & { readonly kind: string; readonly title: string };

const UNTRIED = { holdsM3: null, isSlowed: false, hours: null, costs: null, litresAnHour: null, wrong: [] } as const;

const fitsBy = (score: number, not: Said | null): Advised['fits'] =>
  not !== null || score < PERHAPS ? 'not' : score >= FITS_WELL ? 'well' : 'perhaps';

const asAdvised = (suit: Weighed): Advised => ({ ...suit, ...UNTRIED, fits: fitsBy(suit.score, suit.not) });

/** One as it was tried: its figures, and what they take from it. */
function withFigures(suit: Weighed, one: Tried | Said, { weeks, hourCosts }: Place): Advised {
  if (typeof one !== 'object' || !('result' in one)) return { ...asAdvised(suit), not: one, score: RULED_OUT, fits: 'not', draw: null };
  const figures = figuresIn(one);
  const hours = figureIn(figures, ['hours']);
  const isLate = hours !== null && weeks !== undefined && hours > weeks * WEEK_H;
  const own = new Set(one.works.map((w) => w.id));
  const wrong = one.result.derived.checks.filter((c) => own.has(c.on) && c.severity === 'mend');
  const lasting = wrong.filter((c) => !c.cure).length;
  const score = suit.score - (isLate ? LATE_COSTS : 0) - Math.min(MOST_LASTING, lasting) * LASTING_COSTS;
  return {
    ...suit,
    score,
    fits: fitsBy(score, suit.not),
    against: isLate
      ? [
          ...suit.against,
          say`one person works ${amount(hours, 'hours')} at it, and the rains come in ${amount(weeks, 'count')} ${weeks === 1 ? 'week' : 'weeks'}`,
        ]
      : suit.against,
    ...waterOf(one),
    hours,
    costs: hours === null || hourCosts === undefined ? null : hours * hourCosts,
    litresAnHour: figureIn(figures, ['litresAnHour']),
    wrong: wrong.map(saidOf).slice(0, MOST_WRONG),
  };
}
const RULED_OUT = 0;

/** Works near the place that have something to mend: that comes before anything new. */
function mendNear(
  project: Project,
  { registry }: RoomContext,
  on: { readonly place: Place; readonly before: DeriveResult },
): readonly MendFirst[] {
  const { shapes, form } = on.place;
  const own = form === 'field' ? closed(shapes.own) : shapes.own;
  return liveWorks(optionOf(project).works).flatMap((work): MendFirst[] => {
    const lines = registry.bind(work).footprint.filter((l) => l.length > 1);
    if (!lines.some((l) => nearestBetween(own, l).distanceM <= NEAR_M)) return [];
    const worst = on.before.derived.checks.find((c) => c.on === work.id && c.severity === 'mend');
    return worst ? [{ work: work.id, name: work.name, title: saidOf(worst), do: worst.said?.do ?? worst.do }] : [];
  });
}

function schoolsOf([first, second]: readonly Advised[]): Said | null {
  if (!first || !second || first.fits === 'not' || second.fits === 'not') return null;
  if (first.school === null || second.school === null || first.school === second.school || first.score - second.score > CLOSE) return null;
  const [a] = first.speaksFor;
  const [b] = second.speaksFor;
  if (a === undefined || b === undefined) return null;
  return say`Schools differ here. Those of “${first.school}” point out: ${a}. Those of “${second.school}”: ${b}. Both fit; begin with a small piece of each and measure.`;
}

/** What a best one comes to, in a row of figures. */
function comesTo({ holdsM3, hours }: Advised): Said {
  const work = hours === null ? null : say`${amount(hours, 'count')} hours of one person`;
  if (holdsM3 !== null && work) return say`: room for ${amount(holdsM3, 'volume')} in ${work}`;
  return holdsM3 !== null ? say`: room for ${amount(holdsM3, 'volume')}` : work ? say`: ${work}` : '';
}

function wordsFor(options: readonly Advised[], mendFirst: readonly MendFirst[]): Said {
  const best: Advised | undefined = options[0];
  const first = mendFirst.length > 0 ? say`First mend ${mendFirst[0].name}. ` : '';
  if (!best || best.fits === 'not') {
    // One that nothing rules out may still fit, once somebody has looked.
    const open = options.find((o) => o.not === null && o.draw !== null && o.asks.length > 0);
    if (open) return say`${first}Nothing fits by what is known. ${open.title} might. ${open.asks[0]}`;
    const why = options.filter((o) => o.not !== null).slice(0, 2).map((o) => say`${o.title}: ${o.not ?? ''}`); // prettier-ignore
    const reasons = why.reduce<Said>((a, w, k) => (k === 0 ? w : say`${a}; ${w}`), 'nothing fits');
    return say`${first}Not here: ${reasons}. Let it rest and grow, and look uphill of it.`;
  }
  const [reason] = best.speaksFor;
  return say`${first}${best.fits === 'well' ? 'Best here' : 'Perhaps here'}: ${best.title.toLowerCase()}${reason === undefined ? '' : say`, since ${reason}`}${comesTo(best)}.`;
}

/** What comes down a channel at its peak, by trying what is laid along it [m3/s]; null while no storm is known. */
function* peakIn(project: Project, context: RoomContext, place: Place): Slowly<number | null> {
  const laid = context.registry.suits(place).find((s) => s.draw?.points === place.shapes.own);
  if (!laid?.draw) return null;
  const one = yield* tried(project, context, { kind: laid.kind, draw: laid.draw });
  if (typeof one !== 'object' || !('result' in one)) return null;
  // Works that stand in the bed already take what comes: what they are sent counts too.
  const inBed = liveWorks(optionOf(project).works).filter((work) =>
    context.registry.bind(work).footprint.some((l) => l.length > 1 && nearestBetween(place.shapes.own, l).distanceM <= IN_BED_M),
  );
  const own = new Set([...one.works, ...inBed].map((w) => w.id));
  const peaks = one.result.derived.stores.flatMap((s) =>
    own.has(s.work ?? s.id) && s.peakInM3s !== null ? [Math.max(s.peakInM3s, s.worst.peakInM3s.value)] : [],
  );
  return peaks.length > 0 ? Math.max(...peaks) : null;
}
/** A work this near to a bed stands in it [m]. */
const IN_BED_M = 2;

/** Advice for a place. @throws UserError where nothing is known of it. */
export function* adviseSlowly(project: Project, context: RoomContext, asked: PlaceAsked): Slowly<Advice> {
  const measured = placeOf(project, context, asked);
  const place: Place = measured.form === 'channel' ? { ...measured, peakM3s: yield* peakIn(project, context, measured) } : measured;
  const weighed = [...context.registry.suits(place)].sort((a, b) => b.score - a.score);
  const options: Advised[] = [];
  for (const suit of weighed) {
    const isTried =
      suit.draw !== null && suit.not === null && suit.score >= PERHAPS && options.filter((o) => o.fits !== 'not').length < MOST_TRIED;
    options.push(
      isTried && suit.draw
        ? withFigures(suit, yield* tried(project, context, { kind: suit.kind, draw: suit.draw }), place)
        : asAdvised(suit),
    );
  }
  options.sort((a, b) => b.score - a.score);
  const before = yield* deriveSlowly(project, context);
  const mendFirst = mendNear(project, context, { place, before });
  const said = wordsFor(options, mendFirst);
  const { form, areaM2, lengthM, slope, aboveM2, aboveIsCut, runsMm, soilDepthM, rateMmPerHour, widthM, dropM, peakM3s, isBare } = place;
  return {
    place: { form, areaM2, lengthM, slope, aboveM2, aboveIsCut, runsMm, soilDepthM, rateMmPerHour, widthM, dropM, peakM3s, isBare },
    mendFirst,
    options,
    schools: schoolsOf(options),
    said,
    says: spoken(said, 'metric'),
  };
}
