import { Timer, X } from 'lucide-react';
import { useEffect, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import type { FieldTest, Reading } from '#core/ground';
import { displayUnit } from '#core/units';
import { dispatch, useApp } from '../../app/store.ts';
import { FONT } from '../../app/theme.ts';
import { Button, Inline, Muted, Part, Quantity } from '../../kit/index.ts';

const Grid = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
  th {
    color: var(--muted);
    font-weight: 400;
    text-align: right;
    padding: 4px 0;
  }
  td > div {
    justify-content: end;
  }
  td:last-child {
    width: 34px;
    text-align: right;
  }
  input {
    width: 4.4em;
  }
  td span span {
    display: none;
  }
  @media (max-width: 700px) {
    input {
      font-size: 20px;
      min-height: 44px;
    }
  }
`;
const Clock = styled.output`
  font: 600 22px ${FONT.figures};
`;

const setReadings = (id: string, readings: readonly Reading[]): boolean =>
  dispatch({ type: 'test.change', payload: { id, set: { readings } } });

/** Minutes since a test was begun on this page, ticking; null before. */
function useStopwatch(): { readonly minutes: number | null; readonly start: (from: number) => void } {
  const [began, setBegan] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  useEffect(() => {
    if (began === null) return undefined;
    const tick = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(tick);
  }, [began]);
  const minutes = began === null ? null : Math.max(0, Math.max(now, began) - began) / 60_000;
  return {
    minutes,
    start: (from) => {
      setBegan(Date.now() - from * 60_000);
      setNow(Date.now());
    },
  };
}

const clockText = (minutes: number): string => {
  const seconds = Math.floor(minutes * 60);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
};

/** Readings as they are made: time, depth, and what it was filled up to again. */
export function Readings({ test, reads }: { readonly test: FieldTest; readonly reads: string }): ReactNode {
  const system = useApp((s) => s.system);
  const { readings } = test;
  const last = readings[readings.length - 1];
  const { minutes, start } = useStopwatch();
  const [depth, setDepth] = useState<number | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const unit = displayUnit('rain', system).unit;
  const change = (k: number, part: Partial<Reading>): void => {
    setReadings(
      test.id,
      readings.map((r, i) => (i === k ? { ...r, ...part } : r)),
    );
  };
  const nextMin = at ?? (minutes === null ? (last ? last.min + 10 : 0) : Number(minutes.toFixed(2)));
  const add = (): void => {
    if (depth === null || !setReadings(test.id, [...readings, { min: nextMin, mm: depth }])) return;
    setDepth(null);
    setAt(null);
  };
  return (
    <Part title={`Readings: ${reads.toLowerCase()}`}>
      {readings.length > 0 && (
        <Grid aria-label="Readings">
          <thead>
            <tr>
              <th scope="col">min</th>
              <th scope="col">{unit} of water</th>
              <th scope="col">filled to</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {readings.map((r, k) => (
              <tr key={k}>
                <td>
                  <Quantity
                    isLabelHidden
                    label={`Time of reading ${k + 1}`}
                    value={r.min}
                    kind="minutes"
                    min={0}
                    onChange={(min) => change(k, { min })}
                  />
                </td>
                <td>
                  <Quantity
                    isLabelHidden
                    label={`Water at reading ${k + 1}`}
                    value={r.mm}
                    kind="rain"
                    min={0}
                    onChange={(mm) => change(k, { mm })}
                  />
                </td>
                <td>
                  <Quantity
                    isLabelHidden
                    label={`Filled to at reading ${k + 1}`}
                    value={r.refilledMm ?? null}
                    kind="rain"
                    min={0}
                    onChange={(refilledMm) => change(k, { refilledMm })}
                  />
                </td>
                <td>
                  <Button
                    look="quiet"
                    aria-label={`Remove reading ${k + 1}`}
                    onPress={() =>
                      setReadings(
                        test.id,
                        readings.filter((_, i) => i !== k),
                      )
                    }
                  >
                    <X size={14} aria-hidden />
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Grid>
      )}
      <Quantity label="Minutes from the start" value={nextMin} kind="minutes" min={0} onChange={setAt} />
      <Quantity label={`${reads} now`} value={depth} kind="rain" min={0} onChange={setDepth} />
      <Inline>
        <Button look="strong" isDisabled={depth === null} onPress={add}>
          Add the reading
        </Button>
        <Button onPress={() => start(last?.min ?? 0)}>
          <Timer size={15} aria-hidden />
          {minutes === null ? 'Start the clock' : 'Start it again'}
        </Button>
        {minutes !== null && <Clock aria-label="Time since the start">{clockText(minutes)}</Clock>}
      </Inline>
      <Muted>Read every few minutes until three falls in a row agree. Note what you filled it up to in the same line.</Muted>
    </Part>
  );
}
