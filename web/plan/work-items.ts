// Marks of a work are drawn again only when the work or something they were drawn from is another: most stay while one is dragged.
import type { WorkBase } from '#core/contract';
import { workUi } from '../works/index.ts';
import type { WorksDrawing } from '../works/types.ts';
import type { PlanItem } from './types.ts';

type Read = keyof WorksDrawing;

/** Marks as they were drawn, and all that was read of the drawing for them. */
interface Drawn {
  readonly reads: ReadonlyMap<Read, unknown>;
  readonly items: readonly PlanItem[];
}

const drawn = new WeakMap<WorkBase, Drawn>();

/** The marks of a work. A hand may move what is movable: each drawing is given a copy of that. */
export function itemsOf(work: WorkBase, drawing: WorksDrawing): PlanItem[] {
  const known = drawn.get(work);
  const made = known && stays(known, drawing) ? known : draw(work, drawing);
  return made.items.map((item) => (item.isMovable === true ? { ...item, geometry: item.geometry.clone() } : item));
}

const stays = ({ reads }: Drawn, drawing: WorksDrawing): boolean => [...reads].every(([key, value]) => drawing[key] === value);

function draw(work: WorkBase, drawing: WorksDrawing): Drawn {
  const reads = new Map<Read, unknown>();
  const noted = new Proxy(drawing, {
    get: (of, key: Read) => {
      reads.set(key, of[key]);
      return of[key];
    },
  });
  const items = workUi(work.kind).planItems(work, noted);
  const made: Drawn = { reads, items };
  drawn.set(work, made);
  return made;
}
