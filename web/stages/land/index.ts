import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';

const sheet = lazily(() => import('./LandSheet.tsx'), 'LandSheet');
const strip = lazily(() => import('./LandSection.tsx'), 'LandSection');

export const landStage: StageUi = {
  id: 'land',
  name: 'Land',
  width: 330,
  Sheet: sheet.View,
  Strip: strip.View,
  tools: { first: ['pin'], groups: ['draw', 'seen', 'ask'] },
  isDone: (p) => p.terrain !== null,
  fetch: () => {
    sheet.fetch();
    strip.fetch();
  },
};
