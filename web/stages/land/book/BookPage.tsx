import { useMemo, type ReactNode } from 'react';
import { Link, Navigate } from 'react-router';
import styled from 'styled-components';
import { lookThrough, placeProblems, placesOf } from '#core/survey';
import { changeBook } from '../../../app/book.ts';
import { Notes } from '../../../app/Notes.tsx';
import { useProject } from '../../../app/selectors.ts';
import { FONT } from '../../../app/theme.ts';
import { BookDone, PastePart, RemoveBook } from './BookDone.tsx';
import { BookHow } from './BookHow.tsx';
import { BookMap } from './BookMap.tsx';
import { BookSays } from './BookSays.tsx';
import { BookTable } from './BookTable.tsx';
import { PLACING_WORDS, TOOL_WORDS } from './words.ts';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 304px;
  min-height: 0;
  height: 100%;
  @media (max-width: 700px) {
    display: block;
    height: auto;
  }
  @media print {
    display: block;
    height: auto;
  }
`;
const Book = styled.main`
  overflow-y: auto;
  padding: 14px 22px 60px;
  @media print {
    overflow: visible;
    .by-hand {
      display: none;
    }
  }
`;
const How = styled.aside`
  border-left: 1px solid var(--line);
  overflow-y: auto;
  padding: 14px 18px 40px;
  @media (max-width: 700px) {
    border: 0;
  }
  @media print {
    display: none;
  }
`;
const Name = styled.input`
  font: 700 26px ${FONT.heading};
  border: 0;
  border-bottom: 1px solid var(--line);
  background: transparent;
  color: var(--ink);
  width: 100%;
  padding: 2px 0;
`;

/** A level book: typed as it is booked, reduced line by line, held against known levels, made ground. */
export function BookPage({ id }: { readonly id: string }): ReactNode {
  const project = useProject();
  const book = project.books?.find((b) => b.id === id);
  const found = useMemo(() => (book ? lookThrough(book) : null), [book]);
  const places = useMemo(() => (book && placeProblems(book).length === 0 ? placesOf(book) : []), [book]);
  if (!book || !found) return <Navigate to={`/p/${project.id}/land`} replace />;
  return (
    <Body>
      <Book>
        <Link to={`/p/${project.id}/land`}>← Land</Link>
        <Name
          key={book.name}
          aria-label="Name of the book"
          defaultValue={book.name}
          onBlur={(e) => {
            const name = e.target.value.trim();
            if (name !== '' && name !== book.name) changeBook(id, (now) => ({ ...now, name }));
          }}
        />
        <p style={{ margin: '4px 0', color: 'var(--muted)' }}>
          {project.name}: read with {TOOL_WORDS[book.tool]}, places by {PLACING_WORDS[book.placing]}
        </p>
        <Notes />
        <BookSays book={book} found={found} />
        <BookDone book={book} found={found} />
        <BookTable book={book} found={found} />
      </Book>
      <How aria-label="How the book is read">
        <BookMap book={book} places={places} reduced={found.reduced} />
        <BookHow book={book} />
        <PastePart book={book} />
        <RemoveBook id={id} />
      </How>
    </Body>
  );
}
