// The plain sentence at the top of each stage. Composed in pieces, so that numbers can be shown strong and in any unit.
import { type QuantityKind, type UnitSystem, formatQuantity, lowered, spoken } from '../../units/index.ts';
import { type Project, healedYearsOf, optionOf } from '../../project/index.ts';
import { CHANCE, depthFor, isInvented, isSet, longestStorm, returnIn, returnWords, stepsOfStorm, totalsOf } from '../../rain/index.ts';
import { isReadable } from '../../survey/index.ts';
import type { LeftBand, Worst } from '../../contract/index.ts';
import type { Derived } from '../types.ts';
import { aloneTold } from './alone.ts';
import { comesIn, storeOf, storeTold, workAsked } from './asked.ts';
import { deepestWords } from './deepest.ts';
import { emptiedWords } from './emptied.ts';
import { pipedTold } from './piped.ts';
import { type Piece, alarm, plain, strong } from './pieces.ts';
import { seriesOf, seriesWords } from './series.ts';
import { tellApart, tellSupply } from './supply-words.ts';
import { decidedWords, hours, spanWords } from './storm-words.ts';
import { leavesFirst } from './way-words.ts';

export type Stage = 'land' | 'rain' | 'ground' | 'works' | 'levels' | 'storm' | 'supply' | 'pegs';
export const STAGES: readonly Stage[] = ['land', 'rain', 'ground', 'works', 'levels', 'storm', 'supply', 'pegs'];

interface Telling {
  readonly project: Project;
  readonly derived: Derived;
  readonly q: (value: number | null | undefined, kind: QuantityKind) => string;
  readonly system: UnitSystem;
  readonly selected: string | null;
}

function tellLand({ project, derived, q }: Telling): Piece[] {
  const { terrain } = derived;
  if (!terrain) return [plain('Bring in the shape of your land: a terrain grid or a list of survey points.')];
  const relief = (terrain.maxM ?? 0) - (terrain.minM ?? 0);
  const head = [
    plain('The ground runs from '),
    strong(q(terrain.minM, 'level')),
    plain(' to '),
    strong(q(terrain.maxM, 'level')),
    plain(`, ${q(relief, 'length')} of fall. `),
  ];
  const pin = project.pins[project.pins.length - 1];
  const catchment = pin && derived.catchments.find((c) => c.of === pin.id);
  if (!catchment) return [...head, plain('Drop a pin to see what ground drains to it.')];
  const edge = catchment.touchesTerrainEdge ? [plain(', '), alarm('and more may come from beyond the map')] : [];
  return [
    ...head,
    strong(q(catchment.areaM2, 'land')),
    plain(` drains to ${pin.name ?? 'your pin'}, at a mean slope of ${q(catchment.meanSlope, 'slope')}`),
    ...edge,
    plain('.'),
  ];
}

function tellRain({ project, derived, q }: Telling): Piece[] {
  const { rain } = project;
  if (!rain) return [plain('Say how hard it rains: type or import a table of rain depths by duration and return period.')];
  const { table, storm } = rain;
  const totals = totalsOf(table, longestStorm(table, storm));
  const beyond = totals.extrapolated ? [alarm(' This lies beyond your table: carried on from its end, a guess.')] : [];
  const guess = rain.basis === 'memory' ? [alarm(' The table is a guess from memory.')] : [];
  const twice = storm.againAfterH === undefined ? [] : [plain(` It falls twice, ${Math.round(storm.againAfterH)} h apart.`)];
  const uplift = storm.upliftPercent ? `, ${storm.upliftPercent} % added` : '';
  const depth = strong(q(totals.depthMm, 'rain'));
  if (totals.isOwn) {
    const isCarried = depthFor(table, table.returnYears[0], totals.durationMin).extrapolated;
    const read = returnIn(table, totals.depthMm, totals.durationMin);
    const rare = `${read.beyond === null ? 'about ' : ''}${returnWords(read)}`;
    const name = stepsOfStorm(storm)?.name || 'your own storm';
    return [
      plain('You design for '),
      strong(name),
      plain(': '),
      depth,
      plain(
        ` of rain in ${hours(totals.durationMin)}${uplift}; by your table${isCarried ? ', carried on beyond its durations,' : ''} ${rare}.`,
      ),
      ...twice,
      ...guess,
    ];
  }
  const chance = Math.round(100 * CHANCE.evaluate({ T: Math.max(1, storm.returnYears), n: 1 }));
  const whole = Math.round(100 * CHANCE.evaluate({ T: Math.max(1, storm.returnYears), n: 25 }));
  const { set } = derived;
  const storms = isSet(storm)
    ? [plain(' rain, the worst of storms of '), strong(set ? spanWords(set) : 'all lengths'), plain(`: up to `)]
    : [plain(` storm of ${hours(totals.durationMin)}: `)];
  return [
    plain('You design for the '),
    strong(`1 in ${storm.returnYears} year`),
    ...storms,
    depth,
    plain(` of rain${uplift}. It is passed in a given year with a chance of ${chance} %, in 25 years with ${whole} %.`),
    ...twice,
    ...beyond,
    ...guess,
  ];
}

/** Mean over the property of what the storm does on its kinds of ground. */
function overProperty(grounds: Derived['grounds'], of: (g: Derived['grounds'][number]) => number | null): number {
  const area = grounds.reduce((a, g) => a + g.areaM2, 0);
  return area === 0 ? (of(grounds[0]) ?? 0) : grounds.reduce((a, g) => a + g.areaM2 * (of(g) ?? 0), 0) / area;
}

function tellGround({ project, derived, q }: Telling): Piece[] {
  const { ground } = project;
  if (!ground) return [plain('Describe the ground: soil group, cover, how fast water soaks in and how deep the soil is.')];
  const { grounds } = derived;
  const [first] = grounds;
  const rate = q(first?.infiltrationMmPerHour ?? ground.infiltrationMmPerHour, 'intensity');
  if (!first || first.rainMm === null) {
    return [plain('This ground takes in '), strong(rate), plain('. Rain and terrain show how much soaks, stands and runs off.')];
  }
  const over = (of: (g: typeof first) => number | null): number => overProperty(grounds, of);
  const [rain, runs] = [over((g) => g.rainMm), over((g) => g.runsMm)];
  const share = rain > 0 ? runs / rain : 0;
  const other = over((g) => (derived.groundAs === 'now' ? g.runsHealedMm : g.runsNowMm) ?? g.runsMm);
  const heals = grounds.some((g) => g.runsHealedMm !== null);
  const then = derived.groundAs === 'now' ? ` Healed in ${healedYearsOf(ground)} years, ` : ' As it is now, ';
  return [
    plain('Of '),
    strong(q(rain, 'rain')),
    plain(' in the storm, '),
    strong(q(runs, 'rain')),
    plain(
      ` runs off (${Math.round(100 * share)} %), ${q(
        over((g) => g.soaksMm),
        'rain',
      )} soaks in and the rest stands. It takes in ${rate}.`,
    ),
    ...(heals ? [plain(then), strong(q(other, 'rain')), plain(' would.')] : []),
  ];
}

/** Least freeboard of a store as found, full and blocked. */
const leftOf = (store: Derived['stores'][number]): number | null => store.least?.value ?? store.freeboardM;

/** Which storm decides, how it must find things where that is not as usual, and between what the rain's own limits leave it. */
function decidedBy({ derived, q }: Telling, least: Worst | null, band?: LeftBand | null): string {
  return least
    ? decidedWords(
        derived.set,
        least,
        band ? `${q(band.lowM, 'difference')} to ${q(band.highM, 'difference')} by the limits of your rain` : null,
      )
    : '';
}

function nameOf({ project, derived }: Telling, id: string): string {
  return [...optionOf(project, derived.option).works, ...derived.stores].find((w) => w.id === id)?.name ?? id;
}

function tellWorks(telling: Telling): Piece[] {
  const { project, derived, q, system, selected } = telling;
  if (!derived.terrain) return tellApart(project);
  const work = workAsked(telling);
  const own = derived.checks.filter((c) => c.on === selected);
  const laid = work?.id ?? storeTold(telling)?.work ?? '';
  const piped = pipedTold(laid, { ...telling, name: nameOf(telling, laid), by: (s) => decidedBy(telling, s.least, s.band) });
  if (piped) return piped;
  // What stores nothing and lets nothing out is told by itself, not by some other work.
  if (work && own.length > 0 && !storeOf(telling, work)) return aloneTold(work, own, system);
  const store = storeTold(telling);
  if (!store) return [plain('Draw a swale roughly across the slope: it settles on the contour through its first point.')];
  const name = nameOf(telling, store.id);
  if (store.inM3 === null || store.peakLevelM === null) {
    const missing = [project.rain ? null : 'rain', project.ground ? null : 'ground'].filter((v) => v !== null).join(' and ');
    return [plain(`${name} would hold `), strong(q(store.heldM3, 'volume')), plain(`. Give the ${missing} to see what the storm brings.`)];
  }
  const comesM3 = comesIn(derived, store);
  const left = leftOf(store);
  const by = decidedBy(telling, store.least, store.band);
  const worst = derived.checks.find((c) => c.severity === 'mend' && (c.on === store.id || isGuestOf(telling, c.on, store.id)));
  const first = worst ? spoken(worst.said.title, system) : '';
  const tail = worst ? [plain(' First mend: '), alarm(lowered(first)), plain('.')] : [];
  const series = seriesOf(derived, store);
  if (series.length > 0) return [...seriesPieces(telling, series), ...tail];
  if (store.holds === true) {
    return [
      plain(`${name} holds all `),
      strong(q(comesM3, 'volume')),
      plain(' the storm brings, with '),
      strong(q(left, 'difference')),
      plain(` of freeboard left${by}, and ${emptiedWords(store, q)}.`),
      ...tail,
    ];
  }
  const out = derived.links
    .filter((l) => l.from === store.id && (l.volumeM3 ?? 0) > 0)
    .sort((a, b) => (b.volumeM3 ?? 0) - (a.volumeM3 ?? 0))[0];
  const where = !out
    ? ''
    : out.to === 'property-edge'
      ? ' towards the property edge'
      : out.to === 'terrain-edge'
        ? ' off the map'
        : ` into ${nameOf(telling, out.to)}`;
  if (store.heldM3 < PASSES_M3 && left !== null && left > 0) {
    return [
      plain(`${name} passes the `),
      strong(q(comesM3, 'volume')),
      plain(` this storm brings on${where} at up to `),
      strong(q(store.peakOutM3s, 'flow')),
      plain(', with '),
      strong(q(left, 'difference')),
      plain(` of freeboard left${by}.`),
      ...tail,
    ];
  }
  if (store.heldM3 >= comesM3 && left !== null && left > 0) {
    return [
      plain(`${name} takes the `),
      strong(q(comesM3, 'volume')),
      plain(` this storm brings, lets go${where} at up to `),
      strong(q(store.peakOutM3s, 'flow')),
      plain(', and keeps '),
      strong(q(left, 'difference')),
      plain(` of freeboard${by}.`),
      ...tail,
    ];
  }
  const overBank = left !== null && left <= 0;
  return [
    plain(`${name} holds `),
    strong(q(store.heldM3, 'volume')),
    plain(' of the '),
    strong(q(comesM3, 'volume')),
    plain(' this storm brings; the rest leaves'),
    plain(where),
    plain(' at up to '),
    strong(q(store.peakOutM3s, 'flow')),
    ...(overBank
      ? [plain(', and '), alarm(`water passes the bank by ${q(-(left ?? 0), 'difference')}${by}`), plain('.')]
      : [plain(', with '), strong(q(left, 'difference')), plain(` of freeboard left${by}.`)]),
    ...tail,
  ];
}

/** A work of several stores is told as one. */
function seriesPieces(telling: Telling, series: readonly Derived['stores'][number][]): Piece[] {
  const { q, derived } = telling;
  const on = { name: nameOf(telling, series[0].work), links: derived.links, q };
  const { least, leftM, before, flow, after } = seriesWords(series, on);
  const left = q(Math.abs(leftM), 'difference');
  const by = decidedBy(telling, least.least, least.band);
  return [
    plain(before),
    strong(flow),
    plain(after),
    ...(leftM < 0 ? [alarm(`water passes it by ${left}${by}`), plain('.')] : [strong(left), plain(` before water passes it${by}.`)]),
  ];
}

/** What holds less than this holds nothing: a road on a pipe, a drain [m3]. */
const PASSES_M3 = 1;

function isGuestOf({ project, derived }: Telling, id: string, host: string): boolean {
  const works = optionOf(project, derived.option).works as readonly { readonly id: string; readonly host?: string }[];
  return works.some((w) => w.id === id && w.host === host);
}

function tellLevels(telling: Telling): Piece[] {
  const { derived, q } = telling;
  const store = storeTold(telling);
  if (!store) return [plain('Levels appear once there is a work: draw a swale first.')];
  const isOneOf = derived.stores.some((s) => s.work === store.work && s.id !== store.id);
  return leavesFirst(store, { outlets: derived.outlets, name: isOneOf ? store.name : nameOf(telling, store.id), q });
}

/** The storm through all works: who is nearest to being passed, how many ways out run, and what leaves. */
function tellStorm(telling: Telling): Piece[] {
  const { project, derived, q } = telling;
  const stores = derived.stores.filter((s) => s.freeboardM !== null);
  if (derived.stores.length === 0) return [plain('The storm is followed through your works once there is one: draw a swale or a pond.')];
  if (stores.length === 0) {
    const missing = [project.rain ? null : 'rain', project.ground ? null : 'ground'].filter((v) => v !== null).join(' and ');
    return [plain(`Give the ${missing} to follow the storm through your works.`)];
  }
  const nearest = stores.reduce((a, b) => ((leftOf(b) ?? 0) < (leftOf(a) ?? 0) ? b : a));
  const name = nameOf(telling, nearest.id);
  const left = leftOf(nearest) ?? 0;
  const by = decidedBy(telling, nearest.least, nearest.band);
  const washed = derived.outlets.filter((o) => o.liningAtWorst === 'washes').length;
  const places = derived.exits.filter((e) => e.isPlace);
  const peaks = (places.length > 0 ? places : derived.exits).flatMap(({ worst }) => ('peakM3s' in worst ? [worst.peakM3s] : []));
  const most = peaks.reduce<Worst | null>((a, b) => (a && a.value >= b.value ? a : b), null);
  return [
    ...(left < 0
      ? [alarm(`${name} is passed by ${q(-left, 'difference')}${by}`)]
      : [plain('Nothing is passed: least is left at '), strong(name), plain(', '), strong(q(left, 'difference')), plain(by)]),
    plain('. '),
    ...(washed > 0
      ? [alarm(`${washed === 1 ? 'One way out runs' : `${washed} ways out run`} faster than the ground there stands`), plain('. ')]
      : []),
    ...(most && most.value > 0
      ? [plain('Water leaves the property at up to '), strong(q(most.value, 'flow')), plain(` at one place${decidedBy(telling, most)}.`)]
      : [plain('Nothing leaves the property.')]),
  ];
}

function tellPegs({ project, derived, q }: Telling): Piece[] {
  if (derived.pegs.length === 0) return [plain('Pegs appear once there is a work to set out.')];
  const hc = project.survey?.heightOfCollimationM ?? null;
  const { before, figure } = deepestWords(derived.pegs, q);
  const head = [strong(`${derived.pegs.length} pegs`), plain(before), strong(figure)];
  if (hc === null) return [...head, plain('. Give the height of your instrument to get staff readings.')];
  const read = derived.pegs.filter((p) => p.staffM !== null && isReadable(p.staffM)).length;
  const rest = derived.pegs.length - read;
  return [
    ...head,
    plain(`. An instrument at ${q(hc, 'level')} reads `),
    strong(`${read} of them`),
    ...(rest > 0 ? [plain('; move it for the others.')] : [plain('.')]),
  ];
}

const TELL: Record<Stage, (telling: Telling) => Piece[]> = {
  land: tellLand,
  rain: tellRain,
  ground: tellGround,
  works: tellWorks,
  levels: tellLevels,
  storm: tellStorm,
  supply: ({ project, derived }) => tellSupply(project, derived.stores.length),
  pegs: tellPegs,
};

/** Stages that speak of works. */
const SPEAKS_OF_WORKS: readonly Stage[] = ['works', 'levels', 'storm', 'pegs'];

/** Works the figures leave out: whoever reads them must know. The selected one comes first. */
function tellUncomputed({ project, derived, system, selected }: Telling): Piece[] {
  const left = derived.uncomputed.filter(({ why, work }) => why !== 'needs' || work === selected);
  const first = left.find((u) => u.work === selected) ?? left[0];
  if (!first) return [];
  const name = optionOf(project, derived.option).works.find((w) => w.id === first.work)?.name ?? first.work;
  const told = derived.checks.find((c) => c.on === first.work && c.id.startsWith('work.'));
  const others = left.length > 1 ? `, nor ${left.length === 2 ? 'is one other work' : `are ${left.length - 1} others`}` : '';
  const lead = derived.stores.length === 0 || first.work === selected ? '' : ' ';
  return [
    alarm(`${lead}${name} is not computed${others}`),
    ...(told ? [plain(`: ${lowered(spoken(told.said.title, system))}.`)] : [plain('.')]),
  ];
}

/** What is invented among that which a stage's figures hang on. */
function tellNotYours(stage: Stage, { rain, ground, terrain }: Project): Piece[] {
  const hangs = stage === 'works' || stage === 'levels' || stage === 'storm';
  const what = [
    ...(terrain?.isMadeUp === true && (HEALS.includes(stage) || stage === 'pegs') ? ['land'] : []),
    ...(rain && isInvented(rain) && (hangs || stage === 'rain' || stage === 'ground') ? ['rain'] : []),
    ...(ground?.isExample === true && (hangs || stage === 'ground') ? ['ground'] : []),
  ];
  return what.length === 0 ? [] : [alarm(` This ${what.join(' and this ')} ${what.length === 1 ? 'is' : 'are'} not yours yet.`)];
}

/** Stages whose figures depend on the ground. */
const HEALS: readonly Stage[] = ['land', 'ground', 'works', 'levels', 'storm'];

/** The sentence of a stage, in pieces. */
export function verdict(
  stage: Stage,
  project: Project,
  on: { readonly derived: Derived; readonly system: UnitSystem; readonly selected: string | null },
): Piece[] {
  const telling = { project, ...on, q: (v: number | null | undefined, kind: QuantityKind) => formatQuantity(v, kind, on.system) };
  const left = SPEAKS_OF_WORKS.includes(stage) ? tellUncomputed(telling) : [];
  // Where the work asked about is not computed, or nothing is, there is nothing else to say.
  const isAllToSay = left.length > 0 && (on.derived.stores.length === 0 || on.derived.uncomputed.some((u) => u.work === on.selected));
  const pieces = isAllToSay ? left : [...TELL[stage](telling), ...left];
  // Whoever reads a figure must know whose rain and which ground it is for.
  const healed = on.derived.groundAs !== 'now' && HEALS.includes(stage);
  return [
    ...pieces,
    ...tellNotYours(stage, project),
    ...(healed ? [alarm(` Ground as healed in ${healedYearsOf(project.ground ?? {})} years.`)] : []),
  ];
}

/** All sentences as plain metric text. */
export function plainVerdicts(project: Project, derived: Derived): Record<string, string> {
  return Object.fromEntries(
    STAGES.map((stage) => [
      stage,
      verdict(stage, project, { derived, system: 'metric', selected: null })
        .map((p) => p.text)
        .join(''),
    ]),
  );
}
