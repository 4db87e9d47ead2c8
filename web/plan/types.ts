// What passes between the plan, the works that draw themselves on it, and the map.
import type Geometry from 'ol/geom/Geometry.js';
import type { DeriveResult } from '#core/derive';
import type { Point as XY } from '#core/geometry';
import type { Project } from '#core/project';

export interface PlanItem {
  readonly id: string;
  /** Changes when the geometry or the look must be redrawn. */
  readonly version: string;
  readonly geometry: Geometry;
  readonly look: Look;
  readonly isMovable?: boolean;
}

export interface Look {
  readonly role: string;
  readonly label?: string;
  readonly isSelected?: boolean;
  readonly width?: number;
}

export interface PlanEvents {
  /** Whether a mark may be taken just now: while something is drawn the pointer draws. */
  readonly canTake: () => boolean;
  readonly onClick: (at: XY, itemId: string | null, isDouble: boolean) => void;
  readonly onPointer: (at: XY | null) => void;
  readonly onDrag: (itemId: string, to: XY, phase: 'start' | 'move' | 'end') => void;
}

export interface Drawing {
  readonly project: Project;
  readonly result: DeriveResult | null;
  readonly selected: string | null;
  readonly levelText: (levelM: number) => string;
  readonly flowText: (m3s: number) => string;
  readonly showPegs: boolean;
  /** The picture whose places are being pinned: those found already are marked. */
  readonly pinning?: string | null;
}
