// What styles of the plan are put together from.
import type Geometry from 'ol/geom/Geometry.js';
import LineString from 'ol/geom/LineString.js';
import MultiLineString from 'ol/geom/MultiLineString.js';
import Point from 'ol/geom/Point.js';
import Fill from 'ol/style/Fill.js';
import RegularShape from 'ol/style/RegularShape.js';
import Stroke from 'ol/style/Stroke.js';
import Style from 'ol/style/Style.js';
import Text from 'ol/style/Text.js';
import { FONT, type Palette } from '../app/theme.ts';
import { rgba } from './contour-style.ts';
import type { Look } from './types.ts';
import { offsetLine } from './offset.ts';

export function label(text: string | undefined, p: Palette, more: { colour?: string; offsetY?: number } = {}): Text | undefined {
  if (text === undefined || text === '') return undefined;
  return new Text({
    text,
    font: `600 13px ${FONT.text}`,
    fill: new Fill({ color: more.colour ?? p.ink }),
    stroke: new Stroke({ color: p.paper, width: 4 }),
    offsetY: more.offsetY ?? -16,
    overflow: true,
  });
}

export const withText = (text: Text | undefined): { text?: Text } => (text ? { text } : {});

export type StyleOf = (look: Look, p: Palette, on: { geometry: Geometry; resolution: number }) => Style[];

export const dashes = (p: Palette, color: string, width: number): Stroke[] => [
  new Stroke({ color: rgba(p.paper, 0.75), width: width + 2 }),
  new Stroke({ color, width, lineDash: [7, 5] }),
];

/** A level ditch and its bank to scale where they are wide enough on screen, else by a mark of least width. */
export function swaleStyles(look: Look, p: Palette, { geometry, resolution }: { geometry: Geometry; resolution: number }): Style[] {
  const width = Math.max(4, (look.width ?? 2) / resolution);
  const side = look.role.endsWith('left') ? -1 : 1;
  const line = geometry as LineString;
  const shifted = (px: number): LineString => offsetLine(line, px * resolution * side);
  return [
    ...(look.isSelected === true ? [new Style({ stroke: new Stroke({ color: rgba(p.straw, 0.65), width: 2 * width + 9 }) })] : []),
    new Style({ geometry: shifted(-width / 2), stroke: new Stroke({ color: p.water, width, lineCap: 'butt' }) }),
    new Style({ geometry: shifted(width / 2), stroke: new Stroke({ color: p.moss, width, lineCap: 'butt' }) }),
    // The name of what is selected comes before others where they crowd.
    new Style({ geometry: shifted(width / 2), zIndex: look.isSelected === true ? 8 : 0, ...withText(label(look.label, p)) }),
  ];
}

/** A glow behind what is selected. */
export const halo = (look: Look, p: Palette): Style[] =>
  look.isSelected === true ? [new Style({ stroke: new Stroke({ color: rgba(p.straw, 0.65), width: 12 }) })] : [];

/** A head at the last point of a line, turned the way it runs. */
export const arrowHead = (color: string): Style[] => [
  new Style({
    geometry: (feature) => new Point((feature.getGeometry() as LineString).getLastCoordinate()),
    renderer: (pixel, state) => {
      const line = state.feature.getGeometry() as LineString;
      const [a, b] = line.getCoordinates().slice(-2);
      const [x, y] = pixel as [number, number];
      const angle = Math.atan2(a[1] - b[1], b[0] - a[0]);
      const { context } = state;
      context.save();
      context.translate(x, y);
      context.rotate(angle);
      context.fillStyle = color;
      context.beginPath();
      context.moveTo(4, 0);
      context.lineTo(-11, -7);
      context.lineTo(-11, 7);
      context.closePath();
      context.fill();
      context.restore();
    },
  }),
];

export const diamond = (look: Look, p: Palette, colour: string): Style =>
  new Style({
    image: new RegularShape({
      declutterMode: 'obstacle',
      points: 4,
      radius: look.isSelected === true ? 10 : 7.5,
      fill: new Fill({ color: colour }),
      stroke: new Stroke({ color: p.paper, width: 1.5 }),
    }),
    ...withText(label(look.label, p)),
  });

export const placeMark = (look: Look, p: Palette, shape: { points: number; colour: string; angle?: number }): Style =>
  new Style({
    image: new RegularShape({
      declutterMode: 'obstacle',
      points: shape.points,
      radius: 9,
      angle: shape.angle ?? 0,
      fill: new Fill({ color: shape.colour }),
      stroke: new Stroke({ color: p.ink, width: 1.6 }),
    }),
    ...withText(label(look.label, p, { offsetY: 18 })),
  });

/** A way out: a shape by its kind on paper, its level beside it. */
export const wayOut = (look: Look, p: Palette, shape: { points: number; angle: number; fill: string }): Style =>
  new Style({
    zIndex: 10, // over the wall it stands on
    image: new RegularShape({
      declutterMode: 'obstacle',
      points: shape.points,
      radius: look.isSelected === true ? 11 : 9,
      angle: shape.angle,
      fill: new Fill({ color: shape.fill }),
      stroke: new Stroke({ color: p.ink, width: look.isSelected === true ? 2.8 : 1.8 }),
    }),
    ...withText(label(look.label, p, { offsetY: 19 })),
  });

/** A band to scale where it is wide enough on screen, else of least width, with an edge on either side. */
export const band = (look: Look, p: Palette, on: { resolution: number; fill: string; least: number }): Style[] => {
  const width = Math.max(on.least, (look.width ?? 1) / on.resolution);
  return [
    ...(look.isSelected === true ? [new Style({ stroke: new Stroke({ color: rgba(p.straw, 0.65), width: width + 10 }) })] : []),
    new Style({ stroke: new Stroke({ color: p.ink, width: width + 2.4, lineCap: 'butt' }) }),
    new Style({
      stroke: new Stroke({ color: on.fill, width, lineCap: 'butt' }),
      zIndex: look.isSelected === true ? 8 : 0,
      ...withText(label(look.label, p)),
    }),
  ];
};

/** Basins narrower than this on screen are drawn as the row they stand in [px]. */
const TOLD_APART_PX = 6;

/** The row basins stand in, through the middles of their ends. */
function rowThrough(basins: MultiLineString): LineString {
  return new LineString(
    basins.getCoordinates().map((basin) => {
      const [a, b] = [basin[0], basin[basin.length - 1]];
      return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    }),
  );
}

/** Basins of a row one by one, or where they could not be told apart the row itself; its name once. */
export function basinStyles(look: Look, p: Palette, on: { geometry: Geometry; resolution: number }): Style[] {
  const { geometry, resolution } = on;
  const basins = geometry instanceof MultiLineString ? geometry : null;
  const row = basins ? rowThrough(basins) : geometry;
  const [west, south, east, north] = basins?.getLineString(0)?.getExtent() ?? [0, 0, Infinity, 0];
  const drawn = Math.max(east - west, north - south) < TOLD_APART_PX * resolution ? row : geometry;
  const { label: name, ...plain } = look;
  const styles = band(plain, p, { resolution, fill: p.moss, least: 1.6 });
  for (const style of styles) style.setGeometry(drawn);
  return [...styles, new Style({ geometry: row, zIndex: look.isSelected === true ? 8 : 0, ...withText(label(name, p)) })];
}
