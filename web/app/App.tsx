import { Suspense, useEffect, useState, type ReactNode } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useNavigate } from 'react-router';
import { Guarded } from './Fallback.tsx';
import { JobBar } from './JobBar.tsx';
import { DEMO_ID } from './open.ts';
import { ProjectPage } from './ProjectPage.tsx';
import { lazily } from '../kit/lazily.ts';
import { isProject, useDropped } from './dropped.ts';
import { loadProject, loadSetting } from './storage.ts';
import { leave, loadSettings, notify, useApp } from './store.ts';
import { GlobalStyle, THEMES } from './theme.ts';

const { View: StartPage } = lazily(() => import('./StartPage.tsx'), 'StartPage');
const { View: DrawnDialog } = lazily(() => import('./DrawnDialog.tsx'), 'DrawnDialog');
const { View: GroundsDialog } = lazily(() => import('./GroundsDialog.tsx'), 'GroundsDialog');
const { View: PointsDialog } = lazily(() => import('./PointsDialog.tsx'), 'PointsDialog');
const { View: PartDialog } = lazily(() => import('./PartDialog.tsx'), 'PartDialog');
const { View: ProjectsPage } = lazily(() => import('./ProjectsPage.tsx'), 'ProjectsPage');

/** The last project opened here, else the demo. */
function First(): ReactNode {
  const [to, setTo] = useState<string | null>(null);
  useEffect(() => {
    void (async () => {
      const last = await loadSetting<string>('last-project');
      setTo(last !== null && (await loadProject(last).catch(() => null)) !== null ? last : DEMO_ID);
    })();
  }, []);
  return to === null ? null : <Navigate to={`/p/${to}/works`} replace />;
}

/** What takes files in comes once one is brought. */
const takingIn = (): Promise<typeof import('./import.ts')> => import('./import.ts');

async function takeIn(files: readonly File[], opened: (id: string) => void): Promise<void> {
  const taking = await takingIn().catch(() => null);
  if (!taking) {
    const what = 'the part of the app that reads files did not come';
    const problems = [
      { code: 'import.not-there', what, where: { file: files[0].name }, do: 'Load the page again, then drop the file once more.' },
    ];
    notify({ tone: 'mend', title: 'Nothing was taken in; all is as it was', problems });
    return;
  }
  const project = files.find((file) => isProject(file.name));
  const id = project ? await taking.openFile(project) : null;
  if (id !== null) opened(id);
  if (!project) await taking.bringInAll(files, { crs: useDropped.getState().crs });
}

/** Any supported files can be dropped anywhere. */
function DropAnywhere(): ReactNode {
  const navigate = useNavigate();
  useEffect(() => {
    const over = (e: DragEvent): void => {
      e.preventDefault();
      void takingIn().catch(() => undefined);
    };
    const drop = (e: DragEvent): void => {
      e.preventDefault();
      const files = [...(e.dataTransfer?.files ?? [])];
      if (files.length === 0) return;
      if (files.some((file) => isProject(file.name)) || window.location.pathname.startsWith('/p/'))
        void takeIn(files, (id) => void navigate(`/p/${id}/works`));
      else {
        // Ground for a project that is yet to begin: the start page takes it.
        useDropped.setState({ files });
        void navigate('/start');
      }
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, [navigate]);
  return null;
}

export function App(): ReactNode {
  const theme = useApp((s) => s.theme);
  const isAsking = useApp((s) => s.drawnFile !== null);
  const isMet = useApp((s) => s.twoGrounds !== null);
  const isLookedOver = useApp((s) => s.lookedOver !== null);
  const arePointsAsked = useApp((s) => s.pointsAsked !== null);
  useEffect(() => {
    void loadSettings();
    window.addEventListener('pagehide', leave);
    document.addEventListener('visibilitychange', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      document.removeEventListener('visibilitychange', leave);
    };
  }, []);
  return (
    <BrowserRouter>
      <GlobalStyle $palette={THEMES[theme]} />
      <DropAnywhere />
      {isAsking && (
        <Suspense>
          <DrawnDialog />
        </Suspense>
      )}
      {isMet && (
        <Suspense>
          <GroundsDialog />
        </Suspense>
      )}
      {isLookedOver && (
        <Suspense>
          <PartDialog />
        </Suspense>
      )}
      {arePointsAsked && (
        <Suspense>
          <PointsDialog />
        </Suspense>
      )}
      <Guarded of="page">
        <Suspense fallback={null}>
          <Routes>
            <Route path="/" element={<First />} />
            <Route path="/start" element={<StartPage />} />
            <Route path="/projects" element={<ProjectsPage />} />
            <Route path="/p/:id" element={<ProjectPage />} />
            <Route path="/p/:id/:stage" element={<ProjectPage />} />
            <Route path="/p/:id/book/:book" element={<ProjectPage />} />
            <Route path="*" element={<Navigate to="/" replace />} />
          </Routes>
        </Suspense>
      </Guarded>
      <JobBar />
    </BrowserRouter>
  );
}
