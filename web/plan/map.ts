// The one imperative map. Sources are kept in step with the document by id; interactions report what the user did.
import Feature, { type FeatureLike } from 'ol/Feature.js';
import OlMap from 'ol/Map.js';
import View from 'ol/View.js';
import { defaults as defaultInteractions } from 'ol/interaction/defaults.js';
import DoubleClickZoom from 'ol/interaction/DoubleClickZoom.js';
import ScaleLine from 'ol/control/ScaleLine.js';
import type { Coordinate } from 'ol/coordinate.js';
import type Geometry from 'ol/geom/Geometry.js';
import Point from 'ol/geom/Point.js';
import type SimpleGeometry from 'ol/geom/SimpleGeometry.js';
import ImageLayer from 'ol/layer/Image.js';
import VectorLayer from 'ol/layer/Vector.js';
import Projection from 'ol/proj/Projection.js';
import type ImageCanvasSource from 'ol/source/ImageCanvas.js';
import VectorSource from 'ol/source/Vector.js';
import type Style from 'ol/style/Style.js';
import type { Point as XY } from '#core/geometry';
import type { UnitSystem } from '#core/units';
import type { Look, PlanEvents, PlanItem } from './types.ts';
import type { Palette } from '../app/theme.ts';
import { type Frame, rasterSource } from './raster.ts';
import { contourLevelStyle, contourStyle } from './contour-style.ts';
import { Painted } from './painted.ts';
import { markDrag } from './mark-drag.ts';
import { itemStyle } from './styles.ts';

type Extent = [number, number, number, number];

/** Where a view looks and how near, as a text two of them are told apart by. */
const viewState = (view: View): string => [...(view.getCenter() ?? []), view.getResolution()].join(' ');

/** How near a click must be to take hold of what is drawn [px], and what may be taken hold of. */
const SNAP_PX = 9;
const SNAPS: ReadonlySet<string> = new Set([
  'outline',
  'building',
  'track',
  'feature',
  'seen-line',
  'seen-point',
  'pin',
  'sill',
  'swale-left',
  'swale-right',
]);

/** Roles that lie under all marks and have no names: painted by themselves, they stay while a mark is dragged over them. */
const AREAS: ReadonlySet<string> = new Set(['catchment']);

type StyleIn = (feature: FeatureLike, resolution: number, palette: Palette) => Style[];

function putAll(source: VectorSource, items: readonly PlanItem[]): void {
  const wanted = new Set(items.map((i) => i.id));
  for (const feature of source.getFeatures()) if (!wanted.has(String(feature.getId()))) source.removeFeature(feature);
  for (const item of items) put(source, item);
}

function put(source: VectorSource, { id, version, geometry, look, isMovable }: PlanItem): void {
  const known = source.getFeatureById(id);
  if (known?.get('version') === version) return;
  const feature = known ?? new Feature();
  feature.setId(id);
  feature.setProperties({ version, look, isMovable: isMovable === true });
  feature.setGeometry(geometry);
  if (!known) source.addFeature(feature);
}

/** How near a press must be to a mark to move it [px]. */
const TAKEN_WITHIN_PX = 16;

/** Owns the OpenLayers map: created once, told what to show. */
export class PlanMap {
  private readonly map: OlMap;
  private readonly scale = new ScaleLine({ minWidth: 70 });
  private readonly contours = new VectorSource();
  private readonly areas = new VectorSource();
  private readonly items = new VectorSource();
  private readonly tools = new VectorSource();
  private readonly shadeLayer = new ImageLayer<ImageCanvasSource>({ className: 'plan-ground' });
  private readonly pictureLayer = new ImageLayer<ImageCanvasSource>({ className: 'plan-ground' });
  private readonly overlayLayer = new ImageLayer<ImageCanvasSource>({ className: 'plan-ground' });
  private readonly itemLayer: VectorLayer<VectorSource>;
  private readonly layers: readonly VectorLayer<VectorSource>[];
  private palette: Palette;
  private readonly isFree: () => boolean;
  private lastClick = { time: 0, x: 0, y: 0 };
  /** When it was pressed, and which press in a row it was to the system: the map hands on an event of its own, made when a busy page came to look. */
  private press = { time: 0, count: 0 };
  /** What is shown whole, and the view that showed it. */
  private fitted: { readonly extent: Extent; readonly state: string } | null = null;

  constructor(target: HTMLElement, palette: Palette, events: PlanEvents) {
    this.palette = palette;
    this.isFree = events.canTake;
    const layer = (source: VectorSource, style: StyleIn, on: { readonly className: string; readonly declutter: boolean }) =>
      new VectorLayer({ source, ...on, style: (f, r) => style(f, r, this.palette) });
    const lines = layer(this.contours, contourStyle, { className: 'plan-ground', declutter: false });
    const areas = layer(this.areas, itemStyle, { className: 'plan-areas', declutter: false });
    const marks = { className: 'plan-marks', declutter: true };
    const levels = layer(this.contours, contourLevelStyle, marks);
    this.itemLayer = layer(this.items, itemStyle, marks);
    const tools = layer(this.tools, itemStyle, { ...marks, declutter: false });
    this.layers = [lines, areas, levels, this.itemLayer, tools];
    const ground = [this.shadeLayer, this.pictureLayer, this.overlayLayer, lines];
    this.map = new OlMap({
      target,
      layers: [...ground, ...this.layers.slice(1)],
      controls: [this.scale],
      interactions: defaultInteractions({ keyboard: false }),
      view: new View({ projection: new Projection({ code: 'outlet-plane', units: 'm' }), center: [0, 0], resolution: 1 }),
    });
    // A finishing double click must not zoom; the wheel, pinch and buttons do.
    this.map.getInteractions().forEach((i) => {
      if (i instanceof DoubleClickZoom) i.setActive(false);
    });
    for (const together of [ground, [areas], this.layers.slice(2)]) void new Painted(this.map, together);
    this.listen(events);
  }

  private listen(events: PlanEvents): void {
    this.map.on('click', (e) => {
      const hit = this.map.forEachFeatureAtPixel(e.pixel, (f) => f.getId(), {
        hitTolerance: 6,
        layerFilter: (l) => l === this.itemLayer,
      }) as string | undefined;
      const { time, count } = this.press;
      const isSoon = count > 1 || time - this.lastClick.time < 350;
      const isDouble = isSoon && Math.hypot(e.pixel[0] - this.lastClick.x, e.pixel[1] - this.lastClick.y) < 6;
      this.lastClick = { time, x: e.pixel[0], y: e.pixel[1] };
      events.onClick([e.coordinate[0], e.coordinate[1]], hit ?? null, isDouble);
    });
    const viewport = this.map.getViewport();
    // A mouse tells its presses in a row, as quick as its owner has set them; of fingers only the time is known.
    viewport?.addEventListener('pointerdown', (e) => (this.press = { time: e.timeStamp, count: 0 }), { capture: true });
    viewport?.addEventListener('mousedown', (e) => (this.press = { ...this.press, count: e.detail }), { capture: true });
    this.map.on('pointermove', (e) => {
      if (!e.dragging) events.onPointer([e.coordinate[0], e.coordinate[1]]);
    });
    viewport?.addEventListener('pointerleave', () => events.onPointer(null));
    // A mark is taken by its place, not by its name: names reach far over their neighbours.
    const near = (at: Coordinate): Feature | undefined => (events.canTake() ? this.movableNear(at) : undefined);
    this.map.addInteraction(markDrag({ near, tell: (id, [x, y], phase) => events.onDrag(id, [x, y], phase) }));
  }

  /** The mark that can be moved nearest to a place, within reach of a finger. */
  private movableNear([atX, atY]: Coordinate): Feature | undefined {
    const reach = TAKEN_WITHIN_PX * (this.map.getView().getResolution() ?? 1);
    let best: Feature | undefined;
    let least = reach;
    for (const feature of this.items.getFeaturesInExtent([atX - reach, atY - reach, atX + reach, atY + reach])) {
      const geometry = feature.getGeometry();
      if (feature.get('isMovable') !== true || !(geometry instanceof Point)) continue;
      const [x, y] = geometry.getCoordinates();
      // What stands at a corner goes with it.
      const isCorner = (feature.get('look') as Look).role === 'corner';
      const distance = Math.hypot(x - atX, y - atY) - (isCorner ? 0.2 * reach : 0);
      if (distance <= least) [best, least] = [feature, distance];
    }
    return best;
  }

  setPalette(palette: Palette): void {
    this.palette = palette;
    this.layers.forEach((l) => l.changed());
  }

  setSystem(system: UnitSystem): void {
    this.scale.setUnits(system);
  }

  /** Pictures of one pixel a cell: the shaded ground, and a layer laid over it. */
  setPicture(which: 'shade' | 'overlay', picture: HTMLCanvasElement | null, frame: Frame | null): void {
    const layer = which === 'shade' ? this.shadeLayer : this.overlayLayer;
    layer.setSource(picture && frame ? rasterSource(picture, frame) : null);
  }

  /** Photographs and scans over the shaded ground. */
  setPictures(source: ImageCanvasSource | null): void {
    this.pictureLayer.setSource(source);
  }

  setContours(features: readonly Feature[]): void {
    this.contours.clear();
    this.contours.addFeatures([...features]);
  }

  /** The nearest corner or edge of what is drawn within a few pixels of a place, else the place itself. */
  snap(at: XY): XY {
    const reach = SNAP_PX * (this.map.getView().getResolution() ?? 1);
    let best = { at, d: Infinity };
    for (const feature of this.items.getFeaturesInExtent([at[0] - reach, at[1] - reach, at[0] + reach, at[1] + reach])) {
      const look = feature.get('look') as Look;
      const geometry = feature.getGeometry();
      if (!geometry || !SNAPS.has(look.role)) continue;
      const corners = (geometry as SimpleGeometry).getFlatCoordinates();
      const [ex, ey] = geometry.getClosestPoint([...at]);
      // A corner wins over the edge it ends.
      const places: [number, number, number][] = [[ex, ey, 1]];
      for (let k = 0; k + 1 < corners.length; k += 2) places.push([corners[k], corners[k + 1], 0.5]);
      for (const [x, y, weight] of places) {
        const d = Math.hypot(x - at[0], y - at[1]);
        if (d <= reach && d * weight < best.d) best = { at: [x, y], d: d * weight };
      }
    }
    return best.at;
  }

  /** Brings drawn items in step: new ones added, gone ones removed, changed ones redrawn. */
  setItems(items: readonly PlanItem[]): void {
    putAll(
      this.areas,
      items.filter(({ look }) => AREAS.has(look.role)),
    );
    putAll(
      this.items,
      items.filter(({ look }) => !AREAS.has(look.role)),
    );
  }

  /** What is being drawn, and the crosshair. */
  setTools(parts: readonly { readonly geometry: Geometry; readonly look: Look }[]): void {
    this.tools.clear();
    this.tools.addFeatures(
      parts.map(({ geometry, look }) => {
        const feature = new Feature(geometry);
        feature.set('look', look);
        return feature;
      }),
    );
  }

  /** Shows all of an extent; again when the plan gets more or less room, until somebody looks elsewhere, and never under a tool in hand. */
  fit(extent: Extent): void {
    this.map.updateSize();
    const view = this.map.getView();
    view.fit(extent, { padding: [18, 18, 34, 18] });
    this.fitted = { extent, state: viewState(view) };
  }

  /** Moves the view so that a place is on it. */
  reveal([x, y]: XY): void {
    const view = this.map.getView();
    const extent = view.calculateExtent(this.map.getSize());
    const inside = x > extent[0] && x < extent[2] && y > extent[1] && y < extent[3];
    if (!inside) view.setCenter([x, y]);
  }

  zoom(by: number): void {
    const view = this.map.getView();
    view.animate({ zoom: (view.getZoom() ?? 0) + by, duration: 120 });
  }

  centre(): XY {
    const [x, y] = this.map.getView().getCenter() ?? [0, 0];
    return [x, y];
  }

  /** Page position of a place, for tests and tips. */
  pixelOf([x, y]: XY): XY {
    const [px, py] = this.map.getPixelFromCoordinate([x, y]) ?? [0, 0];
    return [px, py];
  }

  resize(): void {
    const isAsFitted = this.fitted?.state === viewState(this.map.getView());
    if (this.fitted && isAsFitted && this.isFree()) this.fit(this.fitted.extent);
    else this.map.updateSize();
  }

  dispose(): void {
    this.map.setTarget(undefined);
  }
}
