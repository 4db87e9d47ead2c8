// Marks that are moved by hand.
import type Feature from 'ol/Feature.js';
import type MapBrowserEvent from 'ol/MapBrowserEvent.js';
import type { Coordinate } from 'ol/coordinate.js';
import PointerInteraction from 'ol/interaction/Pointer.js';

export type DragPhase = 'start' | 'move' | 'end';

interface MarkDrag {
  /** The mark that would be taken at a place. */
  readonly near: (at: Coordinate) => Feature | undefined;
  readonly tell: (id: string, at: Coordinate, phase: DragPhase) => void;
}

const isPrimary = ({ originalEvent: pressed }: MapBrowserEvent): boolean => !(pressed instanceof MouseEvent) || pressed.button === 0;
const show = (e: MapBrowserEvent, cursor: string): void => e.map.getViewport()?.style.setProperty('cursor', cursor);

/**
 * A mark is taken by its place and goes with the pointer. Nothing is painted to find out what lies under that: a plan with thousands
 * of works would stand still whenever somebody only moves over it.
 */
export function markDrag({ near, tell }: MarkDrag): PointerInteraction {
  let taken: Feature | undefined;
  let last: Coordinate = [0, 0];
  const told = (e: MapBrowserEvent, phase: DragPhase): void => {
    const id = taken?.getId();
    if (id !== undefined) tell(String(id), e.coordinate, phase);
  };
  return new PointerInteraction({
    handleDownEvent: (e) => {
      taken = isPrimary(e) ? near(e.coordinate) : undefined;
      if (!taken) return false;
      last = e.coordinate;
      show(e, 'grabbing');
      told(e, 'start');
      return true;
    },
    handleDragEvent: (e) => {
      const [x, y] = e.coordinate;
      taken?.getGeometry()?.translate(x - last[0], y - last[1]);
      last = e.coordinate;
      told(e, 'move');
    },
    handleUpEvent: (e) => {
      told(e, 'end');
      taken = undefined;
      show(e, '');
      return false;
    },
    handleMoveEvent: (e) => show(e, near(e.coordinate) ? 'grab' : ''),
  });
}
