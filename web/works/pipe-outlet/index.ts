import type { PipeOutlet } from '#core/works';
import { dragAlongHost, guestItem } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const pipeOutletUi: WorkUi<PipeOutlet> = {
  kind: 'pipe-outlet',
  Sheet: WorkSheet,
  drag: dragAlongHost,
  planItems: (work, on) => guestItem(work, on, 'pipe'),
};
