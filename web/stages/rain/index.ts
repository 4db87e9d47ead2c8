import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';

const sheet = lazily(() => import('./RainSheet.tsx'), 'RainSheet');

export const rainStage: StageUi = {
  id: 'rain',
  name: 'Rain',
  width: 500,
  Sheet: sheet.View,
  isDone: (p) => p.rain !== null,
  fetch: () => {
    sheet.fetch();
  },
};
