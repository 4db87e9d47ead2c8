import type { ReactNode } from 'react';
import styled from 'styled-components';
import { formatQuantity } from '#core/units';
import { useApp } from '../../app/store.ts';
import { useChain, useDerived, useWorks } from '../../app/selectors.ts';
import { FONT } from '../../app/theme.ts';

const Strip = styled.section`
  border-top: 1px solid var(--ink);
  padding: 10px 16px 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  p {
    font-size: 13px;
    font-weight: 700;
    color: var(--muted);
  }
  svg {
    flex: 1;
    min-height: 0;
    width: 100%;
  }
  text {
    font: 500 12px ${FONT.figures};
    fill: var(--ink);
  }
`;
const [W, H] = [1000, 110];

/** Where the selected swale's overflow goes: the ground down its path, with levels and distance. */
export function LongSection(): ReactNode {
  const { swale } = useChain();
  const derived = useDerived();
  const works = useWorks();
  const system = useApp((s) => s.system);
  const links = derived?.links.filter((l) => l.from === swale?.id && l.path.length > 1) ?? [];
  const link = [...links].sort((a, b) => b.volumeM3 - a.volumeM3)[0];
  if (!swale || !link) return null;
  const along: [number, number][] = [[0, link.path[0][2]]];
  link.path.slice(1).forEach(([x, y, z], i) => {
    const [px, py] = link.path[i];
    along.push([along[i][0] + Math.hypot(x - px, y - py), z]);
  });
  const length = along[along.length - 1][0];
  const levels = along.map(([, z]) => z);
  const [low, high] = [Math.min(...levels), Math.max(...levels)];
  const x = (m: number): number => 60 + (m / length) * (W - 170);
  const y = (z: number): number => 18 + ((high - z) / Math.max(0.5, high - low)) * (H - 44);
  const line = along.map(([m, z]) => `${x(m).toFixed(1)},${y(z).toFixed(1)}`).join('L');
  const ends = works.find((w) => w.id === link.to)?.name ?? (link.to === 'property-edge' ? 'property edge' : 'edge of the terrain');
  const title = `Where the water goes: ${swale.name} to ${ends}, ${formatQuantity(length, 'length', system)}, falls ${formatQuantity(high - low, 'length', system)}`;
  return (
    <Strip aria-label="Long section">
      <p>{title}</p>
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={title} preserveAspectRatio="xMidYMid meet">
        <path d={`M${line}L${x(length)},${H - 10}L${x(0)},${H - 10}Z`} fill="var(--earth)" />
        <path d={`M${line}`} fill="none" stroke="var(--ink)" strokeWidth={1.6} />
        <circle cx={x(0)} cy={y(along[0][1])} r={4} fill="var(--water)" />
        <circle cx={x(length)} cy={y(along[along.length - 1][1])} r={4} fill="var(--deepWater)" />
        <text x={x(0) - 8} y={y(high) + 4} textAnchor="end">
          {formatQuantity(high, 'level', system).replace(/\s.*/, '')}
        </text>
        <text x={x(0) - 8} y={y(low) + 4} textAnchor="end">
          {formatQuantity(low, 'level', system).replace(/\s.*/, '')}
        </text>
        <text x={x(length) + 10} y={y(along[along.length - 1][1]) + 4}>
          {link.peakM3s > 0 ? formatQuantity(link.peakM3s, 'flow', system) : 'dry'}
        </text>
        <text x={x(length / 2)} y={H - 16} textAnchor="middle">
          mean fall {formatQuantity((high - low) / length, 'slope', system)}
        </text>
      </svg>
    </Strip>
  );
}
