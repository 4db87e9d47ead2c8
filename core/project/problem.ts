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

/** As much of what was found as a message repeats: the rest tells nobody more. */
export const MOST_QUOTED = 80;
/** As many problems as can be read and acted on at once. */
export const MOST_LISTED = 10;

const cut = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);
/** Longer than any sentence of ours with one short quotation. */
const MOST_TEXT = 600;
/** Shortens what stands between quotation marks, however it came into the sentence, and the sentence itself. */
const inShort = (text: string): string =>
  cut(
    text.replace(/(["“])([^"“”]{81,})(?=["”])/g, (_, mark: string, found: string) => mark + cut(found, MOST_QUOTED)),
    MOST_TEXT,
  );

const saidInShort = (said: Said): Said =>
  typeof said === 'string' ? inShort(said) : said.map((piece) => (typeof piece === 'string' ? cut(piece, MOST_TEXT) : piece));

function brief({ code, what, where, do: advice, said }: UserProblem): UserProblem {
  const { file, line, field } = where;
  const place = {
    ...(file === undefined ? {} : { file: cut(file, MOST_QUOTED) }),
    ...(line === undefined ? {} : { line }),
    ...(field === undefined ? {} : { field: cut(field, MOST_QUOTED) }),
  };
  const pieces = said === undefined ? {} : { said: { what: saidInShort(said.what), do: saidInShort(said.do) } };
  return { code, what: inShort(what), where: place, do: inShort(advice), ...pieces };
}

/** The first problems, each in short, and how many more there are. */
function listed(problems: readonly UserProblem[]): UserProblem[] {
  const first = problems.slice(0, MOST_LISTED).map(brief);
  const left = problems.length - first.length;
  if (left === 0) return first;
  const { file } = first[0].where;
  return [
    ...first,
    {
      code: 'problems.more',
      what: `and ${left} more like these`,
      where: file === undefined ? {} : { file },
      do: 'Mend these first, then try again.',
    },
  ];
}

/** Thrown at the edges (files, command line, commands); it never carries a stack trace to the screen. */
export class UserError extends Error {
  /** At most ten and a line that counts the rest. */
  readonly problems: readonly UserProblem[];
  constructor(problems: readonly UserProblem[]) {
    const few = listed(problems);
    super(few.map((p) => p.what).join('; '));
    this.name = 'UserError';
    this.problems = few;
  }
}

/** What is told of an error nobody foresaw: one plain message, never a stack. */
export function unforeseen(doing: string): UserProblem {
  return {
    code: 'outlet.internal',
    what: `${doing} met something Outlet did not expect`,
    where: {},
    do: 'Nothing was changed. Check the input; if it is sound, this is a fault of Outlet.',
  };
}

/** Problems of anything thrown: the user's own in words, all else as one plain message. */
export const problemsThrown = (error: unknown, doing: string): readonly UserProblem[] =>
  error instanceof UserError ? error.problems : [unforeseen(doing)];

/** Short form for one problem. */
export function fail(code: string, what: string, more: { where?: UserProblem['where']; do: string }): never {
  throw new UserError([{ code, what, where: more.where ?? {}, do: more.do }]);
}
