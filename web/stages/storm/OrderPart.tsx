import type { ReactNode } from 'react';
import styled from 'styled-components';
import { formatQuantity, rough, spoken } from '#core/units';
import { useAskNetwork } from '../../app/network.ts';
import { useFormat, useProject, useWorks } from '../../app/selectors.ts';
import { select, useApp } from '../../app/store.ts';
import { FONT } from '../../app/theme.ts';
import { Button, Muted, Part, SeverityMark } from '../../kit/index.ts';

const List = styled.ol`
  list-style: none;
  margin: 6px 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 18px 1fr auto;
    gap: 8px;
    padding: 7px 0;
    border-bottom: 1px solid var(--line);
    align-items: baseline;
  }
  .when {
    font-family: ${FONT.figures};
    text-align: right;
    white-space: nowrap;
  }
  .dot {
    width: 11px;
    height: 11px;
    border: 1.6px solid var(--ink);
    align-self: center;
  }
  .dot.spills {
    border-radius: 50%;
    background: var(--water);
  }
  .dot.passed {
    background: var(--clay);
    transform: rotate(45deg);
  }
`;

/** In what order ways out run and crests are passed as the storm is raised. */
export function OrderPart(): ReactNode {
  const order = useAskNetwork('failureOrder', {});
  const works = useWorks();
  const system = useApp((s) => s.system);
  const format = useFormat();
  const { rain, ground } = useProject();
  if (order === undefined && rain !== null && ground !== null && works.length > 0) return <Muted role="status">Raising the storm…</Muted>;
  if (order === null || order === undefined || order.steps.length === 0) return <Muted>Give rain, ground and a work first.</Muted>;
  const when = (years: number | null, times: number | null, isBeyond: boolean): string =>
    times === null
      ? 'not reached'
      : years === null
        ? `${times.toFixed(1)} × storm`
        : `${isBeyond ? 'about ' : ''}1 in ${formatQuantity(Math.max(1, years), 'years', system)}`;
  return (
    <>
      {order.wrong.length === 0 ? (
        <p role="status">
          <SeverityMark severity="fine" size={11} /> They go in the right order: ways out first, banks next, walls last.
        </p>
      ) : (
        order.wrong.map((w) => (
          <p key={`${w.first}${w.before}`} role="alert" style={{ color: 'var(--alarm)' }}>
            <SeverityMark severity="mend" size={11} /> {spoken(w.said, system)}
          </p>
        ))
      )}
      <Part title="As the storm is raised">
        <List aria-label="Order of failure">
          {order.steps.map((s) => (
            <li key={s.outlet}>
              <span className={`dot ${s.kind}`} aria-hidden="true" />
              <span>
                <Button
                  look="quiet"
                  aria-label={`Open ${s.name}`}
                  onPress={() => select(works.some((w) => w.id === s.work) ? s.work : s.store)}
                >
                  {s.name}
                </Button>{' '}
                {s.kind === 'spills' ? 'runs' : 'is passed'} at {format(s.levelM, 'level')}
                {s.breachM3s === null ? '' : `; cut through, about ${format(rough(s.breachM3s), 'flow')} comes down`}
                {s.takes.length > 0 ? `; takes ${s.takes.map((id) => works.find((w) => w.id === id)?.name ?? id).join(', ')} with it` : ''}
              </span>
              <span className="when">{when(s.years, s.times, s.isBeyondTable)}</span>
            </li>
          ))}
        </List>
        <Muted>
          Return periods between the rows of your table; “about” lies beyond it, “× storm” is so many times the rain of your design storm.
        </Muted>
      </Part>
    </>
  );
}
