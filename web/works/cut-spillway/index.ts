import type { CutSpillway } from '#core/works';
import { dragAlongHost, guestItem } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const cutSpillwayUi: WorkUi<CutSpillway> = {
  kind: 'cut-spillway',
  Sheet: WorkSheet,
  drag: dragAlongHost,
  planItems: (work, on) => guestItem(work, on, 'spillway'),
};
