import type { StageUi } from '../types.ts';
import { lazily } from '../../kit/lazily.ts';
import { catalogue } from '#core/works';

const sheet = lazily(() => import('./WorksSheet.tsx'), 'WorksSheet');
const strip = lazily(() => import('./LongSection.tsx'), 'LongSection');
const side = lazily(() => import('../levels/LevelStack.tsx'), 'LevelStack');

export const worksStage: StageUi = {
  id: 'works',
  name: 'Works',
  width: 332,
  Sheet: sheet.View,
  Strip: strip.View,
  Side: side.View,
  tools: { first: [...catalogue.draws.flatMap((d) => (d.isFirst ? [d.id] : [])), 'pin'], groups: ['work', 'suits'] },
  isDone: (p) => p.options.some((o) => o.works.length > 0),
  toMend: (derived) => derived.checks.filter((c) => c.severity === 'mend').length,
  fetch: () => {
    sheet.fetch();
    strip.fetch();
    side.fetch();
  },
};
