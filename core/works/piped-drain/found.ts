// Why an old drain does not work: what was seen, held against what each cause would show, and what to look at next.
import type { ChoiceSpec, SheetPart } from '../../contract/index.ts';
import { type Amount, amount, say } from '../../units/index.ts';
import { choice, option } from '../fields.ts';

export const CAUSES = ['end', 'silt', 'roots', 'crushed', 'flat', 'holed', 'small', 'grate'] as const;
export type Cause = (typeof CAUSES)[number];

interface CauseCard {
  readonly name: string;
  /** Of ten dead drains somebody digs up: common practice. */
  readonly usual: number;
  readonly repair: string;
}

const CARDS: Readonly<Record<Cause, CauseCard>> = {
  end: { name: 'its end is blocked, buried or drowned', usual: 0.22, repair: 'Find its end with a hose running in at the top, clear it, and put a grille on it: an afternoon, and nothing is dug up.' },
  silt: { name: 'it is full of silt', usual: 0.2, repair: 'Flush it from below upwards and empty the sumps; where a basin has none, set one. If it fills again within a year its fall is too small.' },
  roots: { name: 'roots have grown into it', usual: 0.14, repair: 'Have them cut by rods; then lay that length anew in one piece without a joint, the rest may stay.' },
  crushed: { name: 'it is crushed or pulled apart', usual: 0.1, repair: 'Dig where the rod stops and put in a new length, deeper or under a slab where wheels go.' },
  flat: { name: 'it lies flat or sags', usual: 0.14, repair: 'No cleaning helps: lay it anew from the sag down, at the falls of the cure here, by level and string.' },
  holed: { name: 'it is a holed pipe that was to take what runs', usual: 0.1, repair: 'Leave it for what seeps, and lay whole pipe with basins for what runs: one never does the work of the other.' },
  small: { name: 'it is whole and too small', usual: 0.06, repair: 'Keep it, and lay a second one beside it, or give the rest of the water a way over the ground.' },
  grate: { name: 'its grate lets nothing in', usual: 0.04, repair: 'Sweep it, and set one twice as large, domed where leaves fall.' },
}; // prettier-ignore

/** What was seen of a drain that is there, look by look; left out while nobody looked. */
export interface Found {
  readonly basin?: string;
  readonly end?: string;
  readonly course?: string;
  readonly inside?: string;
  readonly pipe?: string;
  readonly rod?: string;
  readonly falls?: string;
}

interface Look {
  readonly path: keyof Found;
  readonly label: string;
  readonly options: readonly (readonly [id: string, name: string])[];
  /** How it is done, and how long it takes [min]. */
  readonly how: string;
  readonly minutes: number;
  /** How often each cause shows each of the options (a guess from accounts of the trade). */
  readonly shows: Readonly<Record<Cause, readonly number[]>>;
}

/** What can be looked at; how often each cause shows what is common practice put in numbers, and said to be a guess. */
export const LOOKS: readonly Look[] = [
  {
    path: 'basin', label: 'A day after rain its basin is', options: [['empty', 'empty to the pipe'], ['stands', 'full over the pipe']],
    how: 'Look into its basin a day after rain', minutes: 5,
    shows: { end: [0.1, 0.9], silt: [0.3, 0.7], roots: [0.25, 0.75], crushed: [0.15, 0.85], flat: [0.1, 0.9], holed: [0.5, 0.5], small: [0.95, 0.05], grate: [0.9, 0.1] },
  },
  {
    path: 'end', label: 'With a hose running in, at its end', options: [['runs', 'it runs'], ['trickles', 'it trickles'], ['dry', 'nothing comes'], ['hidden', 'nobody knows where that is']],
    how: 'Let a hose run into its basin for a quarter of an hour and go to its end', minutes: 20,
    shows: { end: [0.02, 0.2, 0.43, 0.35], silt: [0.1, 0.6, 0.25, 0.05], roots: [0.1, 0.6, 0.25, 0.05], crushed: [0.05, 0.45, 0.45, 0.05], flat: [0.3, 0.5, 0.15, 0.05], holed: [0.2, 0.5, 0.25, 0.05], small: [0.9, 0.05, 0.02, 0.03], grate: [0.8, 0.1, 0.05, 0.05] },
  },
  {
    path: 'course', label: 'It has worked badly', options: [['always', 'from the beginning'], ['slower', 'slower month by month'], ['sudden', 'from one day to the next']],
    how: 'Ask who has lived there longest since when', minutes: 5,
    shows: { end: [0.15, 0.35, 0.5], silt: [0.05, 0.85, 0.1], roots: [0.03, 0.82, 0.15], crushed: [0.1, 0.15, 0.75], flat: [0.85, 0.12, 0.03], holed: [0.8, 0.18, 0.02], small: [0.9, 0.07, 0.03], grate: [0.1, 0.4, 0.5] },
  },
  {
    path: 'inside', label: 'In its basin lies', options: [['clean', 'nothing'], ['silt', 'silt'], ['roots', 'roots'], ['leaves', 'leaves']],
    how: 'Lift the grate and look in with a torch', minutes: 10,
    shows: { end: [0.5, 0.25, 0.05, 0.2], silt: [0.1, 0.8, 0.03, 0.07], roots: [0.15, 0.15, 0.65, 0.05], crushed: [0.65, 0.2, 0.05, 0.1], flat: [0.35, 0.5, 0.05, 0.1], holed: [0.6, 0.25, 0.1, 0.05], small: [0.8, 0.08, 0.02, 0.1], grate: [0.1, 0.1, 0.02, 0.78] },
  },
  {
    path: 'pipe', label: 'Its pipe is', options: [['whole', 'whole'], ['holed', 'holed or slotted']],
    how: 'Feel the pipe where it leaves the basin, a hand’s length in', minutes: 10,
    shows: { end: [0.85, 0.15], silt: [0.6, 0.4], roots: [0.55, 0.45], crushed: [0.8, 0.2], flat: [0.85, 0.15], holed: [0.02, 0.98], small: [0.9, 0.1], grate: [0.85, 0.15] },
  },
  {
    path: 'rod', label: 'A rod pushed in from its basin', options: [['free', 'goes to the end'], ['at-end', 'stops at its end'], ['hard', 'stops hard on the way'], ['soft', 'sticks in something soft']],
    how: 'Push a rod in from the basin and measure how far it goes', minutes: 40,
    shows: { end: [0.1, 0.75, 0.08, 0.07], silt: [0.25, 0.1, 0.1, 0.55], roots: [0.1, 0.1, 0.3, 0.5], crushed: [0.05, 0.1, 0.75, 0.1], flat: [0.8, 0.05, 0.05, 0.1], holed: [0.8, 0.05, 0.05, 0.1], small: [0.9, 0.03, 0.03, 0.04], grate: [0.9, 0.03, 0.03, 0.04] },
  },
  {
    path: 'falls', label: 'Levelled, its inverts', options: [['fall', 'fall all the way'], ['flat', 'lie flat or rise somewhere']],
    how: 'Level its inverts, basin by basin', minutes: 60,
    shows: { end: [0.9, 0.1], silt: [0.6, 0.4], roots: [0.85, 0.15], crushed: [0.8, 0.2], flat: [0.03, 0.97], holed: [0.7, 0.3], small: [0.9, 0.1], grate: [0.9, 0.1] },
  },
]; // prettier-ignore

export const FOUND_CHOICES: readonly ChoiceSpec[] = LOOKS.map(({ path, label, options }) => ({
  ...choice(`found.${path}`, label, [option('not-looked', 'not looked yet'), ...options.map(([id, name]) => option(id, name))]),
  usual: 'not-looked',
  shownWhen: { path: 'status', is: ['existing', 'built'] },
}));

export type Shares = Readonly<Record<Cause, number>>;

const shareSum = (of: (cause: Cause) => number): number => CAUSES.reduce((a, c) => a + of(c), 0);

/** What was seen of a look, by its place among what can be seen; -1 while nobody looked. */
const seenOf = (found: Found, { path, options }: Look): number => options.findIndex(([id]) => id === found[path]);

/** How likely each cause is by all that was seen, each thing seen taken by itself (Bayes). */
export function causesOf(found: Found): Shares {
  const weigh = (cause: Cause): number =>
    LOOKS.reduce((w, look) => {
      const k = seenOf(found, look);
      return k < 0 ? w : w * look.shows[cause][k];
    }, CARDS[cause].usual);
  const all = shareSum(weigh);
  return Object.fromEntries(CAUSES.map((c) => [c, weigh(c) / all])) as Shares;
}

const doubt = (shares: Shares): number => -shareSum((c) => (shares[c] > 0 ? shares[c] * Math.log2(shares[c]) : 0));

export interface NextLook {
  readonly look: Look;
  /** Doubt it takes away, on average [bit]. */
  readonly learns: number;
}

/** What tells the causes apart for the least time: most doubt taken away a minute. Null where all was looked at. */
export function nextLook(found: Found): NextLook | null {
  const now = causesOf(found);
  const before = doubt(now);
  const all = LOOKS.filter((look) => seenOf(found, look) < 0).map((look): NextLook => {
    const after = look.options.reduce((sum, [id], k) => {
      const comes = shareSum((c) => now[c] * look.shows[c][k]);
      return sum + comes * doubt(causesOf({ ...found, [look.path]: id }));
    }, 0);
    return { look, learns: before - after };
  });
  return all.length === 0 ? null : all.reduce((a, b) => (b.learns / b.look.minutes > a.learns / a.look.minutes ? b : a));
}

/** Causes by how likely they are. */
export const byLikelihood = (shares: Shares): readonly (readonly [cause: Cause, share: number])[] =>
  CAUSES.map((c) => [c, shares[c]] as const).sort(([, a], [, b]) => b - a);

/** Whether anything was looked at. */
export const isLookedAt = ({ found }: { readonly found: Found }): boolean => LOOKS.some((look) => seenOf(found, look) >= 0);

export const causeName = (cause: Cause): string => CARDS[cause].name;
const repairOf = (cause: Cause): string => CARDS[cause].repair;

/** As sure as somebody may be who digs [share], and how few are worth a word. */
const [SURE, WORTH] = [0.7, 0.08];

const inHundred = (share: number): Amount => amount(100 * share, 'count');

/** Why it does not work, what to look at next and what mends it: of a drain that is there. */
export function diagnosisOf({ found }: { readonly found: Found }): SheetPart[] {
  const shares = causesOf(found);
  const ranked = byLikelihood(shares);
  const [[first, share]] = ranked;
  const next = nextLook(found);
  const looks: SheetPart[] =
    next && share < SURE
      ? [{ title: 'Look next', says: [say`${next.look.how}: ${amount(next.look.minutes, 'minutes')}, and it tells most apart for its time.`] }]
      : [];
  return [
    {
      title: 'Likeliest first, of a hundred such drains',
      says: ranked.filter(([, s], k) => k === 0 || s >= WORTH).map(([cause, s]) => say`${inHundred(s)}: ${causeName(cause)}`),
    },
    ...looks,
    { title: share < SURE ? 'If it is the first' : 'What mends it', says: [repairOf(first)] },
    { title: 'Known by', says: ['How often each cause shows what was seen is a guess from the trade’s own accounts, not a measurement: what you see goes before it.'] },
  ];
} // prettier-ignore
