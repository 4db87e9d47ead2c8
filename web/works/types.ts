import type { ReactNode } from 'react';
import type { Command } from '#core/commands';
import type { WorkBase } from '#core/contract';
import type { Point } from '#core/geometry';
import type { Drawing, PlanItem } from '../plan/types.ts';

/** What a plan is drawn from, with the works it shows. */
export type WorksDrawing = Drawing & { readonly works: readonly WorkBase[] };

/** The interface of one technique: its form with drawing, and its marks on the plan. */
export interface WorkUi<W extends WorkBase> {
  readonly kind: W['kind'];
  readonly Sheet: (props: { readonly work: W }) => ReactNode;
  readonly planItems: (work: W, on: WorksDrawing) => PlanItem[];
  /** The command for dragging a mark of this work to a place; null when it does not move. */
  readonly drag: (work: W, to: Point, works: readonly WorkBase[]) => Command | null;
}
