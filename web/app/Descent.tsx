import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import type { Derived } from '#core/derive';
import type { Project } from '#core/project';
import { SeverityMark } from '../kit/index.ts';
import { STAGE_UI } from '../stages/index.ts';
import { useDerived, useProject } from './selectors.ts';

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
  padding-left: ${({ $depth }) => 26 + 9 * $depth}px;
  &::before {
    content: '';
    position: absolute;
    left: ${({ $depth }) => 12 + 9 * $depth}px;
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

const DONE: Readonly<Record<string, (p: Project) => boolean>> = {
  land: (p) => p.terrain !== null,
  rain: (p) => p.rain !== null,
  ground: (p) => p.ground !== null,
  works: (p) => p.options.some((o) => o.works.length > 0),
  levels: (p) => p.options.some((o) => o.works.length > 0),
  storm: (p) => p.rain !== null && p.ground !== null && p.options.some((o) => o.works.length > 0),
  pegs: (p) => (p.survey?.heightOfCollimationM ?? null) !== null,
};

/** Worst finding to show beside a stage. */
function state(id: string, project: Project, derived: Derived | null): ReactNode {
  if (id === 'works') {
    const mend = derived?.checks.filter((c) => c.severity === 'mend').length ?? 0;
    if (mend > 0)
      return (
        <>
          <SeverityMark severity="mend" size={10} />
          <small>{mend}</small>
        </>
      );
  }
  return DONE[id](project) ? <small aria-label="done">✓</small> : null;
}

/** The stages as a stepped line, each with its state. */
export function Descent(): ReactNode {
  const project = useProject();
  const derived = useDerived();
  return (
    <Nav aria-label="Stages">
      <ol>
        {STAGE_UI.map(({ id, name }, depth) => (
          <Step key={id} $depth={depth} $isDone={DONE[id](project)}>
            <NavLink to={`/p/${project.id}/${id}`}>
              {name} {state(id, project, derived)}
            </NavLink>
          </Step>
        ))}
      </ol>
    </Nav>
  );
}
