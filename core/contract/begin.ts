// How a work begins: what is drawn for it, and what the first of its kind there is like.
import type { Line, Point } from '../geometry/index.ts';
import type { Grid } from '../terrain/index.ts';
import type { Said } from '../units/index.ts';
import type { Channel } from './channel.ts';
import type { Problem, WorkBase } from './work.ts';

/** One way to draw a work: a line or a ring on the ground, a place on the work it lets out, or a pair of stores. */
export interface DrawSpec {
  readonly id: string;
  /** What it is called where it is offered. */
  readonly name: string;
  readonly what: 'line' | 'ring' | 'point' | 'on-host' | 'between-stores';
  readonly least: number;
  /** With this many points it is whole; left out, as many as wanted. */
  readonly most?: number;
  readonly hint: string;
  /** Offered before all others. */
  readonly isFirst?: boolean;
  /** A place inside of what is drawn already: it is taken where it is clicked, not at a corner or an edge near it. */
  readonly isInside?: true;
  /** It begins and ends at what holds water: all of that is looked at. */
  readonly seesStores?: true;
  /** It may stand in a measured channel: all of those are looked at. */
  readonly seesChannels?: true;
}

/** What was drawn. */
export interface Drawn {
  /** The id of its way of drawing. */
  readonly how: string;
  readonly points: readonly Point[];
  /** The work it is to let out, where it was said. */
  readonly host: string | null;
}

/** A store as works that begin beside it see it. */
export interface StoreSeen {
  readonly id: string;
  readonly name: string;
  /** The line its guests stand along. */
  readonly line: Line;
  /** Where its water stands when it is full. */
  readonly rings: readonly Line[];
  readonly floorM: number;
  readonly crestM: number;
  /** Its highest water in the storm; null while no storm is known. */
  readonly peakLevelM: number | null;
  /** Levels its guests begin to let water out at, lowest first. */
  readonly sillsM: readonly number[];
  readonly guests: readonly WorkBase[];
  readonly groundAt: (atM: number) => number;
}

/** What holds water, as what only draws from it or fills it sees it. */
export interface WaterSeen {
  readonly id: string;
  readonly name: string;
  /** Lines or rings it lies under. */
  readonly lines: readonly Line[];
  readonly floorM: number;
  /** Where it is let out, lowest of all. */
  readonly fullM: number;
  /** Of a roof, its area from above; null of all others. */
  readonly roofM2: number | null;
  /** Of pipes, where their shafts stand, with the pipe that leaves there: they keep no water. */
  readonly shafts?: readonly { readonly at: Point; readonly invertM: number; readonly pipeM: number; readonly to: string }[];
}

/** The land as works begin on it. */
export interface Land {
  readonly grid: Grid;
  readonly stores: readonly StoreSeen[];
  /** All that holds water, where the way of drawing sees stores. */
  readonly waters?: readonly WaterSeen[];
  /** Channels as they were measured, where the way of drawing sees them. */
  readonly channels?: readonly Channel[];
  /** Edges of buildings that are drawn. */
  readonly buildings?: readonly Line[];
  /** What runs off the ground at a place in the longest storm looked at [mm]; null, or left out, while nobody knows. */
  readonly runsMm?: (at: Point) => number | null;
  /** A name for a new work: its title and the next number of that title. */
  readonly nameFor: (title: string) => string;
  /** An id no work has, that says what it is. */
  readonly idFor: (what: string) => string;
}

/** The first works of a kind as drawn there, with their levels and a way out; or why they cannot be. */
export type Begun =
  | {
      readonly ok: true;
      readonly works: readonly [WorkBase, ...WorkBase[]];
      /** What is worth knowing of how it was set. */ readonly said?: Said;
    }
  | { readonly ok: false; readonly problem: Problem };
