import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';

const sheet = lazily(() => import('./SupplySheet.tsx'), 'SupplySheet');
const says = lazily(() => import('./SupplySays.tsx'), 'SupplySays');

export const supplyStage: StageUi = {
  id: 'supply',
  name: 'Supply',
  width: 480,
  Sheet: sheet.View,
  Says: says.View,
  isDone: (p) => (p.supply?.needs.length ?? 0) > 0,
  fetch: () => {
    sheet.fetch();
    says.fetch();
  },
};
