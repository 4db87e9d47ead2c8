import type { StoneTrench } from '#core/works';
import { dragAlongHost, guestItem } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const stoneTrenchUi: WorkUi<StoneTrench> = {
  kind: 'stone-trench',
  Sheet: WorkSheet,
  drag: dragAlongHost,
  planItems: (work, on) => guestItem(work, on, 'trench'),
};
