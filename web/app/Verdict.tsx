import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { type Stage, verdict } from '#core/derive';
import { spoken } from '#core/units';
import { Button, Problems } from '../kit/index.ts';
import { FONT } from './theme.ts';
import { useProject } from './selectors.ts';
import { notify, useAppPick } from './store.ts';

const Bar = styled.div`
  padding: 12px 18px;
  border-bottom: 1px solid var(--line);
  font: 500 18px/1.3 ${FONT.heading};
  min-height: 64px;
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
    padding: 10px 14px;
    flex-wrap: wrap;
  }
`;
const Note = styled.div`
  padding: 8px 18px;
  background: var(--paperDeep);
  border-bottom: 1px solid var(--line);
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: start;
  > :first-child {
    flex: 1;
  }
`;

/** The stage's answer in one sentence, and what has just happened. */
export function Verdict({ stage }: { readonly stage: Stage }): ReactNode {
  const project = useProject();
  const { result, system, selected, notice, progress } = useAppPick('result', 'system', 'selected', 'notice', 'progress');
  const pieces = result ? verdict(stage, project, { derived: result.derived, system, selected }) : [];
  return (
    <div>
      <Bar data-testid="verdict" role="status" aria-live="polite">
        <p>
          {result === null ? (progress ? `${progress.part}… ${Math.round(100 * progress.share)} %` : 'Working it out…') : null}
          {pieces.map((p, i) =>
            p.tone === 'strong' ? <b key={i}>{p.text}</b> : p.tone === 'alarm' ? <em key={i}>{p.text}</em> : <span key={i}>{p.text}</span>,
          )}
        </p>
        {project.id === 'sallow-rise' && <Link to="/start">Start from my land →</Link>}
      </Bar>
      {notice && (
        <Note>
          {notice.tone === 'mend' ? (
            <Problems title={notice.title} problems={notice.problems} />
          ) : (
            <p role="status">{spoken(notice.title, system)}</p>
          )}
          <Button look="quiet" aria-label="Close this note" onPress={() => notify(null)}>
            <X size={15} aria-hidden />
          </Button>
        </Note>
      )}
    </div>
  );
}
