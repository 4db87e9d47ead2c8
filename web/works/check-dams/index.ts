import type { CheckDams } from '#core/works';
import { change } from '../levels.ts';
import { barItems, bedItem, nearestAlong } from '../shared/across.ts';
import type { WorkUi } from '../types.ts';
import { DamsSheet } from './DamsSheet.tsx';

/** As wide as a dam is drawn at the least along the flow [m]. */
const THICK_M = 0.8;

export const checkDamsUi: WorkUi<CheckDams> = {
  kind: 'check-dams',
  Sheet: DamsSheet,
  // Dragging the series takes its dam that stands nearest along the channel.
  drag: (work, to) => {
    const { k, atM } = nearestAlong(work.line, work.dams, to);
    return change(work.id, { [`dams.${k}.atM`]: atM });
  },
  planItems: (work, { selected }) => {
    const isSelected = work.id === selected;
    const look = { role: 'check-dam', isSelected, width: Math.max(THICK_M, work.dimensions.crestWidthM) };
    return [
      bedItem(work, isSelected),
      ...work.dams.flatMap((dam, k) => barItems(work.line, dam, { id: `dam:${work.id}:${k}`, work: work.id, grip: `dam${k + 1}`, look })),
    ];
  },
};
