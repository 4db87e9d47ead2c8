import Feature from 'ol/Feature.js';
import LineString from 'ol/geom/LineString.js';
import type { ContourLines } from '#core/terrain';
import { type UnitSystem, fromDisplay, toDisplay } from '#core/units';

/** Steps a contour interval may take, in the reader's unit of level. */
export const INTERVALS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50] as const;

/** Contours close enough to read the slope by, far enough apart to tell them: about forty over the relief [m]. */
export function niceInterval(reliefM: number, system: UnitSystem): number {
  const wanted = toDisplay(reliefM, 'level', system) / 40;
  return fromDisplay(INTERVALS.find((v) => v >= wanted) ?? 100, 'level', system);
}

/** Contours as features that know whether they are a thick fifth one, labelled in the reader's unit. */
export function contourFeatures({ xy, starts, levelM }: ContourLines, intervalM: number, system: UnitSystem): Feature[] {
  return Array.from(levelM, (level, k) => {
    const feature = new Feature(new LineString(Array.from(xy.subarray(2 * starts[k], 2 * starts[k + 1])), 'XY'));
    const isIndex = Math.round(level / intervalM) % 5 === 0;
    const label = isIndex ? String(Number(toDisplay(level, 'level', system).toFixed(2))) : '';
    feature.setProperties({ isIndex, label });
    return feature;
  });
}
