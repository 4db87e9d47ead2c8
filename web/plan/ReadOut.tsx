// What follows the pointer: the read-out, and what is drawn while something is being placed.
import { type ReactNode, type RefObject, useEffect } from 'react';
import LineString from 'ol/geom/LineString.js';
import OlPoint from 'ol/geom/Point.js';
import styled from 'styled-components';
import { distance } from '#core/geometry';
import { useLandPick } from '../app/land.ts';
import { useFormat } from '../app/selectors.ts';
import { useApp, useAppPick } from '../app/store.ts';
import { FONT } from '../app/theme.ts';
import { nearestInSection } from './land-items.ts';
import type { PlanMap } from './map.ts';
import { usePointerPick } from './pointer.ts';
import { readGround } from './read.ts';

const Out = styled.output`
  position: absolute;
  right: 12px;
  bottom: 10px;
  font: 500 12.5px ${FONT.figures};
  background: var(--paper);
  padding: 2px 7px;
  border-radius: 3px;
  pointer-events: none;
`;

/** Place, level, slope and what drains there, under the pointer or the crosshair. */
export function ReadOut(): ReactNode {
  const { terrain, drawn } = useAppPick('terrain', 'drawn');
  const { pointer, crosshair, hasFocus } = usePointerPick('pointer', 'crosshair', 'hasFocus');
  const format = useFormat();
  const place = hasFocus && crosshair ? crosshair : pointer;
  const under = place && terrain ? readGround(terrain, place) : null;
  const said =
    place && under
      ? `E ${place[0].toFixed(0)} N ${place[1].toFixed(0)}  ${format(under.levelM, 'level')}  slope ${format(under.slope, 'slope')}  above ${format(under.areaM2, 'land')}`
      : 'off the terrain';
  const last = drawn[drawn.length - 1];
  const lastGround = last && terrain ? readGround(terrain, last) : null;
  // While something is drawn: how far the pointer is from its last point, and how much higher or lower.
  const reach =
    place && under && last && lastGround
      ? `  ${format(distance(place, last), 'distance')} on, ${format(under.levelM - lastGround.levelM, 'difference')}`
      : '';
  return (
    <>
      {place && (
        <Out aria-hidden="true">
          {said}
          {reach}
        </Out>
      )}
      <div className="visually-hidden" role="status" aria-live="polite" data-testid="crosshair">
        {hasFocus && crosshair ? said : ''}
      </div>
    </>
  );
}

/** Draws what is being placed, the crosshair, and the place pointed at in a section. */
export function PointerMarks({ map }: { readonly map: RefObject<PlanMap | null> }): ReactNode {
  const drawn = useApp((s) => s.drawn);
  const { crosshair, hasFocus } = usePointerPick('crosshair', 'hasFocus');
  const { shown, probe } = useLandPick('shown', 'probe');
  useEffect(() => {
    const open = drawn.length > 1 ? [{ geometry: new LineString(drawn.map(([x, y]) => [x, y])), look: { role: 'drawing' } }] : [];
    const dots = drawn.map((p) => ({ geometry: new OlPoint([...p]), look: { role: 'vertex' } }));
    const cross = hasFocus && crosshair ? [{ geometry: new OlPoint([...crosshair]), look: { role: 'crosshair' } }] : [];
    const mark = shown && probe ? nearestInSection(shown.section, probe) : null;
    const probed = mark ? [{ geometry: new OlPoint([...mark.at]), look: { role: 'probe' } }] : [];
    map.current?.setTools([...open, ...dots, ...cross, ...probed]);
  }, [map, drawn, crosshair, hasFocus, shown, probe]);
  return null;
}
