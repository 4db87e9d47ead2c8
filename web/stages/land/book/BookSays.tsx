import type { ReactNode } from 'react';
import {
  LOOK_FOR_IT,
  type Closing,
  type LevelBook,
  type LookedThrough,
  type ReducedBook,
  offSaid,
  refusedClosings,
  setUpsSaid,
} from '#core/survey';
import { useFormat } from '../../../app/selectors.ts';
import { Muted, SeverityMark } from '../../../kit/index.ts';

/** How far the book is off where that is most of what it may be. */
const worstOf = (closings: readonly Closing[]): Closing | undefined =>
  [...closings].sort((a, b) => Math.abs(b.offM) / b.allowedM - Math.abs(a.offM) / a.allowedM)[0];

/** Levels in a sentence. */
function levelsSaid({ levelsM, knownToM }: ReducedBook, format: ReturnType<typeof useFormat>): string {
  const [low, high] = [Math.min(...levelsM), Math.max(...levelsM)];
  const count = `${levelsM.length} level${levelsM.length === 1 ? '' : 's'}`;
  return `${count}, from ${format(low, 'level')} to ${format(high, 'level')}, known to ${format(Math.max(...knownToM), 'difference')} at worst.`;
}

/** The answer of the book: whether it closes, what its levels are, or the first thing that keeps it from being reduced. */
export function BookSays({ book, found }: { readonly book: LevelBook; readonly found: LookedThrough }): ReactNode {
  const format = useFormat();
  const { problems, reduced } = found;
  const called = (line: number): string => `Line ${line + 1}${book.lines[line]?.name ? `, ${book.lines[line].name}` : ''}`;
  const said = ((): { readonly severity: 'mend' | 'weigh' | 'fine' | 'unknown'; readonly says: string; readonly then: string } => {
    if (problems.length > 0) {
      const [{ line, what, do: then }] = problems;
      const more = problems.length > 1 ? ` ${problems.length - 1} more after it.` : '';
      return { severity: 'unknown', says: `${called(line)}: ${what}.${more}`, then };
    }
    if (!reduced || reduced.levelsM.length < 2)
      return { severity: 'unknown', says: 'Nothing is read yet.', then: 'Begin with a known level, or 100.000 for a peg of your own, and the reading on it.' };
    const [refused] = refusedClosings(reduced.closings);
    if (refused) return { severity: 'mend', says: `${called(refused.line)}: ${offSaid(refused, (m) => format(m, 'difference'))}.`, then: LOOK_FOR_IT };
    const worst = worstOf(reduced.closings);
    return worst
      ? {
          severity: 'fine',
          says: `It closes ${format(Math.abs(worst.offM), 'difference')} off, of ${format(worst.allowedM, 'difference')} allowed.`,
          then: `Spread over ${setUpsSaid(worst.setUps)}: ${levelsSaid(reduced, format)}`,
        }
      : {
          severity: 'weigh',
          says: levelsSaid(reduced, format),
          then: 'Nothing shows yet whether a reading is wrong: end on a known level, if only the first.',
        };
  })();
  return (
    <div role="status" style={{ margin: '10px 0' }}>
      <p style={{ fontSize: 19, fontWeight: 600, margin: 0 }}>
        <SeverityMark severity={said.severity} /> {said.says}
      </p>
      <Muted>{said.then}</Muted>
    </div>
  );
} // prettier-ignore
