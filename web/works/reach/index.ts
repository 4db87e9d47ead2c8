import type { Reach } from '#core/works';
import { change } from '../levels.ts';
import { barItems, bedItem, nearestAlong } from '../shared/across.ts';
import type { WorkUi } from '../types.ts';
import { ReachSheet } from './ReachSheet.tsx';

export const reachUi: WorkUi<Reach> = {
  kind: 'reach',
  Sheet: ReachSheet,
  // Dragging it takes its section that stands nearest along the line.
  drag: (work, to) => {
    const { k, atM } = nearestAlong(work.line, work.sections, to);
    return change(work.id, { [`sections.${k}.atM`]: atM });
  },
  planItems: (work, { selected }) => {
    const isSelected = work.id === selected;
    const look = { role: 'channel-section', isSelected };
    return [
      bedItem(work, isSelected),
      ...work.sections.flatMap(({ atM, bedWidthM, leftOutM, rightOutM }, k) =>
        barItems(
          work.line,
          { atM, bankWidthM: bedWidthM + leftOutM + rightOutM },
          { id: `section:${work.id}:${k}`, work: work.id, grip: `section${k + 1}`, look },
        ),
      ),
    ];
  },
};
