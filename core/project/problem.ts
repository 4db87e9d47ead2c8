import type { Problem } from '../contract/index.ts';
import { type Said, spoken } from '../units/index.ts';

/** Something the user can cause and mend: what is wrong, where, and what to do. */
export interface UserProblem {
  readonly code: string;
  readonly what: string;
  readonly where: { readonly file?: string; readonly line?: number; readonly field?: string };
  readonly do: string;
  /** The same in pieces, its amounts put in units where it is shown. */
  readonly said?: { readonly what: Said; readonly do: Said };
}

/** A problem of a work in metric words, its amounts kept beside them. */
export function problemOf({ code, what, field, ...more }: Problem): UserProblem {
  const where = field === undefined ? {} : { field };
  const plain = { code, what: spoken(what, 'metric'), where, do: spoken(more.do, 'metric') };
  return typeof what === 'string' && typeof more.do === 'string' ? plain : { ...plain, said: { what, do: more.do } };
}

/** Thrown at the edges (files, command line, commands); it never carries a stack trace to the screen. */
export class UserError extends Error {
  readonly problems: readonly UserProblem[];
  constructor(problems: readonly UserProblem[]) {
    super(problems.map((p) => p.what).join('; '));
    this.name = 'UserError';
    this.problems = problems;
  }
}

/** Short form for one problem. */
export function fail(code: string, what: string, more: { where?: UserProblem['where']; do: string }): never {
  throw new UserError([{ code, what, where: more.where ?? {}, do: more.do }]);
}
