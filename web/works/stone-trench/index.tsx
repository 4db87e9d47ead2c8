import { dragAlongHost, guestItem } from '../shared/on-host.ts';
import { WorkSheet } from '../shared/WorkSheet.tsx';
import type { WorkUi } from '../types.ts';

export const stoneTrenchUi: WorkUi = {
  kind: 'stone-trench',
  Sheet: ({ id }) => <WorkSheet id={id} />,
  drag: dragAlongHost,
  planItems: (work, on) => guestItem(work, on, 'trench'),
};
