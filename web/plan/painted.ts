// What is painted on a canvas of the plan stays as it is while nothing of it is another: a mark that is dragged is painted over ground
// and catchments that stay. While the view itself is moved, what takes long to paint is moved as a picture between two paintings.
import type OlMap from 'ol/Map.js';
import type { FrameState } from 'ol/Map.js';
import type Layer from 'ol/layer/Layer.js';
import type RenderEvent from 'ol/render/Event.js';

/** Where a view looks, how near, and on how large a plan [px]. */
export interface Seen {
  readonly center: readonly number[];
  readonly resolution: number;
  readonly size: readonly number[];
}

/** What is painted within so long is painted at every frame [ms]. */
const QUICK_MS = 24;
/** After a longer one the picture is moved for so many times as long. */
const MOVED_TIMES = 3;

/** How a picture painted for one view is laid where another shows the same places. */
export function movedTo(was: Seen, now: Seen): string {
  const scale = was.resolution / now.resolution;
  const x = (now.size[0] / 2) * (1 - scale) + (was.center[0] - now.center[0]) / now.resolution;
  const y = (now.size[1] / 2) * (1 - scale) + (now.center[1] - was.center[1]) / now.resolution;
  return `translate(${x}px, ${y}px) scale(${scale})`;
}

/** A painting: of what, for which view, and whether that was being moved, which leaves out what comes into view. */
interface Painting {
  readonly says: string;
  readonly seen: Seen;
  readonly isMoved: boolean;
  readonly begunMs: number;
}

const isSameView = (a: Seen, b: Seen): boolean => a.resolution === b.resolution && a.center.every((c, k) => c === b.center[k]);

/** Layers of one canvas, lowest first: all of them are painted, or none. */
export class Painted {
  private last: Painting | null = null;
  private isFresh = false;
  /** How long it took till a painting was on the screen, while the view was moved [ms]. */
  private tookMs = 0;
  /** The names that were painted. */
  private noted: NonNullable<FrameState['declutter']>[string] | undefined;
  /** How the picture is laid in this frame; null where it is painted. */
  private laid: string | null = null;

  constructor(
    map: OlMap,
    private readonly layers: readonly Layer[],
  ) {
    map.on('precompose', ({ frameState }: RenderEvent) => {
      if (frameState) this.begin(frameState, performance.now());
    });
    for (const layer of layers) this.paintsWithOthers(layer);
  }

  /** The map asks each layer for its canvas: where nothing is painted it is given the one there was. */
  private paintsWithOthers(layer: Layer): void {
    const render = layer.render.bind(layer);
    const renderDeclutter = layer.renderDeclutter.bind(layer);
    const renderDeferred = layer.renderDeferred.bind(layer);
    let canvas: HTMLElement | null = null;
    layer.render = (...on) => {
      if (this.laid === null) canvas = render(...on);
      if (canvas) [canvas.style.transformOrigin, canvas.style.transform] = ['0 0', this.laid ?? ''];
      return canvas;
    };
    // Names kept clear of each other are noted at every frame, and painted after all others; by what is noted a click knows which are seen.
    const group = layer.getDeclutter();
    layer.renderDeclutter = (frame, state) => {
      if (this.laid === null) renderDeclutter(frame, state);
      if (group === undefined || !frame.declutter) return;
      if (this.laid === null) this.noted = frame.declutter[group];
      else if (this.noted) frame.declutter[group] = this.noted;
    };
    layer.renderDeferred = (frame) => {
      if (this.laid === null) renderDeferred(frame);
    };
  }

  private begin(frame: FrameState, nowMs: number): void {
    const { viewState, viewHints, size, pixelRatio } = frame;
    const isMoved = viewHints.some((hint) => hint > 0);
    // While the view is moved, the next frame begins when the one before is on the screen.
    if (this.last && this.isFresh && isMoved && this.last.isMoved) this.tookMs = nowMs - this.last.begunMs;
    const seen = { ...viewState, size };
    const says = [...size, pixelRatio, viewState.rotation, ...this.layers.map((l) => `${l.getRevision()} ${l.getVisible()}`)].join(' ');
    const now = { says, seen, isMoved, begunMs: nowMs };
    this.laid = this.last && this.lays(this.last, now);
    this.isFresh = this.laid === null;
    if (this.isFresh) this.last = now;
  }

  /** How the last painting shows what is to be seen now; null where it does not. */
  private lays(was: Painting, now: Painting): string | null {
    if (was.says !== now.says) return null;
    const isSame = isSameView(was.seen, now.seen);
    if (isSame && (!was.isMoved || now.isMoved)) return '';
    const rests = this.tookMs > QUICK_MS && now.begunMs - was.begunMs < (1 + MOVED_TIMES) * this.tookMs;
    return now.isMoved && rests ? movedTo(was.seen, now.seen) : null;
  }
}
