import { Plus, X } from 'lucide-react';
import { memo, useCallback, type KeyboardEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import type { BookLine, LevelBook, LookedThrough } from '#core/survey';
import { displayUnit } from '#core/units';
import { addLine, removeLine, setInLine } from '../../../app/book.ts';
import { useFormat } from '../../../app/selectors.ts';
import { useApp } from '../../../app/store.ts';
import { FONT } from '../../../app/theme.ts';
import { Button, Inline, Muted, Quantity } from '../../../kit/index.ts';
import { type Column, PLACE_COLUMNS, READ_COLUMNS } from './words.ts';

const Scroll = styled.div`
  overflow-x: auto;
`;
const Grid = styled.table`
  border-collapse: collapse;
  font-size: 14.5px;
  width: 100%;
  th.note {
    text-align: left;
  }
  th {
    color: var(--muted);
    font-weight: 400;
    text-align: right;
    padding: 4px 5px;
    border-bottom: 1px solid var(--ink);
    vertical-align: bottom;
    white-space: nowrap;
  }
  th:first-child,
  td:first-child {
    text-align: left;
    position: sticky;
    left: 0;
    background: var(--paper);
  }
  td {
    padding: 0 5px;
    border-bottom: 1px solid var(--line);
    text-align: right;
    white-space: nowrap;
  }
  td > div {
    justify-content: end;
    border: 0;
  }
  td span span {
    display: none;
  }
  input {
    width: 3.9em;
  }
  .wide input {
    width: 4.6em;
  }
  .by-hand button {
    padding: 4px 3px;
  }
  .told {
    font-family: ${FONT.figures};
  }
  .level {
    font-weight: 700;
  }
  tr[data-wrong] td {
    background: color-mix(in srgb, var(--alarm) 12%, transparent);
  }
  tr[data-wrong] td:first-child {
    background: color-mix(in srgb, var(--alarm) 12%, var(--paper));
  }
  @media (max-width: 700px) {
    input {
      min-height: 44px;
    }
  }
  @media print {
    .by-hand {
      display: none;
    }
  }
`;
const Words = styled.input`
  border: 0;
  border-bottom: 1px solid var(--line);
  background: transparent;
  color: var(--ink);
  font: inherit;
  min-height: 32px;
  &.name {
    width: 5.6em;
  }
  &.from {
    width: 5em;
  }
  &.note {
    width: 5.4em;
  }
  &:focus-visible {
    outline: 2px solid var(--water);
    outline-offset: 1px;
  }
`;

/** What is worked out of a line, in the words of the page. */
interface Told {
  readonly rise: string;
  readonly sight: string;
  readonly level: string;
  readonly near: string;
}

const NOTHING_TOLD: Told = { rise: '', sight: '', level: '', near: '' };

interface LineProps {
  readonly book: string;
  readonly line: BookLine;
  readonly at: number;
  readonly reads: readonly Column[];
  readonly places: readonly Column[];
  readonly hasFrom: boolean;
  readonly hasSight: boolean;
  readonly told: Told;
  readonly isWrong: boolean;
}

/** One line; it is drawn again only where it changes: a book has many. */
const Line = memo(
  function Line({ book, line, at, reads, places, hasFrom, hasSight, told, isWrong }: LineProps): ReactNode {
    const called = `line ${at + 1}`;
    const words = (member: 'name' | 'from' | 'note', label: string): ReactNode => (
      <Words
        key={`${member}${line[member] ?? ''}`}
        className={member}
        aria-label={`${label}, ${called}`}
        defaultValue={line[member] ?? ''}
        onBlur={(e) => {
          const value = e.target.value.trim();
          if (value !== (line[member] ?? '')) setInLine(book, at, { member, value });
        }}
      />
    );
    const figures = ({ figure, head, kind }: Column): ReactNode => (
      <td key={figure} className={figure === 'knownM' ? 'wide' : ''}>
        <Quantity
          isLabelHidden
          label={`${head}, ${called}`}
          kind={kind}
          value={line[figure] ?? null}
          onChange={(value) => setInLine(book, at, { member: figure, value })}
          onClear={() => setInLine(book, at, { member: figure, value: null })}
        />
      </td>
    );
    return (
      <tr data-wrong={isWrong || undefined}>
        <td>{words('name', 'Place')}</td>
        {hasFrom && <td>{words('from', 'From')}</td>}
        {reads.map(figures)}
        <td className="told">{told.rise}</td>
        {hasSight && <td className="told">{told.sight}</td>}
        <td className="told level">{told.level}</td>
        <td className="told">{told.near}</td>
        {places.map(figures)}
        <td>{words('note', 'Note')}</td>
        <td className="by-hand">
          <Button look="quiet" aria-label={`Insert before ${called}`} onPress={() => addLine(book, at)}>
            <Plus size={14} aria-hidden />
          </Button>
          <Button look="quiet" aria-label={`Remove ${called}`} onPress={() => removeLine(book, at)}>
            <X size={14} aria-hidden />
          </Button>
        </td>
      </tr>
    );
  },
  (a, b) =>
    a.line === b.line && a.at === b.at && a.reads === b.reads && a.places === b.places && a.isWrong === b.isWrong && JSON.stringify(a.told) === JSON.stringify(b.told) && a.book === b.book,
); // prettier-ignore

/** Enter goes down its column, and adds a line below the last. */
function downOn(id: string): (e: KeyboardEvent<HTMLTableElement>) => void {
  return (e) => {
    const { target } = e;
    if (e.key !== 'Enter' || !(target instanceof HTMLInputElement)) return;
    const cell = target.closest('td');
    const row = target.closest('tr');
    const body = row?.parentElement;
    if (!cell || !row || !body) return;
    const [at, column] = [[...body.children].indexOf(row), [...row.children].indexOf(cell)];
    if (at === body.children.length - 1 && !addLine(id)) return;
    // Once what was typed is kept, and the new line is there.
    setTimeout(() => body.children[at + 1]?.children[column]?.querySelector('input')?.focus(), 0);
  };
}

/** The book as it is booked, and what each line comes to. */
export function BookTable({ book, found }: { readonly book: LevelBook; readonly found: LookedThrough }): ReactNode {
  const { id, tool, placing, lines } = book;
  const system = useApp((s) => s.system);
  const format = useFormat();
  const [reads, places] = [READ_COLUMNS[tool], PLACE_COLUMNS[placing]];
  const [hasFrom, hasSight] = [tool !== 'level', tool === 'level'];
  const { reduced, problems } = found;
  const wrong = new Set(problems.map((p) => p.line));
  const bare = (value: number | null | undefined, kind: Column['kind']): string => (typeof value === 'number' ? format(value, kind).replace(/\s.*$/, '') : '');
  const toldOf = (at: number): Told =>
    reduced === null || at >= reduced.levelsM.length
      ? NOTHING_TOLD
      : {
          rise: bare(reduced.risesM[at], 'reading'),
          sight: bare(reduced.collimationM[at], 'reading'),
          level: bare(reduced.levelsM[at], 'reading'),
          near: bare(reduced.knownToM[at], 'difference'),
        };
  const unit = (kind: Column['kind']): string => displayUnit(kind, system).unit;
  const heads = [
    ...reads.map(({ head, kind }) => [head, unit(kind)] as const),
    ['rise, fall', unit('reading')] as const,
    ...(hasSight ? [['sight', unit('reading')] as const] : []),
    ['level', unit('reading')] as const,
    ['known to', unit('difference')] as const,
    ...places.map(({ head, kind }) => [head, unit(kind)] as const),
  ];
  const onKey = useCallback((e: KeyboardEvent<HTMLTableElement>) => downOn(id)(e), [id]);
  return (
    <>
    <Scroll tabIndex={0} role="region" aria-label="Lines of the book">
      <Grid aria-label={book.name} onKeyDownCapture={onKey}>
        <thead>
          <tr>
            <th scope="col">place</th>
            {hasFrom && <th scope="col">from</th>}
            {heads.map(([head, of]) => (
              <th key={head} scope="col">
                {head}
                <br />
                {of}
              </th>
            ))}
            <th scope="col" className="note">
              note
            </th>
            <th className="by-hand" />
          </tr>
        </thead>
        <tbody>
          {lines.map((line, at) => (
            <Line key={at} {...{ book: id, line, at, reads, places, hasFrom, hasSight, told: toldOf(at), isWrong: wrong.has(at) }} />
          ))}
        </tbody>
      </Grid>
    </Scroll>
    <Inline className="by-hand" style={{ marginTop: 10 }}>
      <Button onPress={() => addLine(id)}>
        <Plus size={15} aria-hidden />
        Add a line
      </Button>
      <Muted>Enter goes down a column, and adds a line below the last.</Muted>
    </Inline>
    </>
  );
} // prettier-ignore
