import type { AnyFormula, Worksheet } from '../formula/index.ts';
import type { Line, Point } from '../geometry/index.ts';
import type { Cover } from '../ground/index.ts';
import type { Grid, Reshape } from '../terrain/index.ts';
import type { Begun, DrawSpec, Drawn, Land } from './begin.ts';
import type { Built } from './built.ts';
import type { Channel } from './channel.ts';
import type { Check, Missing, Rule } from './check.ts';
import type { BuildStep, EachTable, QuantityLine, SheetPart } from './make.ts';
import type { Place, Suit } from './suits.ts';
import type { Ref, Traits } from './traits.ts';
import type { Catchment, Conduit, ConduitStorm, Intake, LinkFlow, Outlet, Runoff, Store, StoreStorm } from './water.ts';
import type { FieldSpec, ListSpec, Problem, ReferenceSpec, ShownWhen, WorkBase } from './work.ts';

export interface Feature {
  readonly id: string;
  readonly kind: string;
  readonly name?: string;
  readonly ring?: Line;
  readonly line?: Line;
  readonly at?: Point;
  /** Height above or depth below the ground beside it [m], for what stands in the way or carries along. */
  readonly heightM?: number;
  readonly depthM?: number;
  /** Steady flow of a spring [m3/s]. */
  readonly flowM3s?: number;
  /** Stretches opened again (distances along the line, m). */
  readonly open?: readonly (readonly [fromM: number, toM: number])[];
  /** Which end of a ditch was found wet. */
  readonly wetEnd?: 'start' | 'end';
}

/** The land as techniques see it. */
export interface Site {
  readonly grid: Grid;
  /** The ground as it was before any work shapes it; left out, none does. */
  readonly surveyed?: Grid;
  readonly outline: Line;
  readonly features: readonly Feature[];
  /** The ground at a place; null while nobody has described it. */
  readonly soilAt: (at: Point) => SiteSoil | null;
}

export interface SiteSoil {
  readonly cover: Cover;
  /** After its safety factor. */
  readonly infiltrationMmPerHour: number;
  /** To rock or water. */
  readonly soilDepthM: number;
  /** Share of it that drains by its own weight. */
  readonly texture: { readonly drainable: number };
}

/** The ground a work is measured on, and the works it refers to, which stand already. */
export interface Plot {
  readonly grid: Grid;
  /** The ground before any work shapes it; left out, none does. */
  readonly surveyed?: Grid;
  readonly placed?: ReadonlyMap<string, PlacedWork>;
}

/** What a work offers to works it hosts. */
export interface Host {
  readonly work: WorkBase;
  readonly line: Line;
  /** Lowest place of the floor and designed crest. */
  readonly floorM: number;
  readonly crestM: number;
  /** How deep its floor is dug below the ground, by distance along the line [m]; left out, not at all. */
  readonly dugAt?: (atM: number) => number;
  /** Unit vector pointing downhill across the line at a distance along it. */
  readonly downhillAt: (atM: number) => Point;
  readonly groundAt: (atM: number) => number;
  /** Mean ground slope across the line [m/m]. */
  readonly crossSlope: number;
}

/** One of a few things a work can be or have, at a dotted path: it drives validation and forms. */
export interface ChoiceSpec {
  readonly path: string;
  readonly label: string;
  readonly options: readonly { readonly id: string; readonly name: string }[];
  /** Which of them it is while the work does not say. */
  readonly usual?: string;
  readonly help?: string;
  readonly shownWhen?: ShownWhen;
}

export type SectionRole = 'ground' | 'earth' | 'key' | 'water' | 'full' | 'stone' | 'pipe' | 'cut' | 'road';

/** A section to scale: metres across, levels up. */
export interface SectionShape {
  readonly title: string;
  readonly parts: readonly { readonly role: SectionRole; readonly points: readonly Point[]; readonly isArea?: boolean }[];
  readonly levels: readonly { readonly name: string; readonly levelM: number }[];
  /** Far longer than high: heights are stretched as much as it takes to see them. */
  readonly isLong?: true;
}

/** Results a work's checks may read; null where the storm or the terrain does not tell. */
export interface StormFacts {
  /** What the project does not say yet. */
  readonly missing: readonly Missing[];
  readonly site: Site;
  /** The first of its stores, and what the storm did to it. */
  readonly store: Store | null;
  readonly storm: StoreStorm | null;
  /** What the storm did to its pipes, where it lays any. */
  readonly conduits?: readonly ConduitStorm[];
  /** Those of its stores and pipes that water of other works is led to, where it lays any. */
  readonly ledTo?: readonly string[];
  /** All its stores, where it makes more than one. */
  readonly others?: readonly { readonly store: Store; readonly storm: StoreStorm | null }[];
  readonly catchment: Catchment | null;
  readonly runoff: Runoff | null;
  readonly links: readonly LinkFlow[];
  /** Peak an outlet of this work must be able to pass: the larger of the routed inflow and the rational peak [m3/s]. */
  readonly designPeakM3s: number | null;
  /** Rain of five minutes at the return period designed for; null, or left out, while no rain is known. */
  readonly burstMmPerHour?: number | null;
}

/** What a peg sets: a level of earth, of a crest or a way out, of a pipe, of stone, or the water's edge. */
export type PegRole = 'floor' | 'crest' | 'sill' | 'invert' | 'stone' | 'water-line';

/** How near to its level each must be when it is finished [m]: common practice; rough work by machine is about twice that. */
export const PEG_TOLERANCE_M: Readonly<Record<PegRole, number>> = {
  floor: 0.025,
  crest: 0.025,
  sill: 0.01,
  invert: 0.01,
  stone: 0.05,
  'water-line': 0.05,
};

export interface PegDraft {
  readonly name: string;
  readonly role: PegRole;
  readonly x: number;
  readonly y: number;
  readonly levelM: number;
  readonly groundM: number | null;
}

export interface LevelMark {
  readonly id: string;
  readonly work: string;
  readonly name: string;
  readonly role: 'floor' | 'sill' | 'crest' | 'ground' | 'water' | 'low';
  readonly levelM: number;
  /** Dotted path of the decision behind it; null when it is a result. */
  readonly path: string | null;
}

/** One named figure of a work, for its sheet. */
export interface Figure {
  readonly id: string;
  readonly label: string;
  readonly value: number | null;
  readonly kind: FieldSpec['kind'];
  /** The decision this figure answers, where it is what that needs to be. */
  readonly sets?: string;
}

/** A work with its ground measured: everything that depends on its levels, cheap enough to redo at every drag. */
export interface PlacedWork {
  readonly host: Host | null;
  /** The channel it is, for what stands in it. */
  readonly channel?: Channel;
  /** The stores it makes, the one its guests let out first, with their outlets; none where it stores nothing. */
  readonly stores: (guests: readonly Outlet[]) => readonly Store[];
  readonly outlets: readonly Outlet[];
  /** Where it takes water in, where that hangs on its ground; left out, as its descriptor says. */
  readonly intakes?: readonly Intake[];
  /** Pipes it lays. */
  readonly conduits?: readonly Conduit[];
  /** What it leads or lifts from one store to another in a day, as long as there is room: so much at most, down to a level. */
  readonly lifts?: { readonly from: string; readonly to: string; readonly mostM3PerDay: number; readonly stopM: number };
  readonly figures: (facts: StormFacts, sheet: Worksheet) => Figure[];
  readonly checks: (facts: StormFacts, company: Company) => Check[];
  /** How much of what it takes. */
  readonly quantities: (facts: StormFacts) => QuantityLine[];
  /** What each of several things it is made of takes and holds; left out, it is one, or all of them are alike. */
  readonly each?: (facts: StormFacts) => readonly EachTable[];
  /** How it is made, first to last. */
  readonly buildSteps: () => BuildStep[];
  /** Of what is there and does not work: why, what to look at next, what mends it. */
  readonly diagnosis?: () => readonly SheetPart[];
  /** The sheet for whoever lives with it; left out, it needs none. */
  readonly handOver?: () => readonly SheetPart[];
  /** Pegs at an interval; `waterM` is the level of its lowest way out, where it stores water. */
  readonly pegs: (intervalM: number, waterM: number | null) => PegDraft[];
  readonly marks: readonly LevelMark[];
  /** Its section; `waterM` is the highest water of the storm, where it is known. */
  readonly section?: (waterM: number | null) => SectionShape;
  /** Where water of one of its stores lies on the ground, and how deep its floor is dug; left out, its host's line tells, or nothing soaks in. */
  readonly beds?: (store: string) => { readonly line: Line; readonly dugM: number } | null;
  /** What it makes of the ground; left out, nothing that shows, or nothing its descriptor does not tell already. */
  readonly built?: () => Built;
  /** The edge of its water at a level, for drawing and for flags. */
  readonly waterRings?: (levelM: number) => readonly Line[];
}

/** The other works a check must look at. */
export interface Company {
  readonly host: Host | null;
  readonly guests: readonly WorkBase[];
  readonly siblings: readonly WorkBase[];
  /** Results of the host for a guest, else the work's own. */
  readonly hostFacts: StormFacts | null;
}

/** A rule as it is listed: all but how it finds. */
export type RuleCard = Pick<Rule<never>, 'id' | 'title' | 'needs' | 'isOfLevels' | 'source' | 'find'>;

/** Members that are lines or rings with corners, and lists of what stands along the line, each at its `atM`. */
export interface CornersSpec {
  readonly paths: readonly string[];
  readonly along?: readonly string[];
}

/** What works are for. */
export type Family = 'store' | 'way-out' | 'conveyance' | 'road' | 'lift';

/** What one kind of work is: all that can be said and asked of it without working anything out. The page has only this. */
export interface Descriptor<W extends WorkBase> {
  readonly kind: W['kind'];
  readonly title: string;
  /** What one of it is called, where its forms go by names of their own. */
  readonly titleOf?: (work: W) => string;
  /** What it is for, among the others. */
  readonly family: Family;
  /** One of it, sound by itself: for lists of kinds, forms and tests. */
  readonly sample: W;
  readonly fields: readonly FieldSpec[];
  readonly choices?: readonly ChoiceSpec[];
  readonly references?: readonly ReferenceSpec[];
  readonly lists?: readonly ListSpec[];
  /** Problems in a work read from a file or made by a command; empty when it is sound. */
  readonly validate: (work: W) => Problem[];
  readonly traits: (work: W) => Traits;
  /** Other works it needs, by the members that name them. */
  readonly refs: (work: W) => readonly Ref[];
  /** How it is drawn. */
  readonly draws: readonly DrawSpec[];
  /** Lines under which the ground must be known before anything is said of the work; none where it stands on its host's. */
  readonly footprint: (work: W) => readonly Line[];
  /** Where it takes in water that runs over the ground; nothing where it takes none. */
  readonly intakes: (work: W) => readonly Intake[];
  /** Lines and rings whose corners may be moved by hand; left out, it is drawn anew. */
  readonly corners?: CornersSpec;
  /** How it shapes the ground itself, for all that runs or stands on it; left out, it does not. */
  readonly reshapes?: (work: W) => readonly Reshape[];
  /** The part of the work that measuring depends on. */
  readonly groundKey: (work: W) => unknown;
}

/** One technique: everything Outlet knows about one kind of work. `G` is what it measures on the ground. */
export interface Technique<W extends WorkBase, G> extends Descriptor<W> {
  /** Formulas of its own, in the order they are used. */
  readonly formulas: readonly AnyFormula[];
  /** What it is judged by. */
  readonly rules: readonly RuleCard[];
  /** What it says of a place somebody asks about, null where it is for places of another form; left out, it is never offered by itself. */
  readonly suits?: (place: Place) => Suit | null;
  /** What begins from a drawing. */
  readonly begin: (drawn: Drawn, land: Land) => Begun;
  readonly measure: (work: W, plot: Plot, host: Host | null) => G;
  readonly place: (work: W, ground: G, host: Host | null) => PlacedWork;
}

/** A list of one work, with an entry to begin with. */
export type BoundList = Omit<ListSpec, 'start'> & { readonly start: () => Readonly<Record<string, number>> };

/** A descriptor bound to one work with its types erased. */
export interface DescribedWork {
  readonly work: WorkBase;
  readonly title: string;
  readonly fields: readonly FieldSpec[];
  readonly choices: readonly ChoiceSpec[];
  readonly references: readonly ReferenceSpec[];
  readonly lists: readonly BoundList[];
  readonly traits: Traits;
  readonly refs: readonly Ref[];
  /** The work it lets out, and others it needs. */
  readonly hostId: string | null;
  readonly refersTo: readonly string[];
  readonly footprint: readonly Line[];
  readonly intakes: readonly Intake[];
  readonly corners: CornersSpec | null;
  readonly reshapes: readonly Reshape[];
  readonly groundKey: unknown;
  readonly validate: () => Problem[];
}

/** A technique bound to one work with its types erased. */
export interface BoundWork extends DescribedWork {
  readonly measure: (plot: Plot, host: Host | null) => unknown;
  readonly place: (ground: unknown, host: Host | null) => PlacedWork;
}
