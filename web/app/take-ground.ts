// New ground: in place of what was there, or laid into it where the two meet and the user says so.
import { type Project, type SurveyPart, surveyName, surveysOf } from '#core/project';
import type { Smoothing } from '#core/terrain';
import { formatQuantity } from '#core/units';
import type { Packed, TakenIn } from '../workers/protocol.ts';
import { runJob } from './jobs.ts';
import type { GroundChosen } from './asked.ts';
import { assetOf, dispatch, keepAsset, notify, useApp } from './store.ts';

type Ground = Extract<TakenIn, { readonly kind: 'terrain' }>;

/** Ground is made up as long as any of it is; and what it is made of. */
interface Whose {
  readonly isMadeUp?: true;
  readonly surveys?: readonly SurveyPart[];
}

/** A survey as the document keeps it. Distances of its own are kept as an asset; where it has none it reaches as far as told. */
async function surveyOf({ source, known }: Ground, laid?: { readonly reach: Packed; readonly featherM: number }): Promise<SurveyPart> {
  const away = known?.away ?? laid?.reach;
  if (away) await keepAsset(away.sha256, away.blob);
  return {
    name: surveyName(source),
    ...(known?.levelsM ? { levelsM: known.levelsM } : {}),
    ...(typeof known?.growsBy === 'number' ? { growsBy: known.growsBy } : {}),
    ...(away ? { away: away.sha256 } : {}),
    ...(laid ? { featherM: laid.featherM } : {}),
  };
}

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
  if (answer?.ok === false) {
    notify({ tone: 'mend', title: `${imported.source} was not taken in; nothing has changed`, problems: answer.problems });
    return null;
  }
  notify(null);
  // Asked of two at once, the first is left.
  useApp.getState().twoGrounds?.done(null);
  const met = answer ? answer.value : null;
  return new Promise((done) => useApp.setState({ twoGrounds: { imported, there, met, isElsewhere: !isComparable, done } }));
} // prettier-ignore

/** Makes an asset the ground of the project, and says so. Returns whether it was taken. */
async function setGround({ sha256, blob }: Packed, on: Whose & { readonly source: string; readonly crs: string | null; readonly says: string }): Promise<boolean> {
  const { source, crs, says, isMadeUp, surveys } = on;
  await keepAsset(sha256, blob);
  const made = { ...(isMadeUp ? { isMadeUp } : {}), ...(surveys ? { surveys } : {}) };
  const isDone = dispatch({ type: 'terrain.set', payload: { terrain: { kind: 'asset', sha256, source, ...made }, crs } });
  if (isDone) notify({ tone: 'fine', title: says, problems: [] });
  return isDone;
} // prettier-ignore

/** What ground made of that of a project is, too. */
const whoseIs = ({ terrain }: Project): Whose => ({
  ...(terrain?.isMadeUp ? { isMadeUp: true } : {}),
  ...(terrain?.surveys ? { surveys: terrain.surveys } : {}),
});

/** What ground made of other ground is called: long chains of names are cut. */
const madeOf = (terrain: Project['terrain'], how: string): string =>
  `${terrain?.kind === 'asset' ? terrain.source.slice(0, 200) : 'the ground'}, ${how}`;

/** Takes ground in. Returns whether it was taken. */
export async function takeGround(project: Project, imported: Ground, whose: Whose = {}): Promise<boolean> {
  const there = await groundThere(project, imported);
  const chosen = there ? await chosenFor(project, imported, there) : 'replace';
  if (chosen === null) return false;
  if (chosen !== 'replace' && there) return layIn({ project, imported, there, whose }, chosen);
  const { asset, source, crs, notes } = imported;
  return setGround(asset, { ...whose, surveys: [await surveyOf(imported)], source, crs, says: [`${source} is in.`, ...notes].join(' ') });
}

/** Lays the new ground into the one there is: a new ground, made of both. */
async function layIn({ project, imported, there, whose }: { readonly project: Project; readonly imported: Ground; readonly there: Blob; readonly whose: Whose }, how: Exclude<GroundChosen, 'replace'>): Promise<boolean> {
  const answer = await runJob(`Laying in ${imported.source}`, (work) => work.patch(there, imported.asset.blob, how));
  if (!answer) return false;
  if (!answer.ok) {
    notify({ tone: 'mend', title: `${imported.source} was not laid in; nothing has changed`, problems: answer.problems });
    return false;
  }
  const by = how.byMarks === undefined ? '' : `, ${how.shiftM < 0 ? 'lowered' : 'raised'} by ${formatQuantity(Math.abs(how.shiftM), 'level', useApp.getState().system)} to ${how.byMarks === 1 ? 'a mark' : `${how.byMarks} marks`} known in both`;
  const says = [`${imported.source} is laid into the ground${by}; undo takes it out again.`, ...imported.notes].join(' ');
  const { ground, reach } = answer.value;
  const surveys = [...(project.terrain ? surveysOf(project.terrain) : []), await surveyOf(imported, { reach, featherM: how.featherM })];
  return setGround(ground, { ...whose, ...whoseIs(project), surveys, source: madeOf(project.terrain, `with ${imported.source}`), crs: project.site.crs, says });
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
  const told = (m: number): string => formatQuantity(m, 'difference', system);
  const says = `The ground is smoothed: its noise is ${told(afterM)}, it was ${told(beforeM)}; no level moved by more than ${told(movedM)}. Undo brings back the ground as it was.`;
  await setGround(asset, { ...whoseIs(history.project), source: madeOf(terrain, 'smoothed'), crs: history.project.site.crs, says });
} // prettier-ignore
