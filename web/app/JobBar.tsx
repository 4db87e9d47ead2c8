import { type ReactNode, useEffect, useState } from 'react';
import styled from 'styled-components';
import { Button } from '../kit/index.ts';
import { stopComputing, useApp } from './store.ts';

const Bar = styled.div`
  position: fixed;
  left: 50%;
  bottom: 18px;
  transform: translateX(-50%);
  z-index: 30;
  display: flex;
  gap: 16px;
  /* Whatever its words, the button stays where somebody reaches for it. */
  align-items: flex-end;
  width: min(480px, 94vw);
  padding: 9px 10px 9px 18px;
  background: var(--paper);
  border: 1px solid var(--ink);
  border-radius: 4px;
  box-shadow: 0 8px 26px rgb(0 0 0 / 20%);
  /* It comes and goes over the plan while somebody draws there: only its button takes a click. */
  pointer-events: none;
  > button {
    pointer-events: auto;
  }
  > :first-child {
    flex: 1;
    min-width: 0;
    padding-bottom: 5px;
    overflow-wrap: anywhere;
  }
`;

/** Work shorter than this needs no word [ms]. */
const PATIENCE_MS = 400;

/** Whether something has gone on long enough to be told. */
function useLong(isOn: boolean): boolean {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    if (!isOn) return undefined;
    const timer = setTimeout(() => setLong(true), PATIENCE_MS);
    return () => {
      clearTimeout(timer);
      setLong(false);
    };
  }, [isOn]);
  return isOn && isLong;
}

const percent = (share: number): string => (share > 0 ? `, ${Math.round(100 * share)} %` : '');

/** Long work, told in words, with a way to end it at once. */
export function JobBar(): ReactNode {
  const job = useApp((s) => s.job);
  const isComputing = useApp((s) => s.isComputing);
  const progress = useApp((s) => s.progress);
  const [showsJob, showsComputing] = [useLong(job !== null), useLong(isComputing)];
  if (job && showsJob) {
    return (
      <Bar role="status">
        <span>
          {job.part.slice(0, 90)}
          {percent(job.share)}…
        </span>
        <Button onPress={job.cancel}>Cancel</Button>
      </Bar>
    );
  }
  if (!showsComputing) return null;
  return (
    <Bar role="status">
      <span>Working it out{progress ? `: ${progress.part}${percent(progress.share)}` : ''}…</span>
      <Button onPress={stopComputing}>Stop</Button>
    </Bar>
  );
}
