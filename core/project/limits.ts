// What any document, command or question may be at most, before anything looks closer: depth, length, and keys of the machine's.
import { isForbiddenKey } from './ids.ts';
import { type UserProblem, UserError } from './problem.ts';

/** Deeper than any member of a project lies. */
export const MOST_DEEP = 40;
/** Longer than any list but the levels of a terrain. */
export const MOST_ITEMS = 20_000;
/** Corners of one line or ring: a line of 20 km at a corner every few metres. */
export const MOST_CORNERS = 5_000;
export const MOST_TEXT = 20_000;

interface Place {
  readonly value: object;
  readonly path: string;
  readonly depth: number;
}

const problem = (code: string, what: string, more: { readonly field: string; readonly do: string }): UserProblem => ({
  code,
  what,
  where: { field: more.field },
  do: more.do,
});

const inside = (path: string, key: string | number): string => (path === '' ? String(key) : `${path}.${key}`);

/** Lists that may be longer: the levels of an inline terrain. */
const isLevels = (path: string): boolean => path.endsWith('terrain.z');
const isPair = (value: unknown): boolean => Array.isArray(value) && value.length === 2 && typeof value[0] === 'number';

function listProblem(list: readonly unknown[], path: string): UserProblem | null {
  if (isLevels(path)) return null;
  if (list.length > MOST_CORNERS && isPair(list[0])) {
    return problem('line.corners', `${path} has ${list.length} corners; the limit is ${MOST_CORNERS}`, {
      field: path,
      do: 'Draw it with fewer corners: a corner every few metres is enough.',
    });
  }
  return list.length <= MOST_ITEMS
    ? null
    : problem('json.too-long', `${path || 'the list'} has ${list.length} entries; the limit is ${MOST_ITEMS}`, {
        field: path,
        do: 'Leave some out.',
      });
}

/** The first thing beyond what may come in, found without recursion; null when all is within. */
function beyond(start: unknown): UserProblem | null {
  const open: Place[] = typeof start === 'object' && start !== null ? [{ value: start, path: '', depth: 1 }] : [];
  for (let at = open.pop(); at; at = open.pop()) {
    const { value, path, depth } = at;
    if (depth > MOST_DEEP)
      return problem('json.too-deep', `it is nested more than ${MOST_DEEP} deep`, { field: path, do: 'Open a file that Outlet saved.' });
    const found = Array.isArray(value) ? listProblem(value, path) : null;
    if (found) return found;
    if (Array.isArray(value) && isLevels(path) && (value as readonly unknown[]).every((v) => typeof v !== 'object')) continue;
    for (const [key, inner] of Object.entries(value as Readonly<Record<string, unknown>>)) {
      if (!Array.isArray(value) && (isForbiddenKey(key) || key.length > MOST_TEXT))
        return problem('json.key', `"${key}" cannot be the name of a member`, { field: inside(path, key), do: 'Take this member out.' });
      if (typeof inner === 'string' && inner.length > MOST_TEXT)
        return problem('json.text', `a text of ${inner.length} characters; the limit is ${MOST_TEXT}`, {
          field: inside(path, key),
          do: 'Shorten it.',
        });
      if (typeof inner === 'object' && inner !== null) open.push({ value: inner, path: inside(path, key), depth: depth + 1 });
    }
  }
  return null;
}

/** @throws UserError when parsed JSON is deeper or longer than anything Outlet has, or names a key of the machine's. */
export function requireWithin(json: unknown, file?: string): void {
  const found = beyond(json);
  if (found) throw new UserError([{ ...found, where: { ...(file === undefined ? {} : { file }), ...found.where } }]);
}
