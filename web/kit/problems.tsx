import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { UserProblem } from '#core/project';

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
export function Problems({ title, problems }: { readonly title: string; readonly problems: readonly UserProblem[] }): ReactNode {
  return (
    <Box role="alert">
      <strong>{title}</strong>
      {problems.map((p, i) => (
        <div key={`${p.code}${i}`}>
          <p>
            {place(p.where) === '' ? '' : `${place(p.where)}: `}
            {p.what}.
          </p>
          <p>
            <strong>Do:</strong> {p.do}
          </p>
        </div>
      ))}
    </Box>
  );
}
