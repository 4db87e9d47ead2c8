import type { ReactNode } from 'react';
import styled from 'styled-components';
import { FONT } from '../app/theme.ts';

const Plain = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
  margin: 4px 0 8px;
  th,
  td {
    padding: 5px 0;
    border-bottom: 1px solid var(--line);
    text-align: right;
    font-family: ${FONT.figures};
    font-weight: 400;
  }
  th {
    color: var(--muted);
    font-family: ${FONT.text};
  }
  th:not(:first-child),
  td:not(:first-child) {
    padding-left: 10px;
  }
  th:first-child,
  td:first-child {
    text-align: left;
    font-family: ${FONT.text};
  }
`;

/** A small table: names left, figures right. */
export function Table({
  caption,
  head,
  rows,
}: {
  readonly caption: string;
  readonly head: readonly string[];
  readonly rows: readonly (readonly string[])[];
}): ReactNode {
  return (
    <Plain aria-label={caption}>
      <thead>
        <tr>
          {head.map((h, i) => (
            <th key={i} scope="col">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => (
          <tr key={r}>
            {row.map((cell, i) => (
              <td key={i}>{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </Plain>
  );
}
