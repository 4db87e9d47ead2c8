import type { ReactNode } from 'react';
import type { WorkBase } from '#core/contract';
import type { Command } from '#core/commands';
import type { Point } from '#core/geometry';
import type { Drawing, PlanItem } from '../plan/types.ts';

/** The interface of one technique: its form with drawing, and its marks on the plan. */
export interface WorkUi {
  readonly kind: string;
  readonly Sheet: (props: { readonly id: string }) => ReactNode;
  readonly planItems: (work: WorkBase, on: Drawing & { readonly works: readonly WorkBase[] }) => PlanItem[];
  /** The command for dragging a mark of this work to a place; null when it does not move. */
  readonly drag: (work: WorkBase, to: Point, works: readonly WorkBase[]) => Command | null;
}
