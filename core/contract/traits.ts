/** What a work is to others, so that nobody need ask its kind. */
export interface Traits {
  /** What holds back its water: a wall whose failure is a flood, the bank of a ditch, a vessel, or nothing of its own. */
  readonly retains: 'wall' | 'bank' | 'vessel' | 'none';
  /** What water brings can close it. */
  readonly canBlock: boolean;
  /** Its water goes through a closed bore, which blocks first. */
  readonly isConduit: boolean;
  /** It stands still when the mains go. */
  readonly needsMains?: true;
  /** Soil settles in it and takes its room. */
  readonly canSilt: boolean;
  /** It is cut into the ground, last of all: until then it lets nothing out. */
  readonly isCut: boolean;
  /** A store of another work may open into it. */
  readonly joinable: boolean;
  /** What it holds hangs on no ground: it can be reckoned day by day before any terrain is known. */
  readonly standsAlone?: true;
  /** A measured channel: others stand in it. */
  readonly isChannel?: true;
  /** How it lets its host out: over a crest, through a bore or stone, lifted; null where it is no way out. */
  readonly wayOut: 'crest' | 'through' | 'lifted' | null;
}

/** A work that needs another, by a member of its own. */
export interface Ref {
  /**
   * host: it lets that one out · to: it leads there · joins: it opens into it · through: water passes there on its way · back: what
   * soaked in comes out there, which nothing hangs on where it stands · in: it stands in that channel.
   */
  readonly role: 'host' | 'to' | 'joins' | 'through' | 'back' | 'in';
  readonly id: string;
  /** The member that names it. */
  readonly path: string;
  /** What becomes of this work when the other is taken away: it goes too, or lets go of it. */
  readonly whenGone: 'goes' | 'lets-go';
}
