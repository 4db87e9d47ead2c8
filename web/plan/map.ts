// The one imperative map. Sources are kept in step with the document by id; interactions report what the user did.
import Feature from 'ol/Feature.js';
import OlMap from 'ol/Map.js';
import View from 'ol/View.js';
import { defaults as defaultInteractions } from 'ol/interaction/defaults.js';
import DoubleClickZoom from 'ol/interaction/DoubleClickZoom.js';
import Translate, { type TranslateEvent } from 'ol/interaction/Translate.js';
import ScaleLine from 'ol/control/ScaleLine.js';
import type Geometry from 'ol/geom/Geometry.js';
import ImageLayer from 'ol/layer/Image.js';
import VectorLayer from 'ol/layer/Vector.js';
import Projection from 'ol/proj/Projection.js';
import ImageCanvasSource from 'ol/source/ImageCanvas.js';
import VectorSource from 'ol/source/Vector.js';
import type { Point as XY } from '#core/geometry';
import type { UnitSystem } from '#core/units';
import type { Look, PlanEvents, PlanItem } from './types.ts';
import type { TerrainView } from '../workers/protocol.ts';
import type { Palette } from '../app/theme.ts';
import { contourFeatures } from './contours.ts';
import { paintShade } from './shade.ts';
import { contourStyle, itemStyle } from './styles.ts';

type Extent = [number, number, number, number];

/** Owns the OpenLayers map: created once, told what to show. */
export class PlanMap {
  private readonly map: OlMap;
  private readonly scale = new ScaleLine({ minWidth: 70 });
  private readonly contours = new VectorSource();
  private readonly items = new VectorSource();
  private readonly tools = new VectorSource();
  private readonly shadeLayer = new ImageLayer<ImageCanvasSource>();
  private readonly contourLayer: VectorLayer<VectorSource>;
  private readonly layers: VectorLayer<VectorSource>[];
  private palette: Palette;
  private terrainKey = '';
  private view: TerrainView | null = null;
  private lastClick = { time: 0, x: 0, y: 0 };

  constructor(target: HTMLElement, palette: Palette, events: PlanEvents) {
    this.palette = palette;
    const layer = (source: VectorSource, zIndex: number): VectorLayer<VectorSource> =>
      new VectorLayer({
        source,
        zIndex,
        declutter: zIndex === 1,
        style: (f, r) => (zIndex === 1 ? contourStyle(f, r, this.palette) : itemStyle(f, r, this.palette)),
      });
    this.contourLayer = layer(this.contours, 1);
    this.layers = [this.contourLayer, layer(this.items, 2), layer(this.tools, 3)];
    this.map = new OlMap({
      target,
      layers: [this.shadeLayer, ...this.layers],
      controls: [this.scale],
      interactions: defaultInteractions({ keyboard: false }),
      view: new View({ projection: new Projection({ code: 'outlet-plane', units: 'm' }), center: [0, 0], resolution: 1 }),
    });
    // A finishing double click must not zoom; the wheel, pinch and buttons do.
    this.map.getInteractions().forEach((i) => {
      if (i instanceof DoubleClickZoom) i.setActive(false);
    });
    this.listen(events);
  }

  private listen(events: PlanEvents): void {
    this.map.on('click', (e) => {
      const hit = this.map.forEachFeatureAtPixel(e.pixel, (f) => f.getId(), {
        hitTolerance: 6,
        layerFilter: (l) => l === this.layers[1],
      }) as string | undefined;
      const now = performance.now();
      const isDouble = now - this.lastClick.time < 350 && Math.hypot(e.pixel[0] - this.lastClick.x, e.pixel[1] - this.lastClick.y) < 6;
      this.lastClick = { time: now, x: e.pixel[0], y: e.pixel[1] };
      events.onClick([e.coordinate[0], e.coordinate[1]], hit ?? null, isDouble);
    });
    this.map.on('pointermove', (e) => {
      if (!e.dragging) events.onPointer([e.coordinate[0], e.coordinate[1]]);
    });
    this.map.getViewport()?.addEventListener('pointerleave', () => events.onPointer(null));
    const translate = new Translate({ layers: [this.layers[1]], filter: (f) => f.get('isMovable') === true, hitTolerance: 8 });
    const tell =
      (phase: 'start' | 'move' | 'end') =>
      (e: TranslateEvent): void => {
        const id = e.features.item(0)?.getId();
        if (id !== undefined) events.onDrag(String(id), [e.coordinate[0], e.coordinate[1]], phase);
      };
    translate.on('translatestart', tell('start'));
    translate.on('translating', tell('move'));
    translate.on('translateend', tell('end'));
    this.map.addInteraction(translate);
  }

  setPalette(palette: Palette): void {
    this.palette = palette;
    this.layers.forEach((l) => l.changed());
    if (this.view) this.showShade(this.view);
  }

  setSystem(system: UnitSystem): void {
    this.scale.setUnits(system);
  }

  /** Shows a terrain once; the same key again does nothing. */
  setTerrain(view: TerrainView | null): void {
    const key = view?.key ?? '';
    if (key === this.terrainKey) return;
    this.terrainKey = key;
    this.view = view;
    this.contours.clear();
    this.shadeLayer.setSource(null);
    if (!view) return;
    this.showShade(view);
    this.contours.addFeatures(contourFeatures(view));
  }

  private showShade(view: TerrainView): void {
    const { west, south, cellM, ncols, nrows } = view.frame;
    const picture = paintShade(view, this.palette);
    this.shadeLayer.setSource(
      new ImageCanvasSource({
        ratio: 1,
        canvasFunction: (...[extent, resolution, pixelRatio, size]) => {
          const canvas = document.createElement('canvas');
          [canvas.width, canvas.height] = [Math.round(size[0]), Math.round(size[1])];
          const scale = pixelRatio / resolution;
          const context = canvas.getContext('2d');
          if (context) {
            context.imageSmoothingQuality = 'high';
            context.drawImage(
              picture,
              (west - extent[0]) * scale,
              (extent[3] - south - nrows * cellM) * scale,
              ncols * cellM * scale,
              nrows * cellM * scale,
            );
          }
          return canvas;
        },
      }),
    );
  }

  /** Brings drawn items in step: new ones added, gone ones removed, changed ones redrawn. */
  setItems(items: readonly PlanItem[]): void {
    const wanted = new Set(items.map((i) => i.id));
    for (const feature of this.items.getFeatures()) if (!wanted.has(String(feature.getId()))) this.items.removeFeature(feature);
    for (const item of items) this.putItem(item);
  }

  private putItem({ id, version, geometry, look, isMovable }: PlanItem): void {
    const known = this.items.getFeatureById(id);
    if (known?.get('version') === version) return;
    const feature = known ?? new Feature();
    feature.setId(id);
    feature.setProperties({ version, look, isMovable: isMovable === true });
    feature.setGeometry(geometry);
    if (!known) this.items.addFeature(feature);
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

  fit(extent: Extent): void {
    this.map.updateSize();
    this.map.getView().fit(extent, { padding: [18, 18, 34, 18] });
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
    this.map.updateSize();
  }

  dispose(): void {
    this.map.setTarget(undefined);
  }
}
