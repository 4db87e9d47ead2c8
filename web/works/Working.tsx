import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { Derived } from '#core/derive';
import type { WorksheetLine } from '#core/formula';
import { FONT } from '../app/theme.ts';
import { useDerived } from '../app/selectors.ts';
import { FoldPart, Muted } from '../kit/index.ts';
import { sourceWords } from '../kit/source.ts';

const Line = styled.details`
  border-bottom: 1px solid var(--line);
  summary {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    padding: 7px 0;
    cursor: pointer;
    list-style: none;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  code {
    font: 13px ${FONT.figures};
    overflow-wrap: anywhere;
  }
  div {
    padding-bottom: 10px;
    display: grid;
    gap: 5px;
    font-size: 14px;
  }
`;
const Result = styled.span`
  font-family: ${FONT.figures};
  white-space: nowrap;
`;

/** A figure with four significant digits: enough to follow the arithmetic. */
const digits = (v: number): string =>
  v === 0 ? '0' : Math.abs(v) >= 1e5 || Math.abs(v) < 1e-4 ? v.toExponential(3) : String(Number(v.toPrecision(5)));

function Step({ line }: { readonly line: WorksheetLine }): ReactNode {
  return (
    <Line>
      <summary>
        <span>{line.title}</span>
        <Result>
          {line.symbol} = {digits(line.result)} {line.unit}
        </Result>
      </summary>
      <div>
        <code>{line.statement}</code>
        <code>
          {Object.entries(line.inputs)
            .map(([s, v]) => `${s} = ${digits(v)} ${line.units[s]}`.trim())
            .join(', ')}
        </code>
        {line.cautions.map((c) => (
          <Muted key={c} style={{ color: 'var(--strawText)' }}>
            {c}.
          </Muted>
        ))}
        <Muted>Source: {sourceWords(line.source)}</Muted>
      </div>
    </Line>
  );
}

/** Steps of a working. */
export function LineSteps({ lines }: { readonly lines: readonly WorksheetLine[] }): ReactNode {
  return (
    <>
      {lines.map((line, i) => (
        <Step key={`${line.on}${line.formula}${i}`} line={line} />
      ))}
    </>
  );
}

const linesOf = (derived: Derived | null, ids: readonly string[]): readonly WorksheetLine[] =>
  derived?.worksheets.filter((l) => ids.includes(l.on)) ?? [];

/** Every formula that made the figures of these subjects, in SI as computed. */
export const Working = ({ ids }: { readonly ids: readonly string[] }): ReactNode => <LineSteps lines={linesOf(useDerived(), ids)} />;

/** The working of a work, to be looked up. */
export function WorkingPart({ id }: { readonly id: string }): ReactNode {
  const lines = linesOf(useDerived(), [id]);
  if (lines.length === 0) return null;
  return (
    <FoldPart title="Working" sum={`${lines.length} ${lines.length === 1 ? 'formula' : 'formulas'}`} isLookedUp>
      <LineSteps lines={lines} />
    </FoldPart>
  );
}
