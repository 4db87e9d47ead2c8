import { useState, type ReactNode } from 'react';
import type { Point } from '#core/geometry';
import { BOOK_TOOLS, PLACINGS, type LevelBook, gridPlaces, placedAs } from '#core/survey';
import { changeBook, changeOrSay } from '../../../app/book.ts';
import { Button, ChooseRow, FoldPart, Inline, Muted, Part, Quantity } from '../../../kit/index.ts';
import { Toggle } from '../../../kit/toggle.tsx';
import { PLACING_WORDS, TOOL_HELP, TOOL_WORDS } from './words.ts';

/** Marks A and B that tapes and angles go out from. */
function MarksPart({ book }: { readonly book: LevelBook }): ReactNode {
  const { id, baseM } = book;
  const [typed, setTyped] = useState<readonly (number | null)[]>([null, null, null, null]);
  const values = baseM ? baseM.flat() : typed;
  const set = (at: number, value: number): void => {
    const next = values.map((v, k) => (k === at ? value : v));
    setTyped(next);
    const [ax, ay, bx, by] = next;
    if (ax === null || ay === null || bx === null || by === null) return;
    const marks: readonly [Point, Point] = [[ax, ay], [bx, by]]; // prettier-ignore
    changeBook(id, (now) => ({ ...now, baseM: marks }));
  };
  return (
    <>
      {['A, x', 'A, y', 'B, x', 'B, y'].map((label, k) => (
        <Quantity key={label} label={`Mark ${label}`} kind="length" value={values[k]} onChange={(v) => set(k, v)} />
      ))}
      <Muted>
        {book.placing === 'distances'
          ? 'With nothing else to go by: A at 0, 0, and B at 0 and the distance between them.'
          : 'Left empty, A is at 0, 0 and the line runs along x.'}
      </Muted>
    </>
  );
}

/** Places for readings taken on a grid: laid over the lines that have none. */
function GridPart({ book }: { readonly book: LevelBook }): ReactNode {
  const [spacingM, setSpacing] = useState<number | null>(null);
  const [perRow, setPerRow] = useState<number | null>(null);
  const [rows, setRows] = useState<number | null>(null);
  const [isToAndFro, setToAndFro] = useState(true);
  const isReady = spacingM !== null && perRow !== null && rows !== null;
  const lay = (): void => {
    if (!isReady) return;
    const places = gridPlaces(perRow * rows, { spacingM, perRow, isToAndFro });
    changeBook(book.id, (now) => {
      // Lines on which nothing stands yet but a name give way; the first is where it begins.
      const kept = now.lines.filter((line, k) => k === 0 || Object.keys(line).length > 1);
      const letters = (at: Point): string =>
        `${String.fromCharCode(65 + (Math.round(at[1] / spacingM) % 26))}${Math.round(at[0] / spacingM) + 1}`;
      return { ...now, placing: 'xy', lines: [...kept, ...places.map((at) => ({ name: letters(at), p: at[0], q: at[1] }))] };
    });
  };
  return (
    <FoldPart title="Readings on a grid">
      <Muted>Lays out lines to be read, row by row from a corner: A1, A2, … then row B.</Muted>
      <Quantity label="Apart" kind="length" min={0.1} max={500} value={spacingM} onChange={setSpacing} />
      <Quantity label="In a row" kind="count" min={1} max={100} value={perRow} onChange={(v) => setPerRow(Math.round(v))} />
      <Quantity label="Rows" kind="count" min={1} max={26} value={rows} onChange={(v) => setRows(Math.round(v))} />
      <Toggle label="Walked to and fro" isOn={isToAndFro} onChange={setToAndFro} />
      <Inline>
        <Button isDisabled={!isReady || book.placing !== 'xy'} onPress={lay}>
          Lay out the lines
        </Button>
      </Inline>
      {book.placing !== 'xy' && <Muted>A grid is told by x and y: choose that above.</Muted>}
    </FoldPart>
  );
}

/** What the book is read with, and how places are told. */
export function BookHow({ book }: { readonly book: LevelBook }): ReactNode {
  const { id, tool, placing, side } = book;
  return (
    <>
      <Part title="How it is read">
        <ChooseRow
          label="Read with"
          value={tool}
          choices={BOOK_TOOLS.map((one) => ({ id: one, name: TOOL_WORDS[one] }))}
          onChange={(one) => changeBook(id, (now) => ({ ...now, tool: one }))}
        />
        <Muted>{TOOL_HELP[tool]}</Muted>
        <ChooseRow
          label="Places by"
          value={placing}
          choices={PLACINGS.map((one) => ({ id: one, name: PLACING_WORDS[one] }))}
          onChange={(one) => changeOrSay(id, (now) => placedAs(now, one))}
        />
        {placing === 'distances' && (
          <ChooseRow
            label="Seen from A to B they lie"
            value={side}
            choices={[
              { id: 'left', name: 'to the left' },
              { id: 'right', name: 'to the right' },
            ]}
            onChange={(one) => changeBook(id, (now) => ({ ...now, side: one }))}
          />
        )}
        {placing !== 'xy' && <MarksPart book={book} />}
        <Muted>A line without a place, such as a change point or a mark on a wall, carries levels on and is no ground.</Muted>
      </Part>
      <GridPart book={book} />
    </>
  );
} // prettier-ignore
