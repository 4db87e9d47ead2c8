// What is shown instead of a part of the page that failed: never a white page, always a way on.
import { type ReactNode, useEffect } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Button, Inline, Problems } from '../kit/index.ts';
import { exportProject } from './export.ts';
import { undoLast, useApp } from './store.ts';

const Box = styled.div`
  padding: 24px;
  display: grid;
  gap: 14px;
  max-width: 720px;
`;

const FAULT = {
  code: 'page.fault',
  what: 'showing it met something Outlet did not expect; what you made is kept',
  where: {},
  do: 'Undo the last change, or look at another stage. Export the project if it happens again.',
} as const;

/** The ways on from anything that failed: export, undo, other projects. */
export function WaysOn({ children }: { readonly children?: ReactNode }): ReactNode {
  const hasProject = useApp((s) => s.history !== null);
  const canUndo = useApp((s) => (s.history?.past.length ?? 0) > 0 && s.saved !== 'read-only');
  return (
    <Inline>
      {children}
      {hasProject && <Button onPress={() => void exportProject()}>Export the project</Button>}
      {canUndo && <Button onPress={undoLast}>Undo the last change</Button>}
      <Link to="/projects">Other projects</Link>
    </Inline>
  );
}

function Failed({ resetErrorBoundary }: FallbackProps): ReactNode {
  const revision = useApp((s) => s.history?.revision);
  // A change, an undo above all, may have mended it: it is tried again.
  useEffect(() => {
    const first = revision;
    return useApp.subscribe((s) => {
      if (s.history?.revision !== first) resetErrorBoundary();
    });
  }, [revision, resetErrorBoundary]);
  return (
    <Box>
      <Problems title="This part of the page failed" problems={[FAULT]} />
      <WaysOn>
        <Button look="strong" onPress={resetErrorBoundary}>
          Try again
        </Button>
      </WaysOn>
    </Box>
  );
}

/** Holds a part of the page: what fails in it stays in it. `of` names what it shows, so that another is tried anew. */
export function Guarded({ of, children }: { readonly of: string; readonly children: ReactNode }): ReactNode {
  return (
    <ErrorBoundary FallbackComponent={Failed} resetKeys={[of]}>
      {children}
    </ErrorBoundary>
  );
}
