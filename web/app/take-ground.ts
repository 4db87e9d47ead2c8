// New ground: in place of what was there, or laid into it where the two meet and the user says so.
import type { Project } from '#core/project';
import type { Smoothing } from '#core/terrain';
import { formatQuantity } from '#core/units';
import type { TakenIn } from '../workers/protocol.ts';
import { runJob } from './jobs.ts';
import type { GroundChosen } from './asked.ts';
import { assetOf, dispatch, keepAsset, notify, useApp } from './store.ts';

type Ground = Extract<TakenIn, { readonly kind: 'terrain' }>;

/** The ground there is; null where there is none, or it is this one. */
async function groundThere({ terrain }: Project, { asset }: Ground): Promise<Blob | null> {
  return terrain?.kind !== 'asset' || terrain.sha256 === asset.sha256 ? null : assetOf(terrain.sha256).catch(() => null);
}

/** Asks what becomes of new ground where there is some already; null when it is left. */
async function chosenFor({ site }: Project, imported: Ground, there: Blob): Promise<GroundChosen | null> {
  const isComparable = imported.crs === null || imported.crs === site.crs;
  const answer = isComparable ? await runJob(`Comparing ${imported.source} with the ground there is`, (work) => work.compare(there, imported.asset.blob)) : null;
  // Given up, nothing is taken.
  if (isComparable && !answer) return null;
  notify(null);
  return new Promise((done) => useApp.setState({ twoGrounds: { imported, met: answer?.ok === true ? answer.value : null, done } }));
} // prettier-ignore

/** Takes ground in. Returns whether it was taken. */
export async function takeGround(project: Project, imported: Ground): Promise<boolean> {
  const there = await groundThere(project, imported);
  const chosen = there ? await chosenFor(project, imported, there) : 'replace';
  if (chosen === null) return false;
  if (chosen !== 'replace' && there) return layIn({ project, imported, there }, chosen);
  await keepAsset(imported.asset.sha256, imported.asset.blob);
  const done = dispatch({
    type: 'terrain.set',
    payload: { terrain: { kind: 'asset', sha256: imported.asset.sha256, source: imported.source }, crs: imported.crs },
  });
  if (done) notify({ tone: 'fine', title: [`${imported.source} is in.`, ...imported.notes].join(' '), problems: [] });
  return done;
}

/** Lays the new ground into the one there is: a new ground, made of both. */
async function layIn({ project, imported, there }: { readonly project: Project; readonly imported: Ground; readonly there: Blob }, how: Exclude<GroundChosen, 'replace'>): Promise<boolean> {
  const answer = await runJob(`Laying in ${imported.source}`, (work) => work.patch(there, imported.asset.blob, how));
  if (!answer) return false;
  if (!answer.ok) {
    notify({ tone: 'mend', title: `${imported.source} was not laid in; nothing has changed`, problems: answer.problems });
    return false;
  }
  const { sha256, blob } = answer.value;
  await keepAsset(sha256, blob);
  const before = project.terrain?.kind === 'asset' ? project.terrain.source : 'the ground';
  const source = `${before.slice(0, 200)}, with ${imported.source}`;
  const done = dispatch({ type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256, source }, crs: project.site.crs } });
  if (done) notify({ tone: 'fine', title: [`${imported.source} is laid into the ground; undo takes it out again.`, ...imported.notes].join(' '), problems: [] });
  return done;
} // prettier-ignore

/** Takes the noise out of the ground: a new ground, the one before kept with its undo. */
export async function smoothGround(how: Smoothing): Promise<void> {
  const { history, system } = useApp.getState();
  const terrain = history?.project.terrain;
  if (!history || terrain?.kind !== 'asset') return;
  const there = await assetOf(terrain.sha256).catch(() => null);
  const answer = there && (await runJob('Smoothing the ground', (work) => work.smooth(there, how)));
  if (!answer) return;
  if (!answer.ok || !answer.value) {
    notify({ tone: 'mend', title: 'The ground was not smoothed; nothing has changed', problems: answer.ok ? [] : answer.problems });
    return;
  }
  const { asset, beforeM, afterM, movedM } = answer.value;
  await keepAsset(asset.sha256, asset.blob);
  const source = `${terrain.source.slice(0, 200)}, smoothed`;
  const { crs } = history.project.site;
  if (!dispatch({ type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256: asset.sha256, source }, crs } })) return;
  const told = (m: number): string => formatQuantity(m, 'difference', system);
  notify({ tone: 'fine', title: `The ground is smoothed: its noise is ${told(afterM)}, it was ${told(beforeM)}; no level moved by more than ${told(movedM)}. Undo brings back the ground as it was.`, problems: [] });
} // prettier-ignore
