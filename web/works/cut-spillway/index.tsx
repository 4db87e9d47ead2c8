import { dragAlongHost, guestItem } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const cutSpillwayUi: WorkUi = {
  kind: 'cut-spillway',
  Sheet: ({ id }) => <WorkSheet id={id} />,
  drag: dragAlongHost,
  planItems: (work, on) => guestItem(work, on, 'spillway'),
};
