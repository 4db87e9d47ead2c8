import type { FeatureLike } from 'ol/Feature.js';
import type Geometry from 'ol/geom/Geometry.js';
import Point from 'ol/geom/Point.js';
import CircleStyle from 'ol/style/Circle.js';
import Fill from 'ol/style/Fill.js';
import RegularShape from 'ol/style/RegularShape.js';
import Stroke from 'ol/style/Stroke.js';
import Style from 'ol/style/Style.js';
import type { Palette } from '../app/theme.ts';
import { rgba } from './contour-style.ts';
import { drawnOnce } from './once.ts';
import type { Look } from './types.ts';
import { crown, wood } from './crown.ts';

import {
  type StyleOf,
  label,
  withText,
  dashes,
  swaleStyles,
  halo,
  arrowHead,
  diamond,
  placeMark,
  wayOut,
  band,
  basinStyles,
} from './style-parts.ts';

const STYLES: Readonly<Record<string, StyleOf>> = {
  water: (l, p) => [
    new Style({
      fill: new Fill({ color: rgba(p.water, 0.55) }),
      stroke: new Stroke({ color: l.isSelected === true ? p.straw : p.deepWater, width: l.isSelected === true ? 4 : 1.6 }),
    }),
    // Its name stands in the water, before others where they crowd.
    new Style({ zIndex: l.isSelected === true ? 9 : 1, ...withText(label(l.label, p, { offsetY: 0 })) }),
  ],
  'earth-wall': (l, p, { resolution }) => band(l, p, { resolution, fill: p.moss, least: 6 }),
  crossing: (l, p, { resolution }) => band(l, p, { resolution, fill: p.paper, least: 7 }),
  drain: (l, p, { resolution }) => [...band(l, p, { resolution, fill: p.water, least: 3 }), ...arrowHead(p.deepWater)],
  'check-dam': (l, p, { resolution }) => band(l, p, { resolution, fill: p.straw, least: 5 }),
  'channel-section': (l, p) => [new Style({ stroke: new Stroke({ color: p.ink, width: l.isSelected ? 2 : 1.2 }) })],
  'shaped-ground': (l, p) => [
    new Style({
      fill: new Fill({ color: rgba(p.straw, l.isSelected === true ? 0.34 : 0.2) }),
      stroke: new Stroke({ color: l.isSelected === true ? p.ink : p.moss, width: l.isSelected === true ? 2.4 : 1.4, lineDash: [7, 4] }),
      ...withText(label(l.label, p, { offsetY: 0 })),
    }),
  ],
  'shaped-line': (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: p.moss, width: 4, lineDash: [9, 4] }), ...withText(label(l.label, p, { offsetY: 14 })) }),
  ],
  'basin-row': basinStyles,
  'rip-key': (l, p, { resolution }) => band(l, p, { resolution, fill: p.straw, least: 2 }),
  'rip-slot': (_, p) => [new Style({ stroke: new Stroke({ color: rgba(p.ink, 0.55), width: 0.8 }) })],
  soak: (l, p, { resolution }) => band(l, p, { resolution, fill: p.water, least: 2.4 }),
  'stone-line': (l, p, { resolution }) => band(l, p, { resolution, fill: p.straw, least: 3.5 }),
  'gully-lip': (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: p.paper, width: 7 }) }),
    new Style({ stroke: new Stroke({ color: p.alarm, width: 4, lineDash: [3, 4] }), ...withText(label(l.label, p, { offsetY: 18 })) }),
  ],
  spillway: (l, p) => [wayOut(l, p, { points: 3, angle: Math.PI, fill: p.paper })],
  trench: (l, p) => [wayOut(l, p, { points: 4, angle: 0, fill: p.straw })],
  pipe: (l, p) => [wayOut(l, p, { points: 12, angle: 0, fill: p.paper })],
  outline: (_l, p) => [new Style({ stroke: new Stroke({ color: p.ink, width: 1.8, lineDash: [14, 5, 2, 5] }) })],
  building: (l, p) => [
    new Style({ fill: new Fill({ color: p.ink }), stroke: new Stroke({ color: p.paper, width: 1.4 }), ...withText(label(l.label, p)) }),
  ],
  track: (_l, p) => [
    new Style({ stroke: new Stroke({ color: rgba(p.ink, 0.35), width: 6 }) }),
    new Style({ stroke: new Stroke({ color: p.paper, width: 4 }) }),
  ],
  // A roof that is caught is told from other buildings by its water edge.
  roof: (l, p) => [
    ...halo(l, p),
    new Style({
      fill: new Fill({ color: rgba(p.ink, 0.78) }),
      stroke: new Stroke({ color: p.water, width: 2.4 }),
      ...withText(label(l.label, p, { offsetY: 0 })),
    }),
  ],
  vessel: (l, p) => [
    ...halo(l, p),
    new Style({
      zIndex: 4,
      fill: new Fill({ color: p.water }),
      stroke: new Stroke({ color: p.ink, width: 1.8 }),
      ...withText(label(l.label, p, { offsetY: 18 })),
    }),
  ],
  // A ring of stone round water.
  well: (l, p) => [
    new Style({
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: l.isSelected === true ? 7 : 5.5,
        fill: new Fill({ color: p.water }),
        stroke: new Stroke({ color: p.ink, width: 2 }),
      }),
      ...withText(label(l.label, p, { offsetY: 16 })),
    }),
  ],
  tree: (l, p) => [crown(l, p)],
  wood: (l, p) => [wood(l, p)],
  feature: (l, p) => [
    new Style({ stroke: new Stroke({ color: p.ink, width: l.isSelected === true ? 3 : 1.5 }), ...withText(label(l.label, p)) }),
  ],
  pool: (l, p) => [
    new Style({
      fill: new Fill({ color: rgba(p.water, 0.35) }),
      stroke: new Stroke({ color: p.deepWater, width: l.isSelected === true ? 3 : 1.5 }),
      ...withText(label(l.label, p)),
    }),
  ],
  'seen-bank': (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: p.clay, width: 3.5 }) }),
    // Short ticks either side: a ridge in the way.
    new Style({ stroke: new Stroke({ color: p.clay, width: 9, lineDash: [1.5, 7], lineCap: 'butt' }), ...withText(label(l.label, p)) }),
  ],
  'seen-ditch': (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: p.deepWater, width: 5 }) }),
    new Style({ stroke: new Stroke({ color: p.paper, width: 1.6 }), ...withText(label(l.label, p)) }),
  ],
  'seen-led': (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: p.ink, width: 4, lineDash: [8, 4] }), ...withText(label(l.label, p)) }),
    ...arrowHead(p.ink),
  ],
  // A pipe under pressure: a thin line with beads.
  'pressure-pipe': (l, p) => [
    ...halo(l, p),
    // On a dark roof it is seen by its light edge.
    new Style({ stroke: new Stroke({ color: rgba(p.paper, 0.85), width: 9 }) }),
    new Style({ stroke: new Stroke({ color: p.deepWater, width: 2 }) }),
    new Style({
      stroke: new Stroke({ color: p.deepWater, width: 6, lineDash: [2, 14], lineCap: 'round' }),
      ...withText(label(l.label, p)),
    }),
  ],
  // A pipe in the ground that runs by its fall: a dark tube, and where it goes.
  'buried-pipe': (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: rgba(p.paper, 0.85), width: 8 }) }),
    new Style({ stroke: new Stroke({ color: p.ink, width: 4.5 }) }),
    new Style({ stroke: new Stroke({ color: p.paper, width: 1.6, lineDash: [9, 5] }), ...withText(label(l.label, p)) }),
    ...arrowHead(p.ink),
  ],
  // Holed, in gravel: it takes along its length.
  'seeping-pipe': (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: rgba(p.paper, 0.85), width: 8 }) }),
    new Style({ stroke: new Stroke({ color: p.clay, width: 5, lineDash: [1, 6], lineCap: 'round' }) }),
    new Style({ stroke: new Stroke({ color: p.ink, width: 1.4 }), ...withText(label(l.label, p)) }),
    ...arrowHead(p.ink),
  ],
  grate: (l, p) => [
    new Style({
      zIndex: 8,
      image: new RegularShape({
        declutterMode: 'obstacle',
        points: 4,
        radius: l.isSelected === true ? 9 : 7,
        angle: Math.PI / 4,
        fill: new Fill({ color: p.water }),
        stroke: new Stroke({ color: p.ink, width: 2 }),
      }),
    }),
  ],
  lid: (_l, p) => [
    new Style({
      zIndex: 8,
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: 4.5,
        fill: new Fill({ color: p.paper }),
        stroke: new Stroke({ color: p.ink, width: 2 }),
      }),
    }),
  ],
  'seen-note': (l, p) => [
    ...halo(l, p),
    new Style({
      stroke: new Stroke({ color: p.strawText, width: 2.5, lineDash: [1, 5], lineCap: 'round' }),
      ...withText(label(l.label, p)),
    }),
  ],
  arrow: (l, p) => [
    ...halo(l, p),
    new Style({ stroke: new Stroke({ color: p.strawText, width: 3 }), ...withText(label(l.label, p)) }),
    ...arrowHead(p.strawText),
  ],
  'seen-spring': (l, p) => [diamond(l, p, p.water)],
  'seen-downspout': (l, p) => [diamond(l, p, p.ink)],
  valley: (_l, p) => [new Style({ stroke: new Stroke({ color: rgba(p.water, 0.75), width: 2 }) })],
  ridge: (_l, p) => [new Style({ stroke: new Stroke({ color: rgba(p.clay, 0.75), width: 1.6, lineDash: [6, 5] }) })],
  wall: (_l, p) => [new Style({ stroke: new Stroke({ color: p.moss, width: 5 }) })],
  'hollow-water': (_l, p) => [
    new Style({ fill: new Fill({ color: rgba(p.water, 0.5) }), stroke: new Stroke({ color: p.deepWater, width: 1.5 }) }),
  ],
  answer: (_l, p) => [
    new Style({ stroke: new Stroke({ color: rgba(p.paper, 0.9), width: 6 }) }),
    new Style({ stroke: new Stroke({ color: p.deepWater, width: 3 }) }),
  ],
  section: (_l, p) => [
    new Style({ stroke: new Stroke({ color: rgba(p.paper, 0.85), width: 5 }) }),
    new Style({ stroke: new Stroke({ color: p.deepWater, width: 2.4 }) }),
  ],
  probe: (_l, p) => [
    new Style({
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: 6,
        fill: new Fill({ color: p.straw }),
        stroke: new Stroke({ color: p.ink, width: 2 }),
      }),
    }),
  ],
  'key-point': (l, p) => [placeMark(l, p, { points: 3, colour: p.straw })],
  choke: (l, p) => [placeMark(l, p, { points: 4, colour: p.moss })],
  'gully-head': (l, p) => [placeMark(l, p, { points: 3, colour: p.alarm, angle: Math.PI })],
  'standing-water': (l, p) => [placeMark(l, p, { points: 6, colour: p.water })],
  catchment: (l, p) => [
    new Style({
      fill: new Fill({ color: rgba(p.water, l.isSelected === true ? 0.26 : 0.1) }),
      stroke: new Stroke({ color: rgba(p.deepWater, l.isSelected === true ? 0.9 : 0.45), width: l.isSelected === true ? 1.6 : 1 }),
    }),
  ],
  zone: (l, p) => [
    new Style({
      zIndex: -1, // names of what stands in it come first
      fill: new Fill({ color: rgba(p.clay, l.isSelected === true ? 0.24 : 0.1) }),
      stroke: new Stroke({ color: p.clayText, width: l.isSelected === true ? 2.4 : 1.3, lineDash: [2, 4] }),
    }),
    // Its name stands over its northern edge, clear of what is inside.
    new Style({
      geometry: (feature) => {
        const [west, , east, north] = (feature.getGeometry() as Geometry).getExtent();
        return new Point([(west + east) / 2, north]);
      },
      ...withText(label(l.label, p, { colour: p.clayText, offsetY: -9 })),
    }),
  ],
  test: (l, p) => [
    new Style({
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: l.isSelected === true ? 9 : 7,
        fill: new Fill({ color: p.paper }),
        stroke: new Stroke({ color: p.clayText, width: 3.5 }),
      }),
      ...withText(label(l.label, p, { colour: p.clayText })),
    }),
  ],
  'swale-right': swaleStyles,
  'swale-left': swaleStyles,
  spill: (l, p) => dashes(p, p.deepWater, l.isSelected === true ? 3 : 2).map((stroke) => new Style({ stroke })),
  sill: (l, p) => [
    new Style({
      zIndex: 10,
      image: new RegularShape({
        declutterMode: 'obstacle',
        points: 4,
        radius: l.isSelected === true ? 10 : 8,
        angle: Math.PI / 4,
        fill: new Fill({ color: p.paper }),
        stroke: new Stroke({ color: p.ink, width: l.isSelected === true ? 2.8 : 1.8 }),
      }),
      ...withText(label(l.label, p, { offsetY: 19 })),
    }),
  ],
  low: (l, p) => [
    new Style({
      zIndex: 9, // its name comes before all others where they crowd
      image: new RegularShape({
        declutterMode: 'obstacle',
        points: 4,
        radius: 8,
        angle: Math.PI / 4,
        fill: new Fill({ color: p.alarm }),
        stroke: new Stroke({ color: p.paper, width: 1.5 }),
      }),
      ...withText(label(l.label, p, { colour: p.alarm, offsetY: 19 })),
    }),
  ],
  // What a gauge says: a dot on the store, hollow where it is not believed.
  live: (l, p) => [
    new Style({
      zIndex: 9,
      image: new CircleStyle({ radius: 7, fill: new Fill({ color: p.water }), stroke: new Stroke({ color: p.paper, width: 2.5 }) }),
      ...withText(label(l.label, p, { offsetY: 18 })),
    }),
  ],
  'live-doubted': (l, p) => [
    new Style({
      zIndex: 9,
      image: new CircleStyle({ radius: 7, fill: new Fill({ color: p.paper }), stroke: new Stroke({ color: p.alarm, width: 2.5 }) }),
      ...withText(label(l.label, p, { offsetY: 18, colour: p.alarm })),
    }),
  ],
  pin: (l, p) => [
    new Style({
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: l.isSelected === true ? 8 : 6.5,
        fill: new Fill({ color: p.deepWater }),
        stroke: new Stroke({ color: p.paper, width: 2 }),
      }),
      ...withText(label(l.label, p)),
    }),
  ],
  exit: (l, p) => [
    new Style({
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: 5,
        fill: new Fill({ color: p.paper }),
        stroke: new Stroke({ color: p.deepWater, width: 3 }),
      }),
      ...withText(label(l.label, p, { colour: p.deepWater })),
    }),
  ],
  corner: (_l, p) => [
    new Style({
      zIndex: 30,
      image: new RegularShape({
        declutterMode: 'none',
        points: 4,
        radius: 7,
        angle: 0,
        fill: new Fill({ color: p.paper }),
        stroke: new Stroke({ color: p.ink, width: 1.6 }),
      }),
    }),
  ],
  peg: (_l, p) => [
    new Style({
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: 3.5,
        fill: new Fill({ color: p.straw }),
        stroke: new Stroke({ color: p.ink, width: 1 }),
      }),
    }),
  ],
  drawing: (_l, p) => [
    new Style({ stroke: new Stroke({ color: rgba(p.paper, 0.9), width: 6 }) }),
    new Style({ stroke: new Stroke({ color: p.clay, width: 3, lineDash: [2, 5] }) }),
  ],
  vertex: (_l, p) => [
    new Style({
      image: new CircleStyle({
        declutterMode: 'obstacle',
        radius: 4.5,
        fill: new Fill({ color: p.clay }),
        stroke: new Stroke({ color: p.paper, width: 1.5 }),
      }),
    }),
  ],
  crosshair: (_l, p) => [
    new Style({
      image: new RegularShape({
        declutterMode: 'obstacle',
        points: 4,
        radius: 15,
        radius2: 0,
        fill: new Fill({ color: p.paper }),
        stroke: new Stroke({ color: p.paper, width: 5 }),
      }),
    }),
    new Style({
      image: new RegularShape({
        declutterMode: 'obstacle',
        points: 4,
        radius: 14,
        radius2: 0,
        stroke: new Stroke({ color: p.ink, width: 2 }),
      }),
    }),
  ],
};

const styled = drawnOnce<Style[]>();

/** How an item is drawn: found again while neither it, its shape nor the view is another. */
export function itemStyle(feature: FeatureLike, resolution: number, palette: Palette): Style[] {
  const look = feature.get('look') as Look;
  const geometry = (feature.getGeometry() as Geometry | undefined) ?? new Point([0, 0]);
  return styled(feature, [look, geometry, geometry.getRevision(), resolution, palette], () => {
    const style = STYLES[look.role] ?? STYLES.feature;
    return style(look, palette, { geometry, resolution });
  });
}
