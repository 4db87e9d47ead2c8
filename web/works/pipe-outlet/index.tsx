import { dragAlongHost, guestItem } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const pipeOutletUi: WorkUi = {
  kind: 'pipe-outlet',
  Sheet: ({ id }) => <WorkSheet id={id} />,
  drag: dragAlongHost,
  planItems: (work, on) => guestItem(work, on, 'pipe'),
};
