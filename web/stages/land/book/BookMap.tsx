import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { Point } from '#core/geometry';
import type { LevelBook, ReducedBook } from '#core/survey';
import { useFormat } from '../../../app/selectors.ts';
import { FONT } from '../../../app/theme.ts';

const Sketch = styled.svg`
  width: 100%;
  height: 240px;
  display: block;
  background: var(--paperDeep);
  margin: 6px 0;
  .place {
    fill: var(--water);
  }
  .mark {
    fill: none;
    stroke: var(--ink);
  }
  text {
    fill: var(--ink);
    font-family: ${FONT.figures};
  }
`;

/** Size of the sketch in its own measure, and what is left free round the places. */
const [WIDE, HIGH, MARGIN] = [290, 240, 30];
/** More levels than this would lie over each other. */
const MOST_LABELS = 40;

/** Where the readings lie, with their levels: a slip of a tape is seen at a look. */
export function BookMap({ book, places, reduced }: { readonly book: LevelBook; readonly places: readonly (Point | null)[]; readonly reduced: ReducedBook | null }): ReactNode {
  const format = useFormat();
  const marks = book.placing === 'xy' ? [] : (book.baseM ?? []);
  const placed = places.flatMap((at, line) => (at ? [{ at, line }] : []));
  const all = [...placed.map((p) => p.at), ...marks];
  if (placed.length === 0) return null;
  const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
  const [west, south] = [Math.min(...xs), Math.min(...ys)];
  const scale = Math.min((WIDE - 2 * MARGIN) / Math.max(0.1, Math.max(...xs) - west), (HIGH - 2 * MARGIN) / Math.max(0.1, Math.max(...ys) - south));
  const across = (x: number): number => MARGIN + (x - west) * scale;
  const down = (y: number): number => HIGH - MARGIN - (y - south) * scale;
  const isLabelled = placed.length <= MOST_LABELS;
  return (
    <Sketch viewBox={`0 0 ${WIDE} ${HIGH}`} role="img" aria-label={`${placed.length} places, as they lie`}>
      {placed.map(({ at: [x, y], line }) => (
        <g key={line}>
          <circle className="place" cx={across(x)} cy={down(y)} r={2.5} />
          {isLabelled && reduced && line < reduced.levelsM.length && (
            <text x={across(x)} y={down(y) - 5} fontSize={9} textAnchor="middle">
              {format(reduced.levelsM[line], 'level').replace(/\s.*$/, '')}
            </text>
          )}
        </g>
      ))}
      {marks.map(([x, y], k) => (
        <g key={k}>
          <rect className="mark" x={across(x) - 4} y={down(y) - 4} width={8} height={8} />
          <text x={across(x) + 7} y={down(y) + 4} fontSize={12}>
            {'AB'[k]}
          </text>
        </g>
      ))}
    </Sketch>
  );
} // prettier-ignore
