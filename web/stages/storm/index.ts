import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';

const sheet = lazily(() => import('./StormSheet.tsx'), 'StormSheet');

export const stormStage: StageUi = {
  id: 'storm',
  name: 'Storm',
  width: 480,
  Sheet: sheet.View,
  isDone: (p) => p.rain !== null && p.ground !== null && p.options.some((o) => o.works.length > 0),
  fetch: () => {
    sheet.fetch();
  },
};
