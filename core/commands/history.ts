import type { Patch } from 'immer';
import type { Project } from '../project/index.ts';
import type { Catalogue } from '../works/index.ts';
import { applyCommand, patched } from './apply.ts';
import type { Command } from './types.ts';

interface Entry {
  readonly label: string;
  readonly patches: readonly Patch[];
  readonly inverse: readonly Patch[];
  /** Commands of one gesture share it and are undone together. */
  readonly gesture: string | null;
}

export interface History {
  readonly project: Project;
  readonly past: readonly Entry[];
  readonly future: readonly Entry[];
  /** Counts up with every change, undo and redo. */
  readonly revision: number;
}

export function startHistory(project: Project): History {
  return { project, past: [], future: [], revision: 0 };
}

/** Applies a command; with the same gesture as the step before, both become one step. */
export function execute(history: History, command: Command, how: { readonly registry: Catalogue; readonly gesture?: string }): History {
  const { project, patches, inverse } = applyCommand(history.project, command, how.registry);
  const gesture = how.gesture ?? null;
  const last = history.past[history.past.length - 1];
  const joins = gesture !== null && last?.gesture === gesture;
  const entry: Entry = joins
    ? { ...last, patches: [...last.patches, ...patches], inverse: [...inverse, ...last.inverse] }
    : { label: command.type, patches, inverse, gesture };
  return { project, past: [...history.past.slice(0, joins ? -1 : undefined), entry], future: [], revision: history.revision + 1 };
}

export function undo(history: History): History {
  const last = history.past[history.past.length - 1];
  if (!last) return history;
  return {
    project: patched(history.project, last.inverse),
    past: history.past.slice(0, -1),
    future: [last, ...history.future],
    revision: history.revision + 1,
  };
}

export function redo(history: History): History {
  const [next, ...rest] = history.future;
  if (!next) return history;
  return {
    project: patched(history.project, next.patches),
    past: [...history.past, { ...next, gesture: null }],
    future: rest,
    revision: history.revision + 1,
  };
}
