import { type CSSProperties, type KeyboardEvent, type PointerEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { Heading, Label } from 'react-aria-components';
import styled from 'styled-components';
import { MAX_CELLS, type Part, extentOfCells } from '#core/terrain';
import { formatNumber } from '#core/units';
import { Button, Choose, Fact, Figure, Inline, Muted, NumberRow, FileQuestion } from '../kit/index.ts';
import type { Looked } from '../workers/protocol.ts';
import type { LookedOver } from './asked.ts';
import { runJob } from './jobs.ts';
import { type Share, canComeIn, cellsIn, moved, partAtFirst, partBetween, sharesOf, sizeM } from './part.ts';
import { useFormat } from './selectors.ts';
import { notify, useApp } from './store.ts';
import { THEMES } from './theme.ts';
import { shadeCell } from '../plan/shade.ts';

const Sides = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 22px;
  margin-top: 10px;
  @media (max-width: 700px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Picture = styled.div`
  position: relative;
  align-self: start;
  touch-action: none;
  cursor: crosshair;
  outline-offset: 3px;
  canvas {
    display: block;
    width: 100%;
    height: 100%;
    border: 1px solid var(--line);
    background: var(--paperDeep);
  }
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
`;
/** Coordinates are long. */
const Coordinate = styled(Figure)`
  width: 9.5em;
`;

/** Puts the question away with its answer. */
function close(how: Parameters<LookedOver['done']>[0]): void {
  const asked = useApp.getState().lookedOver;
  useApp.setState({ lookedOver: null });
  asked?.done(how);
}

/** How far an arrow key moves the part, and with the shift key, as a share of the picture. */
const STEPS = { far: 0.1, near: 0.01 } as const;
const ARROWS: Readonly<Record<string, Share>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
/** Both corners of a rectangle nearer than this were a click, not a drag. */
const LEAST_SHARE = 0.005;

/** As wide as there is room, and no higher than leaves the buttons in sight. */
const shownIn = ({ ncols, nrows }: Looked): CSSProperties => ({
  aspectRatio: `${ncols} / ${nrows}`,
  width: `min(100%, calc(54vh * ${ncols / nrows}))`,
});

/** Paints the shaded picture on a canvas of its own size. */
function usePainted({ ncols, nrows, shade }: Looked): (canvas: HTMLCanvasElement | null) => void {
  const theme = useApp((s) => s.theme);
  const ref = useRef<HTMLCanvasElement | null>(null);
  useEffect(() => {
    const context = ref.current?.getContext('2d');
    if (!context) return;
    const picture = context.createImageData(ncols, nrows);
    const paint = shadeCell(shade, THEMES[theme]);
    for (let cell = 0; cell < shade.length; cell++) paint(cell, picture.data, 4 * cell);
    context.putImageData(picture, 0, 0);
  }, [ncols, nrows, shade, theme]);
  return (canvas) => {
    ref.current = canvas;
  };
}

/** The picture with the part on it: drawn by the pointer, moved by the arrow keys. */
function Drawn({ looked, part, onChange }: { readonly looked: Looked; readonly part: Part; readonly onChange: (part: Part) => void }): ReactNode {
  const canvas = usePainted(looked);
  const [from, setFrom] = useState<Share | null>(null);
  const [[x1, y1], [x2, y2]] = sharesOf(looked, part);
  const at = ({ clientX, clientY, currentTarget }: PointerEvent): Share => {
    const box = currentTarget.getBoundingClientRect();
    return [(clientX - box.left) / box.width, (clientY - box.top) / box.height];
  };
  const drag = (event: PointerEvent): void => {
    if (!from) return;
    const to = at(event);
    if (Math.abs(to[0] - from[0]) > LEAST_SHARE && Math.abs(to[1] - from[1]) > LEAST_SHARE) onChange(partBetween(looked, from, to));
  };
  const key = (event: KeyboardEvent): void => {
    const way = ARROWS[event.key] as Share | undefined;
    if (!way) return;
    event.preventDefault();
    const step = event.shiftKey ? STEPS.far : STEPS.near;
    onChange(moved(looked, part, [way[0] * step, way[1] * step]));
  };
  return (
    <Picture
      role="application"
      aria-label="The part that is brought in: drag over it, or move it with the arrow keys"
      tabIndex={0}
      style={shownIn(looked)}
      onKeyDown={key}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setFrom(at(event));
      }}
      onPointerMove={drag}
      onPointerUp={(event) => {
        drag(event);
        setFrom(null);
      }}
    >
      <canvas ref={canvas} width={looked.ncols} height={looked.nrows} />
      <svg viewBox="0 0 1 1" preserveAspectRatio="none" aria-hidden>
        <path d={`M0 0H1V1H0Z M${x1} ${y1}V${y2}H${x2}V${y1}Z`} fill="var(--ink)" fillOpacity={0.45} fillRule="evenodd" />
        <rect x={x1} y={y1} width={x2 - x1} height={y2 - y1} fill="none" stroke="var(--water)" strokeWidth={2.5} vectorEffect="non-scaling-stroke" />
      </svg>
    </Picture>
  );
} // prettier-ignore

const EDGES = [
  ['west', 'West edge'],
  ['east', 'East edge'],
  ['south', 'South edge'],
  ['north', 'North edge'],
] as const;

/** The edges as numbers, in the coordinates of the file. */
function Edges({ looked, part, onChange }: { readonly looked: Looked; readonly part: Part; readonly onChange: (part: Part) => void }): ReactNode {
  const digits = looked.isDegrees ? 6 : 1;
  return EDGES.map(([edge, name]) => (
    <NumberRow
      key={edge}
      value={Number(part[edge].toFixed(digits))}
      formatOptions={{ maximumFractionDigits: digits, useGrouping: false }}
      onChange={(value) => Number.isFinite(value) && onChange({ ...part, [edge]: value })}
    >
      <Label>{name}</Label>
      <Coordinate />
    </NumberRow>
  ));
} // prettier-ignore

const counted = (n: number): string => formatNumber(n, 'count', 'metric');

/** What each band is called where it is chosen. */
const bandsOf = ({ bands }: Looked): { readonly id: string; readonly name: string }[] =>
  bands.map((name, k) => ({ id: String(k + 1), name: name === '' ? `Band ${k + 1}` : `Band ${k + 1}, ${name}` }));

/** Another band of the file, looked over. */
async function otherBand(file: File, band: number): Promise<Looked | null> {
  const answer = await runJob(`Looking over ${file.name}`, (work) => work.look(file, band));
  if (answer?.ok === false)
    notify({ tone: 'mend', title: `${file.name} was not taken in; nothing has changed`, problems: answer.problems });
  return answer?.ok ? answer.value : null;
}

function Asked({ file, looked: first, isTooLarge }: LookedOver): ReactNode {
  const format = useFormat();
  const [looked, setLooked] = useState(first);
  const [part, setPart] = useState(() => partAtFirst(first));
  const isWhole = !isTooLarge && canComeIn(first, extentOfCells(first.cells));
  const several = looked.bands.length > 1;
  const [wide, high] = sizeM(looked, part);
  const [allWide, allHigh] = sizeM(looked, extentOfCells(looked.cells));
  const count = cellsIn(looked, part);
  const isIn = canComeIn(looked, part);
  const title = isWhole ? 'which of its bands holds the levels?' : 'which part of it holds your land?';
  const chosen = { ...(several ? { band: looked.band } : {}), ...(isWhole ? {} : { part }) };
  return (
    <>
      <Heading slot="title">
        {file.name}: {title}
      </Heading>
      <p>
        It covers {format(allWide, 'distance')} by {format(allHigh, 'distance')}, {counted(looked.cells.ncols)} by{' '}
        {counted(looked.cells.nrows)} cells.{' '}
        {isWhole ? '' : `${counted(MAX_CELLS)} cells can come in at once: take in your land and all the ground that drains to it.`}
      </p>
      <Sides>
        {isWhole ? <Whole looked={looked} /> : <Drawn looked={looked} part={part} onChange={setPart} />}
        <div>
          {several && (
            <Choose
              label="Levels are in"
              value={String(looked.band)}
              choices={bandsOf(looked)}
              onChange={(id) => void otherBand(file, Number(id)).then((other) => other && setLooked(other))}
            />
          )}
          <Fact label="Its numbers run from" value={looked.between ? looked.between.map((v) => String(Number(v.toFixed(1)))).join(' to ') : 'none'} />
          {!isWhole && (
            <>
              <Edges looked={looked} part={part} onChange={setPart} />
              <Fact label="This part" value={`${format(wide, 'distance')} by ${format(high, 'distance')}`} />
              <Muted>
                {isIn
                  ? `${counted(count)} cells.`
                  : count > MAX_CELLS
                    ? `${counted(count)} cells are too many by ${counted(count - MAX_CELLS)}.`
                    : 'Drag over the picture: this is hardly a cell.'}
              </Muted>
            </>
          )}
        </div>
      </Sides>
      <Inline style={{ marginTop: 14 }}>
        <Button look="strong" isDisabled={!isWhole && !isIn} onPress={() => close(chosen)}>
          {isWhole ? 'Bring in this band' : 'Bring in this part'}
        </Button>
        <Button look="quiet" onPress={() => close(null)}>
          Leave it
        </Button>
      </Inline>
    </>
  );
} // prettier-ignore

/** The whole picture, of which only a band is chosen. */
function Whole({ looked }: { readonly looked: Looked }): ReactNode {
  const canvas = usePainted(looked);
  return (
    <Picture role="img" aria-label="The band as ground" style={{ ...shownIn(looked), cursor: 'default' }}>
      <canvas ref={canvas} width={looked.ncols} height={looked.nrows} />
    </Picture>
  );
}

/** Asks which band, and which part, of a picture of levels is wanted. */
export function PartDialog(): ReactNode {
  const asked = useApp((s) => s.lookedOver);
  if (!asked) return null;
  return (
    <FileQuestion width={900} onLeave={() => close(null)}>
      <Asked {...asked} />
    </FileQuestion>
  );
}
