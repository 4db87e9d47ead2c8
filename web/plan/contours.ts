import Feature from 'ol/Feature.js';
import LineString from 'ol/geom/LineString.js';
import type { TerrainView } from '../workers/protocol.ts';

/** Contours as features that know their level and whether they are a thick, labelled fifth one. */
export function contourFeatures({ contours }: TerrainView): Feature[] {
  const { xy, starts, levelM, intervalM } = contours;
  return Array.from(levelM, (level, k) => {
    const feature = new Feature(new LineString(Array.from(xy.subarray(2 * starts[k], 2 * starts[k + 1])), 'XY'));
    const isIndex = Math.round(level / intervalM) % 5 === 0;
    feature.setProperties({ level, isIndex, label: isIndex ? String(Number(level.toFixed(2))) : '' });
    return feature;
  });
}
