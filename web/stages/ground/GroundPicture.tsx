import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { Does } from '#core/derive';
import { useFormat } from '../../app/selectors.ts';
import { FONT } from '../../app/theme.ts';

const [WIDTH, HEIGHT, GROUND_Y, DEEP] = [420, 158, 84, 62];
const Drawing = styled.svg`
  width: 100%;
  height: auto;
  display: block;
  text {
    font: 500 12px ${FONT.text};
    fill: var(--ink);
  }
  .figure {
    font: 600 12.5px ${FONT.figures};
  }
  .small {
    fill: var(--muted);
    font-size: 11.5px;
  }
`;

/** A block of ground with the rain over it: what has sunk in, what lies on it and what runs down its slope, all to one scale. */
function Block({
  does,
  x,
  width,
  title,
}: {
  readonly does: Does;
  readonly x: number;
  readonly width: number;
  readonly title: string;
}): ReactNode {
  const format = useFormat();
  const { rainMm, soaksMm, standsMm, runsMm, infiltrationMmPerHour } = does;
  const share = (mm: number): number => (rainMm > 0 ? mm / rainMm : 0);
  const [soak, stand, run] = [DEEP * share(soaksMm), 26 * share(standsMm), 26 * share(runsMm)];
  const fall = 12;
  const left = GROUND_Y - fall;
  const end = x + width - 66;
  const top = (dy: number): string => `M${x},${left - dy} L${end},${GROUND_Y - dy}`;
  return (
    <g>
      <text x={x} y={12}>
        {title}
      </text>
      <text x={x} y={28} className="small">
        {format(rainMm, 'rainFine')} of rain, takes in {format(infiltrationMmPerHour, 'intensity')}
      </text>
      {Array.from({ length: 6 }, (_, k) => (
        <line
          key={k}
          x1={x + 12 + (k * (end - x - 20)) / 5}
          x2={x + 6 + (k * (end - x - 20)) / 5}
          y1={36}
          y2={46}
          stroke="var(--water)"
          strokeWidth={1.4}
        />
      ))}
      <path d={`M${x},${left} L${end},${GROUND_Y} V${GROUND_Y + DEEP} H${x} Z`} fill="var(--straw)" opacity={0.35} />
      <path d={`M${x},${left} L${end},${GROUND_Y} V${GROUND_Y + soak} L${x},${left + soak} Z`} fill="var(--water)" opacity={0.45} />
      <path d={`${top(0)} V${GROUND_Y - stand} L${x},${left - stand} Z`} fill="var(--moss)" opacity={0.75} />
      {run > 0.4 && (
        <>
          <path
            d={`M${x},${left - stand} L${end},${GROUND_Y - stand} V${GROUND_Y - stand - run} L${x},${left - stand - run * 0.15} Z`}
            fill="var(--deepWater)"
          />
          <path
            d={`M${end},${GROUND_Y - stand - run} h8 v${-Math.max(3, run * 0.35)} l${8 + run * 0.5},${run / 2 + Math.max(3, run * 0.35)} l${-(8 + run * 0.5)},${run / 2 + Math.max(3, run * 0.35)} v${-Math.max(3, run * 0.35)} h-8 Z`}
            fill="var(--deepWater)"
          />
        </>
      )}
      <path d={top(0)} stroke="var(--ink)" strokeWidth={1.6} fill="none" />
      <text x={x + 6} y={GROUND_Y + DEEP - 7}>
        soaks <tspan className="figure">{format(soaksMm, 'rainFine')}</tspan>
      </text>
      <text x={end + 4} y={GROUND_Y + 22} className="small">
        runs off
      </text>
      <text x={end + 4} y={GROUND_Y + 37} className="figure">
        {format(runsMm, 'rainFine')}
      </text>
      <text x={x} y={HEIGHT - 1} className="small">
        stands {format(standsMm, 'rainFine')}
      </text>
    </g>
  );
}

/** What one kind of ground does with the rain, now and, where a plan is made for it, healed. */
export function GroundPicture({
  now,
  healed,
  years,
}: {
  readonly now: Does;
  readonly healed: Does | null;
  readonly years: number;
}): ReactNode {
  const format = useFormat();
  const words = (d: Does): string =>
    `${format(d.soaksMm, 'rain')} soaks, ${format(d.standsMm, 'rain')} stands, ${format(d.runsMm, 'rain')} runs off`;
  const width = WIDTH / 2 - 8;
  return (
    <Drawing viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={`Now ${words(now)}${healed ? `; healed ${words(healed)}` : ''}`}>
      <Block does={now} x={0} width={healed ? width : WIDTH} title="As it is now" />
      {healed && <Block does={healed} x={WIDTH / 2 + 8} width={width} title={`Healed in ${years} years`} />}
    </Drawing>
  );
}
