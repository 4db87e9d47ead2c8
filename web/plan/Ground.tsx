// What lies under the drawing: shaded ground, a layer over it, and contours. Each is asked of the worker when it changes.
import { useEffect } from 'react';
import { useApp, useAppPick } from '../app/store.ts';
import { useAsk, useLand, useLandPick } from '../app/land.ts';
import { THEMES } from '../app/theme.ts';
import { contourFeatures, niceInterval } from './contours.ts';
import type { PlanMap } from './map.ts';
import { OVERLAYS, overlayCell } from './overlay.ts';
import { type PaintCell, painted } from './paint.ts';
import type { Frame } from './raster.ts';
import { shadeCell } from './shade.ts';

/** The interval in use [m]: the one chosen, else one that suits the relief; null while there is no ground. */
export function useInterval(): number | null {
  const intervalM = useLand((s) => s.intervalM);
  const system = useApp((s) => s.system);
  const reliefM = useApp((s) => s.terrain?.reliefM);
  if (reliefM === undefined) return null;
  return intervalM ?? niceInterval(reliefM, system);
}

/** As many corners as the map draws without a halt: finer ground is drawn with every second or tenth of them. */
const MOST_CONTOUR_POINTS = 120_000;

type Holder = { readonly current: PlanMap | null };

/** Paints a picture and shows it once it is done; gives what gives it up. */
function pictured(map: Holder, name: 'shade' | 'overlay', what: { readonly frame: Frame; readonly paint: PaintCell } | null): () => void {
  let isWanted = true;
  if (!what) map.current?.setPicture(name, null, null);
  else {
    void painted(what.frame, what.paint, () => isWanted).then((picture) => {
      if (isWanted && picture) map.current?.setPicture(name, picture, what.frame);
    });
  }
  return () => {
    isWanted = false;
  };
}

/** Keeps the map's ground in step. */
export function useGround(map: Holder): void {
  const { theme, system } = useAppPick('theme', 'system');
  const frame = useApp((s) => s.terrain?.frame ?? null);
  const { overlay, sun, showsContours } = useLandPick('overlay', 'sun', 'showsContours');
  const intervalM = useInterval();
  const shade = useAsk('shade', frame ? { sun } : null);
  const layer = useAsk('layer', frame && overlay !== 'none' ? { layer: overlay } : null);
  const contours = useAsk('contours', frame && showsContours && intervalM !== null ? { intervalM, most: MOST_CONTOUR_POINTS } : null);

  useEffect(() => {
    // The last picture stays until the next is there, so that a moving sun does not flicker.
    if (frame && shade === undefined) return undefined;
    const fits = frame && shade?.length === frame.ncols * frame.nrows;
    return pictured(map, 'shade', fits ? { frame, paint: shadeCell(shade, THEMES[theme]) } : null);
  }, [map, frame, shade, theme]);
  useEffect(() => {
    const fits = frame && layer && overlay !== 'none' && layer.length === frame.ncols * frame.nrows;
    return pictured(map, 'overlay', fits ? { frame, paint: overlayCell(layer, OVERLAYS[overlay].style(THEMES[theme], system)) } : null);
  }, [map, frame, layer, overlay, theme, system]);
  useEffect(() => {
    if (frame && showsContours && contours === undefined) return;
    const features = contours && showsContours && intervalM !== null ? contourFeatures(contours, intervalM, system) : [];
    map.current?.setContours(features);
  }, [map, frame, contours, showsContours, intervalM, system]);
}
