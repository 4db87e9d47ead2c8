import type { ReactNode } from 'react';
import styled from 'styled-components';
import { highestOf } from '#core/derive';
import { formatNumber, formatQuantity } from '#core/units';
import { type Swale, sectionOutline } from '#core/works';
import { useAppPick } from '../../app/store.ts';
import { useView } from '../../app/selectors.ts';
import { FONT } from '../../app/theme.ts';
import { type Crest, firstSill } from '../levels.ts';
import { useLevelDrag } from './useLevelDrag.ts';

const Svg = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  margin-top: 12px;
  touch-action: none;
  text {
    font: 500 11.5px ${FONT.figures};
    fill: var(--ink);
  }
  .handle {
    cursor: ns-resize;
  }
`;

const WIDTH = 300;
const HEIGHT = 132;
const AROUND_M = 0.45;

type XY = readonly [number, number];

interface Scale {
  readonly at: (p: XY) => string;
  readonly y: (levelM: number) => number;
  readonly perM: number;
}

/** Same scale both ways, the section filling the frame. */
function fitted(points: readonly XY[]): Scale {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const perM = Math.min(WIDTH / (x1 - x0), (HEIGHT - 50) / (y1 - y0));
  const left = (WIDTH - perM * (x1 - x0)) / 2;
  const top = (HEIGHT - 4 - perM * (y1 - y0)) / 2;
  const y = (level: number): number => top + perM * (y1 - level);
  return { at: ([px, py]) => `${left + perM * (px - x0)},${y(py)}`, y, perM };
}

const path = (scale: Scale, points: readonly XY[]): string => `M${points.map(scale.at).join('L')}`;

/** Water in the section up to a level: between the bank side and the uphill cut or ground. */
function waterPath(scale: Scale, swale: Swale, on: { lipM: number; slope: number; levelM: number }): string {
  const { floorWidthM, sideSlopeHV: z, bankSlopeHV } = swale.dimensions;
  const floor = swale.levels.floorM;
  const depth = Math.max(0, on.lipM - floor);
  const height = on.levelM - floor;
  if (height <= 0) return '';
  const below = Math.min(height, depth);
  const right: XY[] = [
    [-z * depth, floor],
    [-z * (depth - below), floor + below],
  ];
  if (height > depth) right.push([bankSlopeHV * (height - depth), on.levelM]);
  const bottom = -z * depth - floorWidthM;
  const cutTop = (z * depth * 2 + floorWidthM) / Math.max(0.05, 1 - on.slope * z);
  const edge = on.lipM + on.slope * cutTop;
  const left: XY[] =
    on.levelM <= edge
      ? [[bottom - z * height, on.levelM]]
      : [
          [-cutTop - (on.levelM - edge) / Math.max(0.005, on.slope), on.levelM],
          [-cutTop, edge],
        ];
  return `${path(scale, [[bottom, floor], ...right, ...left])}Z`;
}

/** The swale's section to scale on its mean ground, with draggable levels. */
export function SectionDrawing({ swale, sills }: { readonly swale: Swale; readonly sills: readonly Crest[] }): ReactNode {
  const view = useView();
  const { system, result } = useAppPick('system', 'result');
  const ground = view?.sections[swale.id];
  const store = result?.derived.stores.find((s) => s.id === swale.id);
  const peak = store ? highestOf(store) : null;
  const startDrag = useLevelDrag();
  if (!ground) return null;
  const { lipM, crossSlope: slope } = ground;
  const sill = firstSill(sills);
  const outline = sectionOutline(
    { ...swale.dimensions, lipDepthM: lipM - swale.levels.floorM, crossSlope: slope },
    { lipM, crestM: swale.levels.bankCrestM, aroundM: AROUND_M },
  );
  const scale = fitted([...outline.ground, ...outline.cut, ...outline.bank]);
  const level = (m: number): string => formatQuantity(m, 'level', system);
  const bottomRight = Number(scale.at(outline.ground[outline.ground.length - 1]).split(',')[0]);
  const earth = `${path(scale, [outline.ground[0], outline.ground[1], outline.cut[2], outline.cut[1], outline.cut[0], outline.ground[3], outline.ground[4]])}L${bottomRight},${HEIGHT}L0,${HEIGHT}Z`;
  const crestX = Number(scale.at(outline.bank[1]).split(',')[0]);
  const handle = (props: { id: string; path: string; levelM: number; x1: number; x2: number }): ReactNode => (
    <line
      className="handle"
      x1={props.x1}
      x2={props.x2}
      y1={scale.y(props.levelM)}
      y2={scale.y(props.levelM)}
      stroke="transparent"
      strokeWidth={14}
      onPointerDown={startDrag({ id: props.id, path: props.path, levelM: props.levelM, perM: scale.perM })}
    />
  );
  const middle = Number(
    scale.at([-swale.dimensions.sideSlopeHV * Math.max(0, lipM - swale.levels.floorM) - swale.dimensions.floorWidthM / 2, 0]).split(',')[0],
  );
  const floorY = scale.y(swale.levels.floorM);
  const described = `Section looking along the swale, uphill on the left, ground falling ${formatQuantity(slope, 'slope', system)}. Bank crest ${level(swale.levels.bankCrestM)}, ${sill ? `sill ${level(sill.levels.sillM)}, ` : ''}floor ${level(swale.levels.floorM)}, floor ${formatQuantity(swale.dimensions.floorWidthM, 'length', system)} wide.`;
  return (
    <Svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={described}>
      <path d={earth} fill="var(--earth)" />
      {sill && <path d={waterPath(scale, swale, { lipM, slope, levelM: sill.levels.sillM })} fill="var(--water)" opacity={0.9} />}
      {peak !== null && <path d={waterPath(scale, swale, { lipM, slope, levelM: peak })} fill="var(--water)" opacity={0.32} />}
      <path d={`${path(scale, outline.bank)}Z`} fill="var(--moss)" stroke="var(--ink)" />
      <path d={path(scale, [outline.ground[1], outline.ground[2]])} fill="none" stroke="var(--ink)" strokeDasharray="4 4" />
      <path
        d={path(scale, [outline.ground[0], outline.ground[1], outline.cut[2], outline.cut[1], outline.cut[0]])}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.4}
      />
      <path d={path(scale, [outline.ground[3], outline.ground[4]])} fill="none" stroke="var(--ink)" strokeWidth={1.4} />
      <text x={4} y={14}>
        uphill {formatQuantity(slope, 'slope', system)}
      </text>
      <text x={WIDTH - 4} y={scale.y(swale.levels.bankCrestM) - 5} textAnchor="end">
        bank {formatNumber(swale.levels.bankCrestM, 'level', system)}
      </text>
      {sill && (
        <>
          <line
            x1={0}
            x2={WIDTH}
            y1={scale.y(sill.levels.sillM)}
            y2={scale.y(sill.levels.sillM)}
            stroke="var(--deepWater)"
            strokeWidth={1}
            strokeDasharray="1 3"
          />
          <text x={middle} y={scale.y(sill.levels.sillM) + 12} textAnchor="middle" style={{ fill: 'var(--onDeep)' }}>
            sill {formatNumber(sill.levels.sillM, 'level', system)}
          </text>
        </>
      )}
      <text x={middle} y={floorY + 14} textAnchor="middle">
        floor {formatNumber(swale.levels.floorM, 'level', system)}
      </text>
      {handle({ id: swale.id, path: 'levels.bankCrestM', levelM: swale.levels.bankCrestM, x1: crestX - 14, x2: crestX + 60 })}
      {sill && handle({ id: sill.id, path: 'levels.sillM', levelM: sill.levels.sillM, x1: 0, x2: crestX - 16 })}
      {handle({ id: swale.id, path: 'levels.floorM', levelM: swale.levels.floorM, x1: 0, x2: WIDTH })}
    </Svg>
  );
}
