import { Check, Compass, Eye, FlaskConical, MapPin, Minus, PencilLine, Plus, Route, Shapes, SquareDashed, Waves, X } from 'lucide-react';
import { memo, useState, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import styled from 'styled-components';
import type { Point } from '#core/geometry';
import { typedPoint } from './points.ts';
import { startTool, useAppPick } from '../app/store.ts';
import { FONT } from '../app/theme.ts';
import { ActionMenu, Button, type ChoicesUnder } from '../kit/index.ts';
import { Layers } from './Layers.tsx';
import { STAGE_UI, type StageTools } from '../stages/index.ts';
import { TOOLS, type Tool, finishTool } from './tools.ts';

const Bar = styled.div`
  position: absolute;
  top: 10px;
  left: 12px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  max-width: calc(100% - 70px);
  @media (max-width: 700px) {
    flex-wrap: nowrap;
    overflow-x: auto;
    > button {
      flex: none;
    }
  }
  button {
    background: var(--paper);
    border-color: var(--ink);
  }
`;
const Hint = styled.div`
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  padding: 6px 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  font-size: 14px;
  input {
    width: 11.5em;
    font-family: ${FONT.figures};
    border: 0;
    border-bottom: 1.5px solid var(--water);
    background: transparent;
    padding: 2px;
  }
  /* On a phone all below its sentence is one row, so that the plan stays in sight. */
  @media (max-width: 700px) {
    padding: 4px 8px;
    gap: 4px 6px;
    input {
      width: 7.4em;
    }
    button {
      padding: 4px 8px;
    }
  }
`;
const Zoom = styled.div`
  position: absolute;
  right: 12px;
  top: 10px;
  display: grid;
  gap: 6px;
  button {
    background: var(--paper);
    border-color: var(--ink);
    padding: 6px 9px;
  }
`;

const ICONS: Readonly<Record<string, ReactNode>> = {
  pin: <MapPin size={16} aria-hidden />,
  zone: <SquareDashed size={16} aria-hidden />,
  test: <FlaskConical size={16} aria-hidden />,
};
type Group = StageTools['groups'][number];
const MENUS: Readonly<Record<Group, { readonly label: string; readonly icon: ReactNode }>> = {
  work: { label: 'Draw another work', icon: <Shapes size={16} aria-hidden /> },
  draw: { label: 'Draw', icon: <PencilLine size={16} aria-hidden /> },
  seen: { label: 'What I saw', icon: <Eye size={16} aria-hidden /> },
  ask: { label: 'Ask the land', icon: <Route size={16} aria-hidden /> },
  suits: { label: 'What suits here?', icon: <Compass size={16} aria-hidden /> },
};
const ofGroup = (group: Group): { id: string; name: string }[] =>
  Object.entries(TOOLS).flatMap(([id, tool]) => (tool.group === group ? [{ id, name: tool.name }] : []));

/** Works by what they are for: too many to be read as one list. */
const FAMILIES: Readonly<Record<Exclude<NonNullable<Tool['family']>, 'way-out'>, string>> = {
  store: 'To hold and slow water',
  conveyance: 'To lead it, and shape the ground',
  road: 'To cross it',
  lift: 'To lift and pipe it',
};
const WORKS: readonly ChoicesUnder[] = Object.entries(FAMILIES).flatMap(([id, head]) => {
  const choices = ofGroup('work').filter((c) => TOOLS[c.id].family === id);
  return choices.length > 0 ? [{ id, head, choices }] : [];
});

/** Tools of the stage, the hint of the tool in hand, and zoom. */
export const PlanBar = memo(function PlanBar({
  onTyped,
  onZoom,
}: {
  readonly onTyped: (at: Point) => void;
  readonly onZoom: (by: number) => void;
}): ReactNode {
  const stage = useLocation().pathname.split('/').pop() ?? '';
  const tools = STAGE_UI.find((s) => s.id === stage)?.tools;
  const { tool, drawn, terrain, saved } = useAppPick('tool', 'drawn', 'terrain', 'saved');
  const [typed, setTyped] = useState('');
  const point = typedPoint(typed);
  const canDraw = terrain !== null && saved !== 'read-only';
  return (
    <>
      <Bar role="toolbar" aria-label="Drawing">
        {tool === null &&
          canDraw &&
          tools?.first.map((t) => (
            <Button key={t} onPress={() => startTool(t)}>
              {ICONS[t] ?? <Waves size={16} aria-hidden />}
              {TOOLS[t].name}
            </Button>
          ))}
        {tool === null &&
          tools?.groups
            .filter((group) => (group === 'ask' || group === 'suits' ? terrain !== null : canDraw))
            .map((group) => (
              <ActionMenu key={group} {...MENUS[group]} choices={group === 'work' ? WORKS : ofGroup(group)} onChoose={startTool} />
            ))}
        {tool !== null && (
          <Hint>
            <span>
              <strong>{TOOLS[tool].name}</strong> {TOOLS[tool].hint}
            </span>
            <form
              onSubmit={(e) => {
                e.preventDefault();
                if (point) {
                  onTyped(point);
                  setTyped('');
                }
              }}
            >
              <input aria-label="Type x, y" placeholder="or type x, y" value={typed} onChange={(e) => setTyped(e.target.value)} />
            </form>
            {TOOLS[tool].least > 1 && (
              <Button onPress={finishTool} isDisabled={drawn.length < TOOLS[tool].least}>
                <Check size={16} aria-hidden />
                Finish
              </Button>
            )}
            <Button onPress={() => startTool(null)}>
              <X size={16} aria-hidden />
              Cancel
            </Button>
          </Hint>
        )}
      </Bar>
      <Zoom>
        <Button aria-label="Zoom in" onPress={() => onZoom(0.6)}>
          <Plus size={16} aria-hidden />
        </Button>
        <Button aria-label="Zoom out" onPress={() => onZoom(-0.6)}>
          <Minus size={16} aria-hidden />
        </Button>
        <Layers />
      </Zoom>
    </>
  );
});
