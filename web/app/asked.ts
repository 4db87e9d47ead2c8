// What the user is asked about files just read, over the page.
import type { PatchHow } from '#core/terrain';
import type { ImportHow, PointTable } from '#core/formats';
import type { Looked, Met, TakenIn } from '../workers/protocol.ts';

/** A file of things drawn, and whom to tell whether it was taken in the end. */
export interface DrawnFile {
  readonly file: File;
  readonly imported: Extract<TakenIn, { readonly kind: 'shapes' }>;
  readonly done: (isTaken: boolean) => void;
}

/** Ground just read that lies on the ground there is, and whom to tell what became of it. */
export interface TwoGrounds {
  readonly imported: Extract<TakenIn, { readonly kind: 'terrain' }>;
  readonly there: Blob;
  /** How the two lie against each other; null where they do not meet, or lie in different systems. */
  readonly met: Met | null;
  /** Whether they lie in different systems: nobody knows then whether they meet. */
  readonly isElsewhere: boolean;
  readonly done: (how: GroundChosen | null) => void;
}

/** What becomes of new ground: it takes the place of what was there, or is laid into it, raised by so much, by so many marks. */
export type GroundChosen = 'replace' | (PatchHow & { readonly byMarks?: number });

/** A large picture of levels, or one of several bands, looked over, and whom to tell what of it is wanted. */
export interface LookedOver {
  readonly file: File;
  readonly looked: Looked;
  /** Whether it is too large as a whole, as it lies or laid flat. */
  readonly isTooLarge: boolean;
  readonly done: (how: Pick<ImportHow, 'band' | 'part'> | null) => void;
}

/** A table of points looked over, and whom to tell what its columns and words are. */
export interface PointsAsked {
  readonly file: File;
  readonly table: PointTable;
  readonly done: (how: Pick<ImportHow, 'points' | 'levelsIn'> | null) => void;
}

/** What stands asked; each null while nothing does. */
export interface Asked {
  /** A file of things drawn, read and not taken yet. */
  readonly drawnFile: DrawnFile | null;
  /** New ground the user is asked about. */
  readonly twoGrounds: TwoGrounds | null;
  /** A picture of levels of which a part, or a band, is asked for. */
  readonly lookedOver: LookedOver | null;
  readonly pointsAsked: PointsAsked | null;
}

export const NOTHING_ASKED: Asked = { drawnFile: null, twoGrounds: null, lookedOver: null, pointsAsked: null };
