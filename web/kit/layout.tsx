import type { ReactNode } from 'react';
import styled from 'styled-components';
import { FONT } from '../app/theme.ts';

export const SheetTitle = styled.h2`
  font-size: 21px;
`;
export const SubTitle = styled.p`
  color: var(--muted);
  margin-top: 2px;
`;
const Heading = styled.h3`
  font: 700 12.5px/1.2 ${FONT.text};
  color: var(--muted);
  margin: 20px 0 4px;
`;
export const Row = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
  min-height: 34px;
  border-bottom: 1px solid var(--line);
`;
export const Figures = styled.span`
  font-family: ${FONT.figures};
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
`;
export const Muted = styled.p`
  color: var(--muted);
  font-size: 14px;
`;
export const Inline = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 10px 0;
`;

/** A titled part of a sheet. */
export function Part({
  title,
  children,
  action,
}: {
  readonly title: string;
  readonly children: ReactNode;
  readonly action?: ReactNode;
}): ReactNode {
  return (
    <section aria-label={title}>
      <div style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'end' }}>
        <Heading>{title}</Heading>
        {action}
      </div>
      {children}
    </section>
  );
}

/** A result: words left, figure right. */
export function Fact({ label, value }: { readonly label: string; readonly value: string }): ReactNode {
  return (
    <Row>
      <span>{label}</span>
      <Figures>{value}</Figures>
    </Row>
  );
}
