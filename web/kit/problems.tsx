import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { UserProblem } from '#core/project';
import { type Said, spoken } from '#core/units';
import { useApp } from '../app/store.ts';

const Box = styled.div`
  border-left: 4px solid var(--alarm);
  background: var(--paperDeep);
  padding: 10px 14px;
  display: grid;
  gap: 8px;
`;

function place({ file, line, field }: UserProblem['where']): string {
  return [file, line === undefined ? null : `line ${line}`, field].filter(Boolean).join(', ');
}

/** What is wrong, where, and what to do: never more, never less. */
export function Problems({ title, problems }: { readonly title: Said; readonly problems: readonly UserProblem[] }): ReactNode {
  const system = useApp((s) => s.system);
  return (
    <Box role="alert">
      <strong>{spoken(title, system)}</strong>
      {problems.map((p, i) => (
        <div key={`${p.code}${i}`}>
          <p>
            {place(p.where) === '' ? '' : `${place(p.where)}: `}
            {spoken(p.said?.what ?? p.what, system)}.
          </p>
          <p>
            <strong>Do:</strong> {spoken(p.said?.do ?? p.do, system)}
          </p>
        </div>
      ))}
    </Box>
  );
}
