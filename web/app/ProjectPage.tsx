import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { Plan } from '../plan/Plan.tsx';
import { STAGE_UI } from '../stages/index.ts';
import { LandSection } from '../stages/land/LandSection.tsx';
import { LevelStack } from '../stages/levels/LevelStack.tsx';
import { LongSection } from '../stages/works/LongSection.tsx';
import { Descent } from './Descent.tsx';
import { Guarded } from './Fallback.tsx';
import { Header } from './Header.tsx';
import { Verdict } from './Verdict.tsx';
import { useChain } from './selectors.ts';
import { type Opened, openById } from './open.ts';
import { KeptAway } from './KeptAway.tsx';
import { useLand } from './land.ts';
import { redoLast, undoLast, useApp } from './store.ts';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto 1fr;
  @media (max-width: 700px) {
    height: auto;
    display: block;
  }
`;
const Body = styled.div<{ $sheet: number }>`
  display: grid;
  grid-template-columns: 154px 1fr ${({ $sheet }) => $sheet}px;
  min-height: 0;
  @media (max-width: 700px) {
    display: block;
  }
`;
const Middle = styled.main<{ $hasStrip: boolean }>`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) ${({ $hasStrip }) => ($hasStrip ? '142px' : '')};
  min-width: 0;
  min-height: 0;
  @media (max-width: 700px) {
    display: block;
  }
`;
const PlanRow = styled.div<{ $hasStack: boolean }>`
  display: grid;
  grid-template-columns: 1fr ${({ $hasStack }) => ($hasStack ? '142px' : '')};
  min-height: 0;
  @media (max-width: 700px) {
    grid-template-columns: 1fr;
    > :first-child {
      height: 46vh;
    }
    > :nth-child(2) {
      height: 420px;
    }
  }
`;
const Sheet = styled.aside`
  border-left: 1px solid var(--line);
  padding: 0 18px 40px;
  /* What stays in sight while the sheet is scrolled reaches its upper edge. */
  &::before {
    content: '';
    display: block;
    height: 18px;
  }
  overflow-y: auto;
  min-height: 0;
  @media (max-width: 700px) {
    border: 0;
  }
`;

/** Opens the project of the address, then shows its stage. */
export function ProjectPage(): ReactNode {
  const { id = '', stage = 'works' } = useParams();
  const openId = useApp((s) => s.history?.project.id);
  const hasSection = useLand((s) => s.shown !== null);
  const { host } = useChain();
  // A work that is not computed has no levels to stack.
  const hasLevels = useApp((s) => s.result === null || s.result.view.marks.some((m) => m.work === host?.id));
  const hasWay = useApp((s) => s.result?.derived.links.some((l) => l.from === host?.id && l.path.length > 1) ?? false);
  const [opened, setOpened] = useState<{ readonly id: string; readonly as: Opened } | null>(null);
  const navigate = useNavigate();
  useEffect(() => {
    // A file opened from here has changed what is open already: only an address that names another project opens it.
    if (useApp.getState().history?.project.id === id) return;
    void openById(id).then((as) => setOpened({ id, as }));
  }, [id]);
  const shown = useRef<string | null>(null);
  useEffect(() => {
    if (openId === id) shown.current = id;
    else if (openId !== undefined && shown.current === id) void navigate(`/p/${openId}/works`);
  }, [id, openId, navigate]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const isTyping = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      if (isTyping || !(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
      e.preventDefault();
      if (e.shiftKey) redoLast();
      else undoLast();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const ui = STAGE_UI.find((s) => s.id === stage);
  const failed = openId !== id && opened?.id === id ? opened.as : null;
  if (failed === 'missing') return <Navigate to="/projects" replace />;
  if (failed !== null && failed !== 'open') return <KeptAway id={id} problems={failed.problems} />;
  if (!ui) return <Navigate to={`/p/${id}/works`} replace />;
  // Room is kept only for what there is to show: without a work there is no stack and no way of its water.
  const hasStack = ui.hasStack && host !== null && hasLevels;
  const hasStrip = (ui.id === 'works' && hasWay) || (ui.id === 'land' && hasSection);
  if (openId !== id) return <p style={{ padding: 40 }}>Opening the project…</p>;
  return (
    <Page>
      <Header />
      <Body $sheet={ui.width}>
        <Descent />
        <Middle $hasStrip={hasStrip}>
          <Guarded of={`verdict ${ui.id}`}>
            <Verdict stage={ui.id} />
          </Guarded>
          <PlanRow $hasStack={hasStack}>
            <Guarded of="plan">
              <Plan showPegs={ui.id === 'pegs'} />
            </Guarded>
            <Guarded of={`stack ${ui.id}`}>{hasStack && <LevelStack />}</Guarded>
          </PlanRow>
          <Guarded of={`strip ${ui.id}`}>
            {ui.id === 'works' && <LongSection />}
            {ui.id === 'land' && <LandSection />}
          </Guarded>
        </Middle>
        <Sheet aria-label={`${ui.name} sheet`}>
          <Guarded of={ui.id}>
            <ui.Sheet />
          </Guarded>
        </Sheet>
      </Body>
    </Page>
  );
}
