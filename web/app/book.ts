// Level books of the open project: begun, written line by line, taken out.
import { nextNumber } from '#core/project';
import type { BookFigure, BookLine, LevelBook } from '#core/survey';
import { newId } from './selectors.ts';
import { dispatch, notify, useApp } from './store.ts';

/** The next name of a list that is counted: "A9" goes on as "A10", "gate" as the number of the line. */
export function nextName(lines: readonly BookLine[]): string {
  const last = lines[lines.length - 1]?.name ?? '';
  const [, head, digits] = /^(.*?)(\d+)$/.exec(last) ?? [];
  return digits === undefined ? String(lines.length) : `${head}${Number(digits) + 1}`;
}

/** Begins a book in the open project. Returns its id; null where that was refused. */
export function beginBook(): string | null {
  const books = useApp.getState().history?.project.books ?? [];
  const id = newId('book');
  const book: LevelBook = {
    id,
    name: `Level book ${nextNumber('Level book', books)}`,
    tool: 'level',
    placing: 'xy',
    side: 'right',
    lines: [{ name: 'bench mark' }, { name: '1' }],
  };
  return dispatch({ type: 'book.set', payload: { book } }) ? id : null;
}

/** A book as it is after a change; nothing where it is gone. */
export function changeBook(id: string, how: (book: LevelBook) => LevelBook): boolean {
  const book = useApp.getState().history?.project.books?.find((b) => b.id === id);
  return book !== undefined && dispatch({ type: 'book.set', payload: { book: how(book) } });
}

const withLines = (id: string, how: (lines: readonly BookLine[]) => readonly BookLine[]): boolean =>
  changeBook(id, (book) => ({ ...book, lines: how(book.lines) }));

/** A line without one of its members, or with another value of it. */
function lineWith(line: BookLine, member: BookFigure | 'name' | 'from' | 'note', value: number | string | null): BookLine {
  const isEmpty = value === null || (value === '' && member !== 'name');
  const kept = Object.entries(line).filter(([name]) => name !== member);
  return { name: line.name, ...Object.fromEntries(kept), ...(isEmpty ? {} : { [member]: value }) };
}

export const setInLine = (
  id: string,
  at: number,
  { member, value }: { readonly member: BookFigure | 'name' | 'from' | 'note'; readonly value: number | string | null },
): boolean => withLines(id, (lines) => lines.map((line, k) => (k === at ? lineWith(line, member, value) : line)));

/** A new line, at the end or before another. */
export const addLine = (id: string, before?: number): boolean =>
  withLines(id, (lines) => {
    const at = before ?? lines.length;
    return [...lines.slice(0, at), { name: nextName(lines.slice(0, at)) }, ...lines.slice(at)];
  });

export const removeLine = (id: string, at: number): boolean => withLines(id, (lines) => lines.filter((_, k) => k !== at));

/** Changes a book, or says why it cannot. */
export function changeOrSay(id: string, how: (book: LevelBook) => { readonly book: LevelBook } | { readonly cannot: string }): void {
  const book = useApp.getState().history?.project.books?.find((b) => b.id === id);
  if (!book) return;
  const done = how(book);
  if ('book' in done) dispatch({ type: 'book.set', payload: { book: done.book } });
  else notify({ tone: 'mend', title: done.cannot, problems: [] });
}
