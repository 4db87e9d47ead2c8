/** Something the user can cause and mend: what is wrong, where, and what to do. */
export interface UserProblem {
  readonly code: string;
  readonly what: string;
  readonly where: { readonly file?: string; readonly line?: number; readonly field?: string };
  readonly do: string;
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
