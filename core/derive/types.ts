import type {
  BuildStep,
  EachTable,
  SheetPart,
  By,
  Catchment,
  Check,
  Condition,
  ConduitStorm,
  CrestStorm,
  Figure,
  Hazard,
  LeftBand,
  LevelMark,
  LinkFlow,
  OutletStorm,
  QuantityLine,
  Runoff,
  SectionShape,
  SeenBelow,
  StoreBreach,
  Worst,
} from '../contract/index.ts';
import type { Line, Point } from '../geometry/index.ts';
import type { WorksheetLine } from '../formula/index.ts';
import type { Peg } from '../survey/index.ts';
import type { TerrainStats } from '../terrain/index.ts';

export interface DerivedStage {
  readonly levelM: number;
  readonly volumeM3: number;
  readonly wettedM2: number;
}

export interface DerivedStore {
  readonly id: string;
  /** The work it belongs to, which may have several, and what it is called among them. */
  readonly work: string;
  readonly name: string;
  /** Other works that stand in the same hollow; left out where there are none. */
  readonly alsoOf?: readonly string[];
  /** The hollow of the ground it stands in: its lowest place, and where water runs on from it; left out of all others. */
  readonly hollow?: { readonly at: Point; readonly lowM: number; readonly spillM: number };
  readonly floorM: number;
  readonly sillM: number | null;
  readonly wayOutM: number;
  readonly crestM: number;
  readonly heldM3: number;
  readonly stage: readonly DerivedStage[];
  readonly inM3: number | null;
  readonly soakedM3: number | null;
  readonly spilledM3: number | null;
  readonly endM3: number | null;
  readonly peakLevelM: number | null;
  readonly firstSpillS: number | null;
  /** How much higher than its highest water its far end stands meanwhile, and what is left under the crest there. */
  readonly riseM: number | null;
  readonly freeboardM: number | null;
  readonly drainDownH: number | null;
  /** What of the water left in it the soil below has no room for; null without a storm. */
  readonly soilShortM3: number | null;
  readonly holds: boolean | null;
  readonly peakInM3s: number | null;
  readonly peakOutM3s: number | null;
  readonly spillsH: number | null;
  readonly nextDayM3: number | null;
  /** Where its water stood when the storm began; null without a storm. */
  readonly startM: number | null;
  /** Quantities at their worst over the set, and by which storm on what ground and water; the other members are of the storm in which it stood highest as found. */
  readonly worst: Readonly<Record<string, Worst>>;
  /** Least freeboard as found, full and blocked [m]: what is fine is fine by this. Null without a storm. */
  readonly least: Worst | null;
  /** Between what that is nine times in ten, by the limits of the rain; null where it has none. */
  readonly band: LeftBand | null;
  /** Who lies below it if it fails; null while nobody has said and the map does not show. */
  readonly hazard: Hazard | null;
  /** By what that is known: the user's word, what is drawn in the way of its flood, or nothing. */
  readonly hazardBy: 'said' | 'seen' | null;
  /** What was found below it on the map, and how its crest stands the storm it must hold; null where neither is known. */
  readonly below: SeenBelow | null;
  readonly crest: CrestStorm | null;
  /** What comes down when its bank goes, roughly; null where nothing would. */
  readonly breach: StoreBreach | null;
}

/** A way water takes, by the storm its store's members are of. */
export interface DerivedLink extends LinkFlow {
  /** Its greatest flow over the set, as found, full and blocked; null while no storm is known. */
  readonly mostM3s: number | null;
  /** A bank that is passed only when all is full or blocked; left out of all others. */
  readonly isRare?: true;
}

/** A spring and the way its water takes. */
export interface DerivedSpring {
  readonly id: string;
  readonly flowM3s: number;
  /** A work's id, "property-edge" or "terrain-edge". */
  readonly to: string;
  readonly path: readonly (readonly [number, number, number])[];
}

/** A hollow that is more than the survey's noise. */
export interface DerivedHollow {
  readonly at: Point;
  readonly bottomM: number;
  readonly spillM: number;
  readonly depthM: number;
  readonly areaM2: number;
  readonly volumeM3: number;
}

export interface LeavingFlow {
  readonly volumeM3: number;
  readonly peakM3s: number;
  /** From the beginning of the rain; null where nothing leaves. */
  readonly peakAtS: number | null;
}

/** A place where water leaves the property, or the rest of its line together, in one storm. */
export interface ExitFlows {
  readonly id: string;
  readonly at: Point;
  /** False for what leaves here and there along the line. */
  readonly isPlace: boolean;
  /** Ground that drains through here when nothing is built. */
  readonly areaM2: number;
  readonly without: LeavingFlow;
  readonly with: LeavingFlow;
}

/** The same with the worst that came to it over the set. */
export interface DerivedExit extends ExitFlows {
  readonly worst: Readonly<Record<string, Worst>>;
}

/** A way out with the worst that came to it over the set. */
export interface DerivedOutlet extends OutletStorm {
  /** Whether what it runs on stands it as found, full and blocked, in any storm of the set. */
  readonly liningAtWorst: OutletStorm['lining'];
  readonly worst: Readonly<Record<string, Worst>>;
}

/** The storms everything is judged by. */
export interface DerivedSet {
  readonly returnYears: number;
  readonly durationsMin: readonly number[];
  readonly conditions: readonly Condition[];
}

/** One kind of ground and what the storm does on it. */
export interface DerivedGround {
  /** 'ground', a zone's id, 'roofs' or 'pools'. */
  readonly id: string;
  readonly name: string;
  readonly areaM2: number;
  readonly curveNumber: number;
  readonly infiltrationMmPerHour: number;
  readonly soilDepthM: number;
  readonly rainMm: number | null;
  readonly soaksMm: number | null;
  readonly standsMm: number | null;
  readonly runsMm: number | null;
  /** What would run off as it is now, and healed; null without a storm or a plan for its healing. */
  readonly runsNowMm: number | null;
  readonly runsHealedMm: number | null;
}

/** Soil that reaches a store in a mean year. */
export interface SedimentIn {
  readonly of: string;
  readonly wornT: number;
  readonly arrivesT: number;
  readonly arrivesM3: number;
  /** Until a fifth of what it holds is silt; null where none arrives. */
  readonly yearsToFifth: number | null;
}

export interface DerivedErosion {
  readonly erosivity: number;
  /** Soil worn off in a mean year, on the property. */
  readonly perHaT: number;
  readonly wholeT: number;
  readonly bySurface: readonly { readonly id: string; readonly name: string; readonly perHaT: number | null }[];
  readonly works: readonly SedimentIn[];
}

/** How much of one thing a work takes, in SI. */
export interface DerivedQuantity {
  readonly work: string;
  readonly item: string;
  readonly quantity: number | null;
  readonly unit: string;
  readonly low: number | null;
  readonly high: number | null;
  readonly from: string;
}

/** Everything computed from a document: the stable JSON of the command line. */
export interface Derived {
  readonly format: 'outlet-derived';
  readonly version: 1;
  readonly option: string;
  /** Null where one storm was asked for, or none is known. */
  readonly set: DerivedSet | null;
  readonly terrain: TerrainStats | null;
  readonly catchments: readonly Catchment[];
  readonly runoff: readonly Runoff[];
  readonly hollows: readonly DerivedHollow[];
  readonly springs: readonly DerivedSpring[];
  /** Whether the ground is taken as it is now or healed. */
  readonly groundAs: 'now' | 'healed';
  readonly grounds: readonly DerivedGround[];
  readonly exits: readonly DerivedExit[];
  /** Null where the yearly rain is not given. */
  readonly erosion: DerivedErosion | null;
  readonly stores: readonly DerivedStore[];
  readonly links: readonly DerivedLink[];
  readonly outlets: readonly DerivedOutlet[];
  readonly conduits: readonly ConduitStorm[];
  readonly balance: { inM3: number; storedM3: number; soakedM3: number; leftM3: number; errorFraction: number } | null;
  readonly checks: readonly Check[];
  /** Works that are shown and not computed, and why. */
  readonly uncomputed: readonly {
    readonly work: string;
    readonly why: 'ground' | 'needs' | 'fault';
    readonly what: string;
    readonly offM: number | null;
  }[];
  /** How much of what each work takes; no work that is there or retired takes anything. */
  readonly quantities: readonly DerivedQuantity[];
  readonly pegs: readonly Peg[];
  readonly verdicts: Readonly<Record<string, string>>;
  readonly worksheets: readonly WorksheetLine[];
}

/** Time series of one store over the storm in which it stood highest as found, with its rain. */
export interface StoreSeries {
  readonly id: string;
  readonly stepS: number;
  readonly rainMm: Float64Array;
  readonly levelM: Float64Array;
  readonly inM3s: Float64Array;
  readonly outM3s: Float64Array;
}

/** Flow of a catchment, or of a place where water leaves, over the storm. */
export interface FlowSeries {
  readonly id: string;
  readonly stepS: number;
  readonly flowM3s: Float64Array;
  /** With nothing built; null for a catchment. */
  readonly withoutM3s: Float64Array | null;
}

/** What the interface shows beside the stable JSON. */
export interface View {
  /** What each work takes to make, and how it is made, by work. */
  readonly making: Readonly<Record<string, { readonly quantities: readonly QuantityLine[]; readonly steps: readonly BuildStep[] }>>;
  /** What each of several things a work is made of takes and holds, by work. */
  readonly each: Readonly<Record<string, readonly EachTable[]>>;
  /** Why a work that is there does not work, by work. */
  readonly diagnoses: Readonly<Record<string, readonly SheetPart[]>>;
  /** The sheet for whoever lives with a work, by work. */
  readonly handOvers: Readonly<Record<string, readonly SheetPart[]>>;
  /** Ids of stores in the order water meets them. */
  readonly order: readonly string[];
  readonly series: readonly StoreSeries[];
  readonly flows: readonly FlowSeries[];
  readonly storm: {
    readonly stepMin: number;
    readonly stepsMm: Float64Array;
    readonly depthMm: number;
    readonly durationMin: number;
    readonly extrapolated: boolean;
  } | null;
  /** Length of the storm each store's members are of, by store: that in which it stood highest as found. */
  readonly governs: Readonly<Record<string, number>>;
  /** Members of the set by which anything is at its worst: those to run first when something is dragged. */
  readonly first: readonly string[];
  /** Levels stores are found at when a storm begins; those left out are empty. */
  readonly starts: Readonly<Record<string, number>>;
  /** Whether the whole set was run. */
  readonly isWhole: boolean;
  /** Highest water by store, storm and condition, for the curve of each. */
  /** The storm by which each store has least left as each condition finds it. */
  readonly found: Readonly<Record<string, readonly (By & { readonly peakLevelM: number; readonly leftM: number })[]>>;
  readonly peaks: Readonly<Record<string, readonly (By & { readonly peakLevelM: number })[]>>;
  readonly marks: readonly LevelMark[];
  /** Edge of the water at the lowest way out, by work. */
  readonly rings: Readonly<Record<string, readonly Line[]>>;
  /** Sections to scale of works that draw their own. */
  readonly shapes: Readonly<Record<string, SectionShape>>;
  readonly figures: Readonly<Record<string, readonly Figure[]>>;
  /** Mean lip level and cross slope by work, for drawing sections. */
  readonly sections: Readonly<Record<string, { readonly lipM: number; readonly crossSlope: number; readonly downhill: 1 | -1 }>>;
}

export interface DeriveResult {
  readonly derived: Derived;
  readonly view: View;
}
