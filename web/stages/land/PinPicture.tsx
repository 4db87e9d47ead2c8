import { Check, X, ZoomIn, ZoomOut } from 'lucide-react';
import { useEffect, useState, type KeyboardEvent, type MouseEvent, type ReactNode } from 'react';
import styled from 'styled-components';
import { type Point, offsOf } from '#core/geometry';
import { MOST_PICTURE_PINS, type Picture, layingOf } from '#core/project';
import { endPinning, foundIn, unpin, usePinning } from '../../app/pictures.ts';
import { useFormat } from '../../app/selectors.ts';
import { assetOf } from '../../app/store.ts';
import { Button, Inline, Muted, Row } from '../../kit/index.ts';

const Window = styled.div`
  position: relative;
  max-height: 320px;
  margin-bottom: 10px;
  overflow: auto;
  border: 1px solid var(--ink);
  border-radius: 4px;
  cursor: crosshair;
  img {
    display: block;
    max-width: none;
  }
`;
const Mark = styled.span`
  position: absolute;
  width: 22px;
  height: 22px;
  margin: -11px 0 0 -11px;
  border-radius: 50%;
  border: 2px solid var(--paper);
  background: var(--deepWater);
  color: var(--onDeep);
  font-size: 12px;
  display: grid;
  place-items: center;
  pointer-events: none;
`;
const Cross = styled(Mark)`
  background: transparent;
  border: 2px solid var(--deepWater);
  outline: 2px solid var(--paper);
`;

/** The file of a picture as an address an image shows; null until it is there. */
function useAddress(sha256: string): string | null {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    let made: string | null = null;
    let isWanted = true;
    void assetOf(sha256).then((blob) => {
      if (!blob || !isWanted) return;
      made = URL.createObjectURL(blob);
      setAddress(made);
    });
    return () => {
      isWanted = false;
      if (made !== null) URL.revokeObjectURL(made);
    };
  }, [sha256]);
  return address;
}

const STEPS: Readonly<Record<string, Point>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
/** Widths a picture is shown with [px]: the sheet's own first. */
const WIDTHS = [290, 800, 1600, 3200] as const;

/** A picture in which places are found that are then found on the plan. */
export function PinPicture({ picture }: { readonly picture: Picture }): ReactNode {
  const { widthPx, heightPx, pins = [] } = picture;
  const px = usePinning((s) => s.px);
  const address = useAddress(picture.sha256);
  const format = useFormat();
  const [zoom, setZoom] = useState(0);
  const [cross, setCross] = useState<Point | null>(null);
  const scale = WIDTHS[zoom] / widthPx;
  const laying = layingOf(picture);
  const offs = laying && pins.length >= 3 ? offsOf(laying, pins) : [];
  const isFull = pins.length >= MOST_PICTURE_PINS;
  const onClick = (e: MouseEvent<HTMLDivElement>): void => {
    const box = e.currentTarget.getBoundingClientRect();
    const at: Point = [(e.clientX - box.left + e.currentTarget.scrollLeft) / scale, (e.clientY - box.top + e.currentTarget.scrollTop) / scale];
    if (!isFull && at[0] <= widthPx && at[1] <= heightPx) foundIn(at);
  }; // prettier-ignore
  const onKey = (e: KeyboardEvent): void => {
    const step = STEPS[e.key];
    const at = cross ?? ([widthPx / 2, heightPx / 2] as const);
    if (step) {
      const by = (e.shiftKey ? 20 : 2) / scale;
      setCross([Math.min(widthPx, Math.max(0, at[0] + by * step[0])), Math.min(heightPx, Math.max(0, at[1] + by * step[1]))]);
    } else if (e.key === 'Enter' && !isFull) foundIn(at);
    else return;
    e.preventDefault();
  };
  const mark = ([u, v]: Point): { left: number; top: number } => ({ left: u * scale, top: v * scale });
  return (
    <>
      <Muted>
        {isFull
          ? 'It is pinned by as many places as it takes.'
          : px
            ? 'Now click the same place on the plan, or type its x, y there.'
            : `Click a place in the picture that you can also find on the plan: a corner, a gate, a bend. Two places lay it, ${MOST_PICTURE_PINS} at most; choose them far apart.`}
      </Muted>
      <Inline>
        <Button aria-label="Picture larger" isDisabled={zoom === WIDTHS.length - 1} onPress={() => setZoom(zoom + 1)}>
          <ZoomIn size={16} aria-hidden />
        </Button>
        <Button aria-label="Picture smaller" isDisabled={zoom === 0} onPress={() => setZoom(zoom - 1)}>
          <ZoomOut size={16} aria-hidden />
        </Button>
        <Button look="strong" onPress={endPinning}>
          <Check size={16} aria-hidden />
          Done
        </Button>
      </Inline>
      <Window
        role="application"
        tabIndex={0}
        aria-label={`${picture.name}. Arrow keys move the crosshair, Enter takes the place.`}
        onClick={onClick}
        onKeyDown={onKey}
        onBlur={() => setCross(null)}
      >
        {address !== null && <img src={address} alt={picture.name} width={WIDTHS[zoom]} height={heightPx * scale} draggable={false} />}
        {pins.map((pin, k) => (
          <Mark key={k} style={mark(pin.px)}>
            {k + 1}
          </Mark>
        ))}
        {px && <Mark style={mark(px)}>{pins.length + 1}</Mark>}
        {cross && <Cross style={mark(cross)} aria-hidden />}
      </Window>
      {pins.map((pin, k) => (
        <Row key={k}>
          <span>
            Place {k + 1} at {pin.at[0].toFixed(1)}, {pin.at[1].toFixed(1)}
            {offs[k] !== undefined && `, ${format(offs[k], 'length')} off`}
          </span>
          <Button look="quiet" aria-label={`Take out place ${k + 1}`} onPress={() => unpin(picture, k)}>
            <X size={15} aria-hidden />
          </Button>
        </Row>
      ))}
    </>
  );
}
