import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';

const sheet = lazily(() => import('./LevelsSheet.tsx'), 'LevelsSheet');
const side = lazily(() => import('../levels/LevelStack.tsx'), 'LevelStack');

export const levelsStage: StageUi = {
  id: 'levels',
  name: 'Levels',
  width: 332,
  Sheet: sheet.View,
  Side: side.View,
  isDone: (p) => p.options.some((o) => o.works.length > 0),
  fetch: () => {
    sheet.fetch();
    side.fetch();
  },
};
