import { Suspense, useEffect, useRef, useState, type ReactNode } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { STAGE_UI } from '../stages/index.ts';
import { lazily } from '../kit/lazily.ts';
import { Descent } from './Descent.tsx';
import { Guarded } from './Fallback.tsx';
import { Header } from './Header.tsx';
import { Verdict } from './Verdict.tsx';
import { type Opened, openById } from './open.ts';
import { Read } from './pace.tsx';
import { redoLast, undoLast, useApp } from './store.ts';

// A project that cannot be opened is rare: its page comes when there is one.
const { View: KeptAway } = lazily(() => import('./KeptAway.tsx'), 'KeptAway');
const { View: BookPage } = lazily(() => import('../stages/land/book/BookPage.tsx'), 'BookPage');
const { View: Plan, fetch: fetchPlan } = lazily(() => import('../plan/Plan.tsx'), 'Plan');

/** Asks for what a stage shows while the page is still being made. */
export function fetchParts(stage: string): void {
  fetchPlan();
  STAGE_UI.find((s) => s.id === stage)?.fetch();
}

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto 1fr;
  @media (max-width: 700px) {
    height: auto;
    display: block;
  }
`;
const NotOnPaper = styled.div`
  @media print {
    display: none;
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
/** Plan above, and below it what its stage shows there; a row takes no room where nothing is shown. */
const Middle = styled.main`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 0;
  @media (max-width: 700px) {
    display: block;
  }
`;
const PlanRow = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
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
const Coming = styled.div`
  background: var(--paperDeep);
  min-height: 0;
  height: 100%;
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
  const { id = '', stage = 'works', book } = useParams();
  const openId = useApp((s) => s.history?.project.id);
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
  if (openId !== id) return <p style={{ padding: 40 }}>Opening the project…</p>;
  if (book !== undefined)
    return (
      <Page>
        <NotOnPaper>
          <Header />
        </NotOnPaper>
        <Guarded of="level book">
          <Suspense fallback={<p style={{ padding: 40 }}>The book…</p>}>
            <BookPage id={book} />
          </Suspense>
        </Guarded>
      </Page>
    );
  return (
    <Page>
      <Read>
        <Header />
      </Read>
      <Body $sheet={ui.width}>
        <Read>
          <Descent />
        </Read>
        <Middle>
          <Guarded of={`verdict ${ui.id}`}>
            <Verdict stage={ui.id} />
          </Guarded>
          <PlanRow>
            <Guarded of="plan">
              <Suspense fallback={<Coming />}>
                <Plan />
              </Suspense>
            </Guarded>
            <Read>
              <Guarded of={`side ${ui.id}`}>
                <Suspense fallback={null}>{ui.Side && <ui.Side />}</Suspense>
              </Guarded>
            </Read>
          </PlanRow>
          <Read>
            <Guarded of={`strip ${ui.id}`}>
              <Suspense fallback={null}>{ui.Strip && <ui.Strip />}</Suspense>
            </Guarded>
          </Read>
        </Middle>
        <Sheet aria-label={`${ui.name} sheet`}>
          <Read>
            <Guarded of={ui.id}>
              <Suspense fallback={<p>{ui.name}…</p>}>
                <ui.Sheet />
              </Suspense>
            </Guarded>
          </Read>
        </Sheet>
      </Body>
    </Page>
  );
}
