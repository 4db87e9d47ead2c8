// Room in which cells of a ground are gathered.
import { CellRoom } from '../../terrain/index.ts';
import type { GroundModel } from './ground-model.ts';

const rooms = new WeakMap<GroundModel, CellRoom>();

/** Lends the room of a ground to one at a time: it comes back clean, or not at all. */
export function inRoomOf<T>(model: GroundModel, run: (room: CellRoom) => T): T {
  const room = rooms.get(model) ?? new CellRoom(model.flow.receiver.length);
  rooms.delete(model);
  const made = run(room);
  rooms.set(model, room);
  return made;
}
