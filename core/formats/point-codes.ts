// Words beside survey points: what was read there, and what that makes of the points (common practice).

/** What the points of one code are: single levels, corners of one line, of a line for each run of them, of the edge of the survey, or no ground. */
export const CODE_USES = ['spot', 'line', 'runs', 'outline', 'leave'] as const;
export type CodeUse = (typeof CODE_USES)[number];
export type CodeUses = Readonly<Record<string, CodeUse>>;

export interface Code {
  readonly code: string;
  readonly count: number;
  /** How many times it begins anew in the order of the file. */
  readonly runs: number;
  readonly likely: CodeUse;
}

/**
 * Words for what a surface breaks along, for where a survey ends, and for what stands above the ground. What may be either is a single
 * level until somebody says: a gutter is a roof's or a road's, an invert a ditch's or a pipe's.
 */
const BREAKS =
  /^(bl|brk|break(line)?|tob|toe|top|crest|crown|ridge|drain|ditch|gully|thalweg|bed|channel|creek|stream|edge|eop|kerb|curb|bank|wall|track|road|cl)(?![a-z])/i;
const ENDS = /^(outline|boundary|bdy|limit|extent|perimeter|end of survey)(?![a-z])/i;
const ABOVE = /^(roof|eaves?|pole|wire|canopy|tree ?top|chimney)s?(?![a-z])/i;
/** So many points in a row on the whole are a line walked from end to end. */
const RUN = 3;

function likelyUse(code: string, count: number, runs: number): CodeUse {
  if (ABOVE.test(code)) return 'leave';
  if (ENDS.test(code) && count >= 3) return 'outline';
  if (!BREAKS.test(code) || count < 2) return 'spot';
  return runs > 1 && count / runs >= RUN ? 'runs' : 'line';
}

/** Codes are told apart without regard to capitals and outer spaces. */
export const codeKey = (text: string | undefined): string => (text ?? '').trim().toLowerCase();

/** Codes in the order they are met; a point without one bears none. */
export function codesOf(texts: readonly (string | undefined)[]): readonly Code[] {
  const met = new Map<string, { readonly code: string; count: number; runs: number }>();
  texts.forEach((text, row) => {
    const key = codeKey(text);
    if (key === '') return;
    const known = met.get(key) ?? { code: (text ?? '').trim(), count: 0, runs: 0 };
    known.count++;
    if (row === 0 || codeKey(texts[row - 1]) !== key) known.runs++;
    met.set(key, known);
  });
  return [...met.values()].map((one) => ({ ...one, likely: likelyUse(one.code, one.count, one.runs) }));
}

/** Lines and rings by the rows of their points; rows of no code, or of single levels, are in none. */
export function linesIn(
  texts: readonly (string | undefined)[],
  uses: CodeUses,
): { readonly lines: readonly (readonly number[])[]; readonly rings: readonly (readonly number[])[] } {
  const said = new Map(Object.entries(uses).map(([code, use]) => [codeKey(code), use]));
  const one = new Map<string, number[]>();
  const runs: number[][] = [];
  texts.forEach((text, row) => {
    const key = codeKey(text);
    const use = said.get(key);
    if (use === 'runs') {
      if (row > 0 && codeKey(texts[row - 1]) === key) runs[runs.length - 1].push(row);
      else runs.push([row]);
    } else if (use === 'line' || use === 'outline') {
      const known = one.get(key);
      if (known) known.push(row);
      else one.set(key, [row]);
    }
  });
  const of = (use: CodeUse): number[][] => [...one].flatMap(([key, rows]) => (said.get(key) === use ? [rows] : []));
  const [lines, rings] = [[...of('line'), ...runs].filter((rows) => rows.length > 1), of('outline').filter((rows) => rows.length > 2)];
  return { lines, rings };
}
