import type { Line, Point } from '../geometry/index.ts';
import type { FlowLaw, InletId } from '../hydraulics/index.ts';
import type { PoolGround } from '../terrain/index.ts';

/** Stage table of a store: ascending levels with the volume below and the water surface at each. */
export interface Stage {
  readonly levelM: Float64Array;
  readonly volumeM3: Float64Array;
  readonly wettedM2: Float64Array;
}

/**
 * What a way out is to the work that makes it. way: the only one of a guest · end: of a channel · mouth: into a joined store ·
 * pipe, road: of a crossing · crest, rim, bank: passed when it is full · round: ground beside a wall · low: a low place in a bank ·
 * fuse: a stretch meant to go first · lift: by a pump · past: what an intake lets run on · down: a roof's downpipes · eaves: what
 * falls off its edge · over: a vessel's overflow · on: ground a yard
 * runs on over.
 */
export type OutletRole =
  | 'way'
  | 'end'
  | 'mouth'
  | 'pipe'
  | 'road'
  | 'crest'
  | 'rim'
  | 'bank'
  | 'round'
  | 'low'
  | 'through'
  | 'fuse'
  | 'lift'
  | 'past'
  | 'down'
  | 'eaves'
  | 'over'
  | 'on';

/** A way water leaves a store: its level and its head law. */
export interface Outlet {
  readonly id: string;
  readonly role: OutletRole;
  /** The work that makes it (a sill, or the store itself for its bank). */
  readonly work: string;
  readonly name: string;
  /** sill, rated: ways out that were made · bank: a crest that is passed · joint: a way between stores that runs both ways. */
  readonly kind: 'sill' | 'rated' | 'bank' | 'joint';
  /** From where on it lets anything out: at this level of its store and under it nothing runs out by it. */
  readonly levelM: number;
  /** The decision that is a crest's level, by dotted path in its work; left out where nobody set it, or only how much it stands over something. */
  readonly levelBy?: string;
  /** Where its water reaches the ground outside. */
  readonly dischargeAt: Point;
  /** Flow [m3/s] at a level of the store and, where water beyond is felt, at the level there. */
  readonly flowAt: FlowLaw;
  /** Where it leads by its making; left out, its water is followed downhill. */
  readonly to?: string;
  /** It stays in the channel its store stands along: the next store along that takes it, if there is one. */
  readonly staysIn?: true;
  /** Of water let into the ground: what of it comes out again, where, and how much later [s]; the rest is gone for good. */
  readonly returns?: { readonly to: string; readonly share: number; readonly lagS: number };
  /** Level of water beyond from which it is felt; left out, it never is. */
  readonly drownsM?: number;
  /** The ground or stone its water runs on outside. */
  readonly exit?: Exit;
  /** Of earth that is cut through once it is passed: down to which ground [m], and how wide at the most [m] where it is made to go. */
  readonly breaks?: { readonly bottomM: number; readonly mostM?: number };
}

/** What an outlet's water runs on as it leaves. */
export interface Exit {
  readonly at: Point;
  /** Null where the ground below is not known. */
  readonly slope: number | null;
  /** Width it leaves with: a sheet, the bottom of a channel, or the bore of a pipe. */
  readonly widthM: number;
  readonly shape: 'sheet' | 'channel' | 'pipe';
  /** Sides of a channel, out per 1 up. */
  readonly sideHV?: number;
  /** Median stone laid there [m]; left out, what grows there must stand. */
  readonly stoneM?: number;
  /** A sheet that runs on over what grows there, level with its crest: where that holds it up deeper than the crest does, it decides. */
  readonly isFelt?: true;
}

export interface Store {
  /** The work's own id for its only or first one, else that and a name of its own. */
  readonly id: string;
  readonly work: string;
  readonly name: string;
  readonly floorM: number;
  /** Lowest designed outlet, null when there is none. */
  readonly sillM: number | null;
  /** Lowest way out, designed or not. */
  readonly wayOutM: number;
  /** Lowest crest that must not be passed. */
  readonly crestM: number;
  /** Volume below the lowest way out. */
  readonly heldM3: number;
  readonly stage: Stage;
  readonly outlets: readonly Outlet[];
  /** The hollow of the ground it stands in, what it holds beside that, and its sill by the owner's word: works that stand in one hollow share its water. */
  readonly hollow?: {
    readonly pool: PoolGround;
    readonly besides: (levelM: number) => { readonly volumeM3: number; readonly areaM2: number };
    readonly saidM?: number;
  };
  /** Of a hollow several works stand in, the others of them. */
  readonly alsoOf?: readonly string[];
  /** The measured channel it stands in, and where along it. */
  readonly along?: { readonly channel: string; readonly atM: number };
  /** Open water at its lowest way out, on which rain falls and stays [m2]; left out where it is counted as ground. */
  readonly waterM2?: number;
  /** What it loses into its own bed [mm/h]; left out, what the ground under it takes in. */
  readonly seepsMmPerHour?: number;
  /** What dries off it [mm/h]. */
  readonly driesMmPerHour?: number;
  /** Made to keep its water: it is found full. */
  readonly keeps?: true;
  /** Where its water stands tilted while its ways out run: by the level there, how much higher it stands at the most, and the least left under its crests [m]. */
  readonly tilt?: (levelM: number) => { readonly riseM: number; readonly leftM: number };
  /** Of a pipe, which holds water only on its way: its soffit at its upper end. */
  readonly soffitM?: number;
  /** Under a lid: nothing dries off it. */
  readonly isCovered?: boolean;
  /** What of it lies under where it is drawn off [m3]. */
  readonly deadM3?: number;
  /** Of what soaks in, what comes out again below and how many days later; at which store, null where no store takes it. A guess of its owner. */
  readonly comesBack?: { readonly share: number; readonly lagDays: number; readonly to: string | null };
  /** Of a roof: what comes down of the rain on it over years, after the first of each rain is let go. */
  readonly sheds?: { readonly share: number; readonly firstFlushMm: number };
}

/** Where water that runs over the ground is taken in: what crosses a line, comes onto a ring, or passes single places. */
export interface Intake {
  /** The store it comes to. */
  readonly store: string;
  readonly line?: Line;
  readonly ring?: Line;
  /** The edge of a roof: rain on it alone, nothing that runs over the ground there. */
  readonly roof?: Line;
  readonly points?: readonly Point[];
  /** How wide each single place is across the flow [m]; left out, a cell. */
  readonly widthM?: number;
  /** What it takes of a flow that comes, straight between the rows and by the last beyond them; left out, all. The rest runs on. One law a store: any of its intakes tells it. */
  readonly takes?: readonly (readonly [comesM3s: number, takenM3s: number])[];
  /** How long it holds up what it lets pass [s]. */
  readonly delayS?: number;
}

/**
 * A pipe that runs by its fall: water of several comes into the shaft over its upper end, and all of it leaves at its lower end
 * as long as the pipe takes it; what it does not take rises in the shaft and runs over its rim.
 */
export interface Conduit {
  readonly id: string;
  readonly work: string;
  readonly name: string;
  readonly diameterM: number;
  readonly lengthM: number;
  /** Manning's roughness. */
  readonly n: number;
  /** Share of its bore that is closed, as it was found; left out, none. */
  readonly closed?: number;
  readonly inlet: InletId;
  /** Inverts at both ends. */
  readonly upperM: number;
  readonly lowerM: number;
  /** Where water stands out of the shaft, over how long a rim, and the shaft's area. */
  readonly rimM: number;
  readonly rimLengthM: number;
  readonly shaftM2: number;
  /** Its shaft stands open under a store that is joined to it: what rises in it is that store's, and runs over no rim of its own. */
  readonly isUnder?: boolean;
  /** Where it comes out, and where its shaft stands. */
  readonly outletAt: Point;
  readonly rimAt: Point;
  /** The conduit or store it leads into; left out, its water is followed downhill. */
  readonly to?: string;
  readonly exit?: Exit;
}

/** What a pipe did in the storm. */
export interface ConduitStorm {
  readonly id: string;
  readonly work: string;
  readonly name: string;
  readonly peakM3s: number;
  /** What it passes with water at its rim and its lower end free [m3/s]. */
  readonly capacityM3s: number;
  readonly peakLevelM: number;
  /** How long its shaft stood above its soffit [h], and what ran over its rim [m3]. */
  readonly surchargedH: number;
  readonly overM3: number;
}

/** Where an outlet's water ends: a work's id, or out of what is known. */
export type Destination = 'property-edge' | 'terrain-edge' | 'ground' | (string & {});

export interface Link {
  readonly from: string;
  readonly outlet: string;
  /** The work that makes the outlet, and what it is to it. */
  readonly work: string;
  readonly role: OutletRole;
  readonly to: Destination;
  readonly path: readonly (readonly [number, number, number])[];
  readonly lengthM: number;
  readonly lagS: number;
  /** What of it arrives; left out, all. */
  readonly share?: number;
}

/** Ground that drains to a place. */
export interface Drained {
  readonly of: string;
  readonly areaM2: number;
  readonly meanSlope: number;
  readonly longestPathM: number;
  /** Where the longest flow path begins. */
  readonly farthest: Point;
  readonly touchesTerrainEdge: boolean;
}

/** The same with its outline. */
export interface Catchment extends Drained {
  readonly ring: readonly Point[];
}

export interface Runoff {
  readonly of: string;
  readonly rainMm: number;
  readonly curveNumber: number;
  readonly runoffC: number;
  readonly runoffMm: number;
  /** Rain that soaks in, and that stands in small hollows and on leaves [mm over the catchment]. */
  readonly soaksMm: number;
  readonly standsMm: number;
  readonly volumeM3: number;
  readonly tcMin: number;
  readonly intensityMmPerHour: number;
  readonly rationalPeakM3s: number;
  /** The same with the coefficient raised for rare storms. */
  readonly rarePeakM3s: number;
  readonly hydrographPeakM3s: number;
  /** When that peak passes, from the beginning of the rain [s]. */
  readonly peakAtS: number;
  /** Peak of the roofs and paving alone, which answer sooner; null without any. */
  readonly sealedPeakM3s: number | null;
  /** The peak works are made for, by the method chosen for this catchment. */
  readonly chosenPeakM3s: number;
  readonly choice: { readonly time: string; readonly peak: string; readonly loss: string };
}

/**
 * How ground and water may be found when a storm begins. found: as they usually are · full: every store to its lowest way out ·
 * blocked: full, and every pipe closed by debris · unpowered: full, and what the mains drive stands still while all pipes run · wet:
 * the ground soaked by rain before · bare: nothing grows on it.
 */
export const CONDITIONS = ['found', 'full', 'blocked', 'unpowered', 'wet', 'bare'] as const;
export type Condition = (typeof CONDITIONS)[number];

/** Which storm of a set, and how it found ground and water. */
export interface By {
  readonly durationMin: number;
  readonly condition: Condition;
}

/** The worst a quantity comes to over a set of storms, and by which of them. */
export interface Worst extends By {
  readonly value: number;
}

/** What the design storm did to one store. */
export interface StoreStorm {
  /** Where its water stood when the storm began. */
  readonly startM: number;
  readonly inM3: number;
  readonly soakedM3: number;
  readonly spilledM3: number;
  readonly endM3: number;
  readonly peakLevelM: number;
  readonly peakInM3s: number;
  readonly peakOutM3s: number;
  readonly firstSpillS: number | null;
  /** How long it ran over its chosen ways out and others. */
  readonly spillsH: number;
  /** How much higher than that its water stood at its far end [m], and what was left under its crest there. */
  readonly riseM: number;
  readonly freeboardM: number;
  /** Hours until it is empty again by the rates at which it soaks and dries, as long as the soil has room; null: never. */
  readonly drainDownH: number | null;
  /** What of the water left in it the soil below has no room for: it stays [m3]. */
  readonly soilShortM3: number;
  readonly holds: boolean;
  /** Still standing a day after the rain began to end. */
  readonly nextDayM3: number;
  /** From its peak until it stands at its lowest way out again; null where it never rose above it, or has none. */
  readonly readyH: number | null;
}

/** What the design storm did to one outlet. */
export interface OutletStorm {
  readonly id: string;
  readonly work: string;
  readonly role: OutletRole;
  readonly store: string;
  readonly levelM: number;
  readonly peakM3s: number;
  readonly peakAtS: number;
  readonly volumeM3: number;
  readonly runsH: number;
  /** On the ground or stone outside, at its peak; null where none is known. */
  readonly velocityMs: number | null;
  readonly standsMs: number | null;
  readonly lining: 'stands' | 'washes' | 'unknown';
}

/** A way water takes, with what the storm sends along it; null while no storm is known. */
export interface LinkFlow extends Link {
  readonly volumeM3: number | null;
  readonly peakM3s: number | null;
}
