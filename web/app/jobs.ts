// One file at a time is read or written apart from the page, with its progress told and a way to give it up.
import type { Answer, FileWork } from '../workers/protocol.ts';
import { Stopped, startFileWork } from '../workers/client.ts';
import { useApp } from './store.ts';
import { unforeseen } from '#core/project';

const setJob = (job: ReturnType<typeof useApp.getState>['job']): void => useApp.setState({ job });

/** Runs a job in a worker of its own; null when the user gave it up: then nothing has changed. */
export async function runJob<T>(title: string, does: (work: FileWork) => Promise<Answer<T>>): Promise<Answer<T> | null> {
  useApp.getState().job?.cancel();
  const started = startFileWork((part, share) => {
    const { job } = useApp.getState();
    if (job?.cancel === started.stop) setJob({ ...job, part, share });
  });
  setJob({ title, part: title, share: 0, cancel: started.stop });
  try {
    return await does(started.worker);
  } catch (error) {
    return error instanceof Stopped ? null : { ok: false, problems: [unforeseen(title)] };
  } finally {
    if (useApp.getState().job?.cancel === started.stop) setJob(null);
    started.stop();
  }
}
