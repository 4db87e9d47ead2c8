// Contours as they are drawn, every fifth with its level.
import type { FeatureLike } from 'ol/Feature.js';
import Fill from 'ol/style/Fill.js';
import Stroke from 'ol/style/Stroke.js';
import Style from 'ol/style/Style.js';
import Text from 'ol/style/Text.js';
import { FONT, type Palette } from '../app/theme.ts';

export const rgba = (hex: string, alpha: number): string => {
  const [r, g, b] = [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16));
  return `rgba(${r},${g},${b},${alpha})`;
};

const isIndex = (feature: FeatureLike): boolean => feature.get('isIndex') === true;

export function contourStyle(feature: FeatureLike, resolution: number, p: Palette): Style[] {
  if (!isIndex(feature) && resolution > 3) return [];
  const [alpha, width] = isIndex(feature) ? [0.75, 1.3] : [0.34, 0.8];
  return [new Style({ stroke: new Stroke({ color: rgba(p.clay, alpha), width }) })];
}

/** The levels that stand along them, painted with the other names of the plan so that they keep clear of each other. */
export function contourLevelStyle(feature: FeatureLike, _resolution: number, p: Palette): Style[] {
  const label = feature.get('label') as string;
  if (label === '') return [];
  return [
    new Style({
      text: new Text({
        text: label,
        placement: 'line',
        font: `500 11.5px ${FONT.figures}`,
        maxAngle: 0.5,
        overflow: false,
        fill: new Fill({ color: p.clayText }),
        stroke: new Stroke({ color: p.paper, width: 4 }),
      }),
    }),
  ];
}
