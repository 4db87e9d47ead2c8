import { FolderOpen, HelpCircle, Redo2, Save, Undo2 } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { UnitSystem } from '#core/units';
import { Button, CheckItem, Choose, SeverityMark } from '../kit/index.ts';
import { FONT, type ThemeName } from './theme.ts';
import { exportProject } from './export.ts';
import { KeysHelp } from './KeysHelp.tsx';
import { stormDepthOf, useDerived, useFormat, useProject, useWorks } from './selectors.ts';
import { dispatch, redoLast, setSystem, setTheme, undoLast, useApp } from './store.ts';

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 4px 14px;
  border-bottom: 1px solid var(--line);
  min-height: 48px;
  flex-wrap: wrap;
  font-size: 14.5px;
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
const Wide = styled.span`
  display: inline-flex;
  gap: 14px;
  align-items: center;
  @media (max-width: 1120px) {
    display: none;
  }
`;
/** Left out on a phone, where the sun decides. */
const NotOnPhone = styled.span`
  @media (max-width: 700px) {
    display: none;
  }
`;
const Pop = styled(Popover)`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  width: min(440px, 94vw);
  max-height: 76vh;
  overflow: auto;
  padding: 14px 18px;
  box-shadow: 0 8px 26px rgb(0 0 0 / 20%);
`;

const SAVED: Readonly<Record<string, string>> = {
  saved: 'saved',
  saving: 'saving…',
  failed: 'not saved: the browser’s storage is full. Export the project.',
  'read-only': 'read-only: open in another tab',
};

function Checks(): ReactNode {
  const checks = useDerived()?.checks ?? [];
  const works = useWorks();
  const { features } = useProject();
  const subject = (id: string): string => works.find((w) => w.id === id)?.name ?? features.find((f) => f.id === id)?.name ?? id;
  const count = (s: string): number => checks.filter((c) => c.severity === s).length;
  return (
    <DialogTrigger>
      <Button look="quiet" aria-label={`Checks: ${count('mend')} to mend, ${count('weigh')} to weigh`}>
        <SeverityMark severity="mend" /> {count('mend')} to mend <SeverityMark severity="weigh" /> {count('weigh')} to weigh
      </Button>
      <Pop>
        <Dialog aria-label="Checks">
          <h2 style={{ fontSize: 20, marginBottom: 8 }}>Checks</h2>
          {checks.length === 0 && <p>Nothing to check yet.</p>}
          {checks.map((c, i) => (
            <CheckItem key={`${c.id}${c.on}${i}`} check={c} subject={subject(c.on)} />
          ))}
        </Dialog>
      </Pop>
    </DialogTrigger>
  );
}

/** Project, storm, units, checks, undo and saving: always there. */
export function Header(): ReactNode {
  const project = useProject();
  const { system, theme, saved, history } = useApp();
  const [isHelp, setHelp] = useState(false);
  const format = useFormat();
  const { rain } = project;
  const hours = rain
    ? rain.storm.durationMin < 120
      ? `${rain.storm.durationMin} min`
      : `${Number((rain.storm.durationMin / 60).toFixed(1))} h`
    : '';
  return (
    <Bar>
      <Brand to="/projects" aria-label="Outlet: all projects">
        <svg width="26" height="26" viewBox="0 0 32 32" aria-hidden>
          <path d="M3 7h8v7h8v7h8" fill="none" stroke="currentColor" strokeWidth="4.500" />
          <circle cx="27" cy="28" r="3" fill="var(--water)" />
        </svg>
        Outlet
      </Brand>
      <Name
        aria-label="Project name"
        defaultValue={project.name}
        key={project.name}
        onBlur={(e) =>
          e.target.value.trim() !== '' &&
          e.target.value !== project.name &&
          dispatch({ type: 'project.rename', payload: { name: e.target.value.trim() } })
        }
      />
      <Quiet data-testid="saved" role="status">
        {SAVED[saved]}
      </Quiet>
      <Spring />
      {rain && (
        <Wide>
          <span>
            <Quiet>storm</Quiet> 1 in {rain.storm.returnYears} yr · {hours} · {format(stormDepthOf(project), 'rain')}
          </span>
        </Wide>
      )}
      <Checks />
      <Choose<UnitSystem>
        label="units"
        value={system}
        choices={[
          { id: 'metric', name: 'metric' },
          { id: 'us', name: 'US' },
        ]}
        onChange={setSystem}
      />
      <NotOnPhone>
        <Choose<ThemeName>
          label="Theme"
          isLabelHidden
          value={theme}
          choices={[
            { id: 'paper', name: 'paper' },
            { id: 'dusk', name: 'dusk' },
            { id: 'sun', name: 'sun' },
          ]}
          onChange={setTheme}
        />
      </NotOnPhone>
      <span>
        <Button look="quiet" aria-label="Undo" onPress={undoLast} isDisabled={(history?.past.length ?? 0) === 0}>
          <Undo2 size={17} aria-hidden />
        </Button>
        <Button look="quiet" aria-label="Redo" onPress={redoLast} isDisabled={(history?.future.length ?? 0) === 0}>
          <Redo2 size={17} aria-hidden />
        </Button>
        <Button look="quiet" aria-label="Export the project" onPress={() => void exportProject()}>
          <Save size={17} aria-hidden />
        </Button>
        <Link to="/start" aria-label="Start from my land or open a file" style={{ padding: 6, verticalAlign: 'middle' }}>
          <FolderOpen size={17} aria-hidden />
        </Link>
        <Button look="quiet" aria-label="Keys" onPress={() => setHelp(true)}>
          <HelpCircle size={17} aria-hidden />
        </Button>
      </span>
      <KeysHelp isOpen={isHelp} onChange={setHelp} />
    </Bar>
  );
}
