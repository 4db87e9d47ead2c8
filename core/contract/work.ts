import type { QuantityKind, Said } from '../units/index.ts';

export const WORK_STATUSES = ['existing', 'planned', 'pegged', 'built', 'retired'] as const;
export type WorkStatus = (typeof WORK_STATUSES)[number];

/** What all works have in common in the document. */
export interface WorkBase {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  readonly status: WorkStatus;
}

/**
 * A number the user decides, at a dotted path in the work: it drives validation and forms. Values are SI.
 */
export interface FieldSpec {
  readonly path: string;
  readonly label: string;
  readonly kind: QuantityKind;
  readonly min: number;
  readonly max: number;
  readonly help: string;
}

export interface Problem {
  readonly code: string;
  readonly what: Said;
  readonly field?: string;
  readonly do: Said;
}
