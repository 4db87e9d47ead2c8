import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';

const sheet = lazily(() => import('./PegsSheet.tsx'), 'PegsSheet');

export const pegsStage: StageUi = {
  id: 'pegs',
  name: 'Pegs',
  width: 520,
  Sheet: sheet.View,
  isDone: (p) => (p.survey?.heightOfCollimationM ?? null) !== null,
  showsPegs: true,
  fetch: () => {
    sheet.fetch();
  },
};
