import type { ReactNode } from 'react';
import { Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import { FONT } from '../../app/theme.ts';

const Group = styled(RadioGroup)`
  display: grid;
  font-size: 14px;
`;
const Line = styled(Radio)<{ $columns: number }>`
  display: grid;
  grid-template-columns: 20px 1fr ${({ $columns }) => `repeat(${$columns}, 96px)`};
  gap: 0 6px;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
  align-items: baseline;
  .mark {
    width: 13px;
    height: 13px;
    border: 1.5px solid var(--ink);
    border-radius: 50%;
    align-self: start;
    margin-top: 3px;
  }
  .figure {
    font-family: ${FONT.figures};
    text-align: right;
    white-space: nowrap;
  }
  small {
    grid-column: 2 / -1;
    font-size: 13px;
    color: var(--muted);
    line-height: 1.3;
  }
  small.unfit {
    color: var(--strawText);
  }
  &[data-selected] {
    font-weight: 700;
  }
  &[data-selected] .mark {
    background: var(--deepWater);
    box-shadow: inset 0 0 0 2px var(--paper);
  }
  &[data-selected] small {
    font-weight: 400;
  }
  &[data-hovered] {
    background: var(--paperDeep);
  }
  &[data-disabled] {
    cursor: default;
    color: var(--muted);
  }
  &[data-focus-visible] {
    outline: 2px solid var(--water);
    outline-offset: -1px;
  }
  @media (max-width: 700px) {
    min-height: 44px;
  }
`;
const Head = styled.div<{ $columns: number }>`
  display: grid;
  grid-template-columns: 20px 1fr ${({ $columns }) => `repeat(${$columns}, 96px)`};
  gap: 0 6px;
  color: var(--muted);
  text-align: right;
  font-size: 13px;
`;

export interface MethodLine {
  readonly id: string;
  readonly title: string;
  readonly says?: string;
  readonly figures: readonly string[];
  /** Why it should not be used here; empty where it may. */
  readonly unfit: readonly string[];
  /** Whether it cannot be worked out at all. */
  readonly isOut?: boolean;
}

/** Methods side by side, of which one is chosen; one out of its range is not to be had, and says why. */
export function MethodTable(props: {
  readonly caption: string;
  readonly head: readonly string[];
  readonly lines: readonly MethodLine[];
  readonly chosen: string;
  readonly onChoose: (id: string) => void;
}): ReactNode {
  const { caption, head, lines, chosen, onChoose } = props;
  return (
    <>
      <Head $columns={head.length} aria-hidden>
        <span />
        <span />
        {head.map((h) => (
          <span key={h}>{h}</span>
        ))}
      </Head>
      <Group aria-label={caption} value={chosen} onChange={onChoose}>
        {lines.map(({ id, title, says, figures, unfit, isOut }) => (
          <Line key={id} value={id} $columns={figures.length} isDisabled={(isOut === true || unfit.length > 0) && id !== chosen}>
            <span className="mark" aria-hidden />
            <span>{title}</span>
            {figures.map((f, k) => (
              <span key={k} className="figure">
                {f}
              </span>
            ))}
            {says !== undefined && <small>{says}</small>}
            {unfit.length > 0 && <small className="unfit">Not here: {unfit.join('; ')}.</small>}
          </Line>
        ))}
      </Group>
    </>
  );
}
