// Pictures that lie under the drawing, as the map shows them.
import ImageCanvasSource from 'ol/source/ImageCanvas.js';
import { useEffect, useState } from 'react';
import { type Laying, cornersOf, laidAt, withFewer } from '#core/geometry';
import { type Picture, layingOf } from '#core/project';
import { useProject } from '../app/selectors.ts';
import { assetOf } from '../app/store.ts';
import type { PlanMap } from './map.ts';

/** A picture as it is drawn: fewer pixels than its file has where those are very many. */
export interface Shown {
  readonly bitmap: ImageBitmap;
  /** How the pixels of the bitmap lie. */
  readonly laying: Laying;
  readonly opacity: number;
}

/** As many pixels as are held of one picture. */
const MOST_HELD_PX = 16e6;

const bitmaps = new Map<string, Promise<ImageBitmap | null>>();

/** The pixels of an asset; null where it is not there, or cannot be shown. */
function bitmapOf({ sha256, widthPx, heightPx }: Picture): Promise<ImageBitmap | null> {
  const shrink = Math.min(1, Math.sqrt(MOST_HELD_PX / (widthPx * heightPx)));
  const read = async (): Promise<ImageBitmap | null> => {
    const blob = await assetOf(sha256);
    return blob ? createImageBitmap(blob, { resizeWidth: Math.round(widthPx * shrink), resizeHeight: Math.round(heightPx * shrink), resizeQuality: 'high' }) : null;
  };
  const known = bitmaps.get(sha256) ?? read().catch(() => null);
  bitmaps.set(sha256, known);
  // What could not be shown is tried again another time.
  void known.then((bitmap) => bitmap ?? bitmaps.delete(sha256));
  return known;
} // prettier-ignore

/** Lets go of the pixels of pictures that are not there any more. */
function holdOnly(pictures: readonly Picture[]): void {
  const held = new Set(pictures.map((p) => p.sha256));
  for (const sha256 of bitmaps.keys()) if (!held.has(sha256)) bitmaps.delete(sha256);
}

/** All of them on one canvas, each turned and scaled as it lies. */
export function picturesSource(shown: readonly Shown[]): ImageCanvasSource {
  return new ImageCanvasSource({
    ratio: 1,
    canvasFunction: (...[extent, resolution, pixelRatio, size]) => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [Math.round(size[0]), Math.round(size[1])];
      const context = canvas.getContext('2d');
      const scale = pixelRatio / resolution;
      for (const { bitmap, laying, opacity } of shown) {
        if (!context) break;
        const [a, b, c, d, e, f] = laying;
        context.globalAlpha = opacity;
        context.imageSmoothingQuality = 'high';
        context.setTransform(a * scale, -d * scale, b * scale, -e * scale, (c - extent[0]) * scale, (extent[3] - f) * scale);
        context.drawImage(bitmap, 0, 0);
      }
      return canvas;
    },
  });
}

const extentOf = (picture: Picture, laying: Laying): [number, number, number, number] => {
  const corners = cornersOf(picture).map((px) => laidAt(laying, px));
  const [xs, ys] = [corners.map((p) => p[0]), corners.map((p) => p[1])];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
};

/** Keeps the pictures under the plan in step; without ground the plan shows the first of them whole. */
export function usePictures(map: { readonly current: PlanMap | null }): void {
  const { pictures, terrain } = useProject();
  const [shown, setShown] = useState<readonly Shown[]>([]);
  useEffect(() => {
    let isWanted = true;
    holdOnly(pictures ?? []);
    const placed = (pictures ?? []).flatMap((picture) => {
      const laying = layingOf(picture);
      return laying && !picture.isHidden ? [{ picture, laying }] : [];
    });
    const all = placed.map(async ({ picture, laying }): Promise<Shown[]> => {
      const bitmap = await bitmapOf(picture);
      return bitmap
        ? [
            {
              bitmap,
              laying: withFewer(laying, [picture.widthPx / bitmap.width, picture.heightPx / bitmap.height]),
              opacity: picture.opacityPercent / 100,
            },
          ]
        : [];
    });
    void Promise.all(all).then((list) => {
      if (isWanted) setShown(list.flat());
    });
    return () => {
      isWanted = false;
    };
  }, [pictures]);
  useEffect(() => map.current?.setPictures(shown.length > 0 ? picturesSource(shown) : null), [map, shown]);
  const first = terrain ? undefined : pictures?.[0];
  const laying = first ? layingOf(first) : null;
  const whole = first && laying ? extentOf(first, laying).join(' ') : null;
  useEffect(() => {
    const [west, south, east, north] = (whole ?? '').split(' ').map(Number);
    if (whole !== null) map.current?.fit([west, south, east, north]);
  }, [map, whole]);
}
