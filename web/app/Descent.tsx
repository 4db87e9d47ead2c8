import { type ReactNode, useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import styled from 'styled-components';
import { SeverityMark } from '../kit/index.ts';
import { STAGE_UI, type StageUi } from '../stages/index.ts';
import { useApp } from './store.ts';

const Nav = styled.nav`
  border-right: 1px solid var(--line);
  padding: 18px 0;
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  @media (max-width: 700px) {
    border: 0;
    border-bottom: 1px solid var(--line);
    padding: 0;
    overflow-x: auto;
    ol {
      display: flex;
    }
  }
`;
/** Each step stands a little further right: a stepped line going downhill. */
const Step = styled.li<{ $depth: number; $isDone: boolean }>`
  position: relative;
  height: 56px;
  padding-left: ${({ $depth }) => 22 + 7 * $depth}px;
  &::before {
    content: '';
    position: absolute;
    left: ${({ $depth }) => 9 + 7 * $depth}px;
    top: -12px;
    width: 9px;
    height: 56px;
    border: 3px solid ${({ $isDone }) => ($isDone ? 'var(--water)' : 'var(--line)')};
    border-top: 0;
    border-right: 0;
  }
  a {
    display: inline-flex;
    align-items: center;
    gap: 8px;
    padding: 5px 10px;
    color: var(--ink);
    text-decoration: none;
    font-weight: 600;
    font-size: 16px;
    border-radius: 3px;
  }
  a.active {
    background: var(--deepWater);
    color: var(--onDeep);
  }
  a.active svg {
    filter: brightness(1.9);
  }
  @media (max-width: 700px) {
    padding: 0;
    height: auto;
    &::before {
      display: none;
    }
    a {
      padding: 12px 13px;
      border-radius: 0;
      min-height: 44px;
    }
  }
`;

/** Worst finding to show beside a stage. */
function StageState({ ui }: { readonly ui: StageUi }): ReactNode {
  const mend = useApp((s) => (s.result && ui.toMend ? ui.toMend(s.result.derived) : 0));
  // What has findings is not done before they are looked for.
  const isDone = useApp((s) => s.history !== null && ui.isDone(s.history.project) && (s.result !== null || !ui.toMend));
  if (mend > 0)
    return (
      <>
        <SeverityMark severity="mend" size={10} />
        <small>{mend}</small>
      </>
    );
  return isDone ? <small aria-label="done">✓</small> : null;
}

function StageStep({ ui, depth, to }: { readonly ui: StageUi; readonly depth: number; readonly to: string }): ReactNode {
  const isDone = useApp((s) => s.history !== null && ui.isDone(s.history.project));
  return (
    <Step $depth={depth} $isDone={isDone}>
      <NavLink to={to} onPointerEnter={ui.fetch} onFocus={ui.fetch}>
        {ui.name} <StageState ui={ui} />
      </NavLink>
    </Step>
  );
}

/** The stages as a stepped line, each with its state. */
export function Descent(): ReactNode {
  const id = useApp((s) => s.history?.project.id ?? '');
  const nav = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // What has been found stands in the strip too, and makes it longer.
  const isTold = useApp((s) => s.result !== null);
  // On a phone the stages are a strip: the one that is open is brought into sight.
  useEffect(() => {
    const open = nav.current?.querySelector('a.active');
    if (!nav.current || !(open instanceof HTMLElement)) return;
    const { left, width } = open.getBoundingClientRect();
    const strip = nav.current.getBoundingClientRect();
    nav.current.scrollLeft += left + width / 2 - (strip.left + strip.width / 2);
  }, [pathname, isTold]);
  return (
    <Nav ref={nav} aria-label="Stages">
      <ol>
        {STAGE_UI.map((ui, depth) => (
          <StageStep key={ui.id} ui={ui} depth={depth} to={`/p/${id}/${ui.id}`} />
        ))}
      </ol>
    </Nav>
  );
}
