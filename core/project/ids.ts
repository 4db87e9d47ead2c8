// Names of things in a document. They become keys of tables and ends of ways of water, so a few words cannot be had.
import type { UserProblem } from './problem.ts';

/** Where water may end that is no work. */
export const ENDS = ['property-edge', 'terrain-edge', 'ground'] as const;
/** Kinds of ground that are no zone: their figures are told under these names. */
const SURFACES = ['roofs', 'pools'];
const MOST_ID = 100;

const hasControl = (text: string): boolean => [...text].some((c) => c < ' ' || c === '\u007f');

/** Whether a key would reach what every object has, instead of a member of its own. */
export const isForbiddenKey = (key: string): boolean => key === '__proto__' || key in Object.prototype;

/** Why a text cannot be an id; null when it can. */
export function idFault(id: unknown): string | null {
  if (typeof id !== 'string') return 'is no text';
  if (id.trim() === '') return 'is empty';
  if (id.length > MOST_ID) return `has ${id.length} characters; the limit is ${MOST_ID}`;
  if (id.includes('#') || hasControl(id)) return 'has a character that an id cannot have';
  if ([...ENDS, ...SURFACES].includes(id)) return 'is a word Outlet uses for where water ends';
  return isForbiddenKey(id) ? 'is a word of the machine' : null;
}

/** Problems of ids that stand twice, by the kind of thing that has them. */
export function twiceProblems(
  list: readonly { readonly id: string }[],
  on: { readonly of: string; readonly code: string; readonly field: string },
): UserProblem[] {
  const seen = new Set<string>();
  return list.flatMap(({ id }, k) => {
    if (!seen.has(id)) {
      seen.add(id);
      return [];
    }
    const problem = {
      code: on.code,
      what: `two ${on.of} have the id "${id}"`,
      where: { field: `${on.field}.${k}.id` },
      do: 'Give each its own id.',
    };
    return [problem];
  });
}

/** The number of the next thing called so: one past the highest that bears one, so that no two are called alike after one is taken away. */
export function nextNumber(called: string, among: readonly { readonly name?: string }[]): number {
  const numbers = among.map(({ name = '' }) => {
    if (name === called) return 1;
    const number = name.startsWith(`${called} `) ? name.slice(called.length + 1) : '';
    return /^[1-9]\d{0,8}$/.test(number) ? Number(number) : 0;
  });
  return Math.max(0, ...numbers) + 1;
}

/** A name for the next thing called so: "Swale 3". */
export const nextName = (called: string, among: readonly { readonly name?: string }[]): string => `${called} ${nextNumber(called, among)}`;
