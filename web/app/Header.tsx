import { FolderOpen, HelpCircle, Redo2, Save, Undo2 } from 'lucide-react';
import { Suspense, memo, useEffect, useState, type ReactNode } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { UnitSystem } from '#core/units';
import { lazily } from '../kit/lazily.ts';
import { Button, CheckItem, Choose, Pop, SeverityMark, saidOnce } from '../kit/index.ts';
import { FONT, type ThemeName } from './theme.ts';
import { exportProject } from './export.ts';
import { GroundSwitch } from './GroundSwitch.tsx';
import { StormWords } from './StormWords.tsx';
import { useDerived, useProject, useWorks } from './selectors.ts';
import { dispatch, redoLast, setSystem, setTheme, undoLast, useApp, useAppPick } from './store.ts';

const { View: KeysHelp } = lazily(() => import('./KeysHelp.tsx'), 'KeysHelp');

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 4px 14px;
  border-bottom: 1px solid var(--line);
  min-height: 48px;
  flex-wrap: wrap;
  font-size: 14.5px;
  @media (max-width: 700px) {
    gap: 0 10px;
    padding: 2px 10px;
  }
`;
const Brand = styled(Link)`
  font: 700 22px ${FONT.heading};
  color: var(--deepWater);
  text-decoration: none;
  display: flex;
  align-items: center;
  gap: 9px;
`;
const Spring = styled.span`
  flex: 1;
`;
/** What all is judged by: on a phone a line of its own, below the project and what is done with it. */
const Judged = styled.span`
  display: contents;
  @media (max-width: 700px) {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 14px;
    order: 1;
    width: 100%;
  }
`;
const Name = styled.input`
  font-weight: 700;
  border: 0;
  background: transparent;
  max-width: 11em;
  field-sizing: content;
  padding: 3px;
`;
const Quiet = styled.span`
  color: var(--muted);
`;
/** Left out on a phone, where the sun decides. */
const NotOnPhone = styled.span`
  @media (max-width: 700px) {
    display: none;
  }
`;
const SAVED: Readonly<Record<string, string>> = {
  saved: 'saved',
  saving: 'saving…',
  failed: 'not saved: the browser’s storage is full. Export the project.',
};

/** The list itself, worked out only while it is open. */
function CheckList(): ReactNode {
  const checks = useDerived()?.checks ?? [];
  const works = useWorks();
  const { features } = useProject();
  const subject = (id: string): string => works.find((w) => w.id === id)?.name ?? features.find((f) => f.id === id)?.name ?? id;
  return (
    <>
      <h2 style={{ fontSize: 20, marginBottom: 8 }}>Checks</h2>
      {checks.length === 0 && <p>Nothing to check yet.</p>}
      {saidOnce(checks).map(({ check: c, isSaidBelow }, i) => (
        <CheckItem key={`${c.id}${c.on}${i}`} check={c} subject={subject(c.on)} isSaidBelow={isSaidBelow} />
      ))}
    </>
  );
}

function Checks(): ReactNode {
  const counts = useApp((s) => s.counts);
  // Before the first answer nothing is known of them: that is not none.
  const isTold = useApp((s) => s.result !== null);
  const [mend, weigh] = isTold ? [counts.mend, counts.weigh] : ['–', '–'];
  return (
    <DialogTrigger>
      <Button look="quiet" aria-label={isTold ? `Checks: ${mend} to mend, ${weigh} to weigh` : 'Checks: not worked out yet'}>
        <SeverityMark severity="mend" />
        <span>
          {mend} <NotOnPhone>to mend</NotOnPhone>
        </span>
        <SeverityMark severity="weigh" />
        <span>
          {weigh} <NotOnPhone>to weigh</NotOnPhone>
        </span>
      </Button>
      <Pop>
        <Dialog aria-label="Checks">
          <CheckList />
        </Dialog>
      </Pop>
    </DialogTrigger>
  );
}

function ProjectName(): ReactNode {
  const name = useApp((s) => s.history?.project.name ?? '');
  return (
    <Name
      aria-label="Project name"
      defaultValue={name}
      key={name}
      onBlur={(e) =>
        e.target.value.trim() !== '' &&
        e.target.value !== name &&
        dispatch({ type: 'project.rename', payload: { name: e.target.value.trim() } })
      }
    />
  );
}

function Saved(): ReactNode {
  const { saved, readOnlyWhy } = useAppPick('saved', 'readOnlyWhy');
  return (
    <Quiet data-testid="saved" role="status">
      {saved === 'read-only' ? `read-only: ${readOnlyWhy}` : SAVED[saved]}
    </Quiet>
  );
}

const SYSTEMS: readonly { readonly id: UnitSystem; readonly name: string }[] = [
  { id: 'metric', name: 'metric' },
  { id: 'us', name: 'US' },
];
const THEME_NAMES: readonly { readonly id: ThemeName; readonly name: string }[] = [
  { id: 'paper', name: 'paper' },
  { id: 'dusk', name: 'dusk' },
  { id: 'sun', name: 'sun' },
];

function Settings(): ReactNode {
  const { system, theme } = useAppPick('system', 'theme');
  return (
    <>
      <Choose<UnitSystem> label="units" isLabelHidden value={system} choices={SYSTEMS} onChange={setSystem} />
      <NotOnPhone>
        <Choose<ThemeName> label="Theme" isLabelHidden value={theme} choices={THEME_NAMES} onChange={setTheme} />
      </NotOnPhone>
    </>
  );
}

function Buttons({ onHelp }: { readonly onHelp: () => void }): ReactNode {
  const canUndo = useApp((s) => (s.history?.past.length ?? 0) > 0);
  const canRedo = useApp((s) => (s.history?.future.length ?? 0) > 0);
  return (
    <span>
      <Button look="quiet" aria-label="Undo" onPress={undoLast} isDisabled={!canUndo}>
        <Undo2 size={17} aria-hidden />
      </Button>
      <Button look="quiet" aria-label="Redo" onPress={redoLast} isDisabled={!canRedo}>
        <Redo2 size={17} aria-hidden />
      </Button>
      <Button look="quiet" aria-label="Export the project" onPress={() => void exportProject()}>
        <Save size={17} aria-hidden />
      </Button>
      <Link to="/start" aria-label="Start from my land or open a file" style={{ padding: 6, verticalAlign: 'middle' }}>
        <FolderOpen size={17} aria-hidden />
      </Link>
      <Button look="quiet" aria-label="Keys" onPress={onHelp}>
        <HelpCircle size={17} aria-hidden />
      </Button>
    </span>
  );
}

/** The list of keys comes on ?. */
function useHelpKey(show: (isHelp: boolean) => void): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const isTyping = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      if (e.key === '?' && !isTyping) show(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [show]);
}

/** Project, storm, units, checks, undo and saving: always there. Each part reads only what it shows, so that a drag redraws few. */
export const Header = memo(function Header(): ReactNode {
  const [isHelp, setHelp] = useState(false);
  useHelpKey(setHelp);
  return (
    <Bar>
      <Brand to="/projects" aria-label="Outlet: all projects">
        <svg width="26" height="26" viewBox="0 0 32 32" aria-hidden>
          <path d="M3 7h8v7h8v7h8" fill="none" stroke="currentColor" strokeWidth="4.500" />
          <circle cx="27" cy="28" r="3" fill="var(--water)" />
        </svg>
        <NotOnPhone>Outlet</NotOnPhone>
      </Brand>
      <ProjectName />
      <Saved />
      <Spring />
      <Judged>
        <GroundSwitch />
        <StormWords />
        <Checks />
        <Settings />
      </Judged>
      <Buttons onHelp={() => setHelp(true)} />
      <Suspense fallback={null}>{isHelp && <KeysHelp onChange={setHelp} />}</Suspense>
    </Bar>
  );
});
