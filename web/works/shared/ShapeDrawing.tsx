import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { SectionRole, SectionShape } from '#core/contract';
import { formatNumber, formatQuantity } from '#core/units';
import { useApp } from '../../app/store.ts';
import { FONT } from '../../app/theme.ts';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  margin-top: 12px;
  text {
    font: 500 11.5px ${FONT.figures};
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
  }
`;

const WIDTH = 300;
const MOST_HEIGHT = 190;
const [TOP, BOTTOM] = [18, 12];
/** Room for a letter of the names of levels, and for the least of them. */
const [LETTER, LEAST_RIGHT] = [7.1, 96];
/** Heights are drawn at most so many times their true size beside widths: a section of a long wall stays legible. */
const [MOST_STRETCH, MOST_STRETCH_LONG] = [3, 12];

const FILL: Readonly<Record<SectionRole, string>> = {
  ground: 'none',
  cut: 'none',
  earth: 'var(--moss)',
  road: 'var(--earth)',
  key: 'var(--earth)',
  water: 'none',
  full: 'none',
  stone: 'var(--straw)',
  pipe: 'var(--paper)',
};
const STROKE: Readonly<Record<SectionRole, string>> = {
  ground: 'var(--ink)',
  cut: 'var(--ink)',
  earth: 'var(--ink)',
  road: 'var(--ink)',
  key: 'var(--ink)',
  water: 'var(--water)',
  full: 'var(--water)',
  stone: 'var(--ink)',
  pipe: 'var(--ink)',
};

/** Drawn as a line alone a pipe is told from the ground beside it, and water from both. */
const isBold = ({ role, isArea }: SectionShape['parts'][number]): boolean => role === 'water' || (role === 'pipe' && isArea !== true);

/** A work's section to scale, with the levels that decide. */
export function ShapeDrawing({ shape }: { readonly shape: SectionShape }): ReactNode {
  const system = useApp((s) => s.system);
  const points = shape.parts.flatMap((p) => p.points);
  const levels = shape.levels.map((l) => l.levelM);
  if (points.length === 0) return null;
  const [x0, x1] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))];
  const [y0, y1] = [Math.min(...points.map((p) => p[1]), ...levels), Math.max(...points.map((p) => p[1]), ...levels)];
  const text = ({ name, levelM }: { readonly name: string; readonly levelM: number }): string =>
    `${name} ${formatNumber(levelM, 'level', system)}`;
  const right = Math.max(LEAST_RIGHT, 8 + LETTER * Math.max(0, ...shape.levels.map((l) => text(l).length)));
  const perX = (WIDTH - right) / Math.max(0.1, x1 - x0);
  const fits = (MOST_HEIGHT - TOP - BOTTOM) / Math.max(0.1, y1 - y0);
  const wanted = 90 / Math.max(0.1, y1 - y0);
  const perY = Math.min(
    fits,
    Math.max(perX, Math.min((shape.isLong ? MOST_STRETCH_LONG : MOST_STRETCH) * perX, shape.isLong ? fits : wanted)),
  );
  const height = TOP + BOTTOM + perY * (y1 - y0);
  const at = ([x, y]: readonly [number, number]): string => `${(perX * (x - x0)).toFixed(1)},${(TOP + perY * (y1 - y)).toFixed(1)}`;
  const stretch = perY / perX;
  const words = `${shape.title}: ${shape.levels.map((l) => `${l.name} ${formatQuantity(l.levelM, 'level', system)}`).join(', ')}.`;
  // Names of levels keep apart from each other.
  const sorted = [...shape.levels].sort((a, b) => b.levelM - a.levelM);
  const placed = sorted.reduce<{ readonly name: string; readonly levelM: number; readonly y: number }[]>((above, l) => {
    const last = above[above.length - 1]?.y ?? -Infinity;
    return [...above, { ...l, y: Math.max(TOP + perY * (y1 - l.levelM) + 4, last + 13) }];
  }, []);
  const lowest = placed[placed.length - 1]?.y ?? 0;
  return (
    <figure style={{ margin: 0 }}>
      <Svg viewBox={`0 0 ${WIDTH} ${Math.max(height, lowest + 6).toFixed(0)}`} role="img" aria-label={words}>
        {shape.parts.map((part, k) => (
          <path
            key={k}
            d={`M${part.points.map(at).join('L')}${part.isArea === true ? 'Z' : ''}`}
            fill={part.isArea === true ? FILL[part.role] : 'none'}
            stroke={part.role === 'pipe' && isBold(part) ? 'var(--deepWater)' : STROKE[part.role]}
            strokeWidth={isBold(part) ? 2.4 : 1.3}
            strokeDasharray={part.role === 'key' ? '4 3' : undefined}
          />
        ))}
        {placed.map((l) => (
          <g key={l.name}>
            <line
              x1={0}
              x2={WIDTH - right}
              y1={TOP + perY * (y1 - l.levelM)}
              y2={TOP + perY * (y1 - l.levelM)}
              stroke="var(--muted)"
              strokeDasharray="1 4"
            />
            <text x={WIDTH - right + 5} y={l.y}>
              {text(l)}
            </text>
          </g>
        ))}
      </Svg>
      <figcaption style={{ fontSize: 13, color: 'var(--muted)' }}>
        {shape.title}
        {stretch > 1.05 ? `, heights ${stretch.toFixed(1)} times` : ', to scale'}
      </figcaption>
    </figure>
  );
}
