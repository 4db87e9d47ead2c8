import { Suspense, type ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { Stage } from '#core/derive';
import { Button } from '../kit/index.ts';
import { lazily } from '../kit/lazily.ts';
import { STAGE_UI } from '../stages/index.ts';
import { Notes } from './Notes.tsx';
import { FONT } from './theme.ts';
import { useProject } from './selectors.ts';
import { goOn, useAppPick } from './store.ts';

const Bar = styled.div<{ readonly $isLong: boolean }>`
  padding: 12px 18px;
  border-bottom: 1px solid var(--line);
  font: 500 18px/1.3 ${FONT.heading};
  /* Where it speaks of works, as tall as four lines whatever it says: the map below must not move under a hand that draws. */
  min-height: ${({ $isLong }) => ($isLong ? 119 : 64)}px;
  display: flex;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
  b {
    color: var(--deepWater);
    font-weight: 700;
  }
  em {
    color: var(--alarm);
    font-style: normal;
    font-weight: 700;
  }
  a {
    font: 600 14.5px ${FONT.text};
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    font-size: 16.5px;
    min-height: 64px;
    padding: 10px 14px;
    flex-wrap: wrap;
  }
`;
const says = lazily(() => import('./StageSays.tsx'), 'StageSays');
// Its words come while the first answer is worked out.
says.fetch();

/** Stages whose answer changes its length with every storm worked out. */
const LONG: ReadonlySet<Stage> = new Set(['works', 'levels', 'storm']);

/** The stage's answer in one sentence, and what has just happened. */
export function Verdict({ stage }: { readonly stage: Stage }): ReactNode {
  const project = useProject();
  const { result, isStopped, isComputing, progress } = useAppPick('result', 'isStopped', 'isComputing', 'progress');
  const Says = STAGE_UI.find((s) => s.id === stage)?.Says;
  return (
    <div>
      <Bar $isLong={LONG.has(stage)} data-testid="verdict" role="status" aria-live="polite" aria-busy={isComputing}>
        <p>
          {isStopped ? 'Stopped: what is shown may be of before your last change.' : null}
          {result === null && !isStopped
            ? progress
              ? `${progress.part}… ${Math.round(100 * progress.share)} %`
              : 'Working it out…'
            : null}
          {result && <Suspense fallback={null}>{Says ? <Says /> : <says.View stage={stage} />}</Suspense>}
        </p>
        {isStopped && <Button onPress={goOn}>Work it out</Button>}
        {project.id === 'sallow-rise' && <Link to="/start">Start from my land →</Link>}
      </Bar>
      <Notes />
    </div>
  );
}
