import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';

const sheet = lazily(() => import('./GroundSheet.tsx'), 'GroundSheet');

export const groundStage: StageUi = {
  id: 'ground',
  name: 'Ground',
  width: 460,
  Sheet: sheet.View,
  tools: { first: ['zone', 'test'], groups: [] },
  isDone: (p) => p.ground !== null,
  fetch: () => {
    sheet.fetch();
  },
};
