import { type KeyboardEvent, type PointerEvent, useRef, type ReactNode } from 'react';
import styled from 'styled-components';
import { simplify } from '#core/geometry';
import { formatQuantity } from '#core/units';
import { useApp } from '../app/store.ts';
import { FONT } from '../app/theme.ts';

const Strip = styled.section`
  border-top: 1px solid var(--ink);
  padding: 10px 16px 0;
  height: 142px;
  display: flex;
  flex-direction: column;
  header {
    display: flex;
    justify-content: space-between;
    align-items: start;
    font-size: 13px;
    font-weight: 700;
    color: var(--muted);
  }
  svg {
    flex: 1;
    min-height: 0;
    width: 100%;
    touch-action: none;
  }
  text {
    font: 500 12px ${FONT.figures};
    fill: var(--ink);
  }
  @media (max-width: 700px) {
    height: 160px;
  }
`;
const [W, H] = [1000, 110];

/** Share of the length that a key moves the place pointed at. */
const KEY_STEPS: Readonly<Record<string, number>> = { ArrowRight: 0.01, ArrowLeft: -0.01, PageUp: 0.1, PageDown: -0.1, End: 1, Home: -1 };

/** Pieces of a profile that are nearly straight, with their slope: where it steepens and where it rests. */
export function slopePieces(points: readonly SectionPoint[], most = 5): { fromM: number; toM: number; slope: number }[] {
  const levels = points.map((p) => p.levelM);
  const relief = Math.max(...levels) - Math.min(...levels);
  const line = points.map((p): [number, number] => [p.atM, p.levelM]);
  for (let share = 0.04; share < 1; share *= 1.6) {
    const kept = simplify(line, Math.max(0.02, share * relief));
    if (kept.length - 1 > most) continue;
    return kept.slice(1).map(([toM, z], k) => ({ fromM: kept[k][0], toM, slope: (kept[k][1] - z) / Math.max(1e-9, toM - kept[k][0]) }));
  }
  return [];
}

export interface SectionPoint {
  readonly atM: number;
  readonly levelM: number;
}

/** Ground along a line, drawn to scale within its strip, with levels at both ends and the place pointed at. */
export function SectionStrip(props: {
  readonly title: string;
  readonly points: readonly SectionPoint[];
  readonly endText?: string;
  readonly action?: ReactNode;
  /** Place pointed at, as a distance along. */
  readonly markM?: number | null;
  readonly onPoint?: (atM: number | null) => void;
}): ReactNode {
  const { title, points, endText, action, markM, onPoint } = props;
  const system = useApp((s) => s.system);
  const svg = useRef<SVGSVGElement>(null);
  if (points.length < 2) return null;
  const length = points[points.length - 1].atM;
  const levels = points.map((p) => p.levelM);
  const [low, high] = [Math.min(...levels), Math.max(...levels)];
  const x = (m: number): number => 60 + (m / Math.max(1e-9, length)) * (W - 170);
  const y = (z: number): number => 18 + ((high - z) / Math.max(0.5, high - low)) * (H - 44);
  const line = points.map((p) => `${x(p.atM).toFixed(1)},${y(p.levelM).toFixed(1)}`).join('L');
  const last = points[points.length - 1];
  const bare = (z: number): string => formatQuantity(z, 'level', system).replace(/\s.*/, '');
  const point = (e: PointerEvent): void => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix || !onPoint) return;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    onPoint(Math.min(length, Math.max(0, ((at.x - 60) / (W - 170)) * length)));
  };
  const marked =
    markM === null || markM === undefined ? null : points.reduce((a, p) => (Math.abs(p.atM - markM) < Math.abs(a.atM - markM) ? p : a));
  const words = (p: SectionPoint): string => `${formatQuantity(p.levelM, 'level', system)} at ${formatQuantity(p.atM, 'distance', system)}`;
  return (
    <Strip aria-label="Long section">
      <header>
        <span>{title}</span>
        {action}
      </header>
      <svg
        ref={svg}
        viewBox={`0 0 ${W} ${H}`}
        aria-label={title}
        preserveAspectRatio="xMidYMid meet"
        {...(onPoint
          ? {
              // The place pointed at can be moved by keys as well.
              role: 'slider',
              tabIndex: 0,
              'aria-valuemin': 0,
              'aria-valuemax': Math.round(length),
              'aria-valuenow': Math.round(marked?.atM ?? 0),
              'aria-valuetext': words(marked ?? points[0]),
              onKeyDown: (e: KeyboardEvent) => {
                const step = KEY_STEPS[e.key];
                if (step === undefined) return;
                e.preventDefault();
                onPoint(Math.min(length, Math.max(0, (marked?.atM ?? 0) + step * length)));
              },
            }
          : { role: 'img' })}
        onPointerMove={point}
        onPointerLeave={() => onPoint?.(null)}
      >
        <path d={`M${line}L${x(length)},${H - 10}L${x(0)},${H - 10}Z`} fill="var(--earth)" />
        <path d={`M${line}`} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
        <circle cx={x(0)} cy={y(points[0].levelM)} r={4} fill="var(--water)" />
        <circle cx={x(length)} cy={y(last.levelM)} r={4} fill="var(--deepWater)" />
        <text x={x(0) - 8} y={y(high) + 4} textAnchor="end">
          {bare(high)}
        </text>
        <text x={x(0) - 8} y={y(low) + 4} textAnchor="end">
          {bare(low)}
        </text>
        {endText !== undefined && (
          <text x={x(length) + 10} y={y(last.levelM) + 4}>
            {endText}
          </text>
        )}
        {marked ? (
          <g data-testid="section-mark">
            <line x1={x(marked.atM)} x2={x(marked.atM)} y1={8} y2={H - 10} stroke="var(--ink)" strokeWidth={1} strokeDasharray="3 3" />
            <circle cx={x(marked.atM)} cy={y(marked.levelM)} r={4.5} fill="var(--straw)" stroke="var(--ink)" strokeWidth={1.5} />
            <text x={x(marked.atM) + (marked.atM > length / 2 ? -8 : 8)} y={16} textAnchor={marked.atM > length / 2 ? 'end' : 'start'}>
              {words(marked)}
            </text>
          </g>
        ) : (
          slopePieces(points).map((piece) => (
            <g key={piece.fromM}>
              {piece.fromM > 0 && (
                <line x1={x(piece.fromM)} x2={x(piece.fromM)} y1={H - 26} y2={H - 10} stroke="var(--ink)" strokeWidth={0.8} />
              )}
              {(piece.toM - piece.fromM) / length > 0.08 && (
                <text x={x((piece.fromM + piece.toM) / 2)} y={H - 15} textAnchor="middle">
                  {formatQuantity(piece.slope, 'slope', system)}
                </text>
              )}
            </g>
          ))
        )}
      </svg>
    </Strip>
  );
}
