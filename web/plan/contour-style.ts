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

export function contourStyle(feature: FeatureLike, resolution: number, p: Palette): Style[] {
  const isIndex = feature.get('isIndex') === true;
  if (!isIndex && resolution > 3) return [];
  const styles = [new Style({ stroke: new Stroke({ color: rgba(p.clay, isIndex ? 0.75 : 0.34), width: isIndex ? 1.3 : 0.8 }) })];
  const label = feature.get('label') as string;
  if (isIndex && label !== '') {
    styles.push(
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
    );
  }
  return styles;
}
