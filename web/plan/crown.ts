import CircleStyle from 'ol/style/Circle.js';
import Fill from 'ol/style/Fill.js';
import Stroke from 'ol/style/Stroke.js';
import Style from 'ol/style/Style.js';
import type { Palette } from '../app/theme.ts';
import { rgba } from './contour-style.ts';
import type { Look } from './types.ts';

/** A tree from above: its crown, and where its trunk stands. */
export const crown = (look: Look, p: Palette): Style =>
  new Style({
    zIndex: -1,
    image: new CircleStyle({
      declutterMode: 'none',
      radius: look.isSelected === true ? 9 : 6.5,
      fill: new Fill({ color: rgba(p.moss, 0.5) }),
      stroke: new Stroke({ color: rgba(p.moss, 0.95), width: look.isSelected === true ? 3 : 1.2 }),
    }),
  });

/** A wood from above: its edge, dotted. */
export const wood = (l: Look, p: Palette): Style =>
  new Style({
    zIndex: -1,
    fill: new Fill({ color: rgba(p.moss, 0.22) }),
    stroke: new Stroke({ color: rgba(p.moss, 0.9), width: l.isSelected === true ? 3 : 1.4, lineDash: [1, 5], lineCap: 'round' }),
  });
