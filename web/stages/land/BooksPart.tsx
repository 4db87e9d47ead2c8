import { BookOpen } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { beginBook } from '../../app/book.ts';
import { useProject } from '../../app/selectors.ts';
import { Button, Inline, Muted, Part, Row } from '../../kit/index.ts';

/** Level books of the project, and a new one. */
export function BooksPart(): ReactNode {
  const { id, books = [] } = useProject();
  const navigate = useNavigate();
  const begin = (): void => {
    const book = beginBook();
    if (book !== null) void navigate(`/p/${id}/book/${book}`);
  };
  return (
    <Part title="Levelled by hand">
      {books.map((book) => (
        <Row key={book.id}>
          <Link to={`/p/${id}/book/${book.id}`}>{book.name}</Link>
          <span>
            {book.lines.length} line{book.lines.length === 1 ? '' : 's'}
          </span>
        </Row>
      ))}
      <Muted>Readings of a level, a water tube or an A-frame, as they are booked: reduced, closed, and made ground.</Muted>
      <Inline>
        <Button onPress={begin}>
          <BookOpen size={16} aria-hidden />
          Begin a level book
        </Button>
      </Inline>
    </Part>
  );
}
