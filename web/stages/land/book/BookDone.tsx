import { Download, Printer, Trash2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { levelBookCsv, readBook } from '#core/formats';
import { UserError, type UserProblem } from '#core/project';
import { type LevelBook, type LookedThrough, bookedLines, placesOf, refusedClosings } from '#core/survey';
import { changeBook } from '../../../app/book.ts';
import { download, fileName } from '../../../app/export.ts';
import { bringIn } from '../../../app/import.ts';
import { useProject } from '../../../app/selectors.ts';
import { dispatch } from '../../../app/store.ts';
import { Button, FoldPart, Inline, Muted, Problems } from '../../../kit/index.ts';
import { Paste } from '../../../kit/paste.tsx';

/** Fewest places that make a surface. */
const LEAST_PLACES = 3;

const csvOf = (book: LevelBook): string => levelBookCsv({ ...book, lines: bookedLines(book.lines) });

/** A book pasted as a table, in place of the lines there are. */
export function PastePart({ book }: { readonly book: LevelBook }): ReactNode {
  const [text, setText] = useState('');
  const [problems, setProblems] = useState<readonly UserProblem[]>([]);
  const take = (): void => {
    try {
      const { tool, lines } = readBook({ name: 'what was pasted', bytes: new TextEncoder().encode(text) });
      setProblems([]);
      if (changeBook(book.id, (now) => ({ ...now, tool, placing: 'xy', lines }))) setText('');
    } catch (error) {
      if (!(error instanceof UserError)) throw error;
      setProblems(error.problems);
    }
  };
  return (
    <FoldPart title="Paste a book from a table">
      <Paste
        label="Its first line names the columns"
        value={text}
        onChange={setText}
        placeholder={'name,x,y,bs,is,fs,level\nsill,,,1.425,,,100\n1,0,0,,1.610,,'}
      />
      {problems.length > 0 && <Problems title="Not taken" problems={problems} />}
      <Inline>
        <Button isDisabled={text.trim() === ''} onPress={take}>
          Put them in place of these lines
        </Button>
      </Inline>
    </FoldPart>
  );
}

/** What is done with the book: ground, paper, a file. */
export function BookDone({ book, found }: { readonly book: LevelBook; readonly found: LookedThrough }): ReactNode {
  const { terrain, site } = useProject();
  const navigate = useNavigate();
  const project = useProject().id;
  const { reduced, isWhole } = found;
  const placed = isWhole ? placesOf({ ...book, lines: bookedLines(book.lines) }).filter((at) => at !== null).length : 0;
  const isSound = isWhole && reduced !== null && refusedClosings(reduced.closings).length === 0;
  const isReady = isSound && placed >= LEAST_PLACES;
  const makeGround = async (): Promise<void> => {
    const file = new File([csvOf(book)], `${book.name.trim() || 'Level book'}.csv`);
    if (await bringIn(file, { crs: site.crs })) void navigate(`/p/${project}/land`);
  };
  return (
      <div className="by-hand">
        <Inline>
          <Button look="strong" isDisabled={!isReady} onPress={() => void makeGround()}>
            Make ground of it
          </Button>
          <Button isDisabled={!isSound} onPress={() => download(`${fileName(book.name)}.csv`, new Blob([csvOf(book)], { type: 'text/csv' }))}>
            <Download size={16} aria-hidden />
            Save as CSV
          </Button>
          <Button onPress={() => window.print()}>
            <Printer size={16} aria-hidden />
            Print
          </Button>
        </Inline>
        <Muted>
          {isSound && placed < LEAST_PLACES ? `${placed} of its lines have a place: at least three, not in one line, make ground. ` : ''}
          {terrain ? 'There is ground already: you are asked what becomes of it. The book stays as it is.' : 'The book stays as it is booked.'}
        </Muted>
      </div>
  );
} // prettier-ignore

/** Takes the book out: undo brings it back. */
export function RemoveBook({ id }: { readonly id: string }): ReactNode {
  const project = useProject().id;
  const navigate = useNavigate();
  const remove = (): void => {
    if (dispatch({ type: 'book.remove', payload: { id } })) void navigate(`/p/${project}/land`);
  };
  return (
    <Inline style={{ marginTop: 16 }}>
      <Button look="quiet" onPress={remove}>
        <Trash2 size={15} aria-hidden />
        Take this book out
      </Button>
    </Inline>
  );
}
