// Dragging a mark: one gesture is one step to undo.
import type { Point } from '#core/geometry';
import { optionOf } from '#core/project';
import { dispatch, select, useApp } from '../app/store.ts';
import { ownerOf } from './marks.ts';
import { cornerOf, cornerTo } from '../works/corners.ts';
import { workUi } from '../works/index.ts';

let gesture = 0;

export function drag(id: string, to: Point, phase: 'start' | 'move' | 'end'): void {
  if (phase === 'start') {
    gesture++;
    select(ownerOf(id));
    return;
  }
  if (phase === 'move') useApp.drags();
  take(id, to, phase);
  if (phase === 'end') useApp.letsGo();
}

function take(id: string, to: Point, phase: 'move' | 'end'): void {
  const project = useApp.getState().history?.project;
  if (!project) return;
  const name = `drag-${gesture}`;
  if (project.pins.some((p) => p.id === id)) {
    // A catchment costs more than a frame: a pin tells its new place when it is let go.
    if (phase === 'end') dispatch({ type: 'pin.move', payload: { id, at: to } }, name);
    return;
  }
  const { works } = optionOf(project);
  const work = works.find((w) => w.id === ownerOf(id));
  const corner = work && cornerOf(work, id);
  const command = corner ? cornerTo(work, corner, to) : work ? workUi(work.kind).drag(work, to, works) : null;
  if (command) dispatch(command, name);
}
